import { useMemo, useSyncExternalStore } from 'react';

type ColourName = 'paper' | 'sheet' | 'ink' | 'dim' | 'rule' | 'plum' | 'reed' | 'caution' | 'danger';
export type Colours = Readonly<Record<ColourName, string>>;

const subscribe = (onChange: () => void): (() => void) => {
  const observer = new MutationObserver(onChange);
  observer.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  return () => observer.disconnect();
};
const theme = (): string => document.documentElement.dataset.theme ?? 'day';

/** The theme's colours as values: a canvas does not follow style sheets. */
export function useColours(): Colours {
  const current = useSyncExternalStore(subscribe, theme);
  return useMemo(() => {
    // the dependency stands for the style sheet that the theme selects
    void current;
    const style = getComputedStyle(document.documentElement);
    const value = (name: string): string => style.getPropertyValue(`--${name}`).trim() || 'gray';
    return {
      paper: value('paper'),
      sheet: value('sheet'),
      ink: value('ink'),
      dim: value('dim'),
      rule: value('rule'),
      plum: value('plum'),
      reed: value('reed'),
      caution: value('caution'),
      danger: value('danger'),
    };
  }, [current]);
}
