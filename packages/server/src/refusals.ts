import { CoreError } from '@velvet-reed/core/errors';

/** The record is not there, or was deleted. */
export class NotFoundError extends CoreError {
  readonly code = 'NOT_FOUND';
  constructor(what: string) {
    super(`This ${what} is not here any more. Reload the page; "Undo" brings back what was just deleted.`);
  }
}

/** Nothing is served at the address asked for. */
export class NoSuchAddressError extends CoreError {
  readonly code = 'NO_SUCH_ADDRESS';
  constructor() {
    super('There is nothing at this address. Open the address that the server printed.');
  }
}

/** Somebody else changed the record since it was loaded. */
export class StaleWriteError extends CoreError {
  readonly code = 'STALE_WRITE';
  constructor(what: string) {
    super(
      `This ${what} was changed elsewhere since you opened it. Nothing was overwritten: reload, look, and enter your change again.`,
    );
  }
}

/** Something else still refers to the record. */
export class InUseError extends CoreError {
  readonly code = 'IN_USE';
  constructor(what: string, by: string) {
    super(`This ${what} is still used by ${by}. Delete it together with them, or let them point elsewhere first.`);
  }
}

/** There is nothing left to undo. */
export class NothingToUndoError extends CoreError {
  readonly code = 'NOTHING_TO_UNDO';
  constructor(why = 'There is nothing to undo at this station that was saved on this device.') {
    super(why);
  }
}

/** Undo would take back what was saved later, or by somebody else. */
export class UndoRefusedError extends CoreError {
  readonly code = 'UNDO_REFUSED';
}

/** The same batch was saved once before and taken back since. */
export class BatchUndoneError extends CoreError {
  readonly code = 'BATCH_UNDONE';
  constructor() {
    super('This was saved before and has been undone since. Nothing was saved again: reload, look, and enter it anew.');
  }
}

/** A field that tells where a measurement came from. */
export class EvidenceError extends CoreError {
  readonly code = 'READ_ONLY';
  constructor(what: string, field: string) {
    super(
      `"${field}" of a ${what} tells what was measured and cannot be changed. Leave it as it is, or import the file again.`,
      field,
    );
  }
}

/** The request itself cannot be understood. */
export class RequestError extends CoreError {
  readonly code = 'REQUEST';
}

/** A file is larger than this way in takes. */
export class FileTooLargeError extends CoreError {
  readonly code = 'FILE_TOO_LARGE';
  constructor(
    readonly mostBytes: number,
    remedy: string,
  ) {
    super(`This file is larger than ${Math.round(mostBytes / 1e6)} MB. ${remedy}`);
  }
}

/** More than a person could have typed. */
export class TooMuchError extends CoreError {
  readonly code = 'TOO_LARGE';
}
