import { Injectable } from '@nestjs/common';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { mayAt, ofSection } from '#core/access';
import { formatAtLeast, formatDecimal } from '#core/numbers';
import {
  bodyOfMark,
  type ComputedReply,
  type FileSourceReply,
  type PostingRequestReply,
  type SheetListReply,
  type SheetReply,
  type SheetRowReply,
  type StandardsReply,
} from '#contract/posting';
import { bodyOfBand } from '#contract/scales';
import { bodyOfCode } from '#contract/codes';
import { CodesRepository } from '#server/codes';
import { RecalculationService } from '#server/calculation';
import { AttendanceRepository } from '#server/attendance';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository } from '#server/calendar';
import { tables, Transactions, type Actor, type Queries, spokenName } from '#server/platform';
import { PeriodViews, ScaleVersionsRepository, type ScaleVersion } from '#server/period-view';
import { computedValue, type GradeRow } from '#core/grade-rows';
import { GradeRowsRepository } from '#server/grade-rows';
import { CompositesService } from './composites.service.js';
import { SectionProgressRepository } from './section-progress.repository.js';
import { ReceiptsRepository } from './receipts.repository.js';
import { onBehalfOf } from './on-behalf-of.js';
import { PostingRequestsRepository } from './posting-requests.repository.js';
import { sheetId, type SheetPlace } from './sheet-place.js';
import { SignOffsRepository } from './sign-offs.repository.js';
import { givenNamesOf } from '#core/people';
import { StockCommentsThing } from './stock-comments.thing.js';
import { SheetContextService, type SheetContext } from './sheet-context.service.js';

const { fileColumns, fileImports, people } = tables;

