import type { ColorScheme } from './antTheme.js';

const KEY = 'isomeros.look';

/** The look chosen before, else the one the system prefers. */
export function initialColorScheme(): ColorScheme {
  const kept = localStorage.getItem(KEY);
  if (kept === 'light' || kept === 'dark') return kept;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
}

export function saveColorScheme(look: ColorScheme): void {
  localStorage.setItem(KEY, look);
  document.documentElement.dataset['theme'] = look;
}
