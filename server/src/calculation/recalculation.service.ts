import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { plainPolicy } from '#core/calculation';
import { policyOfBody, type RecalculationReply } from '#contract/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PeriodViews } from '#server/period-view';
import { Transactions } from '#server/platform';
import { BookCalculator } from './book-calculator.js';
import { CalculatedGradesRepository, type StaleBook } from './calculated-grades.repository.js';

/** Books calculated at once: small enough that progress shows and a cancel is soon felt. */
const booksAtOnce = 25;
/** After the last write, before stale books are looked for. */
const pauseMilliseconds = 300;

/**
 * Calculates stale grade books again, some at a time. The list of stale books is what is still to be done: it survives a
 * restart, at which the work goes on, and a book that is calculated leaves it in the same transaction as its grades.
 */
@Injectable()
export class RecalculationService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(RecalculationService.name);
  private round: Promise<void> | null = null;
  private soon: NodeJS.Timeout | undefined;
  private total = 0;
  private isCancelled = false;
  private isStopping = false;
  private looking: Promise<unknown> | undefined;

  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly calculator: BookCalculator,
    private readonly grades: CalculatedGradesRepository,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.transactions.afterCommit(() => this.beginSoon());
    await this.start();
  }

  async onApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    clearTimeout(this.soon);
    await this.looking; // it may be about to begin a round
    this.cancel();
    await this.round;
  }

  /** Whatever was written may have made books stale: the database knows. Many writes in a row are looked after once. */
  private beginSoon(): void {
    if (this.round || this.isCancelled || this.isStopping) return;
    clearTimeout(this.soon);
    this.soon = setTimeout(() => {
      this.looking = this.start().catch((error: unknown) =>
        this.logger.error('looking for stale grade books failed', error),
      );
    }, pauseMilliseconds);
  }

  /** Begins, or lets a round that is under way take in what became stale meanwhile. */
  async start(): Promise<RecalculationReply> {
    if (this.isCancelled) await this.round;
    const remaining = await this.grades.countStale(this.transactions.reading);
    if (!this.round && remaining > 0) {
      this.isCancelled = false;
      this.total = remaining;
      this.round = this.work()
        .catch((error: unknown) => this.logger.error('calculating stale grade books failed', error))
        .finally(() => {
          this.round = null;
        });
    } else this.total = Math.max(this.total, remaining);
    return this.progress();
  }

  /** Calculates all that is stale, and waits for it. */
  async finish(): Promise<void> {
    await this.start();
    await this.round;
  }

  /** Stops after the books under way; the others stay on the list and are calculated when they are opened. */
  cancel(): void {
    this.isCancelled = true;
  }

  async progress(): Promise<RecalculationReply> {
    const remaining = await this.grades.countStale(this.transactions.reading);
    const failed = await this.grades.failed(this.transactions.reading);
    const isRunning = this.round !== null;
    return { remaining, total: isRunning ? Math.max(this.total, remaining) : 0, isRunning, failed };
  }

  /** Makes sure that the calculated grades of a period, or of some of its sections, are up to date. Not inside a transaction. */
  async freshen(period: SchoolPeriod, sectionIds: readonly number[] | null = null): Promise<void> {
    // What others change meanwhile is stale anew; after a few rounds the list is left to the work in the background.
    for (let round = 0; round < 3; round++) {
      const stale = await this.grades.staleOf(this.transactions.reading, period.id, sectionIds);
      if (stale.length === 0) return;
      await this.calculateSafely(period, stale);
    }
  }

  private async work(): Promise<void> {
    while (!this.isCancelled) {
      const some = await this.grades.someStale(this.transactions.reading, booksAtOnce);
      if (some.length === 0) return;
      const period = await this.periods.byIdOrThrow(this.transactions.reading, some[0]!.periodId);
      await this.calculateSafely(period, some);
    }
  }

  /** Where books fail together, each is tried by itself: one that cannot be calculated is told of and stops no other. */
  private async calculateSafely(period: SchoolPeriod, stale: readonly StaleBook[]): Promise<void> {
    try {
      await this.calculate(period, stale);
    } catch (error) {
      if (stale.length > 1) {
        for (const book of stale) await this.calculateSafely(period, [book]);
        return;
      }
      this.logger.error(`the grade book of section ${stale[0]!.sectionId} could not be calculated`, error);
      const problem = error instanceof Error ? error.message : String(error);
      await this.transactions.run((queries) => this.grades.giveUp(queries, stale[0]!, problem));
    }
  }

  private async calculate(period: SchoolPeriod, stale: readonly StaleBook[]): Promise<void> {
    const wanted = new Set(stale.map(({ sectionId }) => sectionId));
    const { own, texts } = await this.transactions.snapshot(async (queries) => {
      const { sections } = await this.views.of(queries, period);
      const own = sections.filter(({ id }) => wanted.has(id));
      const ids = own.map(({ id }) => id);
      return { own, texts: await this.calculator.read(queries, period, ids) };
    });
    const policies = own.map(({ policy }) => (policy ? policyOfBody(policy.policy) : plainPolicy));
    const policyOf = own.map(({ id }, at) => [id, at] as const);
    const grades = await this.calculator.calculate(texts, { policies, policyOf });
    await this.transactions.run((writing) => this.grades.settle(writing, period.id, stale, grades));
  }
}
