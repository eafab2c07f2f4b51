const HAND = 'vast-stone.left-handed';

/** Sets the theme at once and for the next pages; null follows the device. */
export function chooseTheme(theme: 'chalk' | 'basalt' | null): void {
  if (theme) document.documentElement.dataset.theme = theme;
  else delete document.documentElement.dataset.theme;
  document.cookie = `vast_theme=${theme ?? ''}; path=/; max-age=${theme ? 31536000 : 0}; samesite=lax`;
}
export const mirrored = (): boolean => localStorage.getItem(HAND) === '1';
export const setMirrored = (on: boolean): void => localStorage.setItem(HAND, on ? '1' : '0');
