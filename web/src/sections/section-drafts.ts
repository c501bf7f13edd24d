import type { EnrollmentField, SectionField } from '#core/sections';
import type { RowChanges } from '../cell-tables/table-rows';
import { createDraftStore } from '../shell/draft-store';

/** By year. Each section bears the revision that its change began from, so the draft as a whole is based on nothing. */
export const sectionDrafts = createDraftStore<RowChanges<SectionField>, null>('sections');

/** By year, and by section where only one is looked at. */
export const enrollmentDrafts = createDraftStore<RowChanges<EnrollmentField>, null>('enrollments');
