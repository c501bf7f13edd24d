import { create } from 'zustand';

/** Whoever typed or pointed within this is there, so that what the page asks is asked by them. */
const attendedMilliseconds = 60_000;
const usedItem = 'wombat-session-used';

/** What is known of how long the session lasts. All tabs have one, so they tell each other. */
interface SessionPause {
  /** For how long it lasts unused, in milliseconds; null while nobody is signed in. */
  readonly pause: number | null;
  /** When a person did something here, and when the server last heard of a person, in milliseconds since 1970. */
  readonly usedAt: number;
  readonly heardAt: number;
}

export const useSessionPause = create<SessionPause>(() => ({ pause: null, usedAt: Date.now(), heardAt: Date.now() }));

export function notePause(seconds: number | null): void {
  useSessionPause.setState({ pause: seconds === null ? null : seconds * 1000 });
}

/** Somebody typed or pointed. */
export function noteUse(): void {
  useSessionPause.setState({ usedAt: Date.now() });
}

/** Whether a request that is made now is a person's, rather than one that the page makes by itself. */
export function isAttended(): boolean {
  return Date.now() - useSessionPause.getState().usedAt < attendedMilliseconds;
}

/** The server answered a person's request: the session lasts as long again. */
export function noteHeard(): void {
  const heardAt = Date.now();
  useSessionPause.setState({ heardAt });
  try {
    localStorage.setItem(usedItem, String(heardAt));
  } catch {
    // A browser that keeps nothing: other tabs hear of it from their own requests.
  }
}

/** Whether somebody does things that the server does not hear of, such as typing a long comment. */
export function isUnheard(): boolean {
  const { usedAt, heardAt } = useSessionPause.getState();
  return usedAt - heardAt >= attendedMilliseconds;
}

/** Milliseconds until the session ends; null while nobody is signed in. */
export function leftOfSession({ pause, heardAt }: Omit<SessionPause, 'usedAt'>, now: number): number | null {
  return pause === null ? null : heardAt + pause - now;
}

/** Goes by what other tabs ask of the server too; returns how to stop. */
export function followOtherTabs(): () => void {
  const onStorage = ({ key, newValue }: StorageEvent) => {
    const heardAt = Number(newValue);
    if (key === usedItem && heardAt > useSessionPause.getState().heardAt) useSessionPause.setState({ heardAt });
  };
  window.addEventListener('storage', onStorage);
  return () => window.removeEventListener('storage', onStorage);
}
