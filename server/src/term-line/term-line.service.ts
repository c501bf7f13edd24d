import { Injectable } from '@nestjs/common';
import { count, desc, eq } from 'drizzle-orm';
import type { PeriodPostingReply, TermLineReply } from '#contract/calendar';
import { isWithin, type Day } from '#core/calendar';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Clock, DistrictZone, Refusal, tables, Transactions, type Actor, type Queries } from '#server/platform';
import { periodView } from '#core/period-view';
import { PeriodViews, type SchoolFacts } from '#server/period-view';
import { canOpenSheet } from '#server/posting';
import { SectionProgressRepository } from '#server/posting';
import { SheetContextService } from '#server/posting';

/** How far a school's year is: its periods, and for each what is posted, open and sealed. */
@Injectable()
export class TermLineService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly progress: SectionProgressRepository,
    private readonly contexts: SheetContextService,
    private readonly clock: Clock,
    private readonly zone: DistrictZone,
  ) {}

  async schools() {
    const rows = await this.periods.schools(this.transactions.reading);
    return rows.map(({ id, name, shortName }) => ({ id, name, shortName }));
  }

  /** Counts the sections whose sheets the person may open. */
  async ofSchoolOrThrow(actor: Actor, schoolId: number): Promise<TermLineReply> {
    const queries = this.transactions.reading;
    const school = (await this.schools()).find(({ id }) => id === schoolId);
    if (!school) throw new Refusal('not-found', { what: 'school', id: schoolId });
    const facts = await this.views.factsOf(queries, schoolId);
    const periods = [];
    for (const period of facts.periods) {
      const { schoolId: _schoolId, ...own } = period;
      periods.push({ ...own, posting: await this.postingOf(queries, actor, facts, period) });
    }
    const now = this.clock.now();
    const { day } = await this.zone.localTime(queries, now);
    return { school, now: now.toISOString(), periods, suggestedPeriodId: suggestedPeriod(periods, day) };
  }

  private async postingOf(
    queries: Queries,
    actor: Actor,
    facts: SchoolFacts,
    period: SchoolPeriod,
  ): Promise<PeriodPostingReply | null> {
    const [reporting] = periodView(facts, period).reported;
    if (!reporting) return null;
    const { item } = reporting;
    const sections = reporting.sections.filter((section) => canOpenSheet(actor, section));
    const progress = await this.progress.of(
      queries,
      item.id,
      period,
      sections.map(({ id }) => id),
    );
    const complete = [...progress.values()].filter(({ expected, posted }) => posted >= expected);
    return {
      itemId: item.id,
      itemName: item.name,
      sections: progress.size,
      sectionsComplete: complete.length,
      window: this.contexts.windowOf(reporting),
      sealedAt: (await this.periods.sealedAt(queries, period.id))?.toISOString() ?? null,
      audit: await this.newestAudit(queries, period.id),
    };
  }

  private async newestAudit(queries: Queries, periodId: number): Promise<PeriodPostingReply['audit']> {
    const { auditFindings, auditRuns } = tables;
    const [run] = await queries
      .select({ at: auditRuns.startedAt, findings: count(auditFindings.id) })
      .from(auditRuns)
      .leftJoin(auditFindings, eq(auditFindings.runId, auditRuns.id))
      .where(eq(auditRuns.periodId, periodId))
      .groupBy(auditRuns.id)
      .orderBy(desc(auditRuns.id))
      .limit(1);
    return run ? { at: run.at.toISOString(), findings: run.findings } : null;
  }
}

type TermLinePeriod = TermLineReply['periods'][number];

function suggestedPeriod(periods: readonly TermLinePeriod[], today: Day): number {
  const reported = periods.filter(({ posting }) => posting !== null);
  const open = reported.find(({ posting }) => posting!.window?.state === 'open');
  const current = reported.find((period) => isWithin(today, period));
  const period = open ?? current ?? reported[0] ?? periods[0];
  if (!period) throw new Error('a school without periods');
  return period.id;
}
