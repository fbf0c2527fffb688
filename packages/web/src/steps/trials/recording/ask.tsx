import type { ReactNode } from 'react';
import { Announced } from '../../../ui/announced';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import type { TypedNumbers } from '../../../ui/use-typed-numbers';

/** A question to the recording that takes time: its fields, a button, and what came of it. */
export function Ask({
  title,
  hint,
  typed,
  label,
  job: { busy, fault },
  onAsk,
  fields,
  children,
}: {
  readonly title: string;
  readonly hint: string;
  readonly typed: TypedNumbers;
  readonly label: string;
  readonly job: { readonly busy: boolean; readonly fault?: string };
  /** Absent while something that it needs is missing. */
  readonly onAsk: (() => void) | undefined;
  /** Further inputs before the button. */
  readonly fields?: ReactNode;
  /** The answer, once there is one. */
  readonly children: ReactNode;
}) {
  return (
    <Section title={title} hint={hint}>
      <TypedFields of={typed}>
        {fields}
        <Button busy={busy} disabled={!onAsk} onClick={() => onAsk?.()}>
          {busy ? 'Reading…' : label}
        </Button>
      </TypedFields>
      {fault && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {children && <Announced className="mt-2">{children}</Announced>}
    </Section>
  );
}
