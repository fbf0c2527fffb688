import type { Saved, Values } from '@velvet-reed/contract';
import { gainsText, readGains } from '@velvet-reed/core/choose';
import type { FieldSpec } from '../../../ui/record-form';
import { typedFrequency } from '../../../ui/typed';

export type PartKind = Saved<'guardParts'>['kind'];
type PartPoint = Saved<'guardParts'>['points'][number];

/** The figure of a part that a two-port file tells. */
export const FIGURE_OF: Readonly<Record<PartKind, PartPoint['figure']>> = {
  ...{ switch: 'isolationDb', splitter: 'isolationDb', limiter: 'lossDb', filter: 'lossDb', pad: 'lossDb' },
  ...{ line: 'lossDb', amplifier: 'gainDb' },
};

export const PART_NAMES: Readonly<Record<PartKind, string>> = {
  ...{ switch: 'Switch or relay', limiter: 'Limiter', filter: 'Filter' },
  ...{ splitter: 'Splitter', pad: 'Pad', line: 'Line', amplifier: 'Amplifier' },
};

const EVIDENCE = [
  { value: 'assumed', label: 'assumed' },
  { value: 'model', label: 'computed' },
  { value: 'measured', label: 'measured' },
];

const loss = (label: string, hint = ''): FieldSpec => ({
  ...{ name: 'lossDb', label, kind: 'quantity', dimension: 'gain', group: 'figures', optional: true },
  ...(hint ? { hint } : {}),
});
const known = (name: string, label: string): FieldSpec => ({
  ...{ name, label, kind: 'choice', options: EVIDENCE, group: 'evidence' },
});
const level = (name: string, label: string, hint: string): FieldSpec => ({
  ...{ name, label, hint, kind: 'quantity', dimension: 'level', bareUnit: 'dBm', group: 'figures' },
});
/** Frequency at which a figure was read: without it a measured figure counts as assumed. */
const atFrequency = (figure: string, label: string): FieldSpec => ({
  ...{ name: `${figure}Hz`, label, kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz', group: 'figures' },
  ...{ optional: true, hint: 'it holds within 2 % of it; empty: counts as assumed' },
});
/** The figure over frequency as typed: one figure of a kind has points. */
const overFrequency = (figure: PartPoint['figure'], label: string): FieldSpec => ({
  ...{ name: 'points', label, kind: 'read', hint: 'such as 3.65 MHz 62, 14.1 MHz 55; counts before the single figure' },
  read: (text) => {
    if (text.trim() === '') return { value: [] };
    try {
      return { value: readGains(text).map(({ freqHz, gainDbi }) => ({ figure, freqHz, db: Math.abs(gainDbi) })) };
    } catch (error) {
      return { fault: error instanceof Error ? error.message : String(error) };
    }
  },
});
const isolation: FieldSpec = {
  ...{ name: 'isolationDb', label: 'Isolation', kind: 'quantity', dimension: 'gain', group: 'figures', optional: true },
  hint: 'of what is not chosen; empty: not known',
};
const throwOf = (name: string, label: string): FieldSpec => ({
  ...{ name, label, kind: 'choice', group: 'choices' },
  options: [
    { value: '', label: 'nothing' },
    ...['1', '2', '3', '4'].map((value) => ({ value, label: `throw ${value}` })),
  ],
});
const PULLED: FieldSpec = { name: 'pulled', label: 'Pulled before a storm', kind: 'flag' };
const NAME: FieldSpec = { name: 'name', label: 'Name', kind: 'text' };

/** What each kind of part is asked for. */
export const PART_FIELDS: Readonly<Record<PartKind, readonly FieldSpec[]>> = {
  switch: [
    NAME,
    { name: 'throws', label: 'Throws', kind: 'quantity', dimension: 'plain', group: 'figures' },
    {
      ...{ name: 'drive', label: 'Driven by', kind: 'choice', group: 'choices' },
      options: [
        { value: 'key', label: 'the key line' },
        { value: 'supply', label: 'a supply that is always on' },
        { value: 'hand', label: 'hand' },
      ],
    },
    throwOf('receive', 'In receive at'),
    throwOf('transmit', 'In transmit at'),
    throwOf('rest', 'Without power at'),
    isolation,
    atFrequency('isolationDb', 'Isolation at'),
    known('isolationDbKnown', 'Isolation is'),
    overFrequency('isolationDb', 'Isolation over frequency'),
    loss('Loss'),
    PULLED,
  ],
  limiter: [
    NAME,
    level('leakDbm', 'Lets through at most', 'flat leakage'),
    level('surviveDbm', 'Survives', 'for as long as the key is down'),
    loss('Loss'),
    known('lossDbKnown', 'Loss is'),
    PULLED,
  ],
  filter: [
    NAME,
    loss('Attenuation', 'empty: not known'),
    atFrequency('lossDb', 'Attenuation at'),
    known('lossDbKnown', 'Attenuation is'),
    overFrequency('lossDb', 'Attenuation over frequency'),
    PULLED,
  ],
  amplifier: [
    NAME,
    { name: 'gainDb', label: 'Gain', kind: 'quantity', dimension: 'gain', group: 'figures' },
    known('gainDbKnown', 'Gain is'),
    overFrequency('gainDb', 'Gain over frequency'),
    {
      ...level('limitDbm', 'Its input survives', 'by its data sheet; 0 dBm unless the maker says otherwise'),
    },
    {
      ...{ name: 'mostDbm', label: 'Delivers at most', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
      ...{ group: 'figures', optional: true, hint: 'saturated output; empty: not known' },
    },
    PULLED,
  ],
  splitter: [
    NAME,
    { name: 'outputs', label: 'Outputs', kind: 'quantity', dimension: 'plain', group: 'figures' },
    loss('Loss to each output'),
    isolation,
    atFrequency('isolationDb', 'Isolation at'),
    known('isolationDbKnown', 'Isolation is'),
    overFrequency('isolationDb', 'Isolation over frequency'),
    PULLED,
  ],
  pad: [NAME, loss('Attenuation'), known('lossDbKnown', 'Attenuation is'), PULLED],
  line: [
    NAME,
    loss('Loss'),
    atFrequency('lossDb', 'Loss at'),
    known('lossDbKnown', 'Loss is'),
    overFrequency('lossDb', 'Loss over frequency'),
    PULLED,
  ],
};

/** What a new part begins with. */
export const PART_START: Readonly<Record<PartKind, Readonly<Record<string, string | boolean>>>> = {
  switch: {
    ...{ name: 'Relay', throws: '1', drive: 'key', receive: '1', transmit: '', rest: '', isolationDb: '' },
    ...{ isolationDbKnown: 'assumed', lossDb: '0.2 dB', pulled: false },
  },
  limiter: {
    name: 'Limiter',
    leakDbm: '10 dBm',
    surviveDbm: '33 dBm',
    lossDb: '0.5 dB',
    lossDbKnown: 'assumed',
    pulled: false,
  },
  filter: { name: 'Filter', lossDb: '', lossDbKnown: 'assumed', pulled: false },
  amplifier: {
    name: 'Amplifier',
    gainDb: '15 dB',
    gainDbKnown: 'assumed',
    limitDbm: '0 dBm',
    mostDbm: '',
    pulled: false,
  },
  splitter: {
    name: 'Splitter',
    outputs: '2',
    lossDb: '3.5 dB',
    isolationDb: '20 dB',
    isolationDbKnown: 'assumed',
    pulled: false,
  },
  pad: { name: 'Pad', lossDb: '10 dB', lossDbKnown: 'assumed', pulled: false },
  line: { name: 'Line', lossDb: '1 dB', lossDbKnown: 'assumed', pulled: false },
};

/** The evidence of a form under the names of its figures: "isolationDbKnown" speaks of "isolationDb". */
export function evidenceOf(evidence: unknown): Record<string, string> {
  if (typeof evidence !== 'object' || evidence === null) return {};
  return Object.fromEntries(
    Object.entries(evidence).flatMap(([name, word]) =>
      typeof word === 'string' ? [[name.replace(/Known$/, ''), word] as const] : [],
    ),
  );
}

/** A stored part as it would be typed. */
export const typedPart = ({
  name,
  figures,
  choices,
  evidence,
  pulled,
  kind,
  points,
}: Values<'guardParts'>): Record<string, string | boolean> => ({
  ...PART_START[kind],
  ...{ name, pulled, isolationDb: '', lossDb: '' },
  points: gainsText(points.map(({ freqHz, db }) => ({ freqHz, gainDbi: db }))),
  ...Object.fromEntries(
    Object.entries(figures).map(([id, value]) => [
      id,
      id.endsWith('Dbm')
        ? `${value} dBm`
        : id.endsWith('Db')
          ? `${value} dB`
          : id.endsWith('Hz')
            ? typedFrequency(value)
            : String(value),
    ]),
  ),
  ...choices,
  ...Object.fromEntries(Object.entries(evidence).map(([id, word]) => [`${id}Known`, word])),
});
