import type { CourseCells } from '#core/courses';
import { createDraftStore } from '../shell/draft-store';

/** Courses being changed: cells by course, new ones under a key of their own, and those to take out. */
export interface CourseChanges {
  /** By number, or by "new 1" for one that is not saved yet. */
  readonly cells: Readonly<Record<string, CourseCells>>;
  /** The revision that each change of a saved course began from. */
  readonly revisions: Readonly<Record<string, string>>;
  readonly removed: readonly number[];
}

export const noChanges: CourseChanges = { cells: {}, revisions: {}, removed: [] };

/** By school. Each course bears the revision its change began from, so the draft as a whole is based on nothing. */
export const courseDrafts = createDraftStore<CourseChanges, null>('courses');
