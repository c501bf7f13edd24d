import { Injectable } from '@nestjs/common';
import { canCarryOut, canDiscard, canResume, canUndo, isWriting, type MarkFacts } from '#core/runs';
import type {
  LastRunReply,
  NightlyRequest,
  PickRequest,
  PlanRunRequest,
  RunReply,
  RunRowReply,
  RunRowsQuery,
  RunRowsReply,
  RunSummaryReply,
  RunsReply,
} from '#contract/runs';
import { ArrivalsService } from '#server/audit';
import { CategoriesRepository } from '#server/calculation';
import { PeriodsRepository } from '#server/calendar';
import { ChangeLog } from '#server/changes';
import { PlatformsRepository } from '#server/platforms';
import { Clock, Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { LedgerRepository, type ShownRow } from './ledger.repository.js';
import { RunWorker } from './run-worker.js';
import { RunsRepository, type KeptRun } from './runs.repository.js';

/** What people do with runs; the worker does the work. */
@Injectable()
export class RunsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly runs: RunsRepository,
    private readonly ledger: LedgerRepository,
    private readonly platforms: PlatformsRepository,
    private readonly categories: CategoriesRepository,
    private readonly periods: PeriodsRepository,
    private readonly worker: RunWorker,
    private readonly arrivals: ArrivalsService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async ofSchool(schoolId: number): Promise<RunsReply> {
    return this.transactions.snapshot(async (queries) => {
      const platforms = await this.platforms.ofSchool(queries, schoolId);
      const names = new Map((await this.platforms.nightly(queries)).map(({ platform, setBy }) => [platform.id, setBy]));
      return {
        runs: await this.runs.ofSchool(queries, schoolId),
        platforms: platforms.map(({ platform: { id, name, nightly, defaultCategoryId } }) => ({
          id,
          name,
          defaultCategoryId,
          nightly: nightly && {
            at: nightly.at,
            mode: nightly.mode,
            carriesWork: nightly.carriesWork,
            carriesTotals: nightly.carriesTotals,
            setBy: names.get(id) ?? '',
          },
        })),
        categories: await this.schoolCategories(queries, schoolId),
      };
    });
  }

  async byId(id: number): Promise<RunReply> {
    return this.transactions.snapshot(async (queries) => {
      const summary = await this.runs.summaryOrThrow(queries, id);
      const { schoolId } = await this.platforms.byIdOrThrow(queries, summary.platformId);
      return {
        ...summary,
        counts: await this.ledger.counts(queries, id),
        classes: await this.runs.classes(queries, id),
        categories: await this.schoolCategories(queries, schoolId),
      };
    });
  }

  async rows(id: number, query: RunRowsQuery): Promise<RunRowsReply> {
    return this.transactions.snapshot(async (queries) => {
      const run = await this.runs.summaryOrThrow(queries, id);
      const { rows: lines, total } = await this.ledger.rows(queries, id, query);
      const remarks = canCarryOut(run) ? await this.remarksOn(queries, run, lines) : undefined;
      const rows = lines.map(({ itemId, ...line }): RunRowReply => ({
        ...line,
        remarks: remarks?.get(`${line.enrollmentId}/${itemId}`) ?? [],
      }));
      return { rows, total };
    });
  }

  /** What would be said of the grades that these lines are about to post. */
  private async remarksOn(
    queries: Queries,
    { periodId, carriesWork }: Pick<RunSummaryReply, 'periodId' | 'carriesWork'>,
    lines: readonly ShownRow[],
  ) {
    const arrivals = lines.flatMap(({ kind, outcome, enrollmentId, itemId, after }) =>
      kind === 'mark' && isWriting(outcome) && enrollmentId !== null && itemId !== null
        ? [{ enrollmentId, itemId, posted: after as MarkFacts, changesBook: carriesWork }]
        : [],
    );
    if (arrivals.length === 0) return undefined;
    return this.arrivals.remarks(queries, await this.periods.byIdOrThrow(queries, periodId), arrivals);
  }

  async lastOfSection(sectionId: number, periodId: number): Promise<LastRunReply | null> {
    const last = await this.runs.lastOfSection(this.transactions.reading, sectionId, periodId);
    if (!last) return null;
    const milliseconds = this.clock.now().getTime() - Date.parse(last.endedAt);
    return { ...last, minutesAgo: Math.max(0, Math.floor(milliseconds / 60_000)) };
  }

  /** Begins a run by planning it. It writes no grade before somebody carries it out, or the night does. */
  async plan(actor: Pick<Actor, 'personId' | 'name'>, request: PlanRunRequest, isNightly = false): Promise<RunReply> {
    const { platformId, periodId, mode, carriesWork, carriesTotals } = request;
    const id = await this.transactions.run(async (queries) => {
      const platform = await this.platforms.byIdOrThrow(queries, platformId);
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const faults: FieldFault[] = [
        ...(period.schoolId === platform.schoolId
          ? []
          : [{ field: 'periodId', detail: 'a period of the same school' }]),
        ...(carriesWork || carriesTotals ? [] : [{ field: 'carriesWork', detail: 'assignments, totals or both' }]),
      ];
      if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
      if (platform.readAt === null) throw new Refusal('platform-unread', { name: platform.name });
      if ((await this.runs.underWay(queries, platformId)) !== undefined)
        throw new Refusal('run-under-way', { name: platform.name });
      const id = await this.runs.add(queries, {
        platformId,
        periodId,
        stage: 'plan',
        state: 'working',
        mode,
        carriesWork,
        carriesTotals,
        isNightly,
        startedBy: actor.personId,
        startedAt: this.clock.now(),
      });
      const after = { platform: platform.name, period: period.name, mode, carriesWork, carriesTotals, isNightly };
      await this.log.record(queries, actor, [{ action: 'plan run', thing: `run ${id}`, before: null, after }]);
      return id;
    });
    await this.worker.held.begin(id);
    return this.byId(id);
  }

  async pick(id: number, request: PickRequest): Promise<RunReply> {
    await this.transactions.run(async (queries) => {
      const run = await this.runs.lockedOrThrow(queries, id);
      if (!canCarryOut(run)) throw new Refusal('run-elsewhere', { does: 'chosen from' });
      await this.ledger.pick(queries, id, request);
    });
    return this.byId(id);
  }

  async carryOut(actor: Actor, id: number): Promise<RunReply> {
    return this.enter(actor, id, 'carry', 'carried out', canCarryOut);
  }

  /** Takes back what the run wrote, but for what somebody changed since. */
  async undo(actor: Actor, id: number): Promise<RunReply> {
    return this.enter(actor, id, 'undo', 'undone', canUndo);
  }

  /** Goes on where the run stopped. */
  async resume(actor: Actor, id: number): Promise<RunReply> {
    const { stage } = await this.runs.byIdOrThrow(this.transactions.reading, id);
    return this.enter(actor, id, stage, 'resumed', canResume);
  }

  /** What is kept already stays; the run can be resumed, or undone. */
  async stop(actor: Actor, id: number): Promise<RunReply> {
    await this.transactions.run(async (queries) => {
      const run = await this.runs.lockedOrThrow(queries, id);
      if (run.state !== 'working') return;
      const counts = await this.ledger.counts(queries, id);
      await this.runs.change(queries, id, { state: 'stopped', endedAt: this.clock.now(), problem: null, counts });
      await this.record(queries, actor, 'stop run', id);
    });
    this.worker.held.interrupt(id);
    return this.byId(id);
  }

  /** Lets go of a plan that was not carried out. */
  async discard(actor: Actor, id: number): Promise<void> {
    await this.transactions.run(async (queries) => {
      const run = await this.runs.lockedOrThrow(queries, id);
      if (!canDiscard(run)) throw new Refusal('run-elsewhere', { does: 'discarded' });
      await this.runs.remove(queries, id);
      await this.record(queries, actor, 'discard run', id);
    });
  }

  async setNightly(actor: Actor, platformId: number, { at, ...choices }: NightlyRequest): Promise<RunsReply> {
    if (at !== null && !choices.carriesWork && !choices.carriesTotals)
      throw new Refusal('fields-wrong', {}, [{ field: 'carriesWork', detail: 'assignments, totals or both' }]);
    const { mode, carriesWork, carriesTotals } = choices;
    const nightly =
      at === null
        ? null
        : { at, mode, carriesWork, carriesTotals, setBy: actor.personId, setAt: this.clock.now().toISOString() };
    return this.changePlatform(actor, platformId, 'set nightly run', { nightly });
  }

  async setDefaultCategory(actor: Actor, platformId: number, categoryId: number | null): Promise<RunsReply> {
    const queries = this.transactions.reading;
    const { schoolId } = await this.platforms.byIdOrThrow(queries, platformId);
    const known = await this.schoolCategories(queries, schoolId);
    if (categoryId !== null && !known.some(({ id }) => id === categoryId))
      throw new Refusal('fields-wrong', {}, [{ field: 'categoryId', detail: 'a category of the school, or none' }]);
    return this.changePlatform(actor, platformId, 'set default category', { defaultCategoryId: categoryId });
  }

  private async changePlatform(
    actor: Actor,
    platformId: number,
    action: string,
    after: Parameters<PlatformsRepository['change']>[2],
  ): Promise<RunsReply> {
    const schoolId = await this.transactions.run(async (queries) => {
      const { nightly, defaultCategoryId, schoolId } = await this.platforms.byIdOrThrow(queries, platformId);
      await this.platforms.change(queries, platformId, after);
      const before = 'nightly' in after ? { nightly } : { defaultCategoryId };
      await this.log.record(queries, actor, [{ action, thing: `platform ${platformId}`, before, after }]);
      return schoolId;
    });
    return this.ofSchool(schoolId);
  }

  private async enter(
    actor: Actor,
    id: number,
    stage: KeptRun['stage'],
    does: string,
    isAllowed: (run: KeptRun) => boolean,
  ): Promise<RunReply> {
    await this.transactions.run(async (queries) => {
      const run = await this.runs.lockedOrThrow(queries, id);
      if (!isAllowed(run)) throw new Refusal('run-elsewhere', { does });
      if ((await this.runs.underWay(queries, run.platformId)) !== undefined)
        throw new Refusal('run-under-way', { name: (await this.platforms.byIdOrThrow(queries, run.platformId)).name });
      if (stage === 'undo') {
        const later = await this.runs.laterWritten(queries, run);
        if (later !== undefined) throw new Refusal('run-undo-order', { later });
      }
      if (stage !== 'plan')
        await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, run.periodId));
      await this.runs.change(queries, id, { stage, state: 'working', problem: null });
      await this.record(queries, actor, `run ${does}`, id);
    });
    await this.worker.held.begin(id);
    return this.byId(id);
  }

  private async record(queries: Queries, actor: Actor, action: string, id: number): Promise<void> {
    await this.log.record(queries, actor, [{ action, thing: `run ${id}`, before: null, after: null }]);
  }

  private async schoolCategories(queries: Queries, schoolId: number) {
    const all = await this.categories.ofSchool(queries, schoolId);
    return all.filter(({ sectionId }) => sectionId === null).map(({ id, name }) => ({ id, name }));
  }
}
