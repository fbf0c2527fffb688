import { additions } from './additions';

/** The noise floor over time, and what devices of the house add to it. */
export const noiseLog = additions(
  '0005-noise-log',
  {
    floorReadings: 'atMs REAL NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL',
    deviceSwitchings:
      'device TEXT NOT NULL, freqHz REAL NOT NULL, onDbm REAL NOT NULL, offDbm REAL NOT NULL, atMs REAL NOT NULL',
  },
  {},
);
