import { Injectable } from '@nestjs/common';
import type { CategoryBody, CategoryReply, SaveCategoriesRequest } from '#contract/calculation';
import { ChangeLog, revisionOf } from '#server/changes';
import { Refusal, Transactions, type Actor, type FieldFault, type Queries } from '#server/platform';
import { CategoriesRepository } from './categories.repository.js';

/** Whose list of categories it is: a school's own, or one section's. */
export interface CategoryPlace {
  readonly schoolId: number;
  readonly sectionId: number | null;
}

/** The lists of categories; each is saved as a whole, on the revision it began from. */
@Injectable()
export class CategoriesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly categories: CategoriesRepository,
    private readonly log: ChangeLog,
  ) {}

  async save(actor: Actor, place: CategoryPlace, request: SaveCategoriesRequest): Promise<CategoryReply[]> {
    return this.transactions.run((queries) => this.write(queries, actor, place, request));
  }

  /** The same inside a transaction that does more. */
  async write(
    queries: Queries,
    actor: Actor,
    place: CategoryPlace,
    request: SaveCategoriesRequest,
  ): Promise<CategoryReply[]> {
    const all = await this.categories.ofSchool(queries, place.schoolId);
    const before = all.filter(({ sectionId }) => sectionId === place.sectionId);
    if (revisionOfCategories(before) !== request.revision) throw new Refusal('set-up-changed', { what: 'categories' });
    refuseFaulty(request.categories, all, before);
    const removed = before.filter(({ id }) => !request.categories.some((each) => each.id === id));
    await this.refuseUsed(queries, removed);
    await this.categories.remove(
      queries,
      removed.map(({ id }) => id),
    );
    await this.categories.write(queries, place, request.categories);
    const after = (await this.categories.ofSchool(queries, place.schoolId)).filter(
      ({ sectionId }) => sectionId === place.sectionId,
    );
    const thing = place.sectionId === null ? `school ${place.schoolId}` : `section ${place.sectionId}`;
    await this.log.record(queries, actor, [{ action: 'save categories', thing, before, after }]);
    return after;
  }

  private async refuseUsed(queries: Queries, removed: readonly CategoryReply[]): Promise<void> {
    for (const { id, name } of removed) {
      const items = await this.categories.itemsTaking(queries, id);
      if (items !== '') {
        const instead = 'Let those take the whole grade book or another category first.';
        throw new Refusal('in-use', { what: 'The category', name, uses: `report items (${items})`, instead });
      }
      const groups = await this.categories.platformUses(queries, id);
      const instead = 'Join those groups to another category under Matches first.';
      if (groups > 0)
        throw new Refusal('in-use', {
          what: 'The category',
          name,
          uses: `${groups} groups of learning platforms`,
          instead,
        });
    }
    const used = removed.find(({ assignments }) => assignments > 0);
    if (!used) return;
    const scores = (await this.categories.scoresOf(queries, [used.id])).get(used.id) ?? 0;
    const uses = `${used.assignments} assignments with ${scores} scores`;
    const instead = 'Switch it off instead: no new assignment can be put in it, and what is there goes on counting.';
    throw new Refusal('in-use', { what: 'The category', name: used.name, uses, instead });
  }
}

/** Changes with what the list says, not with what hangs on it. */
export function revisionOfCategories(categories: readonly CategoryReply[]): string {
  return revisionOf(categories.map(({ id, name, tint, isActive }) => ({ id, name, tint, isActive })));
}

function refuseFaulty(
  bodies: readonly CategoryBody[],
  all: readonly CategoryReply[],
  before: readonly CategoryReply[],
): void {
  const others = all.filter(({ id, sectionId }) => sectionId === null && !before.some((each) => each.id === id));
  const faults = bodies.flatMap(({ id, name }, at): FieldFault[] => {
    const isSame = (other: { readonly name: string }) => other.name.trim().toLowerCase() === name.trim().toLowerCase();
    if (bodies.findIndex(isSame) < at || others.some(isSame))
      return [{ field: `categories.${at}.name`, detail: `${name} is there already` }];
    if (id !== null && !before.some((each) => each.id === id))
      return [{ field: `categories.${at}.id`, detail: 'a category of this list' }];
    return [];
  });
  if (faults.length > 0) throw new Refusal('categories-faulty', {}, faults);
}
