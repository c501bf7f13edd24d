import { Injectable } from '@nestjs/common';
import { auditRules, effectOf, type RuleEffect, type RuleSettings } from '#core/audit';
import type { RuleSettingsReply, SaveRuleSettingsRequest } from '#contract/audit';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { RuleSettingsRepository } from './rule-settings.repository.js';

/** How severe each rule is in a school, and which are switched off; the next audit goes by it. */
@Injectable()
export class RuleSettingsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly settings: RuleSettingsRepository,
    private readonly changes: Changes,
  ) {}

  ofSchool(schoolId: number): Promise<RuleSettingsReply> {
    return this.transactions.snapshot((queries) => this.replyOf(queries, schoolId));
  }

  /** @throws Refusal fields-wrong, changed-meanwhile */
  save(actor: Actor, schoolId: number, request: SaveRuleSettingsRequest): Promise<RuleSettingsReply> {
    return this.saved(actor, schoolId, request, { kind: 'audit-rules', id: String(schoolId) });
  }

  /** For the district. @throws Refusal fields-wrong, changed-meanwhile */
  saveShared(actor: Actor, schoolId: number, request: SaveRuleSettingsRequest): Promise<RuleSettingsReply> {
    return this.saved(actor, schoolId, request, { kind: 'shared-audit-rules', id: 'district' });
  }

  private saved(
    actor: Actor,
    schoolId: number,
    { rules, revision }: SaveRuleSettingsRequest,
    thing: { readonly kind: string; readonly id: string },
  ): Promise<RuleSettingsReply> {
    const after = settingsOrThrow(rules);
    return this.transactions.run(async (queries) => {
      const { shortName } = await this.periods.schoolOrThrow(queries, schoolId);
      const where = thing.id === 'district' ? 'all schools' : shortName;
      const edit = { ...thing, expected: revision, after };
      await this.changes.make(queries, actor, { action: `set the rules of the audit in ${where}`, edits: [edit] });
      return this.replyOf(queries, schoolId);
    });
  }

  private async replyOf(queries: Queries, schoolId: number): Promise<RuleSettingsReply> {
    await this.periods.schoolOrThrow(queries, schoolId);
    const school = await this.settings.read(queries, schoolId);
    const district = await this.settings.read(queries, null);
    return {
      rules: auditRules.map((rule) => ({
        id: rule.id,
        family: rule.family,
        summary: rule.summary,
        why: rule.why,
        scope: rule.scope,
        own: rule.severity,
        district: district[rule.id] ?? null,
        school: school[rule.id] ?? null,
        inForce: effectOf(rule, school, district),
      })),
      schoolRevision: revisionOf(school),
      districtRevision: revisionOf(district),
    };
  }
}

/** @throws Refusal fields-wrong naming each rule that there is not, or that is said twice */
function settingsOrThrow(rules: SaveRuleSettingsRequest['rules']): RuleSettings {
  const known = new Set(auditRules.map(({ id }) => id));
  const faults = rules.flatMap(({ ruleId }, at) => {
    const isTwice = rules.findIndex((each) => each.ruleId === ruleId) < at;
    if (known.has(ruleId) && !isTwice) return [];
    return [{ field: `rules.${at}.ruleId`, detail: isTwice ? 'each rule at most once' : 'a rule of the audit' }];
  });
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
  return Object.fromEntries(
    rules
      .filter((rule): rule is { ruleId: string; effect: RuleEffect } => rule.effect !== null)
      .map(({ ruleId, effect }) => [ruleId, effect]),
  );
}
