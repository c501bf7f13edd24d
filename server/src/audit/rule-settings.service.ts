import { Injectable } from '@nestjs/common';
import { auditRules, noExceptions, ruleById, ruleInForce, type AuditRule, type RuleSettings } from '#core/audit';
import type { NightlyAuditRequest, RuleSettingsReply, SaveRuleSettingsRequest, SetRuleReply } from '#contract/audit';
import { RuleSettingsRepository } from '#server/audit-rules';
import { PeriodsRepository } from '#server/calendar';
import { Changes, revisionOf } from '#server/changes';
import { CoursesRepository } from '#server/courses';
import { Clock, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { NightlyAuditsRepository } from './runs/nightly-audits.repository.js';

/** How severe each rule is in a school, where it begins and what it leaves alone; the next audit goes by it. */
@Injectable()
export class RuleSettingsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly settings: RuleSettingsRepository,
    private readonly nightly: NightlyAuditsRepository,
    private readonly courses: CoursesRepository,
    private readonly changes: Changes,
    private readonly clock: Clock,
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
      const isShared = thing.id === 'district';
      const courses = isShared ? [] : await this.courses.ofSchool(queries, schoolId);
      refuseUnknownCourses(rules, [
        ...courses.map(({ id }) => id),
        // One that was removed since stays until somebody takes it off.
        ...Object.values(await this.settings.read(queries, isShared ? null : schoolId)).flatMap(
          ({ exceptions }) => exceptions?.courses ?? [],
        ),
      ]);
      const where = isShared ? 'all schools' : shortName;
      const edit = { ...thing, expected: revision, after };
      await this.changes.make(queries, actor, { action: `set the rules of the audit in ${where}`, edits: [edit] });
      return this.replyOf(queries, schoolId);
    });
  }

  /** When the school's periods are audited by themselves, in the name of whoever says so; null for never. @throws Refusal changed-meanwhile */
  setNightly(actor: Actor, schoolId: number, { at, revision }: NightlyAuditRequest): Promise<RuleSettingsReply> {
    return this.transactions.run(async (queries) => {
      const { shortName } = await this.periods.schoolOrThrow(queries, schoolId);
      const after = at === null ? null : { at, setBy: actor.personId, setAt: this.clock.now().toISOString() };
      const edit = { kind: 'nightly-audit', id: String(schoolId), expected: revision, after };
      await this.changes.make(queries, actor, { action: `set the nightly audit in ${shortName}`, edits: [edit] });
      return this.replyOf(queries, schoolId);
    });
  }

  private async replyOf(queries: Queries, schoolId: number): Promise<RuleSettingsReply> {
    await this.periods.schoolOrThrow(queries, schoolId);
    const school = await this.settings.read(queries, schoolId);
    const district = await this.settings.read(queries, null);
    const courses = await this.courses.ofSchool(queries, schoolId);
    const nightly = await this.nightly.ofSchool(queries, schoolId);
    return {
      rules: auditRules.map((rule) => ({
        id: rule.id,
        family: rule.family,
        summary: rule.summary,
        why: rule.why,
        scope: rule.scope,
        own: rule.severity,
        district: replyOfSetting(district[rule.id]),
        school: replyOfSetting(school[rule.id]),
        inForce: ruleInForce(rule, school, district).severity,
        measure: rule.threshold ?? null,
      })),
      schoolRevision: revisionOf(school),
      districtRevision: revisionOf(district),
      departments: [...new Set(courses.map(({ department }) => department))].filter(Boolean),
      courses: courses.map(({ id, code, title }) => ({ id, code, title })),
      nightly: nightly && { at: nightly.value.at, setBy: nightly.name },
      nightlyRevision: revisionOf(nightly?.value ?? null),
    };
  }
}

const replyOfSetting = ({ effect, threshold, exceptions }: RuleSettings[string] = {}): SetRuleReply => ({
  effect: effect ?? null,
  threshold: threshold ?? null,
  exceptions: exceptions ?? noExceptions,
});

/** @throws Refusal fields-wrong naming each rule that there is not, that is said twice, or that cannot be set so */
function settingsOrThrow(rules: SaveRuleSettingsRequest['rules']): RuleSettings {
  const said = new Set<string>();
  const faults = rules.flatMap(({ ruleId, threshold }, at) => {
    const rule = ruleById.get(ruleId);
    const isTwice = said.has(ruleId);
    said.add(ruleId);
    if (!rule || isTwice)
      return [{ field: `rules.${at}.ruleId`, detail: isTwice ? 'each rule at most once' : 'a rule of the audit' }];
    const detail = threshold === null ? null : whatFits(rule, threshold);
    return detail === null ? [] : [{ field: `rules.${at}.threshold`, detail }];
  });
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
  return Object.fromEntries(rules.map((rule) => [rule.ruleId, settingOf(rule)]).filter(([, set]) => set !== null));
}

/** @throws Refusal fields-wrong naming each rule that would leave a course alone that the school does not have */
function refuseUnknownCourses(rules: SaveRuleSettingsRequest['rules'], known: readonly number[]): void {
  const isKnown = new Set(known);
  const faults = rules.flatMap(({ exceptions }, at) =>
    exceptions.courses.every((id) => isKnown.has(id))
      ? []
      : [{ field: `rules.${at}.exceptions.courses`, detail: 'courses of the school' }],
  );
  if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
}

/** What is said of a rule; null where nothing is. */
function settingOf({
  effect,
  threshold,
  exceptions,
}: SaveRuleSettingsRequest['rules'][number]): RuleSettings[string] | null {
  const { departments, courses } = exceptions;
  const setting = {
    ...(effect !== null && { effect }),
    ...(threshold !== null && { threshold }),
    ...(departments.length + courses.length > 0 && { exceptions: { departments, courses } }),
  };
  return Object.keys(setting).length === 0 ? null : setting;
}

/** What would fit instead; null where the threshold does. */
function whatFits({ threshold }: AuditRule, value: number): string | null {
  if (!threshold) return 'nothing, as the rule has no such thing';
  const { least, most } = threshold;
  return value >= least && value <= most ? null : `a number from ${least} to ${most}`;
}
