import { OutOfRangeError } from '../errors';
import type { GoalBand, GoalCarrier } from '../filter/goals';
import type { FilterFamily, FilterShape } from '../filter/response';
import type { LineLossModel } from '../line/coax';
import { type Dimension, parseQuantity } from '../units/quantity';
import type { TransferPoint } from '../formats/two-port';
import type { DcLoad, DcStage } from './dc-path';
import type { PathStage } from './stages';

/** What both sorts of field of a stage have. */
interface FieldBase {
  readonly id: string;
  readonly label: string;
  readonly hint?: string;
  /** As typed into a new form; empty: nothing yet. */
  readonly start: string;
  /** Every kind of stage has room for it; what only this kind has lies among its figures or choices. */
  readonly shared?: boolean;
}
/** A number that a kind of stage asks for. */
export interface NumberField extends FieldBase {
  readonly dimension: Dimension;
  readonly bareUnit?: string;
  /** Its limits; those of a shared one stand with the table of stages. */
  readonly least?: number;
  readonly most?: number;
  /** May be left out. */
  readonly optional?: boolean;
}
/** A choice of a list. */
export interface ChoiceField extends FieldBase {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}
export type StageField = NumberField | ChoiceField;
export const isChoice = (field: StageField): field is ChoiceField => 'options' in field;

/** A part of the shelf, as far as a stage needs it; null: nobody stated it. */
export interface ShelfData {
  readonly transfer: readonly TransferPoint[];
  readonly noiseFigureDb: number | null;
  readonly iip2Dbm: number | null;
  readonly iip3Dbm: number | null;
  readonly p1Dbm: number | null;
  readonly supplyV: number | null;
  readonly currentA: number | null;
}

/** A stage as it is kept. */
export interface StageValues {
  readonly name: string;
  /** Numbers that only its kind has, in the units of their fields. */
  readonly figures: Readonly<Record<string, number>>;
  /** Choices that only its kind has, in words. */
  readonly choices: Readonly<Record<string, string>>;
  readonly lengthM: number;
  readonly gainDb: number;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly lossDb: number;
  readonly shape: FilterShape;
  readonly family: FilterFamily;
  readonly order: number;
  readonly rippleDb: number;
  readonly edgeLowHz: number;
  readonly edgeHighHz: number;
  /** Class of its cable; absent: nobody said. */
  readonly cableId?: string;
  /** Loss of its cable. */
  readonly cable: LineLossModel;
  /** The part that it is; absent: none, or it went. */
  readonly part?: ShelfData;
}

/** Everything about one kind of stage: what it asks for, what it does to signals, and what DC meets in it. */
export interface StageKindSpec<Id extends string = string> {
  readonly id: Id;
  /** "an amplifier", "a pad". */
  readonly article: string;
  /** Name of a new one. */
  readonly name: string;
  readonly fields: readonly StageField[];
  /** A path does not do without it: the way into the house, what shares, switches, protects or feeds. */
  readonly stays?: boolean;
  /** Comes from the shelf, not from a form. */
  readonly fromShelf?: boolean;
  /** May take its length from a cable run on the plan. */
  readonly alongPlan?: boolean;
  /** What it begins with for a wanted band, Hz. */
  startFor?(
    wanted: GoalBand,
    others: readonly GoalBand[],
    carriers: readonly GoalCarrier[],
  ): Readonly<Record<string, number | string>>;
  /** The name it gives itself as long as nobody named it. */
  nameOf?(values: Pick<StageValues, 'name' | 'shape' | 'edgeLowHz' | 'edgeHighHz'>): string;
  /** Faults between its figures. */
  faults?(figures: StageValues['figures']): readonly FigureFault[];
  stage(values: StageValues): PathStage;
  dc(values: StageValues): DcStage;
}

/** A figure that is not as its kind wants it, and the sentence that says how to mend it. */
export interface FigureFault {
  readonly id: string;
  readonly message: string;
}

export const decibels = (id: string, label: string, start: string, least?: number, most?: number): NumberField => ({
  ...{ id, label, start, dimension: 'gain', bareUnit: 'dB' },
  ...(least === undefined ? { shared: true } : { least, most }),
});
export const plain = (id: string, label: string, least: number, most: number, start: string): NumberField => ({
  ...{ id, label, least, most, start },
  dimension: 'plain',
});

/** Gain, noise and intercepts of what needs power. */
export const activeFields = (gain: string, noise: string, iip2: string, iip3: string): readonly StageField[] => [
  { ...decibels('gainDb', 'Gain', gain) },
  { ...decibels('noiseFigureDb', 'Noise figure', noise) },
  {
    ...{ id: 'iip2Dbm', label: '2nd-order input intercept', dimension: 'level', bareUnit: 'dBm', start: iip2 },
    ...{ shared: true, hint: 'output intercept minus gain' },
  },
  {
    ...{ id: 'iip3Dbm', label: '3rd-order input intercept', dimension: 'level', bareUnit: 'dBm', start: iip3 },
    shared: true,
  },
];

export const PASSES_DC: ChoiceField = {
  id: 'passesDc',
  label: 'DC on the coax',
  start: 'passes',
  options: [
    { value: 'passes', label: 'passes' },
    { value: 'blocked', label: 'is blocked' },
  ],
};
const POLES = [
  { value: 'plus', label: 'plus' },
  { value: 'minus', label: 'minus' },
];
export const polarity = (label: string): ChoiceField => ({ id: 'polarity', label, start: 'plus', options: POLES });

/** What a stage that is fed over the coax needs. */
export const FED: readonly StageField[] = [
  {
    ...plain('leastV', 'Fed over the coax: works down to, V', 0.5, 60, ''),
    ...{ optional: true, hint: 'empty: it has a supply of its own' },
  },
  { ...plain('currentMA', 'draws, mA', 0.1, 10_000, ''), optional: true },
  polarity('wants on the centre'),
];

/** A number among the figures, or its start where the stage has none. @throws OutOfRangeError for one that never has a start. */
export function numberOf({ fields }: Pick<StageKindSpec, 'fields'>, { figures }: StageValues, id: string): number {
  if (id in figures) return figures[id];
  const field = fields.find((one) => one.id === id);
  if (!field || isChoice(field)) throw new OutOfRangeError(`A stage has no figure "${id}". Leave it out.`, id);
  return parseQuantity(field.start, field.dimension, field.bareUnit ? { bareUnit: field.bareUnit } : {});
}

/** A choice, or the one that holds when nobody chose. */
export const choiceOf = ({ fields }: Pick<StageKindSpec, 'fields'>, { choices }: StageValues, id: string): string =>
  choices[id] ?? fields.find((one) => one.id === id)?.start ?? '';

/** What DC is needed by something on the coax; undefined when it has a supply of its own. */
export function loadOf(
  name: string,
  leastV: number | undefined,
  milliampere: number | undefined,
  wantsPositive: boolean,
): DcLoad | undefined {
  if (leastV === undefined) return undefined;
  return {
    ...{ dc: 'load', name, leastV, wantsPositive },
    ...(milliampere === undefined ? {} : { currentA: milliampere / 1000 }),
  };
}
