import { randomUUID } from 'node:crypto';
import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { planClass, type TheirClass } from '#core/transfer';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { PlatformClient, PlatformProblem, readClassWork } from '#server/matching';
import {
  Clock,
  DATABASE,
  DistrictZone,
  Refusal,
  Transactions,
  WorkQueue,
  type JobTry,
  type OpenDatabase,
  type Queries,
} from '#server/platform';
import { CarryClassService } from './carry-class.service.js';
import { LedgerRepository } from './ledger.repository.js';
import { RunGroundService, type RunGround } from './run-ground.service.js';
import { leaseSeconds, RunsRepository, type ClassOfRun, type KeptRun } from './runs.repository.js';
import { UndoClassService } from './undo-class.service.js';

const jobName = 'run';
const renewMilliseconds = (leaseSeconds * 1000) / 4;

type Step = (run: KeptRun, ground: RunGround, theirs: ClassOfRun) => Promise<void>;

/** The run was stopped, or another server works on it now. */
class RunLost extends Error {}

/**
 * Works on runs, one class after the other. A class and what the run did with it are kept in one transaction, so that a
 * run can be broken off at any moment, by a person or by the power cable, and goes on with the class after the last one
 * kept; no class is carried over twice.
 */
@Injectable()
export class RunWorker implements OnApplicationBootstrap {
  private readonly logger = new Logger(RunWorker.name);
  private readonly name = randomUUID();
  private readonly underWay = new Map<number, AbortController>();

  constructor(
    @Inject(DATABASE) private readonly database: OpenDatabase,
    private readonly transactions: Transactions,
    private readonly queue: WorkQueue,
    private readonly runs: RunsRepository,
    private readonly ledger: LedgerRepository,
    private readonly grounds: RunGroundService,
    private readonly carrying: CarryClassService,
    private readonly undoing: UndoClassService,
    private readonly recalculation: RecalculationService,
    private readonly periods: PeriodsRepository,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.queue.take(jobName, (data, job) => this.work((data as { runId: number }).runId, job));
    if (this.database.dump !== null) await this.runs.releaseAll(this.transactions.reading);
    await this.takeUpAbandoned();
  }

  async begin(runId: number): Promise<void> {
    await this.queue.ask(jobName, { runId });
  }

  /** Runs that a server left behind when it fell. */
  async takeUpAbandoned(): Promise<void> {
    for (const id of await this.runs.abandoned(this.transactions.reading))
      if (!this.underWay.has(id)) await this.begin(id);
  }

  /** Breaks off what this server reads for the run at this moment; that it is stopped must stand in the database. */
  interrupt(runId: number): void {
    this.underWay.get(runId)?.abort('stop');
  }

  private async work(runId: number, { signal, isLastTry }: JobTry): Promise<void> {
    // Stopped a moment ago and resumed: the job comes again when this server has let go of it.
    if (this.underWay.has(runId)) throw new Error(`run ${runId} is still being let go of`);
    const stop = new AbortController();
    this.underWay.set(runId, stop);
    const stillHere = setInterval(() => void this.renew(runId), renewMilliseconds);
    try {
      const run = await this.runs.claim(this.transactions.reading, runId, this.name);
      if (run) await this.stages(run, AbortSignal.any([signal, stop.signal]));
    } catch (error) {
      if (error instanceof RunLost || stop.signal.aborted) return;
      if (signal.aborted) throw error;
      await this.tellProblem(runId, error, isLastTry);
    } finally {
      clearInterval(stillHere);
      this.underWay.delete(runId);
      await this.runs.release(this.transactions.reading, runId, this.name);
    }
  }

  private async renew(runId: number): Promise<void> {
    await this.runs
      .renew(this.transactions.reading, runId, this.name)
      .catch((error: unknown) => this.logger.warn(`run ${runId} could not be held: ${String(error)}`));
  }

  private async stages(run: KeptRun, signal: AbortSignal): Promise<void> {
    await this.stage(run, signal);
    const goesOn = run.isNightly && run.stage === 'plan';
    await this.transactions.run(async (queries) => {
      const counts = await this.ledger.counts(queries, run.id);
      await this.runs.change(queries, run.id, {
        state: goesOn ? 'working' : 'ready',
        stage: goesOn ? 'carry' : run.stage,
        endedAt: this.clock.now(),
        problem: null,
        counts,
      });
      if (run.stage === 'carry') await this.runs.forgetReadings(queries, run.id);
    });
    if (run.stage !== 'plan') await this.recalculation.start();
    if (goesOn) await this.stages({ ...run, stage: 'carry' }, signal);
  }

  private async stage(run: KeptRun, signal: AbortSignal): Promise<void> {
    const queries = this.transactions.reading;
    const ground = await this.grounds.of(queries, run.platformId, run.periodId);
    const step = run.stage === 'plan' ? await this.planning(ground, signal) : this.steps[run.stage];
    for (const theirs of await this.runs.classesToDo(queries, run)) {
      signal.throwIfAborted();
      await step(run, ground, theirs);
    }
  }

  private async planning({ platform }: RunGround, signal: AbortSignal): Promise<Step> {
    const client = new PlatformClient(platform, signal);
    const dayOf = await this.zone.dayOf(this.transactions.reading);
    return async (run, ground, theirs) => {
      const work = await readClassWork(client, theirs.key, dayOf);
      const weightSum = ground.names.get(theirs.id)?.weightSum ?? null;
      const reading: TheirClass = { ...work, title: theirs.title, weightSum };
      await this.keep(run, theirs.id, reading, async (queries) => {
        const ours = await this.grounds.ofClass(queries, ground, theirs);
        await this.ledger.add(queries, run.id, theirs.id, planClass(reading, ours, run));
      });
    };
  }

  private readonly carryingOver: Step = (run, ground, theirs) =>
    this.keep(run, theirs.id, undefined, async (queries) => {
      await this.periods.holdAsItIs(queries, run.periodId);
      await this.carrying.carry(queries, run, ground, theirs);
    });

  private readonly takingBack: Step = (run, ground, theirs) =>
    this.keep(run, theirs.id, undefined, async (queries) => {
      await this.periods.holdUnsealedOrThrow(queries, ground.period);
      await this.undoing.undo(queries, run, theirs);
    });

  private readonly steps = { carry: this.carryingOver, undo: this.takingBack };

  /** What was done with a class and that it is done are kept together, or neither is. */
  private keep(
    run: KeptRun,
    classId: number,
    reading: TheirClass | undefined,
    work: (queries: Queries) => Promise<void>,
  ): Promise<void> {
    return this.transactions.run(async (queries) => {
      await work(queries);
      if (!(await this.runs.pass(queries, run, classId, reading))) throw new RunLost();
    });
  }

  /** What may pass is tried again; what will not, and a fault of ours, ends the run until somebody resumes it. */
  private async tellProblem(runId: number, error: unknown, isLastTry: boolean): Promise<void> {
    const isExpected = error instanceof PlatformProblem;
    const isOver = isLastTry || !isExpected;
    if (!isExpected) this.logger.error(`run ${runId} failed`, error);
    await this.runs.change(this.transactions.reading, runId, {
      ...(isOver ? { state: 'failed', endedAt: this.clock.now() } : {}),
      problem: isExpected
        ? error.message
        : error instanceof Refusal
          ? 'The period was sealed meanwhile.'
          : 'It stopped because of a fault in Wombat; the log of the server has it.',
    });
    if (!isOver) throw error;
  }
}
