import { CoreError } from '@velvet-reed/core/errors';

/** An instrument did not answer as it should; nothing of its answer is kept. */
export class InstrumentError extends CoreError {
  readonly code: string = 'INSTRUMENT';
}

/** The instrument answered in order, and had no reading: its input is above or below its range, or it dropped this one. */
export class NoReadingError extends InstrumentError {
  override readonly code = 'NO_READING';
}
