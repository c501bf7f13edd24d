import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import { useOwnView } from './own-view';

/** A key of the screen and what it does. `Ctrl+s` also answers to the command key. */
export interface ScreenKey {
  readonly key: string;
  readonly says: string;
  readonly act: () => void;
  /** Also while somebody types into a field. */
  readonly inFields?: boolean;
}

interface KnownKeys {
  readonly groups: ReadonlyMap<symbol, readonly ScreenKey[]>;
}

/** The keys that answer right now, for the dialog that shows them. */
export const useKnownKeys = create<KnownKeys>(() => ({ groups: new Map() }));

/** Whether a key does something on this screen right now; a capital is no key. */
export function isScreenKey(key: string): boolean {
  const { groups } = useKnownKeys.getState();
  return areLettersOn() && [...groups.values()].some((group) => group.some((each) => each.key === key));
}

/** Lets keys answer while the component is on the screen. */
export function useKeys(keys: readonly ScreenKey[]): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  const names = keys.map(({ key, says }) => `${key} ${says}`).join('|');
  useEffect(() => {
    const group = Symbol();
    useKnownKeys.setState(({ groups }) => ({ groups: new Map(groups).set(group, latest.current) }));
    const onKeyDown = (event: KeyboardEvent) => {
      const pressed = latest.current.find((each) => isPressed(each, event));
      if (!pressed) return;
      event.preventDefault();
      pressed.act();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => {
      window.removeEventListener('keydown', onKeyDown);
      useKnownKeys.setState(({ groups }) => ({ groups: without(groups, group) }));
    };
    // The keys register again only when what they say changes; what they do is always the latest.
    // oxlint-disable-next-line react/exhaustive-effect-dependencies
  }, [names]);
}

/** Whether keys of one letter answer; those with Ctrl always do. */
export function areLettersOn(): boolean {
  return useOwnView.getState().letterKeys;
}

function without(groups: KnownKeys['groups'], group: symbol): KnownKeys['groups'] {
  return new Map([...groups].filter(([each]) => each !== group));
}

function isPressed({ key, inFields = false }: ScreenKey, event: KeyboardEvent): boolean {
  if (event.defaultPrevented || event.altKey) return false;
  if (key.length === 1 && !areLettersOn()) return false;
  const wantsControl = key.startsWith('Ctrl+');
  if (wantsControl !== (event.ctrlKey || event.metaKey)) return false;
  if (!inFields && (isTyping(event.target) || isInDialog(event.target))) return false;
  return event.key.toLowerCase() === key.replace('Ctrl+', '').toLowerCase();
}

/** What lies over a page takes the keys that the page would take. */
function isInDialog(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role=dialog]') !== null;
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName))
  );
}
