import { useState, type ReactNode } from 'react';
import { Button } from './button';

/** A button that opens a form in its place; the form gets a way to close itself. */
export function Disclosure({
  label,
  look = 'plain',
  children,
}: {
  readonly label: string;
  readonly look?: 'main' | 'plain' | 'quiet';
  readonly children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button look={look} onClick={() => setOpen(true)}>
        {label}
      </Button>
    );
  return <div className="w-full">{children(() => setOpen(false))}</div>;
}
