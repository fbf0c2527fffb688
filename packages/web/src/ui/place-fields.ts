import type { StationValues } from '@velvet-reed/contract';
import { CABLE_CHOICES } from '@velvet-reed/core/path';
import { GROUND_CLASSES } from '@velvet-reed/core/solver';
import { dayTyped } from './moment-text';
import type { FieldSpec } from './record-form';
import { typedLength } from './typed';

const ENVIRONMENT_NAMES: Readonly<Record<StationValues['environment'], string>> = {
  city: 'city',
  residential: 'residential',
  rural: 'rural',
  quiet_rural: 'quiet rural',
};
const ENVIRONMENT_OPTIONS = Object.entries(ENVIRONMENT_NAMES).map(([value, label]) => ({ value, label }));

/** What a place offers; the position is asked for on its own. */
export const PLACE_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    name: 'environment',
    label: 'Noise class (ITU-R P.372)',
    kind: 'choice',
    options: ENVIRONMENT_OPTIONS,
    hint: 'how built-up the surroundings are',
  },
  {
    name: 'noiseOffsetDb',
    label: 'Your offset to it',
    kind: 'quantity',
    dimension: 'gain',
    hint: '10 to 15 dB more in dense housing',
  },
  {
    name: 'spanM',
    label: 'Longest straight run',
    kind: 'quantity',
    dimension: 'length',
    bareUnit: 'm',
    hint: 'between supports, like 38 m',
  },
  { name: 'heightM', label: 'Support height', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
  {
    name: 'groundId',
    label: 'Ground below the antennas',
    kind: 'choice',
    options: GROUND_CLASSES.filter((one) => one.id !== 'free').map((one) => ({ value: one.id, label: one.name })),
  },
  {
    name: 'cableId',
    label: 'Cable into the house',
    kind: 'choice',
    options: CABLE_CHOICES,
  },
  { name: 'lineLengthM', label: 'Its length', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
  { name: 'lineSinceMs', label: 'Line in use since', kind: 'date' },
  { name: 'lineMeasuredMs', label: 'Its loss measured on', kind: 'date', hint: 'empty: by its class' },
  {
    name: 'ownCableDb10',
    label: 'Own cable, loss at 10 MHz',
    kind: 'quantity',
    dimension: 'gain',
    optional: true,
    hint: 'dB per 100 m; only for your own cable',
  },
  {
    name: 'ownCableDb100',
    label: 'Own cable, loss at 100 MHz',
    kind: 'quantity',
    dimension: 'gain',
    optional: true,
    hint: 'dB per 100 m',
  },
];

/** What the landlord, the weather and the neighbours allow. */
/** What wire and masts cost here. */
export const PRICE_FIELDS: readonly FieldSpec[] = (
  [
    ['wirePerM', 'Wire, a metre'],
    ['tubePerM', 'Tube or rod, a metre'],
    ['mastPerM', 'Mast, a metre above head height'],
    ['perPost', 'Post or pole'],
  ] as const
).map(([name, label]) => ({ name, label, kind: 'quantity', dimension: 'plain' }));

export const RESTRICTION_FIELDS: readonly FieldSpec[] = [
  { name: 'nothingVisible', label: 'Nothing may be visible', kind: 'flag' },
  { name: 'lawnAllowed', label: 'The lawn may be used', kind: 'flag' },
  { name: 'noDrilling', label: 'No drilling', kind: 'flag' },
  { name: 'noTransmitting', label: 'No transmitting', kind: 'flag' },
  { name: 'noStakes', label: 'No stakes or rods in the ground', kind: 'flag' },
  { name: 'askFirst', label: 'Permission must be asked first', kind: 'flag' },
  {
    name: 'windLimitMPerS',
    label: 'Wind that the weakest support stands',
    kind: 'quantity',
    dimension: 'speed',
    bareUnit: 'm/s',
    optional: true,
    hint: 'like 35 mph; from its maker',
  },
  {
    name: 'windForecastMPerS',
    label: 'Wind forecast',
    kind: 'quantity',
    dimension: 'speed',
    bareUnit: 'm/s',
    optional: true,
  },
];

const MPH_M_PER_S = 0.44704;
/** "15.6 m/s (35 mph)". */
export const speedText = (mPerS: number): string => `${mPerS.toFixed(1)} m/s (${(mPerS / MPH_M_PER_S).toFixed(0)} mph)`;

const optional = (value: number | null, unit: string): string =>
  value === null ? '' : `${Number(value.toPrecision(6))} ${unit}`;

/** A station as it would be typed. */
export const placeStart = (station: StationValues): Record<string, string | boolean> => ({
  name: station.name,
  environment: station.environment,
  noiseOffsetDb: `${station.noiseOffsetDb} dB`,
  spanM: typedLength(station.spanM),
  heightM: typedLength(station.heightM),
  groundId: station.groundId,
  cableId: station.cableId,
  lineLengthM: typedLength(station.lineLengthM),
  lineSinceMs: dayTyped(station.lineSinceMs),
  lineMeasuredMs: dayTyped(station.lineMeasuredMs),
  ownCableDb10: optional(station.ownCableDb10, 'dB'),
  ownCableDb100: optional(station.ownCableDb100, 'dB'),
  nothingVisible: station.nothingVisible,
  lawnAllowed: station.lawnAllowed,
  noDrilling: station.noDrilling,
  noStakes: station.noStakes,
  askFirst: station.askFirst,
  noTransmitting: station.noTransmitting,
  windLimitMPerS: optional(station.windLimitMPerS, 'm/s'),
  windForecastMPerS: optional(station.windForecastMPerS, 'm/s'),
});
