import type { CourseField } from '#core/courses';
import type { RowChanges } from '../cell-tables/table-rows';
import { createDraftStore } from '../shell/draft-store';

/** By school. Each course bears the revision its change began from, so the draft as a whole is based on nothing. */
export const courseDrafts = createDraftStore<RowChanges<CourseField>, null>('courses');
