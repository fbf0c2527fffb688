import { ANTENNA_KINDS, CHOKES, type KindId } from '@velvet-reed/core/antenna';
import type { GainPoint } from '@velvet-reed/core/choose';
import { real, maybeReal, whole, line, choice, flag, ref, maybeRef, numbers, words, list, withBlank } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY } from './shared';

const KIND_IDS = ANTENNA_KINDS.map((kind): KindId => kind.id);

const isGain = (value: unknown): value is GainPoint =>
  typeof value === 'object' &&
  value !== null &&
  'freqHz' in value &&
  'gainDbi' in value &&
  typeof value.freqHz === 'number' &&
  typeof value.gainDbi === 'number' &&
  value.freqHz > 0 &&
  value.freqHz <= FREQUENCY[1] &&
  Math.abs(value.gainDbi) <= 120;

const GAIN = {
  type: 'object',
  properties: { freqHz: { type: 'number' }, gainDbi: { type: 'number' } },
  required: ['freqHz', 'gainDbi'],
} as const;

export const antennas = tableOf({
  label: 'antenna',
  columns: {
    name: line('Name'),
    targetId: maybeRef('targets', 'Target'),
    /** When it went up. */
    sinceMs: maybeReal('In use since (ms)', 0, 1e14),
    /** Where it hangs; null: nobody said. */
    spotId: maybeRef('spots', 'Spot'),
    /** Whether a common-mode choke keeps the noise of the cable off. */
    choke: withBlank(choice('Choke at the feed', CHOKES), 'not said'),
  },
});

/** One state of an antenna's dimensions and of its build. */
export const revisions = tableOf({
  label: 'revision',
  columns: {
    antennaId: ref('antennas', 'Antenna'),
    number: whole('Revision', 1, 100000),
    kind: choice('Kind', KIND_IDS),
    freqHz: real('Frequency (Hz)', 1e4, 300e9),
    diameterM: real('Conductor diameter (m)', 1e-5, 0.2),
    insulated: flag('Insulated wire'),
    allowance: real('Trim allowance (ratio)', 0, 0.2),
    /** Set by hand or by trimming the model; absent ones follow from the frequency. SI or degrees. */
    dimensions: numbers('Dimensions'),
    gates: words('Checks passed'),
    done: words('Steps done'),
  },
});

/** An antenna that could be bought, by its data sheet. */
export const boughtAntennas = tableOf({
  label: 'antenna to buy',
  plural: 'antennas to buy',
  columns: {
    name: line('Name'),
    gains: list('Gains', isGain, { least: 1, most: 60, items: GAIN }),
    amplified: flag('Amplified'),
    gainDb: real('Amplifier gain (dB)', -20, 80),
    noiseFigureDb: real('Amplifier noise figure (dB)', 0, 60),
    iip2Dbm: real('Second-order input intercept (dBm)', -60, 150),
    iip3Dbm: real('Third-order input intercept (dBm)', -60, 100),
    /** Edge of a low-pass ahead of the amplifier; null: none. */
    inputFilterHz: maybeReal('Input low-pass (Hz)', ...FREQUENCY),
    sizeM: real('Size (m)', 0.01, 600),
    price: real('Price', 0, 1e6),
    hours: real('Work (hours)', 0, 1000),
    sight: whole('Looks', 0, 3),
  },
});
