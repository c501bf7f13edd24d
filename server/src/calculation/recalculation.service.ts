import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { RecalculationReply } from '#contract/calculation';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { Transactions } from '#server/platform';
import { BookCalculator } from './book-calculator.js';
import { BookSectionsRepository } from './book-sections.repository.js';
import { CalculatedGradesRepository, type StaleBook } from './calculated-grades.repository.js';
import { policiesFor, SectionPolicies } from './section-policies.js';

/** Books calculated at once: small enough that progress shows and a cancel is soon felt. */
const booksAtOnce = 25;

/**
 * Calculates stale grade books again, some at a time. The list of stale books is what is still to be done: it survives a
 * restart, at which the work goes on, and a book that is calculated leaves it in the same transaction as its grades.
 */
@Injectable()
export class RecalculationService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(RecalculationService.name);
  private round: Promise<void> | null = null;
  private total = 0;
  private isCancelled = false;

  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly sections: BookSectionsRepository,
    private readonly policies: SectionPolicies,
    private readonly calculator: BookCalculator,
    private readonly grades: CalculatedGradesRepository,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.start();
  }

  async onApplicationShutdown(): Promise<void> {
    this.cancel();
    await this.round;
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

  /** Stops after the books under way; the others stay on the list and are calculated when they are opened. */
  cancel(): void {
    this.isCancelled = true;
  }

  async progress(): Promise<RecalculationReply> {
    const remaining = await this.grades.countStale(this.transactions.reading);
    return { remaining, total: this.round ? Math.max(this.total, remaining) : 0, isRunning: this.round !== null };
  }

  /** Makes sure that the calculated grades of a period, or of some of its sections, are up to date. Not inside a transaction. */
  async freshen(period: SchoolPeriod, sectionIds: readonly number[] | null = null): Promise<void> {
    const stale = await this.grades.staleOf(this.transactions.reading, period.id, sectionIds);
    if (stale.length > 0) await this.calculate(period, stale);
  }

  private async work(): Promise<void> {
    while (!this.isCancelled) {
      const some = await this.grades.someStale(this.transactions.reading, booksAtOnce);
      if (some.length === 0) return;
      const period = await this.periods.byIdOrThrow(this.transactions.reading, some[0]!.periodId);
      await this.calculate(period, some);
    }
  }

  private async calculate(period: SchoolPeriod, stale: readonly StaleBook[]): Promise<void> {
    const queries = this.transactions.reading;
    const wanted = new Set(stale.map(({ sectionId }) => sectionId));
    const sections = (await this.sections.inPeriod(queries, period)).filter(({ id }) => wanted.has(id));
    const placed = await this.policies.ofSchool(queries, period.schoolId);
    const grades = await this.calculator.calculate(period, policiesFor(placed, sections, period.id));
    await this.transactions.run(async (writing) => {
      await this.grades.store(writing, period.id, grades);
      await this.grades.settle(writing, stale);
    });
  }
}
