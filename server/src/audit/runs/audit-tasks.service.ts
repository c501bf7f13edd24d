import { Injectable } from '@nestjs/common';
import type { AuditProgressReply } from '#contract/audit';
import { problemOf } from '#contract/problems';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { Clock, keptRefusal, Transactions, type Actor, type KeptProblem } from '#server/platform';
import { AuditRunsRepository } from './audit-runs.repository.js';
import { AuditTasksRepository } from './audit-tasks.repository.js';
import { AuditWork } from './audit-work.js';

/** Begins audits, stops them, and says how far they are. */
@Injectable()
export class AuditTasksService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly work: AuditWork,
    private readonly tasks: AuditTasksRepository,
    private readonly runs: AuditRunsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** Begins the audit of a period, or joins the one that is under way. */
  async start(actor: Pick<Actor, 'personId'>, periodId: number): Promise<AuditProgressReply> {
    const id = await this.begin(actor, periodId);
    if (id !== undefined) await this.work.held.begin(id);
    return this.progress(periodId);
  }

  /** Audits a period here and now. @throws Error where the audit came to nothing */
  async runNow(actor: Actor, periodId: number): Promise<void> {
    const id = await this.begin(actor, periodId);
    if (id !== undefined) await this.work.held.workNow(id);
    const task = await this.tasks.ofPeriod(this.transactions.reading, periodId);
    if (task) throw new Error(`the audit of period ${periodId} is ${task.state}`);
  }

  private begin({ personId }: Pick<Actor, 'personId'>, periodId: number): Promise<number | undefined> {
    return this.transactions.run(async (queries) => {
      await this.periods.byIdOrThrow(queries, periodId);
      const task = { periodId, startedBy: personId, startedAt: this.clock.now() };
      return this.tasks.begin(queries, task);
    });
  }

  /** Stops the audit that is under way, whoever began it; what was found before stays. */
  async stop(actor: Actor, periodId: number): Promise<AuditProgressReply> {
    const stopped = await this.transactions.run(async (queries) => {
      const id = await this.tasks.stop(queries, periodId);
      if (id !== undefined)
        await this.log.record(queries, actor, [
          { action: 'stop audit', thing: `audit-task ${periodId}`, before: null, after: { state: 'stopped' } },
        ]);
      return id;
    });
    if (stopped !== undefined) this.work.held.interrupt(stopped);
    return this.progress(periodId);
  }

  /** How far the audit of a period is. */
  async progress(periodId: number): Promise<AuditProgressReply> {
    const task = await this.tasks.ofPeriod(this.transactions.reading, periodId);
    const [run] = await this.runs.newest(this.transactions.reading, periodId, 1);
    const runId = run?.id ?? null;
    if (!task) return { task: null, runId };
    const { state, startedByName, startedAt, sectionsDone, sectionCount, problem } = task;
    return {
      task: {
        state,
        startedBy: startedByName,
        startedAt: startedAt.toISOString(),
        sectionsDone,
        sectionCount,
        problem: sayProblem(problem),
      },
      runId,
    };
  }
}

function sayProblem(problem: KeptProblem | null): string | null {
  const refusal = keptRefusal(problem);
  return refusal && problemOf(refusal.code, refusal.data, []).detail;
}
