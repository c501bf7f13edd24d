import { Injectable } from '@nestjs/common';
import { recheck, rulesOfOneSection, runRulesInTurn, type Rechecked } from '#core/audit';
import { PeriodsRepository } from '#server/calendar';
import type { Queries } from '#server/platform';
import { AuditRunsRepository, type AuditRun } from './audit-runs.repository.js';
import { SnapshotService } from './snapshot.service.js';
import { takeTurns } from './take-turns.js';
import { TouchedSectionsRepository, type Touched } from './touched-sections.repository.js';

/** So many sections are looked at again while somebody waits; after more than that another audit is what is wanted. */
const mostSections = 30;

/** What is so of an audit's findings now, of what was changed since. */
export interface Since extends Touched, Rechecked {
  /** Those of the sections that were looked at again: all of them, or none where they are too many. */
  readonly looked: ReadonlySet<number>;
}

/** Looks again at what was changed since an audit, so that what was set right shows at once. */
@Injectable()
export class RecheckService {
  constructor(
    private readonly runs: AuditRunsRepository,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly touched: TouchedSectionsRepository,
  ) {}

  /** @param only the sections that are asked about; without them, all that were touched */
  async since(queries: Queries, run: AuditRun, only?: readonly number[]): Promise<Since> {
    const touched = await this.touched.since(queries, run.startedAt);
    const wanted = only ? touched.sectionIds.filter((id) => only.includes(id)) : touched.sectionIds;
    const looked = wanted.length > mostSections ? [] : wanted;
    return { ...touched, looked: new Set(looked), ...(await this.again(queries, run, looked)) };
  }

  /** As the rules were in force when the audit ran: another severity or threshold is a matter of the next one. */
  private async again(queries: Queries, run: AuditRun, sectionIds: readonly number[]): Promise<Rechecked> {
    if (sectionIds.length === 0) return { gone: new Set(), still: new Map(), added: [] };
    const period = await this.periods.byIdOrThrow(queries, run.periodId);
    const { snapshot } = await this.snapshots.ofAudit(queries, period, new Set(sectionIds));
    const inForce = new Map(run.rules.map((rule) => [rule.id, rule]));
    const now = await takeTurns(runRulesInTurn(rulesOfOneSection, snapshot, inForce));
    return recheck(await this.runs.findingsOfSections(queries, run.id, sectionIds), now);
  }
}
