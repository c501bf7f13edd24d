import { PeriodsRepository } from '#server/calendar';
import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { AuditRunsRepository } from '../runs/audit-runs.repository.js';
import { namesOfFindings } from './finding-note.thing.js';
import { periodFindingOf } from './period-finding.js';
import { WaiversRepository, type WaiverValue } from './waivers.repository.js';

/** Waivers, by the finding and its period. A sealed period keeps those it was sealed with. */
@ThingOf({
  kind: 'waiver',
  called: 'the waiver',
  change: 'audit',
  see: 'read-findings',
  at: (id) => ({ kind: 'period', id: periodFindingOf(id).periodId }),
})
export class WaiverThing implements Thing<WaiverValue> {
  constructor(
    private readonly waivers: WaiversRepository,
    private readonly runs: AuditRunsRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  async names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return namesOfFindings(this.runs, queries, ids);
  }

  async hold(queries: Queries, ids: readonly string[]): Promise<void> {
    const periods = [...new Set(ids.map((id) => periodFindingOf(id).periodId))].toSorted((a, b) => a - b);
    for (const id of periods)
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, WaiverValue>> {
    return this.waivers.values(queries, ids);
  }

  async check(): Promise<void> {}

  write(queries: Queries, values: ReadonlyMap<string, WaiverValue | null>): Promise<void> {
    return this.waivers.write(queries, values);
  }
}
