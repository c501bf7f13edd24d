import type { LatePosters, WindowState } from '#core/calendar';
import type { Actor } from '#server/platform';

/** A teacher sees the sheets of their own sections; a registrar every one. */
export function canOpenSheet(
  actor: Pick<Actor, 'personId' | 'role'>,
  section: { readonly teacherId: number },
): boolean {
  return actor.role === 'registrar' || section.teacherId === actor.personId;
}

/**
 * Inside the window and its grace whoever may open the sheet may post. Afterwards it is as the window says who may post
 * late; a registrar who posts outside the window says so. A sealed period takes nothing from anybody, which is checked
 * before this.
 */
export function canPost(
  actor: Pick<Actor, 'role'>,
  window: { readonly state: WindowState; readonly latePosters: LatePosters } | null,
  saysOutside: boolean,
): boolean {
  if (window?.state === 'open' || window?.state === 'grace') return true;
  if (window?.state === 'closed' && window.latePosters === 'teachers') return true;
  return actor.role === 'registrar' && saysOutside && window?.latePosters !== 'nobody';
}
