import type { CategoryBody } from '#contract/calculation';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type FieldFault, type PlaceOf, type Queries } from '#server/platform';
import { counted } from '#contract/messages';
import { CategoriesRepository } from './categories.repository.js';
import { categoryPlaceOf } from './category-place.js';

/** A list of categories in its order; all of them have their numbers. */
export type CategoryList = readonly (CategoryBody & { readonly id: number })[];

/** A school's own list of categories, or one section's, by the place: kept and changed as one. */
@ThingOf({
  kind: 'categories',
  called: 'the categories',
  change: 'change-categories',
  see: 'read-grades',
  at: placeOfCategories,
})
export class CategoriesThing implements Thing<CategoryList> {
  constructor(private readonly categories: CategoriesRepository) {}

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, CategoryList>> {
    const found = new Map<string, CategoryList>();
    for (const id of ids) found.set(id, await this.categories.listOf(queries, categoryPlaceOf(id)));
    return found;
  }

  async check(queries: Queries, values: ReadonlyMap<string, CategoryList | null>): Promise<void> {
    for (const [id, list] of values) {
      const place = categoryPlaceOf(id);
      const all = await this.categories.ofSchool(queries, place.schoolId);
      const [before, others] = [
        all.filter(({ sectionId }) => sectionId === place.sectionId),
        all.filter(({ sectionId }) => sectionId === null && place.sectionId !== null),
      ];
      refuseSameNames(list ?? [], others);
      for (const gone of before.filter((each) => !list?.some((kept) => kept.id === each.id)))
        await this.refuseUsed(queries, gone);
    }
  }

  async write(queries: Queries, values: ReadonlyMap<string, CategoryList | null>): Promise<void> {
    for (const [id, list] of values) await this.categories.replace(queries, categoryPlaceOf(id), list ?? []);
  }

  private async refuseUsed(
    queries: Queries,
    category: { readonly id: number; readonly name: string; readonly assignments: number },
  ) {
    const { id, name, assignments } = category;
    const refuse = (uses: string, instead: string) =>
      new Refusal('in-use', { what: 'The category', name, uses, instead });
    const items = await this.categories.itemsTaking(queries, id);
    if (items !== '')
      throw refuse(`report items (${items})`, 'Set those to use the overall grade book or another category first.');
    const groups = await this.categories.platformUses(queries, id);
    if (groups > 0)
      throw refuse(
        counted(groups, 'group of learning platforms'),
        'Join those groups to another category under Matches first.',
      );
    if (assignments === 0) return;
    const scores = (await this.categories.scoresOf(queries, [id])).get(id) ?? 0;
    throw refuse(
      `${counted(assignments, 'assignment')} with ${counted(scores, 'score')}`,
      'Switch it off instead: no new assignment can be put in it, and what is there goes on counting.',
    );
  }
}

/** A name may stand once in a list, and a section's may not be one of its school's. */
function refuseSameNames(list: CategoryList, others: readonly { readonly name: string }[]): void {
  const folded = ({ name }: { readonly name: string }) => name.trim().toLowerCase();
  const names = list.map(folded);
  const taken = new Set(others.map(folded));
  const faults = list.flatMap(({ name }, at): FieldFault[] =>
    names.indexOf(names[at]!) < at || taken.has(names[at]!)
      ? [{ field: `categories.${at}.name`, detail: `${name} is there already` }]
      : [],
  );
  if (faults.length > 0) throw new Refusal('categories-faulty', {}, faults);
}

function placeOfCategories(id: string): PlaceOf {
  const { schoolId, sectionId } = categoryPlaceOf(id);
  return sectionId === null ? { kind: 'school', id: schoolId } : { kind: 'section', id: sectionId };
}
