import { choice, real, maybeReal, whole, line, text, ref, maybeRef, withBlank, takenOn } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, LEVEL } from './shared';

export const trials = tableOf({
  label: 'trial',
  columns: {
    name: line('Name'),
    antennaAId: ref('antennas', 'Antenna A'),
    antennaBId: ref('antennas', 'Antenna B'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    worthDb: real('Difference worth proving (dB)', 0.1, 40),
    conditions: text('Conditions'),
    /** What decides: reception is SNR; level and noise are answers to other questions. */
    primary: withBlank(choice('What decides', ['snr', 'level', 'noise'] as const), 'snr'),
    /** Number of pairs fixed beforehand: judged once, at its end. Null: looked at after every pair, and judged so. */
    plannedPairs: maybeReal('Pairs fixed beforehand', 2, 2000),
    /** Time in which the band's fading falls to 1/e; null: not known. */
    fadingS: maybeReal('Fading time (s)', 0.01, 86_400),
    takenOn: takenOn(),
  },
  rules: (schema) =>
    schema.test(
      'two',
      'Antenna A and antenna B are the same. Choose two different ones.',
      (value) => value.antennaAId !== value.antennaBId,
    ),
});

export const readings = tableOf({
  label: 'reading',
  columns: {
    trialId: ref('trials', 'Trial'),
    round: whole('Round', 0, 100000),
    levelADbm: maybeReal('Level A (dBm)', ...LEVEL),
    noiseADbm: maybeReal('Noise A (dBm)', ...LEVEL),
    levelBDbm: maybeReal('Level B (dBm)', ...LEVEL),
    noiseBDbm: maybeReal('Noise B (dBm)', ...LEVEL),
    /** When the pair was heard; null: when it was written down. */
    atMs: maybeReal('Time (ms)', 0, 1e14),
    receiverId: maybeRef('receivers', 'Receiver'),
    bandwidthHz: maybeReal('Bandwidth (Hz)', 1, 100e6),
    conditions: text('Conditions', 400),
    /** Of what the levels are: of a power, or of a receiver's full scale when nobody knows that power. */
    scale: withBlank(choice('Scale', ['dBm', 'dBFS'] as const), 'dBm'),
    /** SNR of B less A, where the difference alone was written down. */
    differenceDb: maybeReal('SNR of B less A (dB)', -200, 200),
  },
});

/** Counts in blocks of equal length that alternate between two set-ups. */
export const blockCounts = tableOf({
  label: 'count by blocks',
  plural: 'counts by blocks',
  columns: {
    name: line('Name'),
    atMs: real('Time (ms)', 0, 1e14),
    blockMinutes: real('Length of a block (minutes)', 0.01, 10_080),
    antennaAId: maybeRef('antennas', 'First antenna'),
    antennaBId: maybeRef('antennas', 'Second antenna'),
    /** Whole numbers with commas between, in the order in which they were counted. */
    countsA: line('Counts with the first', 4000),
    countsB: line('Counts with the second', 4000),
    conditions: text('Conditions', 400),
    takenOn: takenOn(),
  },
});

/** A pass of a satellite as it was heard: how well, against how high it stood. */
export const passes = tableOf({
  label: 'pass',
  plural: 'passes',
  columns: {
    satelliteId: ref('satellites', 'Satellite'),
    riseMs: real('Rise (ms)', 0, 1e14),
    highestDeg: real('Highest (degrees)', 0, 90),
    /** 0: nothing heard; 5: without a fault from horizon to horizon. */
    rating: whole('Rating', 0, 5),
    antennaId: maybeRef('antennas', 'Antenna'),
    note: text('Note', 400),
    takenOn: takenOn(),
  },
});
