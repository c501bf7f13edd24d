import { roleNames, type Grant } from '#core/access';
import type { SchoolReply } from '#contract/calendar';

/** @example sayRole({ role: 'approver', schoolId: 1 }, schools) // 'approver, Upper School' */
export function sayRole({ role, schoolId }: Grant, schools: readonly SchoolReply[]): string {
  const school = schools.find(({ id }) => id === schoolId);
  return `${roleNames[role]}, ${schoolId === null ? 'all schools' : (school?.shortName ?? 'another school')}`;
}

export function sayRoles(grants: readonly Grant[], schools: readonly SchoolReply[]): string {
  return grants.map((grant) => sayRole(grant, schools)).join('; ');
}
