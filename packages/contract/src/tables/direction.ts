import { choice, line, list, maybeReal, maybeRef, real, text, withBlank, takenOn } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY } from './shared';

/** A direction and the level that was read there, degrees and dBm. */
type Turned = readonly [deg: number, dbm: number];
const isTurned = (value: unknown): value is Turned =>
  Array.isArray(value) &&
  value.length === 2 &&
  typeof value[0] === 'number' &&
  typeof value[1] === 'number' &&
  Math.abs(value[0]) <= 720 &&
  value[1] >= -200 &&
  value[1] <= 60;
const PAIR = { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 } as const;
const turned = (label: string) => list(label, isTurned, { least: 0, most: 500, items: PAIR });

/** One turn of an antenna with a null, at a place on the plan. */
export const nullLogs = tableOf({
  label: 'turn of the antenna',
  plural: 'turns of the antenna',
  columns: {
    name: line('Name'),
    atMs: real('Time (ms)', 0, 1e14),
    /** Where it stood, m east and north of the middle of the plan. */
    xM: real('East (m)', -20_000, 20_000),
    yM: real('North (m)', -20_000, 20_000),
    freqHz: maybeReal('Frequency (Hz)', ...FREQUENCY),
    /** Added to what a compass says; 0: the bearings are true. */
    declinationDeg: withBlank(real('Declination (degrees)', -180, 180), 0),
    /** What the directions name: where the null points, or the plane of the loop. */
    meaning: withBlank(choice('Directions are of', ['null', 'plane'] as const), 'null'),
    readings: withBlank(turned('Readings'), []),
    /** The same turn with the sense antenna on. */
    sense: withBlank(turned('With the sense antenna'), []),
    /** How well a direction is read, 1 sigma. */
    sigmaDeg: withBlank(real('Compass and mark, error (degrees)', 0.1, 45), 3),
    antennaId: maybeRef('antennas', 'Antenna'),
    conditions: text('Conditions', 400),
    takenOn: takenOn(),
  },
});
