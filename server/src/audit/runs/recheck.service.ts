import { Injectable } from '@nestjs/common';
import { auditByParts, recheck, rulesOfOneSection, type Rechecked } from '#core/audit';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews } from '#server/period-view';
import type { Queries } from '#server/platform';
import { AuditRunsRepository, type AuditRun } from './audit-runs.repository.js';
import { SnapshotService } from '../snapshots/snapshot.service.js';
import { takeTurns } from './take-turns.js';
import { TouchedSectionsRepository, type Touched } from './touched-sections.repository.js';

/** So many sections are looked at again while somebody waits; after more than that another audit is what is wanted. */
const mostSections = 30;

/** What is so of an audit's findings now, of what was changed since. */
export interface Since extends Touched, Rechecked {
  /** Those of its sections that were looked at again: all of them, or none where they are too many. */
  readonly looked: ReadonlySet<number>;
}

/** Looks again at what was changed since an audit, so that what was set right shows at once. */
@Injectable()
export class RecheckService {
  constructor(
    private readonly runs: AuditRunsRepository,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly snapshots: SnapshotService,
    private readonly touched: TouchedSectionsRepository,
  ) {}

  /** @param only the sections that are asked about; without them, all that were touched */
  async since(queries: Queries, run: AuditRun, only?: readonly number[]): Promise<Since> {
    const period = await this.periods.byIdOrThrow(queries, run.periodId);
    const { sections } = await this.views.of(queries, period);
    const asked = new Set(only ?? sections.map(({ id }) => id));
    const { sectionIds: all, isBeyond } = await this.touched.since(queries, run.startedAt);
    // The log is the district's: what goes on in other schools is no matter of this period.
    const sectionIds = all.filter((id) => asked.has(id));
    const looked = sectionIds.length > mostSections ? [] : sectionIds;
    return { sectionIds, isBeyond, looked: new Set(looked), ...(await this.again(queries, run, period, looked)) };
  }

  /** As the rules were in force when the audit ran: another severity or threshold is a matter of the next one. */
  private async again(
    queries: Queries,
    run: AuditRun,
    period: SchoolPeriod,
    sectionIds: readonly number[],
  ): Promise<Rechecked> {
    if (sectionIds.length === 0) return { gone: new Set(), still: new Map(), added: [] };
    const { snapshot } = await this.snapshots.ofAudit(queries, period, sectionIds);
    const audit = auditByParts(rulesOfOneSection, new Map(run.rules.map((rule) => [rule.id, rule])));
    await takeTurns(audit.lookAt(snapshot));
    return recheck(await this.runs.findingsOfSections(queries, run.id, sectionIds), audit.outcomes());
  }
}
