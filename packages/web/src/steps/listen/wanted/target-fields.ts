import type { Saved } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { parsePosition } from '@velvet-reed/core/site';
import type { Band } from '@velvet-reed/core/spectrum';
import { bandSlipOf, bandText } from '@velvet-reed/core/units';
import type { FieldSpec } from '../../../ui/record-form';
import { typedFrequency, typedNumber } from '../../../ui/typed';

export const BAND_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  { name: 'lowHz', label: 'From', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'highHz', label: 'To', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'bandwidthHz', label: 'Received bandwidth', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz' },
];

/** What to ask when a band fits a service only after a factor of ten, a hundred or a thousand. */
export function bandDoubt(
  { lowHz, highHz }: Readonly<Record<string, unknown>>,
  bands: readonly Band[],
): string | undefined {
  if (typeof lowHz !== 'number' || typeof highHz !== 'number') return undefined;
  const meant = bandSlipOf(lowHz, highHz, bands);
  return (
    meant &&
    `${bandText(lowHz, highHz)} touches no service of the catalogue. Did you mean ${bandText(meant.lowHz, meant.highHz)}, ${meant.name}?`
  );
}

/** "18:00-23:00" as minutes of the UTC day; empty: always. */
function readHours(text: string): { readonly values: Record<string, unknown> } | { readonly fault: string } {
  if (text.trim() === '') return { values: { fromMin: null, toMin: null } };
  const match = /^(\d{1,2})(?::?(\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?::?(\d{2}))?$/.exec(text.trim());
  const [fromMin, toMin] = match
    ? [Number(match[1]) * 60 + Number(match[2] ?? 0), Number(match[3]) * 60 + Number(match[4] ?? 0)]
    : [NaN, NaN];
  if (!(fromMin < 1440 && toMin <= 1440 && Number(match?.[2] ?? 0) < 60 && Number(match?.[4] ?? 0) < 60))
    return { fault: `"${text.trim()}" is not a stretch of hours. Type it like 18:00-23:00, in UTC.` };
  return { values: { fromMin, toMin: toMin % 1440 } };
}

/** A position or locator; empty: not said. */
function readPlace(text: string): { readonly values: Record<string, unknown> } | { readonly fault: string } {
  if (text.trim() === '') return { values: { latDeg: null, lonDeg: null } };
  try {
    return { values: { ...parsePosition(text) } };
  } catch (error) {
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
/** "18:00 to 23:00" of a target with hours. */
export const hoursText = ({ fromMin, toMin }: Pick<Saved<'targets'>, 'fromMin' | 'toMin'>): string =>
  fromMin === null || toMin === null ? '' : `${clock(fromMin)}-${clock(toMin)}`;

/** "38 N 60 W". */
const placeText = ({ latDeg, lonDeg }: Pick<Saved<'targets'>, 'latDeg' | 'lonDeg'>): string =>
  latDeg === null || lonDeg === null
    ? ''
    : `${typedNumber(Math.abs(latDeg))} ${latDeg < 0 ? 'S' : 'N'} ${typedNumber(Math.abs(lonDeg))} ${lonDeg < 0 ? 'W' : 'E'}`;

export const TARGET_FIELDS: readonly FieldSpec[] = [
  ...BAND_FIELDS,
  { name: 'weight', label: 'How much it matters, 1 to 5', kind: 'quantity', dimension: 'plain' },
  {
    name: 'latDeg',
    label: 'From where',
    kind: 'read',
    read: readPlace,
    hint: 'middle of the area or the station, like 38 N 60 W or a locator; may stay empty',
  },
  {
    name: 'fromMin',
    label: 'Its hours, UTC',
    kind: 'read',
    read: readHours,
    hint: 'like 18:00-23:00; empty for always',
  },
  {
    name: 'arrivalDeg',
    label: 'Arrives at',
    kind: 'quantity',
    dimension: 'angle',
    bareUnit: '°',
    optional: true,
    hint: 'elevation: horizon 0, overhead 90; empty: computed from the distance, or assumed',
  },
];

export const bandStart = (band: { name: string; lowHz: number; highHz: number; bandwidthHz: number }) => ({
  name: band.name,
  lowHz: typedFrequency(band.lowHz),
  highHz: typedFrequency(band.highHz),
  bandwidthHz: typedFrequency(band.bandwidthHz),
});

/** A target as it would be typed. */
export const targetStart = (target: Saved<'targets'>): Record<string, string> => ({
  ...bandStart(target),
  weight: typedNumber(target.weight),
  latDeg: placeText(target),
  fromMin: hoursText(target),
  arrivalDeg: target.arrivalDeg === null ? '' : `${target.arrivalDeg}°`,
});
