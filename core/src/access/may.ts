import { accessMatrix, type Action, type ActionFacts } from './access-matrix.js';
import type { Grant } from './roles.js';

/** Somebody, with what was granted to them. */
export interface Holder {
  readonly personId: number;
  readonly grants: readonly Grant[];
}

/** Where something stands that somebody wants to read or change. */
export interface Whereabouts {
  /** Null for what all schools share. */
  readonly schoolId: number | null;
  /** Who teach the section that it is or belongs to; none for what belongs to no section. */
  readonly teacherIds: readonly number[];
}

/** Something of a school that belongs to no section; null for what all schools share. */
export const ofSchool = (schoolId: number | null): Whereabouts => ({ schoolId, teacherIds: [] });

/** A section of a school, and all that belongs to it. */
export const ofSection = (
  schoolId: number,
  { teacherId, coTeacherIds }: { readonly teacherId: number; readonly coTeacherIds: readonly number[] },
): Whereabouts => ({ schoolId, teacherIds: [teacherId, ...coTeacherIds] });

/** Schools: all of them, those of later too, or these. */
export type Schools = 'all' | ReadonlySet<number>;

/** Whether somebody may do this anywhere at all. */
export function may({ grants }: Pick<Holder, 'grants'>, action: Action): boolean {
  return (['held', 'own'] as const).some((extent) => {
    const schools = schoolsWhere(grants, action, extent);
    return schools === 'all' || schools.size > 0;
  });
}

/**
 * Whether somebody may do this there.
 * @example mayAt({ personId: 7, grants: [{ role: 'viewer', schoolId: 1 }] }, 'read-set-up', { schoolId: 1, teacherIds: [] }) // true
 */
export function mayAt({ personId, grants }: Holder, action: Action, { schoolId, teacherIds }: Whereabouts): boolean {
  return (
    includes(schoolsWhere(grants, action, 'held'), schoolId) ||
    (teacherIds.includes(personId) && includes(schoolsWhere(grants, action, 'own'), schoolId))
  );
}

/** Whether somebody may do this in all places where these roles are held, and so has a say in each of them. */
export function mayInAll(holder: Holder, action: Action, grants: readonly Grant[]): boolean {
  return grants.every(({ schoolId }) => mayAt(holder, action, ofSchool(schoolId)));
}

/** The schools of which somebody may do this to everything (`held`), or to the sections that they teach (`own`). */
export function schoolsWhere(grants: readonly Grant[], action: Action, extent: 'own' | 'held'): Schools {
  const { concerns, allows }: ActionFacts = accessMatrix[action];
  const schools = grants.filter(({ role }) => allows[role] === extent).map(({ schoolId }) => schoolId);
  if (schools.includes(null)) return 'all';
  // What all schools share is within reach only of who holds the role for all of them.
  return new Set(concerns === 'district' ? [] : schools.filter((id) => id !== null));
}

function includes(schools: Schools, schoolId: number | null): boolean {
  return schools === 'all' || (schoolId !== null && schools.has(schoolId));
}
