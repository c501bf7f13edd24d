import { mayAt, ofSchool, type Action } from '#core/access';
import type { PersonReply } from '#contract/people';
import { useScope } from './scope';
import { useSession } from './session';

/** Whether somebody may do this in a school, if only to the sections that they teach. */
export function mayIn(person: PersonReply, schoolId: number, action: Action): boolean {
  return mayAt(person, action, { schoolId, teacherIds: [person.personId] });
}

/** Whether who is signed in may do this in the school at hand. */
export function useMay(): (action: Action) => boolean {
  const { schoolId } = useScope();
  const { data: session } = useSession();
  return (action) => Boolean(session && mayIn(session.person, schoolId, action));
}

/** Whether who is signed in may do what concerns all schools, such as opening one. */
export function mayInAll(person: PersonReply, action: Action): boolean {
  return mayAt(person, action, ofSchool(null));
}
