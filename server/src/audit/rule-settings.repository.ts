import { Injectable } from '@nestjs/common';
import { eq, isNull } from 'drizzle-orm';
import { auditRules, ruleInForce, type RuleInForce, type RuleSettings } from '#core/audit';
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
}

const isOf = (schoolId: number | null) =>
  schoolId === null ? isNull(auditSettings.schoolId) : eq(auditSettings.schoolId, schoolId);
