import { useCallback, useState } from 'react';
import { localStore } from './browser-store';

export type Theme = 'day' | 'night';
const STORAGE = 'velvet-reed.theme';

const first = (): Theme => {
  const stored = localStore.getItem(STORAGE);
  if (stored === 'day' || stored === 'night') return stored;
  return globalThis.matchMedia?.('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
};

/** Puts the theme on the document before the first paint. */
export const applyTheme = (theme: Theme = first()): void => {
  document.documentElement.dataset.theme = theme;
};

export function useTheme(): { readonly theme: Theme; readonly toggle: () => void } {
  const [theme, setTheme] = useState(first);
  const toggle = useCallback(() => {
    setTheme((current) => {
      const next = current === 'day' ? 'night' : 'day';
      localStore.setItem(STORAGE, next);
      applyTheme(next);
      return next;
    });
  }, []);
  return { theme, toggle };
}
