import type { RuleSettings } from '#core/audit';
import { ThingOf, type Thing } from '#server/changes';
import type { Queries } from '#server/platform';
import { RuleSettingsRepository } from './rule-settings.repository.js';

const called = 'the rules of the audit';

/** What rules do in a school, by the school's number. */
@ThingOf({
  kind: 'audit-rules',
  called,
  change: 'change-set-up',
  see: 'read-findings',
  at: (id) => ({ kind: 'school', id: Number(id) }),
})
export class RuleSettingsThing implements Thing<RuleSettings> {
  constructor(private readonly settings: RuleSettingsRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, RuleSettings>> {
    const found = new Map<string, RuleSettings>();
    for (const id of ids) found.set(id, await this.settings.read(queries, Number(id)));
    return found;
  }

  async write(queries: Queries, values: ReadonlyMap<string, RuleSettings | null>): Promise<void> {
    for (const [id, value] of values) await this.settings.write(queries, Number(id), value ?? {});
  }

  async check(): Promise<void> {}
}

/** What rules do in all schools that do not say otherwise; there is one of it, the district's. */
@ThingOf({
  kind: 'shared-audit-rules',
  called: `${called} in all schools`,
  change: 'change-shared-set-up',
  see: 'read-set-up',
  at: () => null,
})
export class SharedRuleSettingsThing implements Thing<RuleSettings> {
  constructor(private readonly settings: RuleSettingsRepository) {}

  async read(queries: Queries, [id]: readonly string[]): Promise<ReadonlyMap<string, RuleSettings>> {
    return new Map([[id!, await this.settings.read(queries, null)]]);
  }

  async write(queries: Queries, values: ReadonlyMap<string, RuleSettings | null>): Promise<void> {
    for (const value of values.values()) await this.settings.write(queries, null, value ?? {});
  }

  async check(): Promise<void> {}
}
