import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { CourseCells } from '#core/courses';

/** Courses being changed: cells by course, new ones under a key of their own, and those to take out. */
export interface CourseChanges {
  /** By number, or by "new 1" for one that is not saved yet. */
  readonly cells: Readonly<Record<string, CourseCells>>;
  /** The version that each change of a saved course began from. */
  readonly versions: Readonly<Record<string, number>>;
  readonly removed: readonly number[];
}

interface CourseDraft {
  readonly now: CourseChanges;
  readonly undo: readonly CourseChanges[];
}

interface Drafts {
  /** By school. */
  readonly drafts: Readonly<Record<number, CourseDraft>>;
}

export const noChanges: CourseChanges = { cells: {}, versions: {}, removed: [] };
const mostSteps = 50;

/** Drafts survive leaving the page and reloading it. */
export const useCourseDrafts = create<Drafts>()(
  persist((): Drafts => ({ drafts: {} }), { name: 'wombat-course-drafts' }),
);

/** Puts other changes in the place of a school's draft; none at all take it away. */
export function changeCourses(schoolId: number, now: CourseChanges): void {
  useCourseDrafts.setState(({ drafts }) => {
    if (isEmpty(now)) return { drafts: without(drafts, schoolId) };
    const draft = drafts[schoolId] ?? { now: noChanges, undo: [] };
    const undo = [...draft.undo, draft.now].slice(-mostSteps);
    return { drafts: { ...drafts, [schoolId]: { now, undo } } };
  });
}

export function undoCourses(schoolId: number): void {
  useCourseDrafts.setState(({ drafts }) => {
    const draft = drafts[schoolId];
    const before = draft?.undo.at(-1);
    if (!draft || !before) return {};
    if (isEmpty(before)) return { drafts: without(drafts, schoolId) };
    return { drafts: { ...drafts, [schoolId]: { now: before, undo: draft.undo.slice(0, -1) } } };
  });
}

export function discardCourses(schoolId: number): void {
  useCourseDrafts.setState(({ drafts }) => ({ drafts: without(drafts, schoolId) }));
}

function isEmpty({ cells, removed }: CourseChanges): boolean {
  return Object.keys(cells).length === 0 && removed.length === 0;
}

function without(drafts: Drafts['drafts'], schoolId: number): Drafts['drafts'] {
  return Object.fromEntries(Object.entries(drafts).filter(([id]) => Number(id) !== schoolId));
}
