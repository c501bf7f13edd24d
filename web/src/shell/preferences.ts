import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { useKnownKeys } from '../ui/use-keys';

export type Theme = 'light' | 'dark' | 'system';

interface Preferences {
  readonly theme: Theme;
  readonly schoolId: number | null;
  /** Whether keys of a single letter answer. */
  readonly letterKeys: boolean;
}

/** What the interface remembers for one person on one machine. */
export const usePreferences = create<Preferences>()(
  persist((): Preferences => ({ theme: 'system', schoolId: null, letterKeys: true }), { name: 'wombat-preferences' }),
);

const darkSystem = matchMedia('(prefers-color-scheme: dark)');

function applyTheme(): void {
  const { theme } = usePreferences.getState();
  const isDark = theme === 'dark' || (theme === 'system' && darkSystem.matches);
  document.documentElement.dataset['theme'] = isDark ? 'dark' : 'light';
}

function applyLetterKeys(): void {
  useKnownKeys.setState({ areLettersOn: usePreferences.getState().letterKeys });
}

/** Keeps the page in the chosen theme, or in the system's, and its keys as they are wanted. */
export function followPreferences(): void {
  applyTheme();
  applyLetterKeys();
  usePreferences.subscribe(applyTheme);
  usePreferences.subscribe(applyLetterKeys);
  darkSystem.addEventListener('change', applyTheme);
}
