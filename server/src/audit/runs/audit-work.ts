import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { auditByParts, auditRules } from '#core/audit';
import { RuleSettingsRepository } from '#server/audit-rules';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import {
  Clock,
  DATABASE,
  HeldWork,
  Leases,
  problemToKeep,
  Refusal,
  Transactions,
  WorkQueue,
  type OpenDatabase,
  type Queries,
} from '#server/platform';
import { AuditRunsRepository } from './audit-runs.repository.js';
import { AuditTasksRepository } from './audit-tasks.repository.js';
import { Pace } from './pace.js';
import { PartLooker } from './part-looker.service.js';
import { readAhead } from './read-ahead.js';
import { SnapshotService } from '../snapshots/snapshot.service.js';
import { takeTurns } from './take-turns.js';

/** How often at most it is said how far an audit is. */
const tellMilliseconds = 150;

/**
 * Runs audits, some sections at a time and a rule after the other, so that others are answered in between and no more is in
 * memory than a part. Nothing is kept before the last rule had its turn: an audit that is broken off, by a person or by the
 * power cable, leaves no half of one behind, and is begun again. What is saved while it reads shows as changed since.
 */
@Injectable()
export class AuditWork implements OnApplicationBootstrap {
  private readonly logger = new Logger(AuditWork.name);
  readonly held: HeldWork;

  constructor(
    @Inject(DATABASE) database: OpenDatabase,
    queue: WorkQueue,
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly snapshots: SnapshotService,
    private readonly looker: PartLooker,
    private readonly recalculation: RecalculationService,
    private readonly runs: AuditRunsRepository,
    private readonly tasks: AuditTasksRepository,
    private readonly settings: RuleSettingsRepository,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {
    this.held = new HeldWork(database, queue, {
      job: 'audit',
      leases: new Leases('audit_tasks', sql`state = 'running'`),
      work: (id, worker, signal) => this.work(id, worker, signal),
      tellProblem: (id, error) => this.tellProblem(id, error),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.held.take();
  }

  private async work(id: number, worker: string, signal: AbortSignal): Promise<void> {
    const task = await this.tasks.byId(this.transactions.reading, id);
    if (task?.state !== 'running') return;
    const { periodId, startedBy } = task;
    await this.recalculation.freshen(await this.periods.byIdOrThrow(this.transactions.reading, periodId));
    signal.throwIfAborted();
    const startedAt = this.clock.now();
    const { period, rules, running, elsewhere, nothing } = await this.transactions.snapshot(async (queries) => {
      const audited = await this.periods.byIdOrThrow(queries, periodId);
      return {
        period: audited,
        rules: await this.settings.inForce(queries, audited.schoolId),
        ...(await this.snapshots.sectionsOf(queries, audited)),
      };
    });
    const inForce = new Map(rules.map((rule) => [rule.id, rule]));
    const audit = auditByParts(auditRules, inForce);
    const inTurns = (steps: Iterable<void>) => takeTurns(steps, () => signal.throwIfAborted());
    const { today, now } = nothing;
    // Each part in a transaction of its own: on the embedded database nobody else is heard while one is open.
    const paced = <Read>(
      read: (queries: Queries, part: readonly number[]) => Promise<Read>,
      ids: readonly number[],
    ) => {
      const pace = new Pace();
      return readAhead(pace.deal(ids), (part) =>
        this.transactions.snapshot((queries) => pace.timed(part, () => read(queries, part))),
      );
    };
    const strays = (queries: Queries, part: readonly number[]) => this.snapshots.straysIn(queries, period, part);
    for await (const found of paced(strays, elsewhere)) await inTurns(audit.lookAt({ ...nothing, strays: found }));
    const sectionCount = running.length;
    let [told, sectionsDone, gradesChecked] = [performance.now(), 0, 0];
    const all = (queries: Queries, part: readonly number[]) => this.snapshots.partOf(queries, period, part);
    for await (const part of paced(all, running)) {
      const ground = { ...part.ground, today, now };
      const { seen, gradeCount } = await this.looker.look({ ...part, ground }, inForce);
      signal.throwIfAborted();
      audit.take(seen);
      sectionsDone += part.sections.running.length;
      gradesChecked += gradeCount;
      if (performance.now() - told < tellMilliseconds) continue;
      await this.tasks.passOrThrow(this.transactions.reading, id, worker, { sectionsDone, sectionCount });
      told = performance.now();
    }
    await inTurns(audit.conclude());
    const { findings, faults } = audit.outcomes();
    const problemOf = new Map(faults.map(({ ruleId, problem }) => [ruleId, problem]));
    const run = {
      schoolId: period.schoolId,
      periodId,
      startedBy,
      startedAt,
      gradesChecked,
      milliseconds: this.clock.now().getTime() - startedAt.getTime(),
      rules: rules.map((rule) => {
        const problem = problemOf.get(rule.id);
        return { ...rule, ...(problem !== undefined && { problem }) };
      }),
    };
    await this.transactions.run(async (queries) => {
      await this.tasks.endOrThrow(queries, id, worker);
      const runId = await this.runs.add(queries, run, findings);
      const after = { grades: run.gradesChecked, findings: findings.length, rules: run.rules };
      await this.log.recordOf(queries, startedBy, [
        { action: 'run audit', thing: `audit ${runId}`, before: null, after },
      ]);
    });
  }

  private async tellProblem(id: number, error: unknown): Promise<void> {
    if (!(error instanceof Refusal)) this.logger.error(`audit ${id} failed`, error);
    await this.tasks.fail(this.transactions.reading, id, problemToKeep(error));
  }
}
