import { Injectable } from '@nestjs/common';
import { ordinalOf, periodKinds, yearOf, type Period } from '#core/calendar';
import { formatDecimal } from '#core/numbers';
import { coverage, coverageChange, isPostedIn, type Assignment, type CourseCoverage } from '#core/report-items';
import {
  bodyOfAssignment,
  bodyOfItem,
  itemOfBody,
  type ItemRulesBody,
  type AssignmentPreviewReply,
  type CoverReply,
  type NewItemRequest,
  type OrderItemsRequest,
  type ReportItemsReply,
  type SaveAssignmentRequest,
  type SaveItemRequest,
} from '#contract/report-items';
import { PeriodsRepository } from '#server/calendar';
import { CoursesRepository } from '#server/courses';
import { PlacementsRepository, scaleSource, seekerOf } from '#server/placements';
import { Changes, revisionOf, type Edit } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ItemWindowsRepository } from './item-windows.repository.js';
import { LabelsRepository } from './labels.repository.js';
import { valueOfItem } from './report-item.thing.js';
import { ReportItemsRepository } from './report-items.repository.js';

@Injectable()
export class ReportItemsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly items: ReportItemsRepository,
    private readonly courses: CoursesRepository,
    private readonly placements: PlacementsRepository,
    private readonly periods: PeriodsRepository,
    private readonly labels: LabelsRepository,
    private readonly windows: ItemWindowsRepository,
    private readonly changes: Changes,
  ) {}

  /** With the scale that each course uses in a period. */
  ofSchool(schoolId: number, periodId: number): Promise<ReportItemsReply> {
    return this.transactions.snapshot((queries) => this.read(queries, schoolId, periodId));
  }

  /** What other rules and exceptions would add and remove, and how many posted grades would lose their place. */
  async preview(schoolId: number, body: ItemRulesBody): Promise<AssignmentPreviewReply> {
    const queries = this.transactions.reading;
    const courses = await this.courses.ofSchool(queries, schoolId);
    const items = await this.items.ofSchool(queries, schoolId);
    const [before, after] = [await this.items.assignmentOf(queries, schoolId), assignmentOf(schoolId, body)];
    const posted = await this.items.postedByCourse(queries, schoolId);
    const changes = coverageChange(
      courses,
      before,
      after,
      items.map(({ id }) => id),
    );
    return {
      courses: coverage(courses, after).map((covered) => ({
        id: covered.course.id,
        covers: coverReplies(covered, after),
      })),
      changes: changes.map(({ itemId, added, removed }) => ({
        itemId,
        added: added.map(({ id, title }) => ({ id, title })),
        removed: removed.map(({ id, title }) => {
          const found = posted.find((each) => each.itemId === itemId && each.courseId === id);
          return { id, title, postedGrades: found?.posted ?? 0 };
        }),
      })),
    };
  }

  /** Puts rules and exceptions in the place of what the school had: all of them, or none. */
  async saveAssignment(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { revision, rules, exceptions }: SaveAssignmentRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const after = { rules: rules.map((rule) => ({ ...rule })), exceptions: exceptions.map((each) => ({ ...each })) };
      await this.changes.make(queries, actor, {
        action: 'save the rules and exceptions',
        edits: [{ kind: 'report-rules', id: String(schoolId), expected: revision, after }],
      });
      return this.read(queries, schoolId, periodId);
    });
  }

  async add(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { windowsLike, ...body }: NewItemRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const id = await this.items.nextId(queries);
      const item = itemOfBody(body, { id, schoolId, position: await this.items.endOf(queries, schoolId) });
      const edits: Edit[] = [{ kind: 'report-item', id: String(id), after: valueOfItem(item) }];
      if (windowsLike !== null) {
        const periods = await this.periods.ofSchool(queries, schoolId);
        const own = new Set(periods.filter((period) => isPostedIn(item, periods, period)).map((period) => period.id));
        const like = (await this.windows.ofItems(queries, [windowsLike])).get(String(windowsLike)) ?? [];
        const after = like.filter((window) => own.has(window.periodId));
        if (after.length > 0) edits.push({ kind: 'item-windows', id: String(id), after });
      }
      await this.changes.make(queries, actor, { action: `add ${item.name}`, edits });
      return this.read(queries, schoolId, periodId);
    });
  }

  async change(
    actor: Actor,
    id: number,
    periodId: number,
    { revision, ...body }: SaveItemRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.items.byIdOrThrow(queries, id);
      const after = valueOfItem(itemOfBody(body, before));
      await this.changes.make(queries, actor, {
        action: `change ${before.name}`,
        edits: [{ kind: 'report-item', id: String(id), expected: revision, after }],
      });
      return this.read(queries, before.schoolId, periodId);
    });
  }

  /** Removes an item with its rules, exceptions and windows; not one that grades hang on. */
  async remove(actor: Actor, id: number, periodId: number): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const { name, schoolId } = await this.items.byIdOrThrow(queries, id);
      const before = bodyOfAssignment(await this.items.assignmentOf(queries, schoolId));
      const isOther = ({ itemId }: { itemId: number }) => itemId !== id;
      const without = { rules: before.rules.filter(isOther), exceptions: before.exceptions.filter(isOther) };
      await this.changes.make(queries, actor, {
        action: `delete ${name}`,
        edits: [
          { kind: 'report-rules', id: String(schoolId), expected: revisionOf(before), after: without },
          { kind: 'item-windows', id: String(id), after: null },
          { kind: 'report-item', id: String(id), after: null },
        ],
      });
      return this.read(queries, schoolId, periodId);
    });
  }

  /** Puts the items into another order than the one that was seen, where it is still the one they are in. */
  async order(
    actor: Actor,
    schoolId: number,
    periodId: number,
    { itemIds, seen }: OrderItemsRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      if (!isSameSet(itemIds, seen))
        throw new Refusal('fields-wrong', {}, [{ field: 'itemIds', detail: 'each item that was seen, once' }]);
      const items = await this.items.ofSchool(queries, schoolId);
      const positions = items.map(({ position }) => position);
      const edits = items.map((item): Edit => {
        const value = valueOfItem(item);
        const [before, after] = [positions[seen.indexOf(item.id)], positions[itemIds.indexOf(item.id)]];
        // An item that was not seen is one that has come since.
        const expected = before === undefined ? revisionOf(null) : revisionOf({ ...value, position: before });
        return { kind: 'report-item', id: String(item.id), expected, after: { ...value, position: after } };
      });
      const own = new Set(items.map(({ id }) => id));
      // One that is gone since is not what it was.
      for (const id of seen.filter((each) => !own.has(each)))
        edits.push({ kind: 'report-item', id: String(id), expected: '', after: null });
      await this.changes.make(queries, actor, { action: 'order the report items', edits });
      return this.read(queries, schoolId, periodId);
    });
  }

  private async read(queries: Queries, schoolId: number, periodId: number): Promise<ReportItemsReply> {
    const items = await this.items.ofSchool(queries, schoolId);
    const assignment = await this.items.assignmentOf(queries, schoolId);
    const courses = await this.courses.ofSchool(queries, schoolId);
    const placements = await this.placements.inPeriod(queries, schoolId, periodId);
    const names = await this.placements.scaleNames(queries);
    const posted = await this.items.postedByCourse(queries, schoolId);
    const scales = await this.labels.scalesOf(queries, schoolId);
    const schoolScale = placements.findLast(({ kind }) => kind === 'system' || kind === 'school')?.scaleId;
    const bodies = bodyOfAssignment(assignment);
    return {
      revision: revisionOf(bodies),
      items: items.map((item) => ({
        ...bodyOfItem(item),
        id: item.id,
        revision: revisionOf(valueOfItem(item)),
        scaleName: item.scaleId === null ? null : names.get(item.scaleId)!,
        labels: scales.find(({ id }) => id === (item.scaleId ?? schoolScale))?.labels ?? [],
        descriptors: scales.find(({ id }) => id === (item.scaleId ?? schoolScale))?.descriptors ?? [],
        postedGrades: posted.reduce((sum, each) => sum + (each.itemId === item.id ? each.posted : 0), 0),
      })),
      ...bodies,
      departments: [...new Set(courses.map(({ department }) => department))].toSorted(),
      kinds: [...new Set(courses.map(({ kind }) => kind).filter((kind) => kind !== ''))].toSorted(),
      scales,
      categories: await this.items.categoriesOf(queries, schoolId),
      periods: periodNames(await this.periods.ofSchool(queries, schoolId)),
      courses: coverage(courses, assignment).map((covered) => {
        const {
          schoolId: _schoolId,
          credits,
          mostCredits: _most,
          countsInGpa: _gpa,
          allowsExempt: _exempt,
          ...course
        } = covered.course;
        return {
          ...course,
          credits: formatDecimal(credits),
          scaleName: scaleSource(placements, names, seekerOf(covered.course))?.name ?? null,
          covers: coverReplies(covered, assignment),
        };
      }),
    };
  }
}

