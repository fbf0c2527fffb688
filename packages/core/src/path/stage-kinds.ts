import { OutOfRangeError, requireRange } from '../errors';
import type { Parameter } from '../antenna/kind';
import type { FilterShape } from '../filter/response';
import type { LineLossModel } from '../line/coax';
import { parseQuantity } from '../units/quantity';
import { powerDb } from '../units/decibel';
import type { DcLoad, DcStage } from './dc-path';
import { plainTeeLossDb, resistiveSplitter } from './pads';
import type { Mixing, PathStage } from './stages';
import { limiterFigures } from './limiter';

/** What can stand in a path. */
export const STAGE_KINDS = [
  'line',
  'filter',
  'amplifier',
  'pad',
  'part',
  'splitter',
  'switch',
  'limiter',
  'bias feed',
  'converter',
] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

/** Figures of a stage by name, in the units of their specification. */
export type StageFigures = Readonly<Record<string, number>>;

/** A figure that a kind of stage asks for. */
export interface FigureSpec extends Omit<Parameter, 'start' | 'whole'> {
  /** As typed into a new form. */
  readonly start: string;
  /** May be left out. */
  readonly optional?: boolean;
  /** A choice instead of a number. */
  readonly options?: readonly { readonly value: number; readonly label: string }[];
}

const PASSES_DC: FigureSpec = {
  id: 'passesDc',
  label: 'DC on the coax',
  dimension: 'plain',
  least: 0,
  most: 1,
  start: '1',
  options: [
    { value: 1, label: 'passes' },
    { value: 0, label: 'is blocked' },
  ],
};
/** What a stage that is fed over the coax needs. */
const FED: readonly FigureSpec[] = [
  {
    ...{ id: 'leastV', label: 'Fed over the coax: works down to, V', dimension: 'plain', least: 0.5, most: 60 },
    ...{ start: '', optional: true, hint: 'empty: it has a supply of its own' },
  },
  {
    ...{ id: 'currentMA', label: 'draws, mA', dimension: 'plain', least: 0.1, most: 10_000 },
    ...{ start: '', optional: true },
  },
  {
    ...{ id: 'polarity', label: 'wants on the centre', dimension: 'plain', least: -1, most: 1, start: '1' },
    options: [
      { value: 1, label: 'plus' },
      { value: -1, label: 'minus' },
    ],
  },
];
const decibels = (id: string, label: string, least: number, most: number, start: string): FigureSpec => ({
  ...{ id, label, least, most, start },
  dimension: 'gain',
  bareUnit: 'dB',
});
const plain = (id: string, label: string, least: number, most: number, start: string): FigureSpec => ({
  ...{ id, label, least, most, start },
  dimension: 'plain',
});

/** Figures of each kind beside gain, loss and edges. */
export const STAGE_FIGURES: Readonly<Record<StageKind, readonly FigureSpec[]>> = {
  line: [
    {
      ...plain('loopOhmPerM', 'Loop resistance, Ω per m', 0, 10, ''),
      ...{ optional: true, hint: 'centre and shield together; needed where DC goes along' },
    },
    {
      ...decibels('knownLossDb', 'Loss of the whole run, if it is known', 0, 200, ''),
      ...{ optional: true, hint: 'measured or by its data sheet; instead of the cable above' },
    },
    {
      ...{ id: 'knownAtHz', label: 'Known at', dimension: 'frequency', bareUnit: 'MHz', least: 1e3, most: 3e11 },
      ...{ start: '', optional: true, hint: 'elsewhere it goes with the root of frequency, as skin effect does' },
    },
  ],
  filter: [
    {
      ...PASSES_DC,
      start: '2',
      most: 2,
      options: [{ value: 2, label: 'as its shape suggests' }, ...(PASSES_DC.options ?? [])],
    },
  ],
  amplifier: FED,
  pad: [],
  part: [],
  splitter: [
    {
      ...plain('form', 'Made as', 0, 2, '0'),
      options: [
        { value: 0, label: 'hybrid with transformers' },
        { value: 1, label: 'resistive star' },
        { value: 2, label: 'plain T, nothing inside' },
      ],
    },
    plain('outputs', 'Outputs', 2, 16, '2'),
    { ...decibels('excessDb', 'Excess loss', 0, 20, '0.5 dB'), hint: 'over the ideal share; of a hybrid' },
    { ...PASSES_DC, label: 'DC on this output', start: '0' },
  ],
  switch: [decibels('lossDb', 'Insertion loss', 0, 20, '0.3 dB'), PASSES_DC],
  limiter: [
    decibels('lossDb', 'Insertion loss', 0, 20, '0.2 dB'),
    { ...plain('perLeg', 'Diodes in each direction', 1, 10, '1'), hint: 'in series; more: it limits later' },
    { ...plain('saturationNA', 'Saturation current, nA', 1e-6, 1e6, '2.5'), hint: 'small silicon diode: about 2.5' },
    plain('emission', 'Emission coefficient', 0.8, 3, '1.75'),
  ],
  'bias feed': [
    plain('supplyV', 'Gives, V', 1, 60, '12'),
    plain('limitMA', 'at most, mA', 1, 10_000, '300'),
    {
      ...plain('polarity', 'on the centre', -1, 1, '1'),
      options: [
        { value: 1, label: 'plus' },
        { value: -1, label: 'minus' },
      ],
    },
    plain('chokeUH', 'Choke, µH', 0.01, 1e5, '100'),
    plain('capacitorNF', 'Capacitor, nF', 0.001, 1e5, '100'),
    {
      ...plain('headV', 'Amplifier in the antenna works down to, V', 0.5, 60, ''),
      ...{ optional: true, hint: 'of an active antenna, if it hangs on this feed' },
    },
    { ...plain('headMA', 'and draws, mA', 0.1, 10_000, ''), optional: true },
  ],
  converter: [
    {
      ...{ id: 'oscillatorHz', label: 'Oscillator', dimension: 'frequency', bareUnit: 'MHz' },
      ...{ least: 1e3, most: 3e11, start: '9.75 GHz' },
    },
    {
      ...plain('mixing', 'Gives', 0, 2, '0'),
      options: [
        { value: 0, label: 'signal − oscillator' },
        { value: 1, label: 'oscillator − signal (mirrored)' },
        { value: 2, label: 'signal + oscillator' },
      ],
    },
    decibels('imageRejectionDb', 'Rejects the image by', 0, 120, '40 dB'),
    ...FED,
  ],
};

