import { choice, evidence, line, maybeReal, maybeRef, ownFile, real, text, whole, takenOn } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, LEVEL } from './shared';

/** A recording of a receiver: its file stays where it is, unless it is kept; what was set stays here, so that the same file gives the same numbers. */
export const recordings = tableOf({
  label: 'recording',
  columns: {
    name: line('Name', 120),
    /** Size and SHA-256 of the file by which it is known again. */
    fileBytes: evidence(whole('Size (bytes)', 1, 1e13)),
    checksum: evidence(text('SHA-256', 64)),
    lengthS: evidence(real('Length (s)', 1e-6, 1e8)),
    sampleRateHz: evidence(real('Sample rate (Hz)', 1, 1e10)),
    /** What its channels are: one real signal, I and Q, or two receivers at once. */
    meaning: choice('Channels', ['real', 'iq', 'two'] as const),
    centreHz: real('Centre frequency (Hz)', 0, FREQUENCY[1]),
    startMs: maybeReal('Start (ms)', 0, 1e14),
    receiverId: maybeRef('receivers', 'Receiver'),
    antennaAId: maybeRef('antennas', 'First antenna'),
    antennaBId: maybeRef('antennas', 'Second antenna'),
    /** Below nothing where nobody said the centre: then it counts from the middle of the band. */
    signalHz: maybeReal('Signal (Hz)', -FREQUENCY[1], FREQUENCY[1]),
    bandwidthHz: maybeReal('Bandwidth (Hz)', 0.1, 1e9),
    quietHz: maybeReal('Quiet frequency (Hz)', -FREQUENCY[1], FREQUENCY[1]),
    /** Time of one antenna's turn; null: looked for, or not switched. */
    turnS: maybeReal('Time of a turn (s)', 0.05, 86_400),
    /** Level of a sine of full scale at the receiver's input, at the gain of this recording; null: levels stay in dBFS. */
    fullScaleDbm: maybeReal('Full scale (dBm)', ...LEVEL),
    attachmentId: evidence(ownFile(maybeRef('attachments', 'File'))),
    takenOn: takenOn(),
  },
});
