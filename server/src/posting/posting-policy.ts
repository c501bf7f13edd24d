import type { WindowState } from '#core/calendar';
import type { Actor } from '#server/platform';

/** A teacher sees the sheets of their own sections; a registrar every one. */
export function canOpenSheet(
  actor: Pick<Actor, 'personId' | 'role'>,
  section: { readonly teacherId: number },
): boolean {
  return actor.role === 'registrar' || section.teacherId === actor.personId;
}

/**
 * Inside the window whoever may open the sheet may post. Outside it only a registrar who says so; a sealed period takes
 * nothing from anybody, which is checked before this.
 */
export function canPost(actor: Pick<Actor, 'role'>, window: WindowState, saysOutside: boolean): boolean {
  return window === 'open' || (actor.role === 'registrar' && saysOutside);
}
