import { roleNames, type Grant } from '#core/access';
import { listed } from '#contract/messages';
import type { SchoolReply } from '#contract/calendar';

/** @example sayRole({ role: 'approver', schoolId: 1 }, schools) // 'approver, Upper School' */
export function sayRole({ role, schoolId }: Grant, schools: readonly SchoolReply[]): string {
  return `${roleNames[role]}, ${sayPlace(schoolId, schools)}`;
}

/** Roles at one school together: "teacher and approver, Upper School". */
export function sayRoles(grants: readonly Grant[], schools: readonly SchoolReply[]): string {
  const places = [...new Set(grants.map(({ schoolId }) => schoolId))];
  return places
    .map((place) => {
      const here = grants.filter(({ schoolId }) => schoolId === place);
      return `${listed(here.map(({ role }) => roleNames[role]))}, ${sayPlace(place, schools)}`;
    })
    .join('; ');
}

function sayPlace(schoolId: number | null, schools: readonly SchoolReply[]): string {
  if (schoolId === null) return 'all schools';
  return schools.find(({ id }) => id === schoolId)?.shortName ?? 'another school';
}
