import { antennaKind, checkDesign, type Design, type Parameter } from '@velvet-reed/core/antenna';
import { CoreError, OutOfRangeError } from '@velvet-reed/core/errors';
import { type Dimension, frequencyText, parseQuantity, plain, showLength, significant } from '@velvet-reed/core/units';
import { useState } from 'react';
import { typedFrequency, typedLength, typedNumber } from '../../ui/typed';

/** One number that a person may type or drag. */
export interface Field {
  readonly id: string;
  readonly label: string;
  readonly dimension: Dimension;
  readonly bareUnit?: string;
  readonly hint?: string;
  /** Ends of the slider; absent: typing only. */
  readonly slide?: readonly [number, number];
  readonly whole?: boolean;
  readonly yesNo?: boolean;
}

export const BASE: readonly Field[] = [
  { id: 'freqHz', label: 'Resonant at', dimension: 'frequency', bareUnit: 'MHz' },
  { id: 'diameterM', label: 'Conductor diameter', dimension: 'length', bareUnit: 'mm' },
  { id: 'allowance', label: 'Trim allowance (0.03 is 3 %)', dimension: 'plain' },
];

/** A value as a person would type it. */
export function typedValue(value: number, dimension: Dimension): string {
  if (dimension === 'length') return typedLength(value);
  if (dimension === 'frequency') return typedFrequency(value);
  if (dimension === 'angle') return `${typedNumber(value)}°`;
  if (dimension === 'resistance') return `${typedNumber(value)} Ω`;
  return typedNumber(value);
}

/** A value for reading. */
export const shownValue = (value: number, dimension: Dimension): string =>
  dimension === 'length'
    ? plain(showLength(value, 4))
    : dimension === 'frequency'
      ? frequencyText(value)
      : dimension === 'angle'
        ? `${significant(value, 3)}°`
        : dimension === 'resistance'
          ? `${significant(value, 3)} Ω`
          : significant(value, 3);

/** Around the closed-form value for lengths, the whole range for angles and counts. */
export function slideOf(parameter: Parameter, value: number): readonly [number, number] | undefined {
  if (parameter.dimension === 'frequency') return undefined;
  if (parameter.dimension === 'angle' || parameter.whole) return [parameter.least, parameter.most];
  return [Math.max(parameter.least, 0.6 * value), Math.min(parameter.most, 1.5 * value)];
}

const NO_FAULTS: Readonly<Record<string, string>> = {};

export interface Editing {
  readonly design: Design;
  readonly changed: boolean;
  /** Sentences by field; while one stands, the last sound design is shown. */
  readonly faults: Readonly<Record<string, string>>;
  readonly texts: Readonly<Record<string, string>>;
  readonly type: (field: Field, text: string) => void;
  readonly setInsulated: (insulated: boolean) => void;
  /** Takes a design over, as after trimming the model. */
  readonly take: (design: Design) => void;
}

const baseTexts = (design: Design): Record<string, string> => ({
  freqHz: typedFrequency(design.freqHz),
  diameterM: typedLength(design.diameterM),
  allowance: typedNumber(design.allowance),
});
const textsOf = (design: Design): Record<string, string> => ({
  ...baseTexts(design),
  ...Object.fromEntries(
    antennaKind(design.kind).parameters.flatMap(({ id, dimension }) =>
      design.dimensions[id] === undefined ? [] : [[id, typedValue(design.dimensions[id], dimension)]],
    ),
  ),
});

type EditingState = Pick<Editing, 'design' | 'texts' | 'faults' | 'changed'>;
/** What is not saved yet, by antenna and revision: going to another room of the step loses nothing. */
const unsaved = new Map<string, EditingState>();

/** The design being edited: text by text, each sound one applied at once. @param key what the unsaved state is kept under */
export function useEditing(saved: Design, key?: string): Editing {
  const [state, setKept] = useState(
    (): EditingState =>
      (key === undefined ? undefined : unsaved.get(key)) ?? {
        design: saved,
        texts: textsOf(saved),
        faults: NO_FAULTS,
        changed: false,
      },
  );
  const setState = (change: EditingState | ((old: EditingState) => EditingState)): void =>
    setKept((old) => {
      const next = typeof change === 'function' ? change(old) : change;
      if (key !== undefined) unsaved.set(key, next);
      return next;
    });
  const apply = (texts: Readonly<Record<string, string>>, id: string, change: (design: Design) => Design): void =>
    setState((old) => {
      const { [id]: _mended, ...faults } = old.faults;
      try {
        const design = change(old.design);
        checkDesign(design);
        return { design, texts, faults, changed: true };
      } catch (error) {
        if (!(error instanceof CoreError)) throw error;
        return { ...old, texts, faults: { ...faults, [id]: error.message }, changed: true };
      }
    });
  return {
    ...state,
    type(field, text) {
      apply({ ...state.texts, [field.id]: text }, field.id, (design) => {
        const own = field.id === 'freqHz' || field.id === 'diameterM' || field.id === 'allowance';
        if (!own && text.trim() === '') {
          const { [field.id]: _dropped, ...dimensions } = design.dimensions;
          return { ...design, dimensions };
        }
        const value = parseQuantity(text, field.dimension, field.bareUnit ? { bareUnit: field.bareUnit } : {});
        if (field.whole && !Number.isInteger(value))
          throw new OutOfRangeError(`${field.label} must be a whole number. Correct it.`);
        return own
          ? { ...design, [field.id]: value }
          : { ...design, dimensions: { ...design.dimensions, [field.id]: value } };
      });
    },
    setInsulated: (insulated) => apply(state.texts, 'insulated', (design) => ({ ...design, insulated })),
    take: (design) => setState({ design, texts: textsOf(design), faults: {}, changed: true }),
  };
}
