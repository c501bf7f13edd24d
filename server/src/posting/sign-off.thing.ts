import { ThingOf, type Thing } from '#server/changes';
import type { Actor, Queries } from '#server/platform';
import { PostingAccess } from './posting-access.service.js';
import { sheetPlaceOf } from './sheet-place.js';
import { SignOffsRepository, type SignOffValue } from './sign-offs.repository.js';

/** Sign-offs, by "section/item/period". */
@ThingOf({
  kind: 'sign-off',
  called: 'the sign-off',
  change: 'post-grades',
  see: 'read-grades',
  at: (id) => ({ kind: 'section', id: sheetPlaceOf(id).sectionId }),
})
export class SignOffThing implements Thing<SignOffValue> {
  constructor(
    private readonly signOffs: SignOffsRepository,
    private readonly access: PostingAccess,
  ) {}

  names(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    return this.signOffs.namesOf(queries, ids);
  }

  hold(queries: Queries, ids: readonly string[]): Promise<void> {
    return this.access.holdSheets(queries, ids.map(sheetPlaceOf));
  }

  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SignOffValue>> {
    return this.signOffs.valuesOf(queries, ids);
  }

  /** As for grades: outside the posting window only a registrar may, where the window lets anybody. */
  check(queries: Queries, values: ReadonlyMap<string, SignOffValue | null>, actor: Actor): Promise<void> {
    return this.access.refuseClosed(queries, [...values.keys()].map(sheetPlaceOf), actor);
  }

  write(queries: Queries, values: ReadonlyMap<string, SignOffValue | null>): Promise<void> {
    return this.signOffs.write(queries, values);
  }
}
