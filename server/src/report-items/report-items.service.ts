import { Injectable } from '@nestjs/common';
import { ordinalOf, periodKinds, yearOf, type Period } from '#core/calendar';
import { formatDecimal } from '#core/numbers';
import { coverage, coverageChange, isPostedIn, type Assignment, type CourseCoverage } from '#core/report-items';
import {
  bodyOfItem,
  itemOfBody,
  type AssignmentBody,
  type AssignmentPreviewReply,
  type CoverReply,
  type NewItemRequest,
  type ReportItemsReply,
  type SaveAssignmentRequest,
  type SaveItemRequest,
} from '#contract/report-items';
import { PeriodsRepository } from '#server/calendar';
import { CoursesRepository, PlacementsRepository, scaleSource, seekerOf } from '#server/courses';
import { bringBackRows, ChangeLog, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ItemChecks } from './item-checks.service.js';
import { LabelsRepository } from './labels.repository.js';
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
    private readonly checks: ItemChecks,
    private readonly log: ChangeLog,
  ) {}

  /** With the scale that each course uses in a period. */
  ofSchool(schoolId: number, periodId: number): Promise<ReportItemsReply> {
    return this.read(this.transactions.reading, schoolId, periodId);
  }

  /** What other rules and exceptions would add and remove, and how many posted grades would lose their place. */
  async preview(schoolId: number, body: AssignmentBody): Promise<AssignmentPreviewReply> {
    const queries = this.transactions.reading;
    const courses = await this.courses.ofSchool(queries, schoolId);
    const items = await this.items.ofSchool(queries, schoolId);
    const [before, after] = [await this.assignment(queries, schoolId), assignmentOf(schoolId, body)];
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
    request: SaveAssignmentRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const before = await this.assignment(queries, schoolId);
      const bodies = bodyOfAssignment(before);
      if (revisionOf(bodies) !== request.revision)
        throw new Refusal('set-up-changed', { what: 'rules and exceptions' });
      await this.checks.refuseUnknown(queries, schoolId, request);
      const { rules, exceptions } = request;
      await this.items.replaceAssignment(queries, schoolId, rules, exceptions);
      await this.log.record(queries, actor, [
        { action: 'save rules', thing: `school ${schoolId}`, before: bodies, after: { rules, exceptions } },
      ]);
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
      await this.checks.refuseFaulty(queries, schoolId, null, body);
      const item = itemOfBody(body, { id: 0, schoolId, position: 0 });
      const { id: _id, position: _position, ...facts } = item;
      const id = await this.items.add(queries, facts);
      if (windowsLike !== null) {
        const periods = await this.periods.ofSchool(queries, schoolId);
        const own = periods.filter((period) => isPostedIn(item, periods, period)).map((period) => period.id);
        await this.items.copyWindows(queries, windowsLike, id, own);
      }
      await this.log.record(queries, actor, [
        { action: 'add report item', thing: `item ${id}`, before: null, after: body },
      ]);
      return this.read(queries, schoolId, periodId);
    });
  }

  async change(
    actor: Actor,
    id: number,
    periodId: number,
    { version, ...body }: SaveItemRequest,
  ): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const { version: _version, ...before } = await this.items.byIdOrThrow(queries, id);
      await this.checks.refuseFaulty(queries, before.schoolId, id, body);
      if (!(await this.items.change(queries, itemOfBody(body, before), version))) {
        throw new Refusal('set-up-changed', { what: `properties of ${before.name}` });
      }
      const change = { action: 'change report item', thing: `item ${id}`, before: bodyOfItem(before), after: body };
      await this.log.record(queries, actor, [change]);
      return this.read(queries, before.schoolId, periodId);
    });
  }

  /** Takes an item out with its rules, exceptions and windows; not one that grades hang on. */
  async remove(actor: Actor, id: number, periodId: number): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const item = await this.items.byIdOrThrow(queries, id);
      const uses = await this.items.usesOf(queries, id);
      if (uses) {
        const instead = 'Let its rules omit every course instead: what is posted is kept and no sheet asks for more.';
        throw new Refusal('in-use', { what: 'The item', name: item.name, uses, instead });
      }
      const before = { ...bodyOfItem(item), rows: await this.items.remove(queries, id) };
      await this.log.record(queries, actor, [
        { action: 'remove report item', thing: `item ${id}`, before, after: null },
      ]);
      return this.read(queries, item.schoolId, periodId);
    });
  }

  /** Undoes the removal of an item: with its rules, exceptions and windows, under the number that it had. */
  async restore(actor: Actor, id: number, periodId: number): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      await bringBackRows(queries, `item ${id}`, 'report item');
      const item = await this.items.byIdOrThrow(queries, id);
      const after = bodyOfItem(item);
      await this.checks.refuseFaulty(queries, item.schoolId, id, after);
      await this.log.record(queries, actor, [
        { action: 'bring back report item', thing: `item ${id}`, before: null, after },
      ]);
      return this.read(queries, item.schoolId, periodId);
    });
  }

  async order(actor: Actor, schoolId: number, periodId: number, itemIds: readonly number[]): Promise<ReportItemsReply> {
    return this.transactions.run(async (queries) => {
      const before = (await this.items.ofSchool(queries, schoolId)).map(({ id }) => id);
      if (itemIds.toSorted().join() !== before.toSorted().join()) {
        throw new Refusal('fields-wrong', {}, [{ field: 'itemIds', detail: 'each item of the school once' }]);
      }
      await this.items.order(queries, itemIds);
      await this.log.record(queries, actor, [
        { action: 'order report items', thing: `school ${schoolId}`, before, after: itemIds },
      ]);
      return this.read(queries, schoolId, periodId);
    });
  }

  private async read(queries: Queries, schoolId: number, periodId: number): Promise<ReportItemsReply> {
    const items = await this.items.ofSchool(queries, schoolId);
    const assignment = await this.assignment(queries, schoolId);
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
        version: item.version,
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
        const { schoolId: _schoolId, credits, mostCredits: _most, countsInGpa: _gpa, ...course } = covered.course;
        return {
          ...course,
          credits: formatDecimal(credits),
          scaleName: scaleSource(placements, names, seekerOf(covered.course))?.name ?? null,
          covers: coverReplies(covered, assignment),
        };
      }),
    };
  }

  private async assignment(queries: Queries, schoolId: number): Promise<Assignment> {
    return {
      rules: await this.items.rulesOfSchool(queries, schoolId),
      exceptions: await this.items.exceptionsOfSchool(queries, schoolId),
    };
  }
}

function bodyOfAssignment({ rules, exceptions }: Assignment): AssignmentBody {
  return {
    rules: rules.map(({ itemId, effect, department, level, kind, length }) => ({
      itemId,
      effect,
      department,
      level,
      kind,
      length,
    })),
    exceptions: exceptions.map(({ itemId, courseId, effect, reason }) => ({ itemId, courseId, effect, reason })),
  };
}

function assignmentOf(schoolId: number, { rules, exceptions }: AssignmentBody): Assignment {
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
