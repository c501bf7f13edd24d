import { Injectable } from '@nestjs/common';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import { auditRules, findingKey, ruleInForce, type Finding, type FindingPlace, type RuleInForce } from '#core/audit';
import {
  instantText,
  intArray,
  personNameOf,
  Refusal,
  sectionNameOf,
  spokenName,
  spokenNameOf,
  tables,
  type Queries,
} from '#server/platform';

const { auditFindings, auditRuns, enrollments, grades, people, sections } = tables;

export type AuditRun = typeof auditRuns.$inferSelect & { readonly startedByName: string };

/** With the section that it is about, or in which it is about somebody. */
export type SectionFinding = Finding & { readonly ofSection: number };

/** By which a finding is known. */
type FindingKey = FindingPlace & Pick<Finding, 'ruleId'>;

/** Null where a finding is not about one. */
export interface FindingNames {
  readonly studentId: number | null;
  /** Family name first, as the teacher. */
  readonly student: string | null;
  readonly sectionId: number | null;
  readonly section: string | null;
  readonly teacher: string | null;
  readonly course: string | null;
  readonly itemName: string | null;
}

@Injectable()
export class AuditRunsRepository {
  async add(queries: Queries, run: typeof auditRuns.$inferInsert, findings: readonly Finding[]): Promise<number> {
    const [added] = await queries.insert(auditRuns).values(run).returning({ id: auditRuns.id });
    await queries.execute(sql`
      INSERT INTO audit_findings (run_id, rule_id, enrollment_id, section_id, course_id, item_id, message, data)
      SELECT ${added!.id}, f."ruleId", f."enrollmentId", f."sectionId", f."courseId", f."itemId", f.message, f.data
      FROM jsonb_to_recordset(${JSON.stringify(findings)}::jsonb)
           AS f ("ruleId" text, "enrollmentId" int, "sectionId" int, "courseId" int, "itemId" int, message text, data jsonb)`);
    return added!.id;
  }

  /** The newest runs of a period, newest first. */
  async newest(queries: Queries, periodId: number, count: number): Promise<AuditRun[]> {
    const rows = await queries
      .select({ run: auditRuns, startedByName: spokenName })
      .from(auditRuns)
      .innerJoin(people, eq(people.id, auditRuns.startedBy))
      .where(eq(auditRuns.periodId, periodId))
      .orderBy(desc(auditRuns.id))
      .limit(count);
    return rows.map(({ run, startedByName }) => ({ ...run, startedByName }));
  }

  findingsOf(queries: Queries, runId: number): Promise<Finding[]> {
    return queries
      .select({
        ruleId: auditFindings.ruleId,
        enrollmentId: auditFindings.enrollmentId,
        sectionId: auditFindings.sectionId,
        courseId: auditFindings.courseId,
        itemId: auditFindings.itemId,
        message: auditFindings.message,
        data: auditFindings.data,
      })
      .from(auditFindings)
      .where(eq(auditFindings.runId, runId))
      .orderBy(auditFindings.id);
  }

  /** Findings of the last audit of a period, in the order in which they are named. @throws Refusal not-found */
  async inLastOrThrow(queries: Queries, periodId: number, wanted: readonly FindingKey[]): Promise<Finding[]> {
    const [run] = await this.newest(queries, periodId, 1);
    const all = run ? await this.findingsOf(queries, run.id) : [];
    const byKey = new Map(all.map((finding) => [findingKey(finding), finding]));
    return wanted.map(findingKey).map((key) => {
      const finding = byKey.get(key);
      if (!finding) throw new Refusal('not-found', { what: 'finding of the last audit', id: key });
      return finding;
    });
  }

  /** The findings of a run that are about some sections, or about somebody in them. */
  async findingsOfSections(queries: Queries, runId: number, sectionIds: readonly number[]): Promise<SectionFinding[]> {
    const { rows } = await queries.execute<SectionFinding & Record<string, unknown>>(sql`
      SELECT f.rule_id AS "ruleId", f.enrollment_id AS "enrollmentId", f.section_id AS "sectionId",
        f.course_id AS "courseId", f.item_id AS "itemId", f.message, f.data, coalesce(f.section_id, e.section_id) AS "ofSection"
      FROM audit_findings f LEFT JOIN enrollments e ON e.id = f.enrollment_id
      WHERE f.run_id = ${runId} AND coalesce(f.section_id, e.section_id) = ANY(${intArray(sectionIds)}) ORDER BY f.id`);
    return rows;
  }

