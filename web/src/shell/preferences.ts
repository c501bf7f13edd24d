import { create } from 'zustand';
import { persist } from 'zustand/middleware';

export type Theme = 'light' | 'dark' | 'system';

interface Preferences {
  readonly theme: Theme;
  readonly schoolId: number | null;
}

/** What the interface remembers for one person on one machine. */
export const usePreferences = create<Preferences>()(
  persist((): Preferences => ({ theme: 'system', schoolId: null }), { name: 'wombat-preferences' }),
);

const darkSystem = matchMedia('(prefers-color-scheme: dark)');

function applyTheme(): void {
  const { theme } = usePreferences.getState();
  const isDark = theme === 'dark' || (theme === 'system' && darkSystem.matches);
  document.documentElement.dataset['theme'] = isDark ? 'dark' : 'light';
}

/** Keeps the page in the chosen theme, or in the system's. */
export function followTheme(): void {
  applyTheme();
  usePreferences.subscribe(applyTheme);
  darkSystem.addEventListener('change', applyTheme);
}
