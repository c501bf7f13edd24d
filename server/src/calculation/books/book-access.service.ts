import { Injectable } from '@nestjs/common';
import { PeriodsRepository } from '#server/calendar';
import type { Actor, Queries } from '#server/platform';
import { canEditBook, canOpenBook } from './book-policy.js';
import { BookSectionsRepository } from './book-sections.repository.js';
import { BooksRepository } from './books.repository.js';

/** A grade book, by its section and period. */
export interface BookPlace {
  readonly sectionId: number;
  readonly periodId: number;
}

/** Who may see and change grade books, and what must hold still meanwhile. */
@Injectable()
export class BookAccess {
  constructor(
    private readonly books: BooksRepository,
    private readonly sections: BookSectionsRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  canChange(queries: Queries, places: readonly BookPlace[], actor: Actor): Promise<boolean> {
    return this.every(queries, places, (section) => canEditBook(actor, section));
  }

  canSee(queries: Queries, places: readonly BookPlace[], actor: Actor): Promise<boolean> {
    return this.every(queries, places, (section) => canOpenBook(actor, section));
  }

  /** Keeps the periods unsealed and the books for ourselves until the transaction ends. @throws Refusal period-sealed */
  async hold(queries: Queries, places: readonly BookPlace[]): Promise<void> {
    for (const id of [...new Set(places.map(({ periodId }) => periodId))].toSorted((a, b) => a - b))
      await this.periods.holdUnsealedOrThrow(queries, await this.periods.byIdOrThrow(queries, id));
    for (const id of [...new Set(places.map(({ sectionId }) => sectionId))].toSorted((a, b) => a - b))
      await this.books.lockOrThrow(queries, id);
  }

  private async every(
    queries: Queries,
    places: readonly BookPlace[],
    may: (section: { readonly teacherId: number }) => boolean,
  ): Promise<boolean> {
    const ids = [...new Set(places.map(({ sectionId }) => sectionId))];
    const teachers = await this.sections.teachersOf(queries, ids);
    return ids.every((id) => teachers.has(id) && may({ teacherId: teachers.get(id)! }));
  }
}
