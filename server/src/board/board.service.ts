import { Injectable } from '@nestjs/common';
import { mayAt, ofSchool, ofSection } from '#core/access';
import { sheetState, totalsOf } from '#core/board';
import type { BoardReply, BoardSchoolReply, BoardSheetReply } from '#contract/board';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews, type PeriodView, type RunningSection } from '#server/period-view';
import { SheetContextService } from '#server/posting';
import { TermLineService } from '#server/term-line';
import { Clock, Transactions, type Actor, type Queries } from '#server/platform';
import { BoardSheets } from './board-sheets.service.js';

/** All sheets of a period, with the sections that somebody may look at. */
export interface BoardOfActor {
  readonly period: SchoolPeriod;
  readonly view: PeriodView;
  readonly sections: readonly { readonly section: RunningSection; readonly sheets: readonly BoardSheetReply[] }[];
}

/** How far the sheets of a period are. */
@Injectable()
export class BoardService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly sheets: BoardSheets,
    private readonly contexts: SheetContextService,
    private readonly termLines: TermLineService,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found */
  async ofPeriod(actor: Actor, periodId: number): Promise<BoardReply> {
    const { periodName: _name, ...board } = await this.boardOf(actor, periodId);
    return board;
  }

  private boardOf(actor: Actor, periodId: number): Promise<BoardReply & { readonly periodName: string }> {
    return this.transactions.snapshot(async (queries) => {
      const { period, view, sections } = await this.read(queries, actor, periodId);
      return {
        periodName: period.name,
        now: this.clock.now().toISOString(),
        sealedAt: (await this.periods.sealedAt(queries, periodId))?.toISOString() ?? null,
        items: view.reported.map((reported) => ({
          itemId: reported.item.id,
          name: reported.item.name,
          heading: reported.item.heading,
          window: this.contexts.windowOf(reported),
        })),
        sections: sections.map(({ section: { id, name, course, teacherId, teacher }, sheets }) => ({
          sectionId: id,
          section: name,
          courseCode: course.code,
          department: course.department,
          teacherId,
          teacher,
          sheets,
        })),
      };
    });
  }

  /** The schools that somebody may look at as a whole, each in the period that is posted there now. */
  async ofSchools(actor: Actor): Promise<BoardSchoolReply[]> {
    const schools = (await this.periods.schools(this.transactions.reading)).filter(({ id }) =>
      mayAt(actor, 'read-findings', ofSchool(id)),
    );
    const replies: BoardSchoolReply[] = [];
    for (const { id, shortName } of schools) {
      const { suggestedPeriodId } = await this.termLines.ofSchoolOrThrow(actor, id);
      const { now, sealedAt, items, sections, periodName } = await this.boardOf(actor, suggestedPeriodId);
      const windowOf = new Map(items.map(({ itemId, window }) => [itemId, window]));
      const states = sections.flatMap(({ sheets }) =>
        sheets.map((counts) => {
          const window = windowOf.get(counts.itemId) ?? null;
          const facts = { counts, isSignedOff: counts.signedOff !== null, window, isSealed: sealedAt !== null };
          return { ...sheetState(facts, now), counts };
        }),
      );
      replies.push({
        schoolId: id,
        school: shortName,
        periodId: suggestedPeriodId,
        period: periodName,
        sealedAt,
        ...totalsOf(states),
      });
    }
    return replies;
  }

  /** Within a snapshot. @throws Refusal not-found */
  async read(queries: Queries, actor: Actor, periodId: number): Promise<BoardOfActor> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const view = await this.views.of(queries, period);
    const sheets = await this.sheets.of(queries, view, period);
    const sections = view.sections.flatMap((section) => {
      const own = sheets.get(section.id);
      const isFor = own && mayAt(actor, 'read-grades', ofSection(period.schoolId, section));
      return isFor ? [{ section, sheets: own }] : [];
    });
    return { period, view, sections };
  }
}
