import { Injectable } from '@nestjs/common';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import type { Finding } from '#core/audit';
import { tables, type Queries, spokenName } from '#server/platform';

const { auditFindings, auditRuns, grades, people } = tables;

export type AuditRun = typeof auditRuns.$inferSelect & { readonly startedByName: string };

@Injectable()
export class AuditRunsRepository {
  async add(queries: Queries, run: typeof auditRuns.$inferInsert, findings: readonly Finding[]): Promise<number> {
    const [added] = await queries.insert(auditRuns).values(run).returning({ id: auditRuns.id });
    await queries.execute(sql`
      INSERT INTO audit_findings (run_id, rule_id, enrollment_id, item_id, message, data)
      SELECT ${added!.id}, f."ruleId", f."enrollmentId", f."itemId", f.message, f.data
      FROM jsonb_to_recordset(${JSON.stringify(findings)}::jsonb)
           AS f ("ruleId" text, "enrollmentId" int, "itemId" int, message text, data jsonb)`);
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
        itemId: auditFindings.itemId,
        message: auditFindings.message,
        data: auditFindings.data,
      })
      .from(auditFindings)
      .where(eq(auditFindings.runId, runId))
      .orderBy(auditFindings.id);
  }

  /** Grades of the period that were saved after an instant. */
  async changedSince(queries: Queries, periodId: number, since: Date): Promise<number> {
    const [row] = await queries
      .select({ changed: sql<number>`count(*)::int` })
      .from(grades)
      .where(and(eq(grades.periodId, periodId), gt(grades.postedAt, since)));
    return row!.changed;
  }
}
