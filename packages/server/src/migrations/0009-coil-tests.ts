import { additions } from './additions';

/** What was typed into the coil tool of an antenna. */
export const coilTests = additions(
  '0009-coil-tests',
  { coilTests: `antennaId INTEGER NOT NULL REFERENCES antennas(id), typed JSON NOT NULL DEFAULT '{}'` },
  {},
);
