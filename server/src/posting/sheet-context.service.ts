import { Injectable } from '@nestjs/common';
import { windowState } from '#core/calendar';
import type { WindowReply } from '#contract/calendar';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Clock, Refusal, type Actor, type Queries } from '#server/platform';
import { ReportingService, ReportItemsRepository, type ReportingSection, type KeptItem } from '#server/report-items';
import { SectionScales, type SectionScale } from '#server/scales';
import { canOpenSheet } from './posting-policy.js';

/** All that stands around the rows of a grade sheet. */
export interface SheetContext {
  readonly section: ReportingSection;
  readonly item: KeptItem;
  readonly period: SchoolPeriod;
  readonly window: WindowReply | null;
  readonly sealedAt: Date | null;
  readonly scale: SectionScale;
}

@Injectable()
export class SheetContextService {
  constructor(
    private readonly periods: PeriodsRepository,
    private readonly reporting: ReportingService,
    private readonly items: ReportItemsRepository,
    private readonly scales: SectionScales,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal not-found, not-allowed */
  async ofSheetOrThrow(
    queries: Queries,
    actor: Actor,
    { sectionId, itemId, periodId }: { sectionId: number; itemId: number; periodId: number },
  ): Promise<SheetContext> {
    const period = await this.periods.byIdOrThrow(queries, periodId);
    const { item, sections } = await this.reporting.ofItemOrThrow(queries, period, itemId);
    const section = sections.find(({ id }) => id === sectionId);
    if (!section) throw new Refusal('not-found', { what: `section that reports ${item.name}`, id: sectionId });
    if (!canOpenSheet(actor, section)) throw new Refusal('not-allowed');
    const scale = (await this.scales.inForce(queries, item, period, [section])).get(section.id);
    if (!scale) throw new Refusal('scale-missing', { course: section.course.title });
    return {
      section,
      item,
      period,
      window: await this.windowOf(queries, itemId, periodId),
      sealedAt: await this.periods.sealedAt(queries, periodId),
      scale,
    };
  }

  async windowOf(queries: Queries, itemId: number, periodId: number): Promise<WindowReply | null> {
    const window = (await this.items.windowsOf(queries, itemId)).get(periodId);
    return window ? { ...window, state: windowState(window, this.clock.now().toISOString()) } : null;
  }
}
