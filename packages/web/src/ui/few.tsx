import { useState, type ReactNode } from 'react';
import { Button } from './button';

/** The latest of a long list, and a button for all of it; 5,000 rows at once would hold up the page. */
export function useFew<T>(
  list: readonly T[],
  few: number,
  what: string,
): { readonly rows: readonly T[]; readonly more: ReactNode } {
  const [all, setAll] = useState(false);
  return all || list.length <= few
    ? { rows: list, more: null }
    : {
        rows: list.slice(-few),
        more: (
          <Button look="quiet" onClick={() => setAll(true)}>
            List all {list.length} {what}
          </Button>
        ),
      };
}
