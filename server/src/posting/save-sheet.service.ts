import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { parseDay } from '#core/calendar';
import { computedValue, type GradeRow } from '#core/grade-rows';
import {
  computedOf,
  entryRulesFor,
  isOverride,
  judgePercent,
  lastDateFault,
  proposedMark,
  type Mark,
} from '#core/posting';
import { compareDecimals, formatAtLeast, formatDecimal, parseDecimal } from '#core/numbers';
import { commentFault, type ReportItem } from '#core/report-items';
import {
  bodyOfMark,
  markOfBody,
  type CompositeReply,
  type MarkChangeBody,
  type SaveSheetReply,
  type SaveSheetRequest,
  type SaveStandardsRequest,
} from '#contract/posting';
import { counted } from '#contract/messages';
import { PeriodsRepository } from '#server/calendar';
import { Changes } from '#server/changes';
import { GradeRowsRepository } from '#server/grade-rows';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { CompositesService } from './composites.service.js';
import { gradeId } from './grade-place.js';
import { onBehalfInWords } from './on-behalf-of.js';
import { refuseWhereNotOpen } from './refuse-where-not-open.js';
import { ReceiptsRepository } from './receipts.repository.js';
import { SheetContextService, type SheetContext } from './sheet-context.service.js';
import type { SheetPlace } from './sheet-place.js';
import { SheetsService } from './sheets.service.js';

/** Saves a grade sheet: all the changes or none, and one receipt. */
@Injectable()
export class SaveSheetService {
  constructor(
    private readonly transactions: Transactions,
    private readonly contexts: SheetContextService,
    private readonly periods: PeriodsRepository,
    private readonly rows: GradeRowsRepository,
    private readonly sheets: SheetsService,
    private readonly receipts: ReceiptsRepository,
    private readonly composites: CompositesService,
    private readonly changes: Changes,
  ) {}

  async save(actor: Actor, { itemId, ...place }: SheetPlace, request: SaveSheetRequest): Promise<SaveSheetReply> {
    const { changes, ...rest } = request;
    const [reply] = await this.saveAll(actor, place, { ...rest, sheets: [{ itemId, changes }] });
    return reply!;
  }

  /** Several sheets of one section and period in one change: all of them or none. The replies stand in the order of the request. */
  async saveAll(
    actor: Actor,
    place: Omit<SheetPlace, 'itemId'>,
    { sheets, outsideWindow }: SaveStandardsRequest,
  ): Promise<SaveSheetReply[]> {
    return this.transactions.run(async (queries) => {
      const planned: PlannedSheet[] = [];
      for (const [at, { itemId, changes }] of sheets.entries()) {
        const context = await this.contexts.ofSheetOrThrow(queries, { ...place, itemId });
        await this.periods.holdUnsealedOrThrow(queries, context.period);
        refuseWhereNotOpen(actor, context, outsideWindow === true);
        const before = await this.lockedRows(queries, context);
        planned.push({
          context,
          changes: checkedChanges(changes, before, context, sheets.length === 1 ? '' : `sheets.${at}.`),
        });
      }
      const change = await this.changes.make(queries, actor, {
        action: actionOf(actor, planned),
        edits: await this.editsOf(queries, planned),
      });
      const replies: SaveSheetReply[] = [];
      for (const each of planned) replies.push(await this.replyOf(queries, each, change !== null));
      return replies;
    });
  }

  /** What sets marks of a sheet, whoever wants them set, for a change of the caller's. Locks the section. @throws Refusal not-found */
  async editsOfMarks(queries: Queries, sheet: SheetPlace, marks: ReadonlyMap<number, Mark>) {
    const context = await this.contexts.ofSheetOrThrow(queries, sheet);
    const rows = await this.lockedRows(queries, context);
    const changes = [...marks].map(([enrollmentId, after]) => ({ row: rows.get(enrollmentId)!, after }));
    return this.editsOf(queries, [{ context, changes }]);
  }

