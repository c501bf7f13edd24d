import type { LatePosters, WindowState } from '#core/calendar';

/**
 * Inside the window and its grace whoever may post there at all may post. Afterwards it is as the window says who may post late;
 * whoever may post outside the window (the access matrix says who) says so. A sealed period takes nothing from anybody, which is
 * checked before this.
 * @param saysOutside that whoever posts knows that the window is not open
 */
export function canPost(
  window: { readonly state: WindowState; readonly latePosters: LatePosters } | null,
  mayOutside: boolean,
  saysOutside: boolean,
): boolean {
  if (window?.state === 'open' || window?.state === 'grace') return true;
  if (window?.state === 'closed' && window.latePosters === 'teachers') return true;
  return mayOutside && saysOutside && window?.latePosters !== 'nobody';
}