/** Reads grade sheets. */
@Injectable()
export class SheetsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly contexts: SheetContextService,
    private readonly rows: GradeRowsRepository,
    private readonly progress: SectionProgressRepository,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly scales: ScaleVersionsRepository,
    private readonly composites: CompositesService,
    private readonly recalculation: RecalculationService,
    private readonly receipts: ReceiptsRepository,
    private readonly specialCodes: CodesRepository,
    private readonly signOffs: SignOffsRepository,
    private readonly requests: PostingRequestsRepository,
    private readonly stock: StockCommentsThing,
    private readonly attendance: AttendanceRepository,
    private readonly ruleSettings: RuleSettingsRepository,
  ) {}

  /** The sheets of a period that the person may open, one list for each item reported in it. */
  async list(actor: Actor, periodId: number): Promise<SheetListReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const lists: SheetListReply[] = [];
      for (const reported of (await this.views.of(queries, period)).reported) {
        const { item, sections } = reported;
        const own = sections.filter((section) => mayAt(actor, 'read-grades', ofSection(period.schoolId, section)));
        const progress = await this.progress.of(queries, {
          period,
          itemId: item.id,
          sectionIds: own.map(({ id }) => id),
        });
        const sheets = own.flatMap(({ id, name, course, teacher }) => {
          const { expected, posted } = progress.get(id) ?? { expected: 0, posted: 0 };
          return [
            {
              sectionId: id,
              section: name,
              courseCode: course.code,
              department: course.department,
              teacher,
              expected,
              posted,
            },
          ];
        });
        const window = this.contexts.windowOf(reported);
        lists.push({ itemId: item.id, itemName: item.name, window, sheets });
      }
      return lists;
    });
  }

  async open(actor: Actor, sheet: SheetPlace): Promise<SheetReply> {
    const { period } = await this.contexts.ofSheetOrThrow(this.transactions.reading, sheet);
    await this.recalculation.freshen(period, [sheet.sectionId]);
    return this.transactions.snapshot((queries) => this.read(queries, actor, sheet));
  }

  /** The sheets of all standards of a section. @throws Refusal not-found, scale-missing */
  async standards(actor: Actor, place: Omit<SheetPlace, 'itemId'>): Promise<StandardsReply> {
    const period = await this.periods.byIdOrThrow(this.transactions.reading, place.periodId);
    await this.recalculation.freshen(period, [place.sectionId]);
    return this.transactions.snapshot(async (queries) => {
      const view = await this.views.of(queries, period);
      const isOfSection = ({ sections }: (typeof view.reported)[number]) =>
        sections.some(({ id }) => id === place.sectionId);
      const sheets: SheetReply[] = [];
      for (const { item } of view.reported.filter((each) => each.item.kind === 'standard' && isOfSection(each)))
        sheets.push(await this.read(queries, actor, { ...place, itemId: item.id }));
      return { sheets };
    });
  }

  private async read(queries: Queries, actor: Actor, sheet: SheetPlace): Promise<SheetReply> {
    const context = await this.contexts.ofSheetOrThrow(queries, sheet);
    const { section, item, period, scale } = context;
    const rows = await this.rows.ofSections(queries, item, period, [section.id]);
    const versions = await this.versionsOf(queries, rows, scale);
    return {
      sectionId: section.id,
      section: section.name,
      course: section.course.title,
      teacher: section.teacher,
      itemId: item.id,
      itemName: item.name,
      itemKind: item.kind,
      source: item.source,
      onTranscript: item.onTranscript,
      countsInGpa: item.countsInGpa,
      failingNeedsLastDate: item.failingNeedsLastDate,
      asksHours: item.asksHours,
      commentRule: item.commentRule,
      commentBelow: item.commentBelow,
      commentLength: item.commentLength,
      period: { id: period.id, name: period.name, startsOn: period.startsOn, endsOn: period.endsOn },
      window: context.window,
      sealedAt: context.sealedAt?.toISOString() ?? null,
      mayPost: mayAt(actor, 'post-grades', ofSection(context.period.schoolId, context.section)),
      allowsExempt: section.course.allowsExempt,
      ruleEffects: await this.ruleSettings.effectsIn(queries, period.schoolId, section.course),
      onBehalfOf: onBehalfOf(actor, section)?.name ?? null,
      signedOff: (await this.signOffs.ofSheets(queries, [sheetId(sheet)])).get(sheetId(sheet)) ?? null,
      requests: (await this.requests.ofSheet(queries, actor, sheet)).map(requestReply),
      stockComments: (await this.stock.read(queries, [String(period.schoolId)])).get(String(period.schoolId)) ?? [],
      scaleName: scale.scaleName,
      scaleFrom: scale.from,
      scales: [...versions.values()].map(({ number, bands }) => ({ version: number, bands: bands.map(bodyOfBand) })),
      scaleVersion: scale.number,
      highestLevel: scale.highestLevel && formatDecimal(scale.highestLevel),
      highestPercent: formatAtLeast(item.highestPercent, 0),
      digits: item.digits,
      rounding: item.rounding,
      codes: (await this.specialCodes.all(queries)).map(bodyOfCode),
      rows: await this.replyRows(queries, context, rows),
      receipts: await this.receipts.ofSheet(queries, { sectionId: section.id, itemId: item.id, periodId: period.id }),
    };
  }

  /** The rows of a sheet as they stand, for a reply. */
  async replyRows(queries: Queries, context: SheetContext, rows: readonly GradeRow[]): Promise<SheetRowReply[]> {
    const sources = await this.sourcesOf(queries, rows, context.item.id);
    const versions = await this.versionsOf(queries, rows, context.scale);
    const blocking = await this.assignmentNames(queries, rows);
    const { item, period, section, scale } = context;
    const attendance = context.takesAttendance
      ? await this.attendance.summaries(queries, [section.id], period)
      : undefined;
    const composites = await this.composites.ofSections(queries, item, period, new Map([[section.id, scale]]));
    return rows.map((row) => {
      const { enrollmentId, studentId, student, studentNumber, pronoun, enteredOn, withdrawnOn } = row;
      const { version, postedBy } = row;
      return {
        enrollmentId,
        studentId,
        student,
        studentNumber,
        givenNames: givenNamesOf(student),
        pronoun,
        enteredOn,
        withdrawnOn,
        version,
        postedBy,
        mark: bodyOfMark(row.mark),
        computedThen: row.computedThen && formatDecimal(row.computedThen),
        postedAt: row.postedAt?.toISOString() ?? null,
        scaleVersion: versions.get(row.scaleVersionId ?? context.scale.id)!.number,
        composite: composites.get(enrollmentId) ?? null,
        computed: computedReply(row, scale, sources),
        attendance: attendance?.get(enrollmentId) ?? null,
        blockedBy: row.blockedBy.map((id) => blocking.get(id) ?? `assignment ${id}`),
      };
    });
  }

  /** The names of the assignments that block somebody's percent. */
  private async assignmentNames(queries: Queries, rows: readonly GradeRow[]): Promise<ReadonlyMap<number, string>> {
    const ids = [...new Set(rows.flatMap(({ blockedBy }) => blockedBy))];
    if (ids.length === 0) return new Map();
    const { assignments } = tables;
    const found = await queries
      .select({ id: assignments.id, name: assignments.name })
      .from(assignments)
      .where(inArray(assignments.id, ids));
    return new Map(found.map(({ id, name }) => [id, name]));
  }

  private async versionsOf(queries: Queries, rows: readonly GradeRow[], inForce: ScaleVersion) {
    const ids = rows.flatMap(({ scaleVersionId }) => scaleVersionId ?? []);
    return this.scales.byId(queries, [...new Set([inForce.id, ...ids])]);
  }

  /** The files that computed percents came from. */
  private async sourcesOf(
    queries: Queries,
    rows: readonly GradeRow[],
    itemId: number,
  ): Promise<ReadonlyMap<number, ComputedSource>> {
    const ids = [...new Set(rows.flatMap(({ computed }) => computed?.file?.importId ?? []))];
    if (ids.length === 0) return new Map();
    const found = await queries
      .select({
        id: fileImports.id,
        fileName: fileImports.fileName,
        column: sql<string>`coalesce(${fileImports.header} ->> ${fileColumns.position}, '')`,
        acceptedAt: fileImports.acceptedAt,
        acceptedBy: spokenName,
      })
      .from(fileImports)
      .innerJoin(people, eq(people.id, fileImports.acceptedBy))
      .leftJoin(fileColumns, and(eq(fileColumns.importId, fileImports.id), eq(fileColumns.itemId, itemId)))
      .where(inArray(fileImports.id, ids));
    return new Map(
      found.map(({ id, acceptedAt, ...source }) => [id, { ...source, acceptedAt: acceptedAt!.toISOString() }]),
    );
  }
}

type ComputedSource = Pick<FileSourceReply, 'fileName' | 'column' | 'acceptedAt' | 'acceptedBy'>;

/** A request as the wire has it: its sheet is known. */
function requestReply({ id, askedBy, isOwn, askedAt, changes, note, state, answer, answeredBy }: PostingRequestReply) {
  return { id, askedBy, isOwn, askedAt, changes, note, state, answer, answeredBy };
}

function computedReply(
  row: GradeRow,
  scale: ScaleVersion,
  sources: ReadonlyMap<number, ComputedSource>,
): ComputedReply | null {
  const value = computedValue(row, scale);
  if (!value) return null;
  const { file } = row.computed!;
  const source = file && sources.get(file.importId)!;
  return { percent: formatDecimal(value), file: source && { ...source, fileRow: file.importRow } };
}
