import { CoreError } from '@velvet-reed/core';

/** The record is not there, or was deleted. */
export class NotFoundError extends CoreError {
  readonly code = 'NOT_FOUND';
  constructor(what: string) {
    super(`This ${what} is not here any more. Reload the page; "Undo" brings back what was just deleted.`);
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
    super(`This ${what} is still used by ${by}. Change or delete those first.`);
  }
}

/** There is nothing left to undo. */
export class NothingToUndoError extends CoreError {
  readonly code = 'NOTHING_TO_UNDO';
  constructor() {
    super('There is nothing to undo at this station.');
  }
}

/** The request itself cannot be understood. */
export class RequestError extends CoreError {
  readonly code = 'REQUEST';
}