  /** Who saved grades of the period after a run began, by `enrollment/item`. */
  async saversSince(
    queries: Queries,
    { periodId, startedAt }: AuditRun,
  ): Promise<ReadonlyMap<string, { readonly by: string; readonly at: string }>> {
    const { rows } = await queries.execute<{ key: string; by: string; at: string }>(sql`
      SELECT g.enrollment_id || '/' || g.item_id AS key, ${spokenNameOf('p')} AS by, ${instantText('g.posted_at')} AS at
      FROM grades g JOIN people p ON p.id = g.posted_by
      WHERE g.period_id = ${periodId} AND g.posted_at > ${startedAt.toISOString()}`);
    return new Map(rows.map(({ key, ...saved }) => [key, saved]));
  }

  /** What people call what findings are about, in the order of the findings. */
  async namesOf(queries: Queries, places: readonly FindingPlace[]): Promise<FindingNames[]> {
    const { rows } = await queries.execute<FindingNames & Record<string, unknown>>(sql`
      SELECT e.student_id AS "studentId", ${personNameOf('p')} AS student, s.id AS "sectionId",
        CASE WHEN s.id IS NOT NULL THEN ${sectionNameOf('c', 's')} END AS section, ${personNameOf('t')} AS teacher,
        c.title AS course, i.name AS "itemName"
      FROM jsonb_to_recordset(${JSON.stringify(places.map((place, at) => ({ ...place, at })))}::jsonb)
        AS f(at int, "enrollmentId" int, "sectionId" int, "courseId" int, "itemId" int)
      LEFT JOIN enrollments e ON e.id = f."enrollmentId" LEFT JOIN people p ON p.id = e.student_id
      LEFT JOIN sections s ON s.id = coalesce(f."sectionId", e.section_id)
      LEFT JOIN courses c ON c.id = coalesce(f."courseId", s.course_id)
      LEFT JOIN people t ON t.id = s.teacher_id LEFT JOIN report_items i ON i.id = f."itemId" ORDER BY f.at`);
    return rows;
  }

  /** The course that each of some findings concerns, in their order; null where it is about none. */
  async courseIdsOf(queries: Queries, places: readonly FindingPlace[]): Promise<(number | null)[]> {
    const { rows } = await queries.execute<{ courseId: number | null }>(sql`
      SELECT coalesce(f."courseId", s.course_id) AS "courseId"
      FROM jsonb_to_recordset(${JSON.stringify(places.map((place, at) => ({ ...place, at })))}::jsonb)
        AS f(at int, "enrollmentId" int, "sectionId" int, "courseId" int)
      LEFT JOIN enrollments e ON e.id = f."enrollmentId"
      LEFT JOIN sections s ON s.id = coalesce(f."sectionId", e.section_id) ORDER BY f.at`);
    return rows.map(({ courseId }) => courseId);
  }

  /** How many grades of the period were saved after an instant, by course. */
  changedSince(queries: Queries, periodId: number, since: Date): Promise<{ courseId: number; grades: number }[]> {
    return queries
      .select({ courseId: sections.courseId, grades: sql<number>`count(*)::int` })
      .from(grades)
      .innerJoin(enrollments, eq(enrollments.id, grades.enrollmentId))
      .innerJoin(sections, eq(sections.id, enrollments.sectionId))
      .where(and(eq(grades.periodId, periodId), gt(grades.postedAt, since)))
      .groupBy(sections.courseId);
  }
}

/** What a rule did in a run; one that came since then is as it comes. */
export function inForceIn({ rules }: Pick<AuditRun, 'rules'>, ruleId: string): RuleInForce {
  return rules.find(({ id }) => id === ruleId) ?? asTheyCome.get(ruleId)!;
}

const asTheyCome = new Map(auditRules.map((rule) => [rule.id, ruleInForce(rule, {}, {})]));

/** What a finding is about, in a word or two: the student, else the section, the course or the item. */
export function subjectOf({ student, section, course, itemName }: FindingNames): string {
  return student ?? section ?? course ?? itemName ?? '';
}
