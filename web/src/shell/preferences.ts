import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Theme } from '#core/people';
import { useOwnView } from '../ui/own-view';

interface Preferences {
  /** As it was last chosen here. */
  readonly theme: Theme;
  readonly schoolId: number | null;
}

/** What the interface remembers on one machine, whoever sits at it. */
export const usePreferences = create<Preferences>()(
  persist((): Preferences => ({ theme: 'system', schoolId: null }), { name: 'wombat-preferences' }),
);

const darkSystem = matchMedia('(prefers-color-scheme: dark)');

function apply(): void {
  const { theme } = usePreferences.getState();
  const isDark = theme === 'dark' || (theme === 'system' && darkSystem.matches);
  const { dataset } = document.documentElement;
  dataset['theme'] = isDark ? 'dark' : 'light';
  dataset['density'] = useOwnView.getState().density;
}

/** Keeps the page in the chosen theme, or in the system's, and its rows as high as they are wanted. */
export function followPreferences(): void {
  apply();
  usePreferences.subscribe(apply);
  useOwnView.subscribe(apply);
  darkSystem.addEventListener('change', apply);
}
