import { bodyOfMark, type MarkBody } from '#contract/posting';
import { noMark } from '#core/posting';
import { ThingOf, type Thing } from '#server/changes';
import type { Actor, Queries } from '#server/platform';
import { byItem, gradeId, gradePlaceOf } from './grade-place.js';
import { GradesRepository } from './grades.repository.js';
import { PostingAccess } from './posting-access.service.js';
import { ReceiptsRepository } from './receipts.repository.js';

/** What is posted, the version of the scale that it was posted under, and what was computed then. */
export type GradeValue = MarkBody & {
  readonly scaleVersionId: number;
  readonly computedThen: string | null;
  readonly isOverride: boolean;
};

/** Posted grades, by "item/period/enrollment". A change of some is told in a receipt for each sheet. */
@ThingOf({
  kind: 'grade',
  called: 'the grade',
  change: 'post-grades',
  see: 'read-grades',
  at: (id) => ({ kind: 'enrollment', id: gradePlaceOf(id).enrollmentId }),
})
export class GradeThing implements Thing<GradeValue> {
  constructor(
    private readonly grades: GradesRepository,
    private readonly receipts: ReceiptsRepository,
    private readonly access: PostingAccess,
  ) {}

  names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return this.grades.namesOf(queries, ids.map(gradePlaceOf));
  }

  hold(queries: Queries, ids: readonly string[]): Promise<void> {
    return this.access.hold(queries, ids.map(gradePlaceOf));
  }

  async read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, GradeValue>> {
    const found = new Map<string, GradeValue>();
    for (const { itemId, periodId, enrollmentIds } of byItem(ids.map(gradePlaceOf)))
      for (const [enrollmentId, value] of await this.grades.valuesOf(queries, itemId, periodId, enrollmentIds))
        found.set(gradeId({ itemId, periodId, enrollmentId }), value);
    return found;
  }

  /** Outside the posting window only a registrar may, where the window lets anybody; a sheet that is signed off takes nothing. */
  async check(queries: Queries, values: ReadonlyMap<string, GradeValue | null>, actor: Actor): Promise<void> {
    await this.access.refuseGrades(queries, [...values.keys()].map(gradePlaceOf), actor);
  }

  async write(queries: Queries, values: ReadonlyMap<string, GradeValue | null>, actor: Actor): Promise<void> {
    const places = [...values.keys()].map(gradePlaceOf);
    const before = await this.read(queries, [...values.keys()]);
    await this.grades.write(
      queries,
      actor,
      [...values].map(([id, value]) => ({ ...gradePlaceOf(id), value })),
    );
    await this.receipts.write(
      queries,
      actor,
      places.map((place) => ({
        ...place,
        before: markOf(before.get(gradeId(place))),
        after: markOf(values.get(gradeId(place))) ?? noMarkBody,
      })),
    );
  }
}

const noMarkBody = bodyOfMark(noMark);

function markOf(value: GradeValue | null | undefined): MarkBody | null {
  if (!value) return null;
  const { scaleVersionId: _version, computedThen: _then, isOverride: _override, ...mark } = value;
  return mark;
}
