import type { ColorScheme } from './antTheme.js';

const KEY = 'isomeros.look';

/** The look chosen before, else the one the system prefers. */
export function initialColorScheme(): ColorScheme {
  const kept = localStorage.getItem(KEY);
  if (kept === 'light' || kept === 'dark') return kept;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}

/** Shows a look, and chooses it again next time. */
export function saveColorScheme(look: ColorScheme): void {
  if (document.documentElement.dataset['theme'] === look) return;
  localStorage.setItem(KEY, look);
  document.documentElement.dataset['theme'] = look;
}
