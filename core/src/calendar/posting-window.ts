/** Who may still post after a window has closed. */
export const latePosters = ['nobody', 'registrars', 'teachers'] as const;
export type LatePosters = (typeof latePosters)[number];

/**
 * When a report item may be posted for a period. Times are ISO instants; it is open from the first up to the second, and
 * in grace up to `graceUntil` where there is one.
 */
export interface PostingWindow {
  readonly opensAt: string;
  readonly closesAt: string;
  readonly graceUntil?: string | null;
}

export type WindowState = 'not yet open' | 'open' | 'grace' | 'closed';

export function windowState(window: PostingWindow, now: string): WindowState {
  const at = Date.parse(now);
  if (at < Date.parse(window.opensAt)) return 'not yet open';
  if (at < Date.parse(window.closesAt)) return 'open';
  return window.graceUntil && at < Date.parse(window.graceUntil) ? 'grace' : 'closed';
}