/** A figure that is not as its kind wants it, and the sentence that says how to mend it. */
export interface FigureFault {
  readonly id: string;
  readonly message: string;
}

/** A loss without its frequency, or the other way round, says nothing. */
const halfKnown = (figures: StageFigures): readonly FigureFault[] =>
  'knownLossDb' in figures === 'knownAtHz' in figures
    ? []
    : 'knownLossDb' in figures
      ? [{ id: 'knownAtHz', message: 'Enter the frequency at which this loss is known.' }]
      : [{ id: 'knownLossDb', message: 'Enter the loss at this frequency, or empty both.' }];

/**
 * A line as a stage: by its cable class, or by the loss of the whole run where that is known; away from the known frequency the loss goes with the root of
 * frequency (skin effect alone, as k₂ = 0 in the loss model; a real cable loses a little more far above, less far below).
 */
export function lineStage(name: string, cable: LineLossModel, lengthM: number, figures: StageFigures): PathStage {
  const { knownLossDb, knownAtHz } = figures;
  if (knownLossDb === undefined || knownAtHz === undefined) return { kind: 'line', name, cable, lengthM };
  const runM = lengthM > 0 ? lengthM : 1;
  return {
    ...{ kind: 'line', name, lengthM: runM },
    cable: { k1: (knownLossDb * 100) / (runM * Math.sqrt(knownAtHz / 1e6)), k2: 0 },
  };
}

/** Figures that a kind does not have, lacks, or has out of range; empty when all is well. */
export function figureFaults(kind: StageKind, figures: StageFigures): readonly FigureFault[] {
  const specs = STAGE_FIGURES[kind];
  const unknown = Object.keys(figures).filter((id) => !specs.some((spec) => spec.id === id));
  return [
    ...halfKnown(figures),
    ...unknown.map((id) => ({ id, message: `A ${kind} has no figure "${id}". Leave it out.` })),
    ...specs.flatMap(({ id, label, least, most, optional, options }) => {
      // a figure with choices has one that holds when nobody chose
      if (!(id in figures)) return optional || options ? [] : [{ id, message: `${label} is missing. Enter it.` }];
      const value = figures[id];
      if (!(value >= least && value <= most))
        return [{ id, message: `${label} must lie between ${least} and ${most}. Correct it.` }];
      return options && !options.some((option) => option.value === value)
        ? [{ id, message: `${label}: choose one of the list.` }]
        : [];
    }),
  ];
}

const MIXING: readonly Mixing[] = ['above', 'below', 'sum'];

/** A figure, or its start where the stage has none; only for those that are never left out. */
function figure(kind: StageKind, figures: StageFigures, id: string): number {
  if (id in figures) return figures[id];
  const spec = STAGE_FIGURES[kind].find((one) => one.id === id);
  if (!spec) throw new OutOfRangeError(`A ${kind} has no figure "${id}". Leave it out.`, id);
  return parseQuantity(spec.start, spec.dimension, spec.bareUnit ? { bareUnit: spec.bareUnit } : {});
}

/** How a splitter is made, by its figure. */
const SPLITTERS = ['hybrid', 'star', 'tee'] as const;
export type SplitterForm = (typeof SPLITTERS)[number];

