import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { PeriodPostingReply, SchoolReply, TermLineReply } from '#contract/calendar';
import { mayAt, ofSchool, ofSection } from '#core/access';
import { isWithin, localTime, type Day } from '#core/calendar';
import { PeriodsRepository } from '#server/calendar';
import { Clock, Transactions, type Actor, type Queries } from '#server/platform';
import { PeriodViews } from '#server/period-view';
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
  ) {}

  /** Those where somebody has a role. */
  async schools(actor: Actor): Promise<SchoolReply[]> {
    const schools = await this.periods.schools(this.transactions.reading);
    return schools.filter(({ id }) => mayAt(actor, 'see-school', ofSchool(id)));
  }

  /**
   * Counts the sections whose sheets the person may open. Three queries, unless the set-up was written since the last
   * time, each of its own moment: the line is asked for again whenever anything is saved.
   */
  async ofSchoolOrThrow(actor: Actor, schoolId: number): Promise<TermLineReply> {
    const queries = this.transactions.reading;
    const facts = await this.views.factsOf(queries, schoolId);
    const wishes = facts.periods.flatMap((period) => {
      const [reporting] = this.views.viewOf(facts, period).reported;
      if (!reporting) return [];
      const sectionIds = reporting.sections
        .filter((section) => mayAt(actor, 'read-grades', ofSection(schoolId, section)))
        .map(({ id }) => id);
      return [{ period, reporting, itemId: reporting.item.id, sectionIds }];
    });
    const progress = await this.progress.ofPeriods(queries, wishes);
    const marks = await this.marksOf(queries, schoolId);
    const posting = new Map(
      wishes.map(({ period, reporting }): [number, PeriodPostingReply] => {
        const sections = [...progress.get(period.id)!.values()];
        return [
          period.id,
          {
            itemId: reporting.item.id,
            itemName: reporting.item.name,
            sections: sections.length,
            sectionsComplete: sections.filter(({ expected, posted }) => posted >= expected).length,
            window: this.contexts.windowOf(reporting),
            ...marks.get(period.id)!,
          },
        ];
      }),
    );
    const periods = facts.periods.map(({ id, parentId, kind, name, startsOn, endsOn }) => ({
      id,
      parentId,
      kind,
      name,
      startsOn,
      endsOn,
      posting: posting.get(id) ?? null,
    }));
    const now = this.clock.now();
    return {
      school: facts.school,
      now: now.toISOString(),
      periods,
      suggestedPeriodId: suggestedPeriod(periods, localTime(facts.zone, now).day),
    };
  }

  /** When each period was sealed, and its newest audit. */
  private async marksOf(
    queries: Queries,
    schoolId: number,
  ): Promise<ReadonlyMap<number, Pick<PeriodPostingReply, 'sealedAt' | 'audit'>>> {
    const { rows } = await queries.execute<{
      id: number;
      sealed_at: string | null;
      audited_at: string | null;
      findings: number;
    }>(sql`
      SELECT p.id, s.sealed_at, r.started_at AS audited_at,
             (SELECT count(*) FROM audit_findings f WHERE f.run_id = r.id)::int AS findings
      FROM periods p LEFT JOIN seals s ON s.period_id = p.id
      LEFT JOIN LATERAL (SELECT id, started_at FROM audit_runs WHERE period_id = p.id ORDER BY id DESC LIMIT 1) r ON true
      WHERE p.school_id = ${schoolId}`);
    return new Map(
      rows.map(({ id, sealed_at, audited_at, findings }) => [
        id,
        { sealedAt: isoOf(sealed_at), audit: audited_at === null ? null : { at: isoOf(audited_at)!, findings } },
      ]),
    );
  }
}

function isoOf(instant: string | null): string | null {
  return instant === null ? null : new Date(instant).toISOString();
}

type TermLinePeriod = TermLineReply['periods'][number];

function suggestedPeriod(periods: readonly TermLinePeriod[], today: Day): number {
  const reported = periods.filter(({ posting }) => posting !== null);
  const open = reported
    .filter(({ posting }) => posting!.window?.state === 'open')
    .toSorted((a, b) => Date.parse(a.posting!.window!.closesAt) - Date.parse(b.posting!.window!.closesAt))[0];
  const current = reported.find((period) => isWithin(today, period));
  const period = open ?? current ?? reported[0] ?? periods[0];
  if (!period) throw new Error('a school without periods');
  return period.id;
}
