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
