import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { schoolsWhere, type Holder } from '#core/access';
import { auditRules, findingKey, ruleById } from '#core/audit';
import { foldWords } from '#core/search';
import { counted } from '#contract/messages';
import type { FindingHitReply } from '#contract/search';
import { intArray, personNameOf, sectionNameOf, type Queries } from '#server/platform';

const mostFindings = 8;

interface Found extends Record<string, unknown> {
  readonly id: number;
  readonly ruleId: string;
  readonly periodId: number;
  readonly period: string;
  readonly schoolId: number;
}

/** What the last audit of each period found, by the words of its rules and by the students whom a text names. */
@Injectable()
export class FoundFindingsRepository {
  /** Of what somebody may see, the newest periods first. */
  async find(
    queries: Queries,
    holder: Holder,
    text: string,
    studentIds: readonly number[],
  ): Promise<FindingHitReply[]> {
    const schools = schoolsWhere(holder.grants, 'read-findings', 'held');
    const words = foldWords(text);
    const rules = auditRules.filter(({ summary }) => areBegun(words, foldWords(summary))).map(({ id }) => id);
    if ((schools !== 'all' && schools.size === 0) || (rules.length === 0 && studentIds.length === 0)) return [];
    const isWithin = schools === 'all' ? sql`true` : sql`p.school_id = ANY(${intArray([...schools])})`;
    const last = sql`
      SELECT DISTINCT ON (r.period_id) r.id, r.period_id, p.name AS period, p.school_id, p.ends_on
      FROM audit_runs r JOIN periods p ON p.id = r.period_id WHERE ${isWithin} ORDER BY r.period_id, r.id DESC`;
    const byRule = await queries.execute<Found & { readonly count: number }>(sql`
      SELECT min(f.id) AS id, f.rule_id AS "ruleId", l.period_id AS "periodId", l.period, l.school_id AS "schoolId",
        count(*)::int AS count
      FROM (${last}) AS l JOIN audit_findings f ON f.run_id = l.id
      WHERE f.rule_id = ANY(ARRAY(SELECT jsonb_array_elements_text(${JSON.stringify(rules)}::jsonb)))
      GROUP BY f.rule_id, l.period_id, l.period, l.school_id, l.ends_on ORDER BY l.ends_on DESC, 1 LIMIT ${mostFindings}`);
    const byStudent = await queries.execute<
      Found & {
        readonly enrollmentId: number;
        readonly itemId: number | null;
        readonly student: string;
        readonly section: string;
      }
    >(sql`
      SELECT f.id, f.rule_id AS "ruleId", l.period_id AS "periodId", l.period, l.school_id AS "schoolId",
        f.enrollment_id AS "enrollmentId", f.item_id AS "itemId", ${personNameOf('s')} AS student,
        ${sectionNameOf('c', 'n')} AS section
      FROM enrollments e JOIN audit_findings f ON f.enrollment_id = e.id JOIN (${last}) AS l ON l.id = f.run_id
      JOIN people s ON s.id = e.student_id JOIN sections n ON n.id = e.section_id JOIN courses c ON c.id = n.course_id
      WHERE e.student_id = ANY(${intArray(studentIds)}) ORDER BY l.ends_on DESC, 1 LIMIT ${mostFindings}`);
    return [
      ...byRule.rows.map(({ count, ...found }) => ({
        ...placed(found),
        title: ruleById.get(found.ruleId)!.summary,
        detail: `${counted(count, 'finding')}, ${found.period}`,
        filter: { rule: found.ruleId },
      })),
      ...byStudent.rows.map(({ student, section, ...found }) => ({
        ...placed(found),
        title: `${ruleById.get(found.ruleId)?.summary ?? found.ruleId}: ${student}`,
        detail: `${section}, ${found.period}`,
        filter: { finding: findingKey({ ...found, sectionId: null, courseId: null }) },
      })),
    ];
  }
}

function placed({ id, schoolId, periodId }: Found) {
  return { kind: 'finding' as const, id, schoolId, periodId };
}

/** Whether each word that is searched begins one of these; a lone letter names no rule. */
function areBegun(wanted: readonly string[], words: readonly string[]): boolean {
  return wanted.some((word) => word.length > 2) && wanted.every((word) => words.some((each) => each.startsWith(word)));
}
