import type { ReactNode } from 'react';
import { Button } from './button';

export const Waiting = ({ what }: { readonly what: string }) => (
  <p role="status" className="p-8 text-dim">
    Loading {what}…
  </p>
);

export function Trouble({ error, retry }: { readonly error: unknown; readonly retry?: () => void }) {
  return (
    <div role="alert" className="m-4 max-w-xl border-l-4 border-danger bg-sheet p-4 sm:m-8">
      <p className="font-semibold text-danger">That did not work.</p>
      <p className="my-2">{error instanceof Error ? error.message : 'An unexpected fault. Try again.'}</p>
      {retry && <Button onClick={retry}>Try again</Button>}
    </div>
  );
}

/** Nothing here yet, and what to do about it. */
export const Empty = ({ children }: { readonly children: ReactNode }) => (
  <p className="max-w-prose border-y border-dashed border-rule py-4 text-dim">{children}</p>
);
