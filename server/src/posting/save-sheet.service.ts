import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { mayAt, ofSection } from '#core/access';
import { parseDay } from '#core/calendar';
import { judgePercent, type Mark } from '#core/posting';
import { formatDecimal, parseDecimal, type Decimal } from '#core/numbers';
import { commentFault, type ReportItem } from '#core/report-items';
import {
  bodyOfMark,
  markOfBody,
  type MarkChangeBody,
  type SaveSheetReply,
  type SaveSheetRequest,
} from '#contract/posting';
import { PeriodsRepository } from '#server/calendar';
import { Changes } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { GradeRowsRepository, type GradeRow } from './grade-rows.repository.js';
import { gradeId } from './grade-place.js';
import { canPost } from './posting-policy.js';
import { ReceiptsRepository } from './receipts.repository.js';
import { SheetContextService, type SheetContext } from './sheet-context.service.js';
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
    private readonly changes: Changes,
  ) {}

  async save(
    actor: Actor,
    sheet: { sectionId: number; itemId: number; periodId: number },
    request: SaveSheetRequest,
  ): Promise<SaveSheetReply> {
    return this.transactions.run(async (queries) => {
      const context = await this.contexts.ofSheetOrThrow(queries, sheet);
      await this.periods.holdUnsealedOrThrow(queries, context.period);
      refuseWhereNotOpen(actor, context, request.outsideWindow === true);
      const before = await this.lockedRows(queries, context);
      const changes = checkedChanges(request.changes, before, context);
      const change = await this.changes.make(queries, actor, {
        action: `post ${context.item.name} of ${context.section.name}`,
        edits: changes.map(({ row, after }) => ({
          kind: 'grade',
          id: gradeId({ ...sheet, enrollmentId: row.enrollmentId }),
          after: isEmpty(after) ? null : { ...bodyOfMark(after), scaleVersionId: context.scale.id },
        })),
      });
      const saved = new Set(changes.map(({ row }) => row.enrollmentId));
      const rows = await this.rows.ofSections(queries, context.item.id, context.period, [context.section.id]);
      return {
        receipt: change === null ? null : (await this.receipts.ofSheet(queries, sheet))[0]!,
        rows: await this.sheets.replyRows(
          queries,
          context,
          rows.filter(({ enrollmentId }) => saved.has(enrollmentId)),
        ),
      };
    });
  }

  /** Nobody else saves the same section meanwhile; a second save waits and then sees the new versions. */
  private async lockedRows(
    queries: Queries,
    { section, item, period }: SheetContext,
  ): Promise<ReadonlyMap<number, GradeRow>> {
    await queries.execute(sql`SELECT id FROM sections WHERE id = ${section.id} FOR UPDATE`);
    const rows = await this.rows.ofSections(queries, item.id, period, [section.id]);
    return new Map(rows.map((row) => [row.enrollmentId, row]));
  }
}

/** Whether a mark says nothing, so that none is posted. */
function isEmpty({ percent, label, code, lastDate, hours, comment }: Mark): boolean {
  return (percent ?? label ?? code ?? lastDate ?? hours) === null && comment === '';
}

interface MarkChange {
  readonly row: GradeRow;
  readonly after: Mark;
}

function refuseWhereNotOpen(actor: Actor, { section, item, period, window }: SheetContext, saysOutside: boolean): void {
  const state = window?.state ?? 'closed';
  const mayOutside = mayAt(actor, 'post-outside-window', ofSection(period.schoolId, section));
  if (!canPost(window, mayOutside, saysOutside)) {
    throw new Refusal('window-closed', { item: item.name, period: period.name, state });
  }
}

/** @throws Refusal fields-wrong naming each change at fault, or grades-changed naming each row saved meanwhile */
function checkedChanges(
  changes: readonly MarkChangeBody[],
  rows: ReadonlyMap<number, GradeRow>,
  { item, scale: { highestLevel } }: SheetContext,
): MarkChange[] {
  const faults = changes.flatMap((change, index) => [
    ...changeFaults(change, index, rows, changes, highestLevel),
    ...itemFaults(change, index, item),
  ]);
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
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
  highestLevel: Decimal | null,
): FieldFault[] {
  const fault = (field: string, detail: string) => ({ field: `changes.${index}.${field}`, detail });
  const faults: FieldFault[] = [];
  if (!rows.has(change.enrollmentId)) faults.push(fault('enrollmentId', 'a student of this section'));
  if (changes.findIndex(({ enrollmentId }) => enrollmentId === change.enrollmentId) < index) {
    faults.push(fault('enrollmentId', 'each student at most once'));
  }
  const percent = change.percent === null ? undefined : parseDecimal(change.percent);
  if (percent && judgePercent(percent, highestLevel)) {
    const right = highestLevel
      ? `a level from 0 to ${formatDecimal(highestLevel)}`
      : 'a percentage from 0 to 200, such as 86.4';
    faults.push(fault('percent', right));
  }
  if (change.lastDate !== null && !parseDay(change.lastDate))
    faults.push(fault('lastDate', 'a day that exists, such as 2026-01-16'));
  if (change.label !== null && change.code !== null) faults.push(fault('code', 'either a label or a code, not both'));
  return faults;
}

/** What the item takes: comments of its length or none, hours or none. A comment that is needed is for the margin to ask. */
function itemFaults(change: MarkChangeBody, index: number, item: ReportItem): FieldFault[] {
  const fault = commentFault(item, change, []);
  const faults: FieldFault[] = [];
  if (fault === 'comment-not-taken') {
    faults.push({ field: `changes.${index}.comment`, detail: `nothing, as ${item.name} takes no comment` });
  }
  if (fault === 'comment-too-long') {
    faults.push({ field: `changes.${index}.comment`, detail: `at most ${item.commentLength} characters` });
  }
  if (change.hours != null && !item.asksHours) {
    faults.push({ field: `changes.${index}.hours`, detail: `nothing, as ${item.name} asks for no hours` });
  }
  return faults;
}
