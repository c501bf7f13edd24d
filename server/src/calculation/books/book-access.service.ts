import { Injectable } from '@nestjs/common';
import { PeriodsRepository } from '#server/calendar';
import type { Queries } from '#server/platform';
import { BooksRepository } from './books.repository.js';

/** A grade book, by its section and period. */
export interface BookPlace {
  readonly sectionId: number;
  readonly periodId: number;
}

/** What must hold still while grade books are changed. */
@Injectable()
export class BookAccess {
  constructor(
    private readonly books: BooksRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  /** Keeps the periods unsealed and the books for ourselves until the transaction ends. @throws Refusal period-sealed */
  async hold(queries: Queries, places: readonly BookPlace[]): Promise<void> {
    for (const id of [...new Set(places.map(({ periodId }) => periodId))].toSorted((a, b) => a - b))
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    for (const id of [...new Set(places.map(({ sectionId }) => sectionId))].toSorted((a, b) => a - b))
      await this.books.lockOrThrow(queries, id);
  }
}
