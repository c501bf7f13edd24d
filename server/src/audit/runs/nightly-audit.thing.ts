import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { NightlyAuditsRepository, type NightlyAudit } from './nightly-audits.repository.js';

/** When the periods of a school are audited by themselves, by the school's number. */
@ThingOf({
  kind: 'nightly-audit',
  called: 'the nightly audit',
  change: 'change-set-up',
  see: 'read-findings',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class NightlyAuditThing implements Thing<NightlyAudit> {
  constructor(private readonly nightly: NightlyAuditsRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, NightlyAudit>> {
    const found = new Map<string, NightlyAudit>();
    for (const id of ids) {
      const set = await this.nightly.ofSchool(queries, Number(id));
      if (set) found.set(id, set.value);
    }
    return found;
  }

  async write(queries: Queries, values: ReadonlyMap<string, NightlyAudit | null>): Promise<void> {
    for (const [id, value] of values) await this.nightly.set(queries, Number(id), value);
  }

  async check(): Promise<void> {}
}
