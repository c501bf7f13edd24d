import type { Actor } from '#server/platform';

interface Taught {
  readonly teacherId: number;
  readonly teacher: string;
  readonly coTeacherIds: readonly number[];
}

/** The teacher for whom somebody acts in a section that they do not teach; null where they do. */
export function onBehalfOf(
  { personId }: Pick<Actor, 'personId'>,
  { teacherId, teacher, coTeacherIds }: Taught,
): { readonly id: number; readonly name: string } | null {
  return personId === teacherId || coTeacherIds.includes(personId) ? null : { id: teacherId, name: teacher };
}

/** The same in the words of an action: " on behalf of …", or nothing. */
export function onBehalfInWords(actor: Pick<Actor, 'personId'>, section: Taught): string {
  const teacher = onBehalfOf(actor, section);
  return teacher ? ` on behalf of ${teacher.name}` : '';
}
