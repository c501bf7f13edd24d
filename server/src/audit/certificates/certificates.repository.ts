import { Injectable } from '@nestjs/common';
import { and, desc, eq, ne, sql, type SQL } from 'drizzle-orm';
import { intArray, spokenName, tables, type Queries } from '#server/platform';

const { auditCertificates, people } = tables;

export type Certificate = typeof auditCertificates.$inferSelect & { readonly issuedByName: string };

/**
 * A posted grade as a line of the file that a certificate is about: [enrollment, item, percentage, label, code, last date,
 * hours, comment] in JSON. The way it is written is stated in docs/formats.md: whoever has the file can make its hash.
 */
const line = sql`json_build_array(g.enrollment_id, g.item_id, g.percent::text, g.label, g.code, g.last_date::text,
  g.hours::text, g.comment)::text || E'\n'`;

@Injectable()
export class CertificatesRepository {
  async add(queries: Queries, certificate: typeof auditCertificates.$inferInsert): Promise<number> {
    const [added] = await queries.insert(auditCertificates).values(certificate).returning({ id: auditCertificates.id });
    return added!.id;
  }

  /** The one of all of the period that was issued last. */
  async lastOf(queries: Queries, periodId: number): Promise<Certificate | undefined> {
    const [last] = await this.where(queries, periodId, eq(auditCertificates.courseIds, []));
    return last;
  }

  /** Of each choice of courses the one that was issued last, the newest first. */
  async ofCourses(queries: Queries, periodId: number): Promise<Certificate[]> {
    const all = await this.where(queries, periodId, ne(auditCertificates.courseIds, []));
    const choices = new Map<string, Certificate>();
    for (const each of all) if (!choices.has(each.courseIds.join())) choices.set(each.courseIds.join(), each);
    return [...choices.values()];
  }

  async byId(queries: Queries, periodId: number, id: number): Promise<Certificate | undefined> {
    const [found] = await this.where(queries, periodId, eq(auditCertificates.id, id));
    return found;
  }

  /** The newest first. */
  private async where(queries: Queries, periodId: number, condition: SQL): Promise<Certificate[]> {
    const rows = await queries
      .select({ certificate: auditCertificates, issuedByName: spokenName })
      .from(auditCertificates)
      .innerJoin(people, eq(people.id, auditCertificates.issuedBy))
      .where(and(eq(auditCertificates.periodId, periodId), condition))
      .orderBy(desc(auditCertificates.id));
    return rows.map(({ certificate, issuedByName }) => ({ ...certificate, issuedByName }));
  }

  /**
   * The grades of a period, a line each, in the order of enrollments and items.
   * @param courseIds of which courses; of all of the school where there are none
   */
  async gradesFile(queries: Queries, periodId: number, courseIds: readonly number[]): Promise<string> {
    const { rows } = await queries.execute<{ file: string }>(sql`
      SELECT coalesce(string_agg(${line}, '' ORDER BY g.enrollment_id, g.item_id), '') AS file FROM ${posted(periodId, courseIds)}`);
    return rows[0]!.file;
  }

  /** SHA-256 of that file, in hexadecimal. */
  async gradesHash(queries: Queries, periodId: number, courseIds: readonly number[]): Promise<string> {
    const { rows } = await queries.execute<{ hash: string }>(sql`
      SELECT encode(sha256(convert_to(coalesce(string_agg(${line}, '' ORDER BY g.enrollment_id, g.item_id), ''), 'UTF8')), 'hex') AS hash
      FROM ${posted(periodId, courseIds)}`);
    return rows[0]!.hash;
  }
}

/** Grades that say something. */
const posted = (
  periodId: number,
  courseIds: readonly number[],
) => sql`(SELECT * FROM grades WHERE period_id = ${periodId}
  AND (percent IS NOT NULL OR label IS NOT NULL OR code IS NOT NULL OR comment <> '')
  ${courseIds.length === 0 ? sql`` : sql`AND ${isOfCourses(courseIds)}`}) AS g`;

const isOfCourses = (courseIds: readonly number[]) => sql`enrollment_id IN (
  SELECT e.id FROM enrollments e JOIN sections s ON s.id = e.section_id WHERE s.course_id = ANY(${intArray(courseIds)}))`;
