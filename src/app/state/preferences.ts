// How this browser shows things: not mail, not setup, so it is kept by the page itself.
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

interface Preferences {
  theme: 'system' | 'light' | 'dark';
  /** The line on the left folded to a strip. */
  lineFolded: boolean;
}

export const usePreferences = create<Preferences>()(
  persist((): Preferences => ({ theme: 'system', lineFolded: false }), { name: 'wide-sort-preferences' }),
);

const dark = window.matchMedia('(prefers-color-scheme: dark)');

function applyTheme(): void {
  const { theme } = usePreferences.getState();
  const night = theme === 'dark' || (theme === 'system' && dark.matches);
  document.documentElement.dataset.theme = night ? 'night' : 'paper';
}

/** Puts the theme on the page, now and whenever it changes. */
export function followTheme(): void {
  applyTheme();
  usePreferences.subscribe(applyTheme);
  dark.addEventListener('change', applyTheme);
}
