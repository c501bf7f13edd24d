import { Injectable } from '@nestjs/common';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import type { RunStage, TheirClass } from '#core/runs';
import type { LastRunReply, LedgerCountsReply, RunClassReply, RunSummaryReply } from '#contract/runs';
import { instantText, Refusal, tables, type Queries, sectionNameOf, spokenNameOf } from '#server/platform';
import type { GroundClass } from './run-ground.service.js';

const { runClasses, runs } = tables;

export type KeptRun = typeof runs.$inferSelect;

/** A class of a run, with what was read of it when the run was planned. */
export interface ClassOfRun extends GroundClass {
  readonly reading: TheirClass | null;
}

/** What a class has behind it while a stage is still to come for it. */
const before: Readonly<Record<RunStage, 'none' | 'plan' | 'carry'>> = { plan: 'none', carry: 'plan', undo: 'carry' };
const newest = 50;

@Injectable()
export class RunsRepository {
  /** With all classes that the platform tells now. */
  async add(queries: Queries, values: typeof runs.$inferInsert): Promise<number> {
    const [added] = await queries.insert(runs).values(values).returning({ id: runs.id });
    await queries.execute(sql`
      INSERT INTO run_classes (run_id, class_id)
      SELECT ${added!.id}, id FROM platform_classes WHERE platform_id = ${values.platformId} AND NOT is_gone`);
    return added!.id;
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<KeptRun> {
    const [found] = await queries.select().from(runs).where(eq(runs.id, id));
    if (!found) throw new Refusal('not-found', { what: 'run', id });
    return found;
  }

  /** As `byIdOrThrow`, and nobody else changes it until the transaction ends. */
  async lockedOrThrow(queries: Queries, id: number): Promise<KeptRun> {
    await queries.execute(sql`SELECT id FROM runs WHERE id = ${id} FOR UPDATE`);
    return this.byIdOrThrow(queries, id);
  }

  async change(queries: Queries, id: number, values: Partial<KeptRun>): Promise<void> {
    await queries.update(runs).set(values).where(eq(runs.id, id));
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(runs).where(eq(runs.id, id));
  }

  /** The run of a platform that is under way; nobody begins one until the transaction ends. */
  async underWay(queries: Queries, platformId: number): Promise<number | undefined> {
    await queries.execute(sql`SELECT id FROM learning_platforms WHERE id = ${platformId} FOR UPDATE`);
    const [found] = await queries
      .select({ id: runs.id })
      .from(runs)
      .where(and(eq(runs.platformId, platformId), eq(runs.state, 'working')));
    return found?.id;
  }

  /** The last run of the same platform and period that wrote after this one and was not undone; undefined for none. */
  async laterWritten(queries: Queries, { id, platformId, periodId }: KeptRun): Promise<number | undefined> {
    const [found] = await queries
      .select({ id: runs.id })
      .from(runs)
      .where(
        and(
          eq(runs.platformId, platformId),
          eq(runs.periodId, periodId),
          gt(runs.id, id),
          sql`EXISTS (SELECT FROM run_rows l WHERE l.run_id = ${runs.id} AND l.result = 'written')`,
        ),
      )
      .orderBy(desc(runs.id))
      .limit(1);
    return found?.id;
  }

  /** Puts a stage behind a class. False where the run was stopped or another server took it: nothing may be kept then. */
  async pass(queries: Queries, run: KeptRun, classId: number, reading?: TheirClass): Promise<boolean> {
    const held = await queries
      .update(runs)
      .set({ problem: null })
      .where(
        and(
          eq(runs.id, run.id),
          eq(runs.state, 'working'),
          eq(runs.stage, run.stage),
          eq(runs.worker, run.worker ?? ''),
        ),
      )
      .returning({ id: runs.id });
    if (held.length === 0) return false;
    await queries
      .update(runClasses)
      .set({ passed: run.stage, ...(reading ? { reading } : {}) })
      .where(and(eq(runClasses.runId, run.id), eq(runClasses.classId, classId)));
    return true;
  }

  /** The classes that the run's stage is still to come for. */
  async classesToDo(queries: Queries, { id, stage }: KeptRun): Promise<ClassOfRun[]> {
    const { rows } = await queries.execute<{
      id: number;
      key: string;
      title: string;
      decision: GroundClass['decision'];
      sectionId: number | null;
      sectionName: string | null;
      reading: TheirClass | null;
    }>(sql`
      SELECT c.id, c.sourced_id AS key, c.title, c.decision, CASE WHEN c.decision = 'joined' THEN c.section_id END AS "sectionId",
             CASE WHEN c.decision = 'joined' THEN ${sectionNameOf('k', 's')} END AS "sectionName", r.reading
      FROM run_classes r JOIN platform_classes c ON c.id = r.class_id
      LEFT JOIN sections s ON s.id = c.section_id LEFT JOIN courses k ON k.id = s.course_id
      WHERE r.run_id = ${id} AND r.passed = ${before[stage]} ORDER BY c.id`);
    return rows;
  }

  /** What was read is no longer needed once it was carried over. */
  async forgetReadings(queries: Queries, id: number): Promise<void> {
    await queries.update(runClasses).set({ reading: null }).where(eq(runClasses.runId, id));
  }

  async ofSchool(queries: Queries, schoolId: number): Promise<RunSummaryReply[]> {
    return this.summaries(queries, sql`p.school_id = ${schoolId}`);
  }

  async summaryOrThrow(queries: Queries, id: number): Promise<RunSummaryReply> {
    const [found] = await this.summaries(queries, sql`r.id = ${id}`);
    if (!found) throw new Refusal('not-found', { what: 'run', id });
    return found;
  }

  /** The classes of a run by title, with how much of them is to be written and how much is not sent. */
  async classes(queries: Queries, runId: number): Promise<RunClassReply[]> {
    const { rows } = await queries.execute<Pick<RunClassReply, keyof RunClassReply>>(sql`
      SELECT c.id AS "classId", c.title, ${sectionNameOf('k', 's')} AS section,
             CASE WHEN c.decision = 'joined' THEN c.section_id END AS "sectionId",
             coalesce(l.to_write, 0) AS "toWrite", coalesce(l.picked, 0) AS picked, coalesce(l.not_sent, 0) AS "notSent"
      FROM run_classes r JOIN platform_classes c ON c.id = r.class_id
      LEFT JOIN sections s ON s.id = c.section_id AND c.decision = 'joined' LEFT JOIN courses k ON k.id = s.course_id
      LEFT JOIN (
        SELECT class_id, count(*) FILTER (WHERE outcome IN ('create', 'change'))::int AS to_write,
               count(*) FILTER (WHERE outcome IN ('create', 'change') AND is_picked)::int AS picked,
               (count(*) FILTER (WHERE outcome IN ('skip', 'refuse')) + sum(held_back))::int AS not_sent
        FROM run_rows WHERE run_id = ${runId} GROUP BY class_id
      ) l ON l.class_id = c.id
      WHERE r.run_id = ${runId} ORDER BY c.title, c.id`);
    return rows;
  }

  /** The last run that carried anything over for a section in a period, and what it left out there. */
  async lastOfSection(
    queries: Queries,
    sectionId: number,
    periodId: number,
  ): Promise<Omit<LastRunReply, 'minutesAgo'> | undefined> {
    const { rows } = await queries.execute<Omit<LastRunReply, 'minutesAgo'>>(sql`
      SELECT r.id AS "runId", p.name AS platform, ${instantText('r.ended_at')} AS "endedAt",
             (SELECT count(*)::int FROM run_rows l WHERE l.run_id = r.id AND l.class_id = c.id AND l.result = 'written') AS written,
             (SELECT (count(*) FILTER (WHERE outcome IN ('skip', 'refuse')) + coalesce(sum(held_back), 0))::int
              FROM run_rows l WHERE l.run_id = r.id AND l.class_id = c.id) AS "notSent"
      FROM runs r JOIN learning_platforms p ON p.id = r.platform_id
      JOIN run_classes k ON k.run_id = r.id JOIN platform_classes c ON c.id = k.class_id
      WHERE c.section_id = ${sectionId} AND c.decision = 'joined' AND r.period_id = ${periodId}
        AND r.stage = 'carry' AND k.passed = 'carry' AND r.ended_at IS NOT NULL
      ORDER BY r.ended_at DESC LIMIT 1`);
    return rows[0];
  }

  private async summaries(queries: Queries, which: ReturnType<typeof sql>): Promise<RunSummaryReply[]> {
    const { rows } = await queries.execute<Omit<RunSummaryReply, 'counts'> & { counts: LedgerCountsReply | null }>(sql`
      SELECT r.id, r.platform_id AS "platformId", p.name AS platform, r.period_id AS "periodId", d.name AS period, r.stage,
             r.state, coalesce(c.done, 0) AS done, coalesce(c.total, 0) AS total, r.mode, r.carries_work AS "carriesWork",
             r.carries_totals AS "carriesTotals", r.is_nightly AS "isNightly", r.problem,
             ${spokenNameOf('w')} AS "startedBy", ${instantText('r.started_at')} AS "startedAt",
             ${instantText('r.ended_at')} AS "endedAt", r.counts
      FROM runs r JOIN learning_platforms p ON p.id = r.platform_id JOIN periods d ON d.id = r.period_id
      JOIN people w ON w.id = r.started_by
      LEFT JOIN LATERAL (
        SELECT count(*) FILTER (WHERE k.passed = r.stage)::int AS done,
               count(*) FILTER (WHERE r.stage <> 'undo' OR k.passed IN ('carry', 'undo'))::int AS total
        FROM run_classes k WHERE k.run_id = r.id
      ) c ON true
      WHERE ${which} ORDER BY r.id DESC LIMIT ${newest}`);
    return rows;
  }
}
