export const roles = ['registrar', 'grading-administrator', 'teacher', 'approver', 'viewer'] as const;
export type Role = (typeof roles)[number];

/** What people call each role. */
export const roleNames: Readonly<Record<Role, string>> = {
  registrar: 'registrar',
  'grading-administrator': 'grading administrator',
  teacher: 'teacher',
  approver: 'approver',
  viewer: 'viewer',
};

/** A role, and where it is held. Somebody may hold several. */
export interface Grant {
  readonly role: Role;
  /** Null for the whole district: every school of today and of later, and what belongs to no school. */
  readonly schoolId: number | null;
}

/** Each once and in one order, without what a grant for the whole district already holds. */
export function normalGrants(grants: readonly Grant[]): Grant[] {
  const ofAll = new Set(grants.filter(({ schoolId }) => schoolId === null).map(({ role }) => role));
  const kept = new Map<string, Grant>();
  for (const { role, schoolId } of grants)
    if (schoolId === null || !ofAll.has(role)) kept.set(`${role} ${schoolId}`, { role, schoolId });
  return [...kept.values()].toSorted(
    (a, b) => roles.indexOf(a.role) - roles.indexOf(b.role) || (a.schoolId ?? 0) - (b.schoolId ?? 0),
  );
}

/** Whether they make somebody a registrar of the whole district: one of these can always sign in. */
export function isRegistrarOfAll(grants: readonly Grant[]): boolean {
  return grants.some(({ role, schoolId }) => role === 'registrar' && schoolId === null);
}
