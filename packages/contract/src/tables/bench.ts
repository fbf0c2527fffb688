import {
  real,
  maybeReal,
  whole,
  line,
  text,
  choice,
  flag,
  ref,
  maybeRef,
  texts,
  evidence,
  ownFile,
  takenOn,
} from '../columns';
import { tableOf } from '../table';
import { FREQUENCY } from './shared';

/** Header of a sweep; its samples travel as bytes. */
export const sweeps = tableOf({
  label: 'sweep',
  bytes: 'samples',
  columns: {
    name: line('Name', 120),
    antennaId: maybeRef('antennas', 'Antenna'),
    points: evidence(whole('Points', 1, 200_001)),
    startHz: evidence(real('Start (Hz)', 0, 1e12)),
    stopHz: evidence(real('Stop (Hz)', 0, 1e12)),
    referenceOhm: evidence(real('Reference (ohm)', 1e-3, 1e6)),
    phaseKnown: evidence(flag('Phase known')),
    shown: flag('Shown'),
    /** Whether the analyser's own errors were taken off here: 'file' for a file from elsewhere, whose state nobody knows. */
    correction: evidence(choice('Correction', ['file', 'raw', 'corrected', 'interpolated'] as const)),
    attachmentId: evidence(ownFile(ref('attachments', 'Raw file'))),
    /** When it was measured, as far as the file says; null: not known. */
    measuredMs: maybeReal('Measured (ms)', 0, 1e14),
    /** The antenna's dimensions at that time. */
    revisionId: maybeRef('revisions', 'Revision'),
    calibrationId: maybeRef('calibrations', 'Calibration'),
    /** Of the samples: two sweeps of one checksum are the same readings, and are fetched once. */
    checksum: evidence(text('Checksum', 64)),
    takenOn: takenOn(),
  },
});

/** Readings of open, short and load over one grid; the readings travel as bytes. */
export const calibrations = tableOf({
  label: 'calibration',
  bytes: 'samples',
  columns: {
    name: line('Name', 120),
    instrument: line('Instrument', 120),
    points: evidence(whole('Points', 2, 200_001)),
    startHz: evidence(real('Start (Hz)', 0, 1e12)),
    stopHz: evidence(real('Stop (Hz)', 0, 1e12)),
    madeMs: evidence(real('Time (ms)', 0, 1e14)),
    openFarad: real('Fringe capacitance of the open (F)', -1e-11, 1e-11),
    openDelayS: real('One-way delay of the open (s)', 0, 1e-8),
    shortHenry: real('Inductance of the short (H)', -1e-7, 1e-7),
    shortDelayS: real('One-way delay of the short (s)', 0, 1e-8),
    loadOhm: real('Load (ohm)', 1, 10_000),
    checksum: evidence(text('Checksum', 64)),
  },
});

/** What was typed into the Bench's tools of an antenna (coil, wires that pull each other), as it was typed: nothing of it is lost by a reload. */
export const coilTests = tableOf({
  label: 'coil test',
  columns: {
    antennaId: ref('antennas', 'Antenna'),
    typed: texts('Figures'),
  },
});

/** Header of a recorded spectrum; its levels travel as bytes. */
export const spectra = tableOf({
  label: 'spectrum',
  plural: 'spectra',
  bytes: 'samples',
  columns: {
    name: line('Name', 120),
    antennaId: maybeRef('antennas', 'Antenna'),
    points: evidence(whole('Points', 2, 200_001)),
    startHz: evidence(real('Start (Hz)', 0, 1e12)),
    stopHz: evidence(real('Stop (Hz)', 0, 1e12)),
    /** Whether the noise source was on, off, or there was none. */
    source: choice('Noise source', ['on', 'off', 'none'] as const),
    atMs: evidence(real('Time (ms)', 0, 1e14)),
    attachmentId: evidence(ownFile(ref('attachments', 'Raw file'))),
    checksum: evidence(text('Checksum', 64)),
    takenOn: takenOn(),
  },
});

export const trimSteps = tableOf({
  label: 'trim step',
  columns: {
    antennaId: ref('antennas', 'Antenna'),
    lengthM: real('Length (m)', 1e-4, 2000),
    freqHz: real('Resonance (Hz)', ...FREQUENCY),
    note: text('Note'),
    /** How this change can be taken back: a folded end, a spare piece. */
    undoNote: text('How to undo it'),
    /** When the dip was read; null: when it was written down. */
    atMs: maybeReal('Time (ms)', 0, 1e14),
    revisionId: maybeRef('revisions', 'Revision'),
    photoId: ownFile(maybeRef('attachments', 'Photo')),
  },
});
