import type { Actor } from '#server/platform';

interface TaughtSection {
  readonly teacherId: number;
}

/** A teacher sees the grade books of their own sections; a registrar reads every one. */
export function canOpenBook({ role, personId }: Pick<Actor, 'personId' | 'role'>, section: TaughtSection): boolean {
  return role === 'registrar' || section.teacherId === personId;
}

/** Scores are the teacher's own: a registrar posts on a teacher's behalf, but does not score for them. */
export function canEditBook({ personId }: Pick<Actor, 'personId'>, section: TaughtSection): boolean {
  return section.teacherId === personId;
}

/** A school's categories are the registrar's; a section's own are also its teacher's. Null for the school's. */
export function canEditCategories(
  { role, personId }: Pick<Actor, 'personId' | 'role'>,
  teacherId: number | null,
): boolean {
  return role === 'registrar' || teacherId === personId;
}
