import { Injectable } from '@nestjs/common';
import { and, eq, sql } from 'drizzle-orm';
import { keepIfHeldOrThrow, spokenName, tables, WorkLost, type KeptProblem, type Queries } from '#server/platform';

const { auditTasks, people } = tables;

export type AuditTask = typeof auditTasks.$inferSelect & { readonly startedByName: string };

const isRunning = eq(auditTasks.state, 'running');

/** Audits that are under way, or came to nothing; a period has one at a time. */
@Injectable()
export class AuditTasksRepository {
  async ofPeriod(queries: Queries, periodId: number): Promise<AuditTask | undefined> {
    return this.one(queries, eq(auditTasks.periodId, periodId));
  }

  byId(queries: Queries, id: number): Promise<AuditTask | undefined> {
    return this.one(queries, eq(auditTasks.id, id));
  }

  private async one(queries: Queries, where: ReturnType<typeof eq>): Promise<AuditTask | undefined> {
    const [row] = await queries
      .select({ task: auditTasks, startedByName: spokenName })
      .from(auditTasks)
      .innerJoin(people, eq(people.id, auditTasks.startedBy))
      .where(where);
    return row && { ...row.task, startedByName: row.startedByName };
  }

  /** Begins one; undefined where one is under way already, which is then everybody's. */
  async begin(
    queries: Queries,
    task: Pick<AuditTask, 'periodId' | 'startedBy' | 'startedAt'>,
  ): Promise<number | undefined> {
    // Whoever may still be letting go of the one before has it no longer.
    const values = {
      ...task,
      state: 'running' as const,
      sectionsDone: 0,
      sectionCount: 0,
      problem: null,
      worker: null,
    };
    const [begun] = await queries
      .insert(auditTasks)
      .values(values)
      .onConflictDoUpdate({ target: auditTasks.periodId, set: values, setWhere: sql`${auditTasks.state} <> 'running'` })
      .returning({ id: auditTasks.id });
    return begun?.id;
  }

  /** Stops the one under way; undefined where there is none. */
  async stop(queries: Queries, periodId: number): Promise<number | undefined> {
    const [stopped] = await queries
      .update(auditTasks)
      .set({ state: 'stopped' })
      .where(and(eq(auditTasks.periodId, periodId), isRunning))
      .returning({ id: auditTasks.id });
    return stopped?.id;
  }

  /** @throws WorkLost where somebody stopped it, or another server works on it now */
  async passOrThrow(
    queries: Queries,
    id: number,
    worker: string,
    done: Pick<AuditTask, 'sectionsDone' | 'sectionCount'>,
  ): Promise<void> {
    await keepIfHeldOrThrow(queries, auditTasks, { id, worker }, isRunning, done);
  }

  /** It is done, and a task no longer. @throws WorkLost */
  async endOrThrow(queries: Queries, id: number, worker: string): Promise<void> {
    const ended = await queries
      .delete(auditTasks)
      .where(and(eq(auditTasks.id, id), eq(auditTasks.worker, worker), isRunning))
      .returning({ id: auditTasks.id });
    if (ended.length === 0) throw new WorkLost();
  }

  async fail(queries: Queries, id: number, problem: KeptProblem): Promise<void> {
    await queries
      .update(auditTasks)
      .set({ state: 'failed', problem })
      .where(and(eq(auditTasks.id, id), isRunning));
  }
}