  private async editsOf(queries: Queries, planned: readonly PlannedSheet[]) {
    const edits: { kind: 'grade'; id: string; after: object | null }[] = [];
    for (const { context, changes } of planned) {
      const { item, period, section, scale } = context;
      const composites = await this.composites.ofSections(queries, item, period, new Map([[section.id, scale]]));
      for (const { row, after } of changes) {
        const id = gradeId({ itemId: item.id, periodId: period.id, enrollmentId: row.enrollmentId });
        const composite = composites.get(row.enrollmentId) ?? null;
        edits.push({ kind: 'grade', id, after: isEmpty(after) ? null : this.valueOf(after, row, context, composite) });
      }
    }
    return edits;
  }

  private async replyOf(
    queries: Queries,
    { context, changes }: PlannedSheet,
    isChanged: boolean,
  ): Promise<SaveSheetReply> {
    const { item, period, section } = context;
    const saved = new Set(changes.map(({ row }) => row.enrollmentId));
    const rows = await this.rows.ofSections(queries, item, period, [section.id]);
    const [receipt] = await this.receipts.ofSheet(queries, {
      sectionId: section.id,
      itemId: item.id,
      periodId: period.id,
    });
    const own = rows.filter(({ enrollmentId }) => saved.has(enrollmentId));
    return {
      receipt: isChanged && changes.length > 0 ? receipt! : null,
      rows: await this.sheets.replyRows(queries, context, own),
    };
  }

  /** What is kept of a mark: beside it, what is computed now, and whether it says otherwise. */
  private valueOf(mark: Mark, row: GradeRow, { item, scale, view }: SheetContext, composite: CompositeReply | null) {
    const computed = computedValue(row, scale);
    const beside = { computed: computed && { percent: formatDecimal(computed) }, composite };
    const rules = entryRulesFor(scale, item, [...view.codes.values()]);
    const then = computedOf(beside);
    const isOther = isOverride(mark, proposedMark(beside, mark, rules));
    return {
      ...bodyOfMark({ ...mark, overrideReason: isOther ? mark.overrideReason : '' }),
      scaleVersionId: scale.id,
      computedThen: then && formatAtLeast(then, 0),
      isOverride: isOther,
    };
  }

  /** Nobody else saves the same section meanwhile; a second save waits and then sees the new versions. */
  private async lockedRows(
    queries: Queries,
    { section, item, period }: SheetContext,
  ): Promise<ReadonlyMap<number, GradeRow>> {
    await queries.execute(sql`SELECT id FROM sections WHERE id = ${section.id} FOR UPDATE`);
    const rows = await this.rows.ofSections(queries, item, period, [section.id]);
    return new Map(rows.map((row) => [row.enrollmentId, row]));
  }
}

/** Whether a mark says nothing, so that none is posted. */
function isEmpty({ percent, label, code, lastDate, hours, comment }: Mark): boolean {
  return (percent ?? label ?? code ?? lastDate ?? hours) === null && comment === '';
}

/** One sheet of a save, and what changes on it. */
interface PlannedSheet {
  readonly context: SheetContext;
  readonly changes: readonly MarkChange[];
}

function actionOf(actor: Actor, planned: readonly PlannedSheet[]): string {
  const { item, section } = planned[0]!.context;
  const what = planned.length === 1 ? item.name : counted(planned.length, 'standard');
  return `post ${what} of ${section.name}${onBehalfInWords(actor, section)}`;
}

interface MarkChange {
  readonly row: GradeRow;
  readonly after: Mark;
}

