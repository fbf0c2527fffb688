import { real, line, ref, maybeRef } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, LEVEL } from './shared';

export const noiseChecks = tableOf({
  label: 'noise reading',
  columns: {
    antennaId: maybeRef('antennas', 'Antenna'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    offDbm: real('Antenna off (dBm)', ...LEVEL),
    onDbm: real('Antenna on (dBm)', ...LEVEL),
  },
});

/** A noise floor as read, through an antenna of the station or referred to a lossless one (null). */
export const noiseFloors = tableOf({
  label: 'noise floor',
  columns: {
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    levelDbm: real('Level (dBm)', ...LEVEL),
    bandwidthHz: real('Bandwidth (Hz)', 1, 100e6),
    antennaId: maybeRef('antennas', 'Antenna'),
  },
});

/** One line of a band survey: a reference signal as heard on one antenna. */
export const surveyReadings = tableOf({
  label: 'survey reading',
  columns: {
    antennaId: ref('antennas', 'Antenna'),
    name: line('Signal'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    levelDbm: real('Level (dBm)', ...LEVEL),
    noiseDbm: real('Noise (dBm)', ...LEVEL),
    atMs: real('Time (ms)', 0, 1e14),
  },
});

/** The noise floor at one moment, for the log over time. */
export const floorReadings = tableOf({
  label: 'floor reading',
  columns: {
    atMs: real('Time (ms)', 0, 1e14),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    levelDbm: real('Level (dBm)', ...LEVEL),
  },
});

/** The floor with a device of the house on and with it off. */
export const deviceSwitchings = tableOf({
  label: 'device switching',
  columns: {
    device: line('Device'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    onDbm: real('Floor with it on (dBm)', ...LEVEL),
    offDbm: real('Floor with it off (dBm)', ...LEVEL),
    atMs: real('Time (ms)', 0, 1e14),
  },
});
