import { real, maybeReal, maybeRef, whole, line, choice, flag, list, text, withBlank, withRule } from '../columns';
import { isGainSetting, MOST_GAINS } from '@velvet-reed/core/path';
import { SPOT_KINDS } from '@velvet-reed/core/antenna';
import { tableOf } from '../table';
import { POWER_KINDS, readZone, REPEATS } from '@velvet-reed/core/site/given';
import { FREQUENCY, BAND, BAND_ORDER, inOrder, readBy } from './shared';

export const targets = tableOf({
  label: 'target',
  columns: {
    ...BAND,
    weight: whole('Weight', 1, 5),
    /** Middle of the area or position of the station wanted; null: not said. */
    latDeg: maybeReal('Latitude (degrees)', -90, 90),
    lonDeg: maybeReal('Longitude (degrees)', -180, 180),
    /** Arrival angle typed by the listener; null: computed or assumed. */
    arrivalDeg: maybeReal('Arrival angle (degrees)', 0, 90),
    /** Its hours, minutes of the UTC day; null: always. */
    fromMin: maybeReal('From (minutes of the day)', 0, 1439),
    toMin: maybeReal('To (minutes of the day)', 0, 1439),
  },
  rules: (schema) =>
    schema
      .test('order', BAND_ORDER, inOrder)
      .test(
        'place',
        'A position needs latitude and longitude. Give both or neither.',
        (value) => (value.latDeg === null) === (value.lonDeg === null),
      )
      .test(
        'hours',
        'Hours need a beginning and an end. Give both or neither.',
        (value) => (value.fromMin === null) === (value.toMin === null),
      ),
});

/** The listener's own version of a catalogue band; `hidden` takes it off the lists. */
export const bandEdits = tableOf({
  label: 'band',
  columns: {
    ...BAND,
    bandId: line('Band', 40),
    hidden: flag('Hidden'),
  },
  rules: (schema) => schema.test('order', BAND_ORDER, inOrder),
});

export const transmitters = tableOf({
  label: 'transmitter',
  columns: {
    name: line('Name'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    powerW: real('Power (W)', 1e-6, 1e8),
    powerKind: choice('Power reference', POWER_KINDS),
    /** Null: own transmitters stand on the plan, or nobody measured how far. */
    distanceM: maybeReal('Distance (m)', 0.1, 2e7),
    /** The listener's own transmitter: Guard's matter, left out of overload forecasts. */
    own: flag('Own transmitter'),
    /** When its power was measured or looked up. */
    measuredMs: maybeReal('Power as of (ms)', 0, 1e14),
  },
  rules: (schema) =>
    schema
      .test(
        'distance',
        'How far away is it? The field here follows from the distance. Enter it.',
        (value, { createError }) => value.own || value.distanceM !== null || createError({ path: 'distanceM' }),
      )
      .test(
        'radiated',
        'The output alone says nothing of the field of a transmitter elsewhere. Enter what it radiates: ERP, EIRP or EMRP.',
        (value, { createError }) => value.own || value.powerKind !== 'output' || createError({ path: 'powerKind' }),
      ),
});

const GAIN = {
  type: 'object',
  properties: {
    name: { type: 'string' },
    noiseFigureDb: { type: 'number' },
    fullScaleDbm: { type: 'number' },
    iip2Dbm: { type: 'number' },
    iip3Dbm: { type: 'number' },
  },
  required: ['name', 'noiseFigureDb', 'fullScaleDbm'],
} as const;

export const receivers = tableOf({
  label: 'receiver',
  columns: {
    name: line('Name'),
    bits: real('Effective bits', 1, 32),
    fullScaleDbm: real('Full scale (dBm)', -100, 50),
    sampleRateHz: real('Sample rate (Hz)', 1e3, 2e10),
    complexSamples: flag('Complex samples'),
    /** A dial and no samples. */
    superhet: withBlank(flag('Superhet'), false),
    /** What other gains make of its figures, as its owner measured or looked them up; empty: those usual for its kind. */
    gains: withBlank(list('Other gains', isGainSetting, { least: 0, most: MOST_GAINS, items: GAIN }), []),
    noiseFigureDb: real('Noise figure (dB)', 0, 80),
    iip2Dbm: real('Second-order input intercept (dBm)', -60, 150),
    iip3Dbm: real('Third-order input intercept (dBm)', -60, 100),
    minHz: real('Lowest frequency (Hz)', 1, 300e9),
    maxHz: real('Highest frequency (Hz)', 1, 300e9),
    sinceMs: maybeReal('In use since (ms)', 0, 1e14),
    /** How far its scale shows too high, parts in a million; null: never checked against a standard. */
    offsetPpm: maybeReal('Scale shows too high by (ppm)', -1000, 1000),
    /** When its figures were measured; null: they are the maker's, or assumed. */
    measuredMs: maybeReal('Figures measured (ms)', 0, 1e14),
  },
  rules: (schema) =>
    schema.test(
      'order',
      'The lowest frequency must lie below the highest. Exchange the two.',
      (value) => value.minHz < value.maxHz,
    ),
});

/** A spot at home where an antenna may hang. */
export const spots = tableOf({
  label: 'spot',
  columns: {
    name: line('Name'),
    kind: choice('Kind of spot', SPOT_KINDS),
    spanM: real('Longest side (m)', 0.1, 2000),
    widthM: real('Other side (m)', 0, 2000),
    /** Highest point over the ground at which something can be fixed. */
    heightM: real('Height (m)', 0.1, 300),
    /** From the nearest outside wall of the house; null: nobody said. */
    distanceM: maybeReal('Distance from the house (m)', 0, 2000),
  },
});

/** Orbital elements as pasted; they are read again whenever they are used. */
export const satellites = tableOf({
  label: 'satellite',
  columns: {
    name: line('Name'),
    line1: line('First line', 69),
    line2: line('Second line', 69),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    leastDeg: real('Least elevation (degrees)', 0, 80),
  },
});

/** An hour that is kept free to listen; it may come again, and may hold the slots of a timed mode. */
export const appointments = tableOf({
  label: 'appointment',
  columns: {
    name: line('Name'),
    atMs: real('Begins (ms)', 0, 1e14),
    minutes: real('Length (minutes)', 0.1, 10_080),
    repeats: choice('Repeats', REPEATS),
    freqHz: maybeReal('Frequency (Hz)', ...FREQUENCY),
    receiverId: maybeRef('receivers', 'Receiver'),
    antennaId: maybeRef('antennas', 'Antenna'),
    slotMinutes: maybeReal('One transmission (minutes)', 0.05, 1440),
    /** Name in the IANA database of the place whose clock it keeps; empty: it keeps to UTC, as broadcasters do. */
    zone: withRule(text('Clock', 60), (value, context) => value === '' || readBy(readZone)(value, context)),
  },
});
