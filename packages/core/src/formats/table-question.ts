import { CoreError } from '../errors';
import type { Decimal } from './cells';

/** What a person has to say before a table can be read: asked once, all of it together. */
export interface TableQuestion {
  /** A sentence that says what is not certain. */
  readonly ask: string;
  readonly headings: readonly string[];
  /** First rows as they stand in the file. */
  readonly rows: readonly (readonly string[])[];
  /** What each column would be taken for. */
  readonly columns: readonly string[];
  /** What a column may be. */
  readonly meanings: readonly string[];
  /** Unit of a frequency that does not say it; undefined where it is known. */
  readonly unit?: string;
  readonly decimal?: Decimal;
  readonly dateOrder?: 'dmy' | 'mdy';
  /** Minutes that the clock is ahead of UTC; undefined where it is known. */
  readonly zoneMin?: number;
  /** Scale of a level that does not say it (dBm, dBuV, uV, s-below, s-above, dB); undefined where it is known. */
  readonly level?: string;
  /** Impedance across which a voltage was measured, ohm; undefined where it is known. */
  readonly ohm?: number;
  /** Level that stands at 0 of a scale in dB, dBm; undefined where it is known. */
  readonly zeroDbm?: number;
  /** Where a clock goes back: set back, or rows out of order; undefined where it does not. */
  readonly clockBack?: ClockBack;
  /** The same for files of the same make: what an answer is remembered by. */
  readonly key: string;
}

/** A row whose clock stands before that of the row above it. */
export interface ClockBack {
  readonly line: number;
  readonly from: string;
  readonly to: string;
}

/** What a person said; whatever is left out is as certain as the file makes it. */
export interface TableAnswer {
  readonly columns?: readonly string[];
  readonly unit?: string;
  readonly decimal?: Decimal;
  readonly dateOrder?: 'dmy' | 'mdy';
  readonly zoneMin?: number;
  readonly level?: string;
  readonly ohm?: number;
  readonly zeroDbm?: number;
  /** The clock was set back there (summer time ended), or rows stand out of order and are sorted. */
  readonly clock?: 'set-back' | 'disorder';
}

/** The file can be read once somebody answers. */
export class TableQuestionError extends CoreError {
  readonly code = 'TABLE_QUESTION';
  constructor(readonly question: TableQuestion) {
    super(question.ask);
  }
}
