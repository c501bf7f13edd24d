import { sql } from 'drizzle-orm';
import { findingKey, placeOfKey, type Finding, type FindingPlace } from '#core/audit';

/** A finding of a period, whichever run saw it: of a rule, on something. */
export type PeriodFinding = FindingPlace & Pick<Finding, 'ruleId'> & { readonly periodId: number };

/** How the log names what is kept of a finding. */
export const periodFindingId = ({ periodId, ...finding }: PeriodFinding): string =>
  `${findingKey(finding)}/${periodId}`;

/** The other way round. */
export function periodFindingOf(id: string): PeriodFinding {
  const [key, periodId] = id.split('/');
  return { ...placeOfKey(key!), periodId: Number(periodId) };
}

/** Rows that each are about a finding: what else they say, by the names of the findings. */
export function byFinding<Value extends object>(rows: readonly (PeriodFinding & Value)[]): Map<string, Value> {
  return new Map(
    rows.map((row) => {
      const { ruleId, enrollmentId, sectionId, courseId, itemId, periodId, ...value } = row;
      const id = periodFindingId({ ruleId, enrollmentId, sectionId, courseId, itemId, periodId });
      return [id, value as unknown as Value];
    }),
  );
}

/** The columns that say which finding a row of a table is about. */
export const findingOf = (table: string) =>
  sql.raw(`${table}.rule_id AS "ruleId", ${table}.enrollment_id AS "enrollmentId", ${table}.section_id AS "sectionId",
    ${table}.course_id AS "courseId", ${table}.item_id AS "itemId", ${table}.period_id AS "periodId"`);

/** Findings by their names, as a table `w` of a query. */
export function wantedFindings(ids: readonly string[]) {
  return sql`jsonb_to_recordset(${JSON.stringify(ids.map(periodFindingOf))}::jsonb)
    AS w("ruleId" text, "enrollmentId" int, "sectionId" int, "courseId" int, "itemId" int, "periodId" int)`;
}

/** Whether a row of a table `v` is about what `w` names. */
export const isWanted = sql`(v.rule_id, v.period_id) = (w."ruleId", w."periodId")
  AND (v.enrollment_id, v.section_id, v.course_id, v.item_id)
    IS NOT DISTINCT FROM (w."enrollmentId", w."sectionId", w."courseId", w."itemId")`;
