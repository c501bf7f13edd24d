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

/** What all schools share. */
export const shared: Whereabouts = { schoolId: null, teacherIds: [] };

/** Schools: all of them, those of later too, or these. */
export type Schools = 'all' | ReadonlySet<number>;

/** Whether somebody may do this anywhere at all. */
export function may({ grants }: Pick<Holder, 'grants'>, action: Action): boolean {
  return schoolsWhere(grants, action, 'held') !== none || schoolsWhere(grants, action, 'own') !== none;
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

const none: Schools = new Set();

/** The schools of which somebody may do this to everything (`held`), or to the sections that they teach (`own`). */
export function schoolsWhere(grants: readonly Grant[], action: Action, extent: 'own' | 'held'): Schools {
  const { concerns, allows }: ActionFacts = accessMatrix[action];
  const schools = grants.filter(({ role }) => allows[role] === extent).map(({ schoolId }) => schoolId);
  if (schools.includes(null)) return 'all';
  // What all schools share is within reach only of who holds the role for all of them.
  if (concerns === 'district' || schools.length === 0) return none;
  return new Set(schools.filter((id) => id !== null));
}

function includes(schools: Schools, schoolId: number | null): boolean {
  return schools === 'all' || (schoolId !== null && schools.has(schoolId));
}
