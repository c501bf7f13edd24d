import { Injectable } from '@nestjs/common';
import { mayAt, ofSection } from '#core/access';
import type { BoardReply, BoardSheetReply } from '#contract/board';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews, type PeriodView, type RunningSection } from '#server/period-view';
import { SheetContextService } from '#server/posting';
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
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found */
  ofPeriod(actor: Actor, periodId: number): Promise<BoardReply> {
    return this.transactions.snapshot(async (queries) => {
      const { view, sections } = await this.read(queries, actor, periodId);
      return {
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