/** Loss to one output of a splitter, the others terminated, dB; the excess counts for a hybrid. @throws OutOfRangeError for fewer than two outputs. */
export function splitterLossDb(form: SplitterForm, outputs: number, excessDb = 0): number {
  requireRange(outputs, 'Outputs', 2, 100);
  if (form === 'star') return resistiveSplitter(outputs, 50).lossDb;
  return form === 'tee' ? plainTeeLossDb(outputs) : powerDb(outputs) + excessDb;
}

/** A stage of a kind that its figures describe. @param active gain, noise and intercepts, for a converter. */
export function figuredStage(
  kind: 'splitter' | 'switch' | 'limiter' | 'bias feed' | 'converter',
  name: string,
  figures: StageFigures,
  active: {
    readonly gainDb: number;
    readonly noiseFigureDb: number;
    readonly iip2Dbm: number;
    readonly iip3Dbm: number;
  },
): PathStage {
  const of = (id: string): number => figure(kind, figures, id);
  switch (kind) {
    case 'splitter':
      return { kind: 'pad', name, lossDb: splitterLossDb(SPLITTERS[of('form')], of('outputs'), of('excessDb')) };
    case 'switch':
      return { kind: 'pad', name, lossDb: of('lossDb') };
    case 'limiter':
      return {
        ...{ kind: 'part', name, transfer: [{ freqHz: 1e6, gainDb: -of('lossDb') }] },
        ...limiterFigures(of('perLeg'), of('saturationNA') * 1e-9, of('emission')),
      };
    case 'bias feed':
      return { kind, name, henry: of('chokeUH') * 1e-6, farad: of('capacitorNF') * 1e-9 };
    case 'converter': {
      const { gainDb, noiseFigureDb, iip2Dbm, iip3Dbm } = active;
      return {
        ...{ kind, name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm },
        oscillatorHz: of('oscillatorHz'),
        mixing: MIXING[of('mixing')],
        imageRejectionDb: of('imageRejectionDb'),
      };
    }
  }
}

/** What DC is needed by something on the coax; undefined when it has a supply of its own. */
function loadOf(
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

/** A part of which only the supply is known is taken to work down to this share of it. Common practice, no source. */
const LEAST_SHARE = 0.9;

/** A stage as the DC on the coax meets it. */
export function stageDc(stage: {
  readonly kind: StageKind;
  readonly name: string;
  readonly lengthM: number;
  readonly lossDb: number;
  readonly shape: FilterShape;
  readonly figures: StageFigures;
  /** Of a part from the shelf: what it takes from the coax, and whether it amplifies. */
  readonly part?: {
    readonly supplyV: number | null;
    readonly currentA: number | null;
    readonly noiseFigureDb: number | null;
  };
}): DcStage {
  const { kind, name, figures } = stage;
  const of = (id: string): number => figure(kind, figures, id);
  switch (kind) {
    case 'line':
      return { dc: 'line', name, lengthM: stage.lengthM, ohmPerM: figures.loopOhmPerM };
    case 'filter': {
      const passes = of('passesDc');
      // series capacitors in a high- or band-pass, a shunt coil too: DC neither passes nor stands
      const byShape = stage.shape === 'lowpass' || stage.shape === 'bandstop';
      return passes === 1 || (passes === 2 && byShape) ? { dc: 'through', name } : { dc: 'blocked', name };
    }
    case 'amplifier':
    case 'converter':
      return loadOf(name, figures.leastV, figures.currentMA, of('polarity') > 0) ?? { dc: 'blocked', name, own: true };
    case 'pad':
      return stage.lossDb === 0 ? { dc: 'through', name } : { dc: 'pad', name, lossDb: stage.lossDb };
    case 'part': {
      const { supplyV = null, currentA = null, noiseFigureDb = null } = stage.part ?? {};
      const least = supplyV === null ? undefined : LEAST_SHARE * supplyV;
      const load = loadOf(name, least, currentA === null ? undefined : 1000 * currentA, true);
      // something active that takes nothing from the coax has a supply of its own
      return load ?? (noiseFigureDb === null ? { dc: 'unknown', name } : { dc: 'blocked', name, own: true });
    }
    case 'splitter':
      if (SPLITTERS[of('form')] === 'star') return { dc: 'resistive splitter', name };
      return of('passesDc') === 1 || SPLITTERS[of('form')] === 'tee'
        ? { dc: 'through', name }
        : { dc: 'leg without DC', name };
    case 'switch':
      return of('passesDc') === 1 ? { dc: 'through', name } : { dc: 'blocked', name };
    case 'limiter':
      return { dc: 'diodes', name };
    case 'bias feed': {
      const head = loadOf('the amplifier in the antenna', figures.headV, figures.headMA, of('polarity') > 0);
      return {
        ...{ dc: 'feed', name, supplyV: of('supplyV'), limitA: of('limitMA') / 1000 },
        positive: of('polarity') > 0,
        ...(head ? { head } : {}),
      };
    }
  }
}
