import { create } from 'zustand';

/** Whether the session lasts, as far as is known: it ended by itself, or the person left. */
export const useSessionState = create<{ readonly state: 'lasts' | 'ended' | 'left' }>(() => ({ state: 'lasts' }));

export function noteSession(state: 'lasts' | 'ended' | 'left'): void {
  if (useSessionState.getState().state !== state) useSessionState.setState({ state });
}

const signedInItem = 'wombat-signed-in';

/** Tells other tabs who is signed in now; 0 for nobody. */
export function tellOtherTabs(personId: number): void {
  localStorage.setItem(signedInItem, String(personId));
}

/** What a tab does when it is no longer the person's who was at it. */
interface Leaving {
  /** Somebody else signed in: the same place, as far as they may see it. */
  readonly beginAnew: () => void;
  /** The person signed out: the way in, which leads whoever comes next to no place of the person before. */
  readonly leave: () => void;
}

/** All tabs have one session. What another tab did to it happens here too, so that nothing of the person before is left. */
export function followSession(personId: () => number, { beginAnew, leave }: Leaving): void {
  window.addEventListener('storage', ({ key, newValue }) => {
    if (key !== signedInItem || Number(newValue) === personId()) return;
    if (Number(newValue) === 0) leave();
    else beginAnew();
  });
}
