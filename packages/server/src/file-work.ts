import { packLog, packSamples, packSpectrum, unpackLog, unpackSamples } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import {
  LOG_COLUMNS,
  type LogKind,
  type LogSummary,
  type PatternCut,
  readLogCsv,
  readSpectrumCsv,
  readSweepText,
  summariseLog,
  type TableAnswer,
  type TableQuestion,
  TableQuestionError,
} from '@velvet-reed/core/formats';
import type { Position } from '@velvet-reed/core/site';
import { compareSlots, decodeReport, type DecodeReport, type SlotComparison } from '@velvet-reed/core/trial';
import { dipShiftHz, findResonances, shiftText, summariseSweep } from '@velvet-reed/core/sweep';
import { frequencyText } from '@velvet-reed/core/units';

/** A file to be read, away from the thread that answers requests. */
export type FileJob =
  | {
      readonly kind: 'sweep';
      readonly bytes: Uint8Array;
      /** The antenna's sweep before this one, for the sentence that compares them. */
      readonly answer?: TableAnswer;
      readonly last?: { readonly name: string; readonly samples: Uint8Array; readonly referenceOhm: number };
    }
  | { readonly kind: 'spectrum'; readonly bytes: Uint8Array; readonly answer?: TableAnswer }
  | { readonly kind: 'log'; readonly of: LogKind; readonly bytes: Uint8Array; readonly answer?: TableAnswer }
  /** A stored log summed up. */
  | { readonly kind: 'summary'; readonly of: LogKind; readonly bytes: Uint8Array }
  /** A stored log of decodes judged from where it was heard. */
  | { readonly kind: 'decodes'; readonly bytes: Uint8Array; readonly home: Position }
  /** Two stored logs of decodes, slot by slot. */
  | { readonly kind: 'slots'; readonly bytes: Uint8Array; readonly other: Uint8Array; readonly slotS: number };

/** Rows of a long log, packed. */
export interface LogContent {
  readonly rows: number;
  readonly first: number;
  readonly last: number;
  readonly samples: Uint8Array;
  readonly cut?: PatternCut;
}
/** What each sort of job gives. */
export interface Contents {
  readonly sweep: FileContent;
  readonly spectrum: FileContent;
  readonly log: LogContent;
  readonly summary: LogSummary;
  readonly decodes: DecodeReport;
  readonly slots: SlotComparison;
}

/** What was read: a record's columns and its bytes. */
export interface FileContent {
  readonly points: number;
  readonly startHz: number;
  readonly stopHz: number;
  readonly referenceOhm: number;
  readonly phaseKnown: boolean;
  readonly samples: Uint8Array;
  /** What stands in it, for the notebook. */
  readonly story: string;
}

/** A fault crosses the thread as data: classes do not survive it. */
export type FileAnswer<K extends FileJob['kind'] = FileJob['kind']> =
  | { readonly content: Contents[K] }
  | { readonly fault: { readonly code: string; readonly message: string; readonly question?: TableQuestion } };

const NOT_TEXT = 'This file is not text. Export it as Touchstone (.s1p) or CSV.';

/** Bytes of a text file; programs write UTF-8, and some UTF-16 with its mark. */
function textOf(bytes: Uint8Array): string {
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  if (mark === 'utf-8' && bytes.includes(0)) throw new FileFault(NOT_TEXT);
  return new TextDecoder(mark).decode(bytes);
}

class FileFault extends CoreError {
  readonly code = 'REQUEST';
}

function sweepContent({ bytes, last, answer }: Extract<FileJob, { kind: 'sweep' }>): FileContent {
  const sweep = readSweepText(textOf(bytes), answer);
  const { points, startHz, stopHz, resonances } = summariseSweep(sweep);
  const dip = resonances[0];
  const found = dip
    ? `dip at ${frequencyText(dip.freqHz, 4)}, SWR ${dip.swr?.toFixed(2) ?? 'infinite'}`
    : 'no resonance inside';
  const shiftHz = last
    ? dipShiftHz(findResonances(unpackSamples(last.samples, last.referenceOhm)), findResonances(sweep))
    : undefined;
  const moved = last === undefined || shiftHz === undefined ? '' : ` Since ${last.name}: ${shiftText(shiftHz)}.`;
  return {
    points,
    startHz,
    stopHz,
    referenceOhm: sweep.referenceOhm,
    phaseKnown: sweep.phaseKnown,
    samples: packSamples(sweep),
    story: `${points} points, ${frequencyText(startHz)} to ${frequencyText(stopHz)}; ${found}.${moved}`,
  };
}

function spectrumContent({ bytes, answer }: Extract<FileJob, { kind: 'spectrum' }>): FileContent {
  const spectrum = readSpectrumCsv(textOf(bytes), answer);
  const points = spectrum.freqHz.length;
  const [startHz, stopHz] = [spectrum.freqHz[0], spectrum.freqHz[points - 1]];
  return {
    points,
    startHz,
    stopHz,
    referenceOhm: 50,
    phaseKnown: false,
    samples: packSpectrum(spectrum),
    story: `${points} points, ${frequencyText(startHz)} to ${frequencyText(stopHz)}`,
  };
}

function logContent({ bytes, of, answer }: Extract<FileJob, { kind: 'log' }>): LogContent {
  const log = readLogCsv(of, textOf(bytes), answer);
  const order = log.numbers[LOG_COLUMNS[of][0].id];
  return {
    ...{ rows: order.length, first: order[0], last: order[order.length - 1], samples: packLog(log) },
    ...(log.cut ? { cut: log.cut } : {}),
  };
}

function contentOf(job: FileJob): Contents[FileJob['kind']] {
  switch (job.kind) {
    case 'sweep':
      return sweepContent(job);
    case 'spectrum':
      return spectrumContent(job);
    case 'log':
      return logContent(job);
    case 'summary':
      return summariseLog(unpackLog(job.of, job.bytes));
    case 'decodes':
      return decodeReport(unpackLog('decodes', job.bytes), job.home);
    case 'slots':
      return compareSlots(unpackLog('decodes', job.bytes), unpackLog('decodes', job.other), job.slotS);
  }
}

/** Reads one file; never throws. */
export function workOn(job: FileJob): FileAnswer {
  try {
    return { content: contentOf(job) };
  } catch (error) {
    if (error instanceof TableQuestionError)
      return { fault: { code: error.code, message: error.message, question: error.question } };
    if (error instanceof CoreError) return { fault: { code: error.code, message: error.message } };
    return {
      fault: {
        code: 'UNREADABLE',
        message: 'This file cannot be read. Export it again, or send it to the makers of this program.',
      },
    };
  }
}
