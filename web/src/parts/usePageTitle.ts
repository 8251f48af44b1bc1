// What a tab of the browser is called: by it one sample is told from another among many tabs (WCAG 2.2, 2.4.2).
import { useEffect } from 'react';
import { PRACTISING } from '../api/world.ts';

const named = (...parts: readonly string[]): string =>
  [...(PRACTISING ? ['Practice'] : []), ...parts, 'Lastmark'].join(' · ');

/**
 * Name the tab after what is on it for as long as it is.
 * @param title what is shown, the narrowest first: "Efficiency · Ember 45"
 */
export function usePageTitle(title: string): void {
  useEffect(() => {
    document.title = named(title);
    return () => {
      document.title = named();
    };
  }, [title]);
}
