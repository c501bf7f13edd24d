import { create } from 'zustand';
import { usualView, withViewChange, type OwnView, type OwnViewChange } from '#core/people';

/** How the person at the screen likes what they see; the usual view while nobody is signed in. */
export const useOwnView = create<OwnView>(() => usualView);

type Keep = (change: OwnViewChange) => void;

const keepNothing: Keep = () => undefined;
let keep: Keep = keepNothing;

/** From now on the screen is as somebody likes it; what they change of it is kept as told, or for as long as it is shown. */
export function showOwnView(view: OwnView, keepChange: Keep = keepNothing): void {
  keep = keepChange;
  useOwnView.setState(view, true);
}

export function changeOwnView(change: OwnViewChange): void {
  useOwnView.setState((view) => withViewChange(view, change), true);
  keep(change);
}

/** Pixels of a row of a list or a grid; `--row` of the style sheet says the same. */
export function useRowHeight(): number {
  return useOwnView(({ density }) => (density === 'compact' ? 32 : 40));
}

/** By which days and figures are written; undefined for the browser's own. */
export function ownLocale(): string | undefined {
  return useOwnView.getState().locale || undefined;
}
