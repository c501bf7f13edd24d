import { Inject, Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { planClass, type TheirClass } from '#core/runs';
import { RecalculationService } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { PlatformClient, PlatformProblem } from '#server/platforms';
import { readClassWork } from './read-class-work.js';
import {
  Clock,
  DATABASE,
  DistrictZone,
  HeldWork,
  Leases,
  Refusal,
  Transactions,
  WorkLost,
  WorkQueue,
  type OpenDatabase,
  type Queries,
} from '#server/platform';
import { CarryClassService } from './carry-class.service.js';
import { LedgerRepository } from './ledger.repository.js';
import { RunGroundService, type RunGround } from './run-ground.service.js';
import { RunsRepository, type ClassOfRun, type KeptRun } from './runs.repository.js';
import { UndoClassService } from './undo-class.service.js';

type Step = (run: KeptRun, ground: RunGround, theirs: ClassOfRun) => Promise<void>;

/**
 * Works on runs, one class after the other. A class and what the run did with it are kept in one transaction, so that a
 * run can be broken off at any moment, by a person or by the power cable, and goes on with the class after the last one
 * kept; no class is carried over twice.
 */
@Injectable()
export class RunWorker implements OnApplicationBootstrap {
  private readonly logger = new Logger(RunWorker.name);
  readonly held: HeldWork;

  constructor(
    @Inject(DATABASE) database: OpenDatabase,
    queue: WorkQueue,
    private readonly transactions: Transactions,
    private readonly runs: RunsRepository,
    private readonly ledger: LedgerRepository,
    private readonly grounds: RunGroundService,
    private readonly carrying: CarryClassService,
    private readonly undoing: UndoClassService,
    private readonly recalculation: RecalculationService,
    private readonly periods: PeriodsRepository,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {
    this.held = new HeldWork(database, queue, {
      job: 'run',
      leases: new Leases('runs', sql`state = 'working'`),
      work: (id, _worker, signal) => this.work(id, signal),
      tellProblem: (id, error, isLastTry) => this.tellProblem(id, error, isLastTry),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.held.take();
  }

  private async work(runId: number, signal: AbortSignal): Promise<void> {
    await this.stages(await this.runs.byIdOrThrow(this.transactions.reading, runId), signal);
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
      if (!(await this.runs.pass(queries, run, classId, reading))) throw new WorkLost();
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
          ? 'The period has been sealed since.'
          : 'It stopped because of a fault in Wombat; the log of the server has it.',
    });
    if (!isOver) throw error;
  }
}
