import type { GpaPolicyBody } from '#contract/transcripts';
import { ThingOf, type Thing } from '#server/changes';
import { GpaPolicyRepository } from '#server/period-view';
import type { Queries } from '#server/platform';

/** How averages are made; there is one of it, the district's. */
@ThingOf({
  kind: 'gpa-settings',
  called: 'the GPA settings',
  change: 'change-shared-set-up',
  see: 'read-set-up',
  at: () => null,
})
export class GpaSettingsThing implements Thing<GpaPolicyBody> {
  constructor(private readonly policies: GpaPolicyRepository) {}

  async read(queries: Queries, [id]: readonly string[]): Promise<ReadonlyMap<string, GpaPolicyBody>> {
    return new Map([[id!, await this.policies.read(queries)]]);
  }

  async write(queries: Queries, values: ReadonlyMap<string, GpaPolicyBody | null>): Promise<void> {
    for (const policy of values.values()) if (policy) await this.policies.write(queries, policy);
  }

  async check(): Promise<void> {}
}
