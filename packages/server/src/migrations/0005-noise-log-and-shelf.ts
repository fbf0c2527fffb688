import { additions } from './additions';

/** The noise floor over time, what devices of the house add to it, and the shelf of parts. */
export const noiseLogAndShelf = additions(
  '0005-noise-log-and-shelf',
  {
    floorReadings: 'atMs REAL NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL',
    parts: `name TEXT NOT NULL, transfer JSON NOT NULL, noiseFigureDb REAL, iip2Dbm REAL, iip3Dbm REAL, p1Dbm REAL, supplyV REAL, currentA REAL,
      connectorIn TEXT NOT NULL, connectorOut TEXT NOT NULL, cost REAL NOT NULL`,
    deviceSwitchings:
      'device TEXT NOT NULL, freqHz REAL NOT NULL, onDbm REAL NOT NULL, offDbm REAL NOT NULL, atMs REAL NOT NULL',
  },
  { pathStages: [['partId', 'INTEGER REFERENCES parts(id)', 'null']] },
);
