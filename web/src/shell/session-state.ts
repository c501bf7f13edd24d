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

/**
 * All tabs have one session. Where another tab signed out, or somebody else in, this one begins anew, so that nothing of the
 * person before is left on it.
 */
export function followSession(personId: () => number, beginAnew: () => void): void {
  window.addEventListener('storage', ({ key, newValue }) => {
    if (key === signedInItem && Number(newValue) !== personId()) beginAnew();
  });
}
