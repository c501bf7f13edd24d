import { Injectable } from '@nestjs/common';
import { eq, isNull } from 'drizzle-orm';
import { auditRules, effectIn, ruleInForce, type RuleEffect, type RuleInForce, type RuleSettings } from '#core/audit';
import { tables, type Queries } from '#server/platform';

const { auditSettings } = tables;

/** What rules were set to do, by school and for the whole district (null). */
@Injectable()
export class RuleSettingsRepository {
  async read(queries: Queries, schoolId: number | null): Promise<RuleSettings> {
    const [row] = await queries.select({ rules: auditSettings.rules }).from(auditSettings).where(isOf(schoolId));
    return row?.rules ?? {};
  }

  async write(queries: Queries, schoolId: number | null, rules: RuleSettings): Promise<void> {
    await queries.delete(auditSettings).where(isOf(schoolId));
    if (Object.keys(rules).length > 0) await queries.insert(auditSettings).values({ schoolId, rules });
  }

  /** What every rule does in a school. */
  async inForce(queries: Queries, schoolId: number): Promise<RuleInForce[]> {
    const [school, district] = [await this.read(queries, schoolId), await this.read(queries, null)];
    return auditRules.map((rule) => ruleInForce(rule, school, district));
  }

  /** What rules do to the grades of a course, by their ids, where that is not what they do as they come. */
  async effectsIn(
    queries: Queries,
    schoolId: number,
    course: { readonly id: number; readonly department: string },
  ): Promise<Readonly<Record<string, RuleEffect>>> {
    const effects = (await this.inForce(queries, schoolId)).map((rule) => [rule.id, effectIn(rule, course)] as const);
    return Object.fromEntries(effects.filter(([id, effect]) => effect !== asItComes.get(id)));
  }
}

const asItComes = new Map<string, RuleEffect>(auditRules.map(({ id, severity }) => [id, severity]));

const isOf = (schoolId: number | null) =>
  schoolId === null ? isNull(auditSettings.schoolId) : eq(auditSettings.schoolId, schoolId);
