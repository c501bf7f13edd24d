import { Injectable } from '@nestjs/common';
import type { CategoryReply, SaveCategoriesRequest } from '#contract/calculation';
import { Changes, revisionOf } from '#server/changes';
import { nextIds, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { CategoriesRepository } from './categories.repository.js';
import { categoryPlaceId, type CategoryPlace } from './category-place.js';

/** The lists of categories; each is saved as a whole, on the revision it began from. */
@Injectable()
export class CategoriesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly categories: CategoriesRepository,
    private readonly changes: Changes,
  ) {}

  async save(actor: Actor, place: CategoryPlace, request: SaveCategoriesRequest): Promise<CategoryReply[]> {
    return this.transactions.run((queries) => this.write(queries, actor, place, request));
  }

  /** The same inside a transaction that does more. */
  async write(
    queries: Queries,
    actor: Actor,
    place: CategoryPlace,
    { revision, categories }: SaveCategoriesRequest,
  ): Promise<CategoryReply[]> {
    const known = new Set((await this.categories.listOf(queries, place)).map(({ id }) => id));
    const faults = categories.flatMap(({ id }, at) =>
      id !== null && !known.has(id) ? [{ field: `categories.${at}.id`, detail: 'a category of this list' }] : [],
    );
    if (faults.length > 0) throw new Refusal('categories-faulty', {}, faults);
    const given = await nextIds(queries, 'categories', categories.filter(({ id }) => id === null).length);
    const after = categories.map(({ id, name, tint, isActive }) => ({
      id: id ?? given.shift()!,
      name,
      tint,
      isActive,
    }));
    await this.changes.make(queries, actor, {
      action: 'save the categories',
      edits: [{ kind: 'categories', id: categoryPlaceId(place), expected: revision, after }],
    });
    const all = await this.categories.ofSchool(queries, place.schoolId);
    return all.filter(({ sectionId }) => sectionId === place.sectionId);
  }
}

/** Changes with what the list says, not with what hangs on it. */
export function revisionOfCategories(categories: readonly CategoryReply[]): string {
  return revisionOf(categories.map(({ id, name, tint, isActive }) => ({ id, name, tint, isActive })));
}
