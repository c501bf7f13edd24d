import { Injectable } from '@nestjs/common';
import { desc, eq, sql } from 'drizzle-orm';
import { spokenName, tables, type Queries } from '#server/platform';

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

  /** The one that was issued last. */
  async lastOf(queries: Queries, periodId: number): Promise<Certificate | undefined> {
    const [row] = await queries
      .select({ certificate: auditCertificates, issuedByName: spokenName })
      .from(auditCertificates)
      .innerJoin(people, eq(people.id, auditCertificates.issuedBy))
      .where(eq(auditCertificates.periodId, periodId))
      .orderBy(desc(auditCertificates.id))
      .limit(1);
    return row && { ...row.certificate, issuedByName: row.issuedByName };
  }

  /** The grades of a period, a line each, in the order of enrollments and items. */
  async gradesFile(queries: Queries, periodId: number): Promise<string> {
    const { rows } = await queries.execute<{ file: string }>(sql`
      SELECT coalesce(string_agg(${line}, '' ORDER BY g.enrollment_id, g.item_id), '') AS file FROM ${posted(periodId)}`);
    return rows[0]!.file;
  }

  /** SHA-256 of that file, in hexadecimal. */
  async gradesHash(queries: Queries, periodId: number): Promise<string> {
    const { rows } = await queries.execute<{ hash: string }>(sql`
      SELECT encode(sha256(convert_to(coalesce(string_agg(${line}, '' ORDER BY g.enrollment_id, g.item_id), ''), 'UTF8')), 'hex') AS hash
      FROM ${posted(periodId)}`);
    return rows[0]!.hash;
  }
}

/** Grades that say something. */
const posted = (periodId: number) => sql`(SELECT * FROM grades WHERE period_id = ${periodId}
  AND (percent IS NOT NULL OR label IS NOT NULL OR code IS NOT NULL OR comment <> '')) AS g`;