/** @throws Refusal fields-wrong naming each change at fault, or grades-changed naming each row saved meanwhile */
function checkedChanges(
  changes: readonly MarkChangeBody[],
  rows: ReadonlyMap<number, GradeRow>,
  context: SheetContext,
  /** Before the name of a field at fault: of which sheet of several. */
  within: string,
): MarkChange[] {
  const faults = changes.flatMap((change, index) => [
    ...changeFaults(change, index, rows, changes, context),
    ...itemFaults(change, index, rows.get(change.enrollmentId)?.mark, context.item),
  ]);
  if (faults.length > 0)
    throw new Refusal(
      'fields-wrong',
      {},
      faults.map(({ field, detail }) => ({ field: within + field, detail })),
    );
  const stale = changes.filter(({ enrollmentId, version }) => rows.get(enrollmentId)!.version !== version);
  if (stale.length > 0) {
    const fields = stale.map(({ enrollmentId }) => {
      const { student, postedBy } = rows.get(enrollmentId)!;
      return {
        field: `enrollments.${enrollmentId}`,
        detail: `${student} was saved by ${postedBy ?? 'someone else'} meanwhile`,
      };
    });
    throw new Refusal('grades-changed', { count: stale.length }, fields);
  }
  return changes.map((change) => ({ row: rows.get(change.enrollmentId)!, after: markOfBody(change) }));
}

function changeFaults(
  change: MarkChangeBody,
  index: number,
  rows: ReadonlyMap<number, GradeRow>,
  changes: readonly MarkChangeBody[],
  { scale, item, period }: SheetContext,
): FieldFault[] {
  const fault = (field: string, detail: string) => ({ field: `changes.${index}.${field}`, detail });
  const faults: FieldFault[] = [];
  if (!rows.has(change.enrollmentId)) faults.push(fault('enrollmentId', 'a student of this section'));
  if (changes.findIndex(({ enrollmentId }) => enrollmentId === change.enrollmentId) < index) {
    faults.push(fault('enrollmentId', 'each student at most once'));
  }
  const percent = change.percent === null ? undefined : parseDecimal(change.percent);
  const { highestLevel } = scale;
  const { highestPercent } = item;
  // What stands there already, from when the item took more, keeps nobody from changing the rest.
  const standing = rows.get(change.enrollmentId)?.mark.percent;
  const isNew = percent && !(standing && compareDecimals(standing, percent) === 0);
  if (isNew && judgePercent(percent, { highestLevel, highestPercent })) {
    const right = highestLevel
      ? `a level from 0 to ${formatDecimal(highestLevel)}`
      : `a percentage from 0 to ${formatAtLeast(highestPercent, 0)}, such as 86.4`;
    faults.push(fault('percent', right));
  }
  const lastDate = change.lastDate === null ? null : parseDay(change.lastDate);
  if (lastDate === undefined) faults.push(fault('lastDate', 'a day that exists, such as 2026-01-16'));
  // What stands there already, from wherever, keeps nobody from changing the rest.
  else if (lastDate && lastDate !== rows.get(change.enrollmentId)?.mark.lastDate) {
    const right = {
      'day-placeholder': `the day that the student last came; ${lastDate} is what programs write for no date`,
      'day-outside': `a day from ${period.startsOn} to ${period.endsOn}`,
    };
    const wrong = lastDateFault(lastDate, period);
    if (wrong) faults.push(fault('lastDate', right[wrong]));
  }
  if (change.label !== null && change.code !== null) faults.push(fault('code', 'either a label or a code, not both'));
  return faults;
}

/** What the item takes: comments of its length or none, hours or none. A comment that is needed is for the margin to ask. */
function itemFaults(change: MarkChangeBody, index: number, standing: Mark | undefined, item: ReportItem): FieldFault[] {
  // What stands there already, from when the item took it, keeps nobody from changing the rest.
  const fault = change.comment === standing?.comment ? null : commentFault(item, change, []);
  const faults: FieldFault[] = [];
  if (fault === 'comment-not-taken') {
    faults.push({ field: `changes.${index}.comment`, detail: `nothing, as ${item.name} takes no comment` });
  }
  if (fault === 'comment-too-long') {
    faults.push({ field: `changes.${index}.comment`, detail: `at most ${item.commentLength} characters` });
  }
  const hours = change.hours == null ? undefined : parseDecimal(change.hours);
  const isNew = hours && !(standing?.hours && compareDecimals(standing.hours, hours) === 0);
  if (isNew && !item.asksHours) {
    faults.push({ field: `changes.${index}.hours`, detail: `nothing, as ${item.name} asks for no hours` });
  }
  return faults;
}