/** Whether both hold the same, each once. */
function isSameSet(some: readonly number[], others: readonly number[]): boolean {
  const sizes = [some, others, [...some, ...others]].map((ids) => new Set(ids).size);
  return [some.length, others.length].every((length) => sizes.every((size) => size === length));
}

function assignmentOf(schoolId: number, { rules, exceptions }: ItemRulesBody): Assignment {
  return {
    rules: rules.map((rule, index) => ({ ...rule, id: index, schoolId, position: index })),
    exceptions: exceptions.map((exception, index) => ({ ...exception, id: index })),
  };
}

function coverReplies({ covers }: CourseCoverage, { rules, exceptions }: Assignment): CoverReply[] {
  return covers.map(({ itemId, reports, by }) => ({
    itemId,
    reports,
    kind: by.kind,
    at: (by.kind === 'rule' ? rules : exceptions).findIndex(({ id }) => id === by.id),
  }));
}

/** The names of a school's periods by kind, in their order in the year, those of the newest year where years differ. */
function periodNames(periods: readonly Period[]): ReportItemsReply['periods'] {
  return periodKinds.flatMap((kind) => {
    const own = periods.filter((period) => period.kind === kind);
    const latest = own.at(-1) && yearOf(periods, own.at(-1)!);
    const names = own
      .filter((period) => yearOf(periods, period).id === latest?.id)
      .toSorted((a, b) => ordinalOf(periods, a) - ordinalOf(periods, b))
      .map(({ name }) => name);
    return names.length > 0 ? [{ kind, names }] : [];
  });
}
