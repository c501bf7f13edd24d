/** When a report item may be posted for a period. Times are ISO instants; it is open from the first up to the second. */
export interface PostingWindow {
  readonly opensAt: string;
  readonly closesAt: string;
}

export type WindowState = 'not yet open' | 'open' | 'closed';

export function windowState(window: PostingWindow, now: string): WindowState {
  const at = Date.parse(now);
  if (at < Date.parse(window.opensAt)) return 'not yet open';
  return at < Date.parse(window.closesAt) ? 'open' : 'closed';
}
