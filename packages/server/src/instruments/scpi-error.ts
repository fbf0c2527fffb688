import { CoreError } from '@velvet-reed/core/errors';

/** An instrument did not answer as it should; nothing of its answer is kept. */
export class InstrumentError extends CoreError {
  readonly code: string = 'INSTRUMENT';
}

/** The instrument answered in order, and had no reading this time: the next one may be one. */
export class NoReadingError extends InstrumentError {
  override readonly code = 'NO_READING';
}
