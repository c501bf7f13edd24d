import type { PersonField } from '#core/people';
import type { RowChanges } from '../cell-tables/table-rows';
import { createDraftStore } from '../shell/draft-store';

/** By school. Each person bears the revision their change began from, so the draft as a whole is based on nothing. */
export const peopleDrafts = createDraftStore<RowChanges<PersonField>, null>('people');
