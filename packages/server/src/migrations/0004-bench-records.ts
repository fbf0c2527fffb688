import { additions } from './additions';

/** Calibrations and spectra of the bench; what was done to a sweep; photo and way back of a trim step. */
export const benchRecords = additions(
  '0004-bench-records',
  {
    calibrations: `name TEXT NOT NULL, instrument TEXT NOT NULL, points INTEGER NOT NULL, startHz REAL NOT NULL, stopHz REAL NOT NULL, madeMs REAL NOT NULL,
      openFarad REAL NOT NULL, openDelayS REAL NOT NULL, shortHenry REAL NOT NULL, shortDelayS REAL NOT NULL, loadOhm REAL NOT NULL, samples BLOB NOT NULL`,
    spectra: `name TEXT NOT NULL, antennaId INTEGER REFERENCES antennas(id), points INTEGER NOT NULL, startHz REAL NOT NULL, stopHz REAL NOT NULL,
      source TEXT NOT NULL, atMs REAL NOT NULL, attachmentId INTEGER NOT NULL REFERENCES attachments(id), samples BLOB NOT NULL`,
  },
  {
    sweeps: [['correction', "TEXT NOT NULL DEFAULT 'file'", '"file"']],
    trimSteps: [
      ['undoNote', "TEXT NOT NULL DEFAULT ''", '""'],
      ['photoId', 'INTEGER REFERENCES attachments(id)', 'null'],
    ],
  },
);
