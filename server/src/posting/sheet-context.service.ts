import { Injectable } from '@nestjs/common';
import { windowState } from '#core/calendar';
import type { ReportItem } from '#core/report-items';
import type { WindowReply } from '#contract/calendar';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import {
  PeriodViews,
  reportedOrThrow,
  scaleOf,
  type PeriodView,
  type ReportedItem,
  type RunningSection,
  type SectionScale,
} from '#server/period-view';
import { Clock, Refusal, type Queries } from '#server/platform';

/** All that stands around the rows of a grade sheet. */
export interface SheetContext {
  readonly view: PeriodView;
  readonly section: RunningSection;
  readonly item: ReportItem;
  readonly period: SchoolPeriod;
  readonly window: WindowReply | null;
  readonly sealedAt: Date | null;
  readonly scale: SectionScale;
  /** Whether the school takes attendance by day. */
  readonly takesAttendance: boolean;
}

@Injectable()
export class SheetContextService {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found, scale-missing */
  async ofSheetOrThrow(
    queries: Queries,
    { sectionId, itemId, periodId }: { sectionId: number; itemId: number; periodId: number },
  ): Promise<SheetContext> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const facts = await this.views.factsOf(queries, period.schoolId);
    const view = this.views.viewOf(facts, period);
    const reported = reportedOrThrow(view, itemId);
    const { item } = reported;
    const section = reported.sections.find(({ id }) => id === sectionId);
    if (!section) throw new Refusal('not-found', { what: `section that reports ${item.name}`, id: sectionId });
    const scale = scaleOf(reported, section.id);
    if (!scale) throw new Refusal('scale-missing', { course: section.course.title });
    const sealedAt = await this.periods.sealedAt(queries, periodId);
    const { takesAttendance } = facts.school;
    return { view, section, item, period, window: this.windowOf(reported), sealedAt, scale, takesAttendance };
  }

  windowOf({ window }: Pick<ReportedItem, 'window'>): WindowReply | null {
    if (!window) return null;
    const { itemId: _itemId, periodId: _periodId, ...times } = window;
    return { ...times, state: windowState(times, this.clock.now().toISOString()) };
  }
}
