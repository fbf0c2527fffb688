import type { ReactNode } from 'react';
import { Section } from './section';
import { tried } from './tried';
import { TypedFields } from './typed-numbers';
import { useTypedNumbers, type TypedSpec } from './use-typed-numbers';

/** A question of a few typed numbers, answered beside them at once; nothing is kept. */
export function QuickAnswer({
  title,
  hint,
  specs,
  answer,
}: {
  readonly title: string;
  readonly hint: string;
  readonly specs: readonly TypedSpec[];
  /** Asked once every field that must be filled can be read. */
  readonly answer: (value: (name: string) => number, given: (name: string) => number | null) => ReactNode;
}) {
  const typed = useTypedNumbers(specs);
  const { value, fault } = tried(() =>
    typed.sound
      ? answer(
          (name) => typed.value(name) ?? NaN,
          (name) => typed.value(name) ?? null,
        )
      : undefined,
  );
  return (
    <Section title={title} hint={hint}>
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {value !== undefined && <div className="mt-2 max-w-prose">{value}</div>}
    </Section>
  );
}
