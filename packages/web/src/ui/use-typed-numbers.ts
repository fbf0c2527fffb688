import { CoreError } from '@velvet-reed/core/errors';
import { type Dimension, parseQuantity, slipOf } from '@velvet-reed/core/units';
import { useId, useState } from 'react';
import { typedFrequency, typedLength, typedNumber } from './typed';

/** A number that a person types with any unit. */
export interface TypedSpec {
  readonly name: string;
  readonly label: string;
  readonly dimension: Dimension;
  readonly bareUnit?: string;
  /** Field with the frequency that a level was read at. */
  readonly freqField?: string;
  readonly freqHz?: number;
  readonly start: string;
  /** May stay empty. */
  readonly optional?: boolean;
  /** What it is expected to lie near: a value off by a power of ten is asked back. */
  readonly near?: readonly number[];
}

interface TypedField extends TypedSpec {
  readonly id: string;
  readonly text: string;
  readonly value?: number;
  readonly fault?: string;
  /** What was probably meant, where the value is a power of ten off what it should lie near. */
  readonly meant?: { readonly text: string; readonly kind: string };
}

export interface TypedNumbers {
  readonly fields: readonly TypedField[];
  readonly set: (name: string, text: string) => void;
  /** Value of a field; undefined while it is empty or cannot be read. */
  readonly value: (name: string) => number | undefined;
  /** Every field that must be filled can be read. */
  readonly sound: boolean;
}

/** Where what is typed outlives the page. */
export interface KeptTexts {
  readonly texts: Readonly<Record<string, string>>;
  readonly keep: (typed: Readonly<Record<string, string>>) => void;
}

const typedQuantity = (dimension: Dimension, value: number): string =>
  dimension === 'frequency'
    ? typedFrequency(value)
    : dimension === 'length'
      ? typedLength(value)
      : typedNumber(Number(value.toPrecision(6)));

/** Texts of several numbers with their values and faults; nothing is saved. */
export function useTypedNumbers(specs: readonly TypedSpec[], kept?: KeptTexts): TypedNumbers {
  const prefix = useId();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const texts: Readonly<Record<string, string>> = { ...kept?.texts, ...typed };
  // several fields may be set at once: each is laid on what the others have just become
  const set = (name: string, text: string): void => {
    setTyped((old) => ({ ...old, [name]: text }));
    kept?.keep({ [name]: text });
  };
  const frequencyOf = ({ freqHz, freqField }: TypedSpec): number | undefined => {
    const other = specs.find(({ name }) => name === freqField);
    if (!other) return freqHz;
    try {
      return parseQuantity(texts[other.name] ?? other.start, other.dimension, { bareUnit: other.bareUnit });
    } catch {
      return undefined; // told at that field
    }
  };
  const fields = specs.map((spec): TypedField => {
    const text = texts[spec.name] ?? spec.start;
    const common = { ...spec, id: `${prefix}-${spec.name}`, text };
    if (text.trim() === '') return common;
    try {
      const value = parseQuantity(text, spec.dimension, { bareUnit: spec.bareUnit, freqHz: frequencyOf(spec) });
      const slip = slipOf(value, spec.near ?? []);
      return slip
        ? { ...common, value, meant: { text: typedQuantity(spec.dimension, slip.meant), kind: slip.kind } }
        : { ...common, value };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return { ...common, fault: error.message };
    }
  });
  const byName = new Map(fields.map((field) => [field.name, field]));
  return {
    fields,
    set,
    value: (name) => byName.get(name)?.value,
    sound: fields.every((field) => (field.optional && field.text.trim() === '') || field.value !== undefined),
  };
}
