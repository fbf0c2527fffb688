import type { Refusal } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import type { ErrorRequestHandler } from 'express';
import { MulterError } from 'multer';
import type { Logger } from 'pino';
import { ValidationError } from 'yup';
import { dataFileFault } from './data-file';
import { FileRefusedError } from './file-reader';
import { NoSuchAddressError } from './refusals';

const CORE_STATUS: Readonly<Record<string, number>> = {
  ...{ NOT_FOUND: 404, NO_SUCH_ADDRESS: 404, STALE_WRITE: 409, IN_USE: 409, NOTHING_TO_UNDO: 409, UNDO_REFUSED: 409 },
  ...{
    BATCH_UNDONE: 409,
    OTHER_FILE: 409,
    OTHER_BYTES: 409,
    REQUEST: 400,
    READ_ONLY: 400,
    TOO_LARGE: 413,
    FILE_TOO_LARGE: 413,
    INSTRUMENT: 502,
    NO_READING: 502,
    DATA_FILE: 507,
  },
};
/** Faults of the request that the libraries name by their status. */
const CLIENT_FAULTS: Readonly<Record<number, Refusal>> = {
  400: { code: 'BAD_REQUEST', message: 'The request cannot be read. Reload the page and try again.' },
  404: { code: 'NO_SUCH_ADDRESS', message: new NoSuchAddressError().message },
  405: { code: 'METHOD', message: 'This address does not do that. Reload the page and try again.' },
  413: { code: 'TOO_LARGE', message: 'This is too much at once. Save in parts.' },
  415: {
    code: 'ENCODING',
    message: 'The request is written in a way that is not read here. Send UTF-8 without compression.',
  },
};
/** Longest sentence and most fields of one answer. */
const LONGEST_SENTENCE = 600;
const MOST_FIELDS = 20;

const statusOf = (error: unknown): number | undefined => {
  if (error instanceof URIError) return 400;
  const named = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : NaN;
  return named >= 400 && named < 500 ? named : undefined;
};

/** The one place that turns an error into a status. */
export const answerError =
  (logger: Logger, file: string): ErrorRequestHandler =>
  (error: unknown, req, res, next) => {
    if (res.headersSent) return next(error);
    const answer = (status: number, refusal: Refusal): void => {
      // what was still to come of the request is not read
      if (!req.complete) res.set('Connection', 'close');
      res.status(status).json({ ...refusal, message: refusal.message.slice(0, LONGEST_SENTENCE) });
    };
    if (error instanceof ValidationError) {
      const all = (error.inner.length > 0 ? error.inner : [error]).slice(0, MOST_FIELDS);
      return answer(400, {
        code: 'VALIDATION',
        message: all[0].message,
        fields: all.map((one) => ({
          field: (one.path ?? '').slice(0, 80),
          message: one.message.slice(0, LONGEST_SENTENCE),
        })),
      });
    }
    if (error instanceof CoreError)
      return answer(CORE_STATUS[error.code] ?? 422, {
        code: error.code,
        message: error.message,
        ...(error instanceof FileRefusedError && error.question ? { question: error.question } : {}),
        ...(error.field ? { fields: [{ field: error.field, message: error.message }] } : {}),
      });
    if (error instanceof MulterError)
      return answer(400, {
        code: 'FORM',
        message: 'The request is not a form with one file and a few short fields. Choose one file and try again.',
      });
    if (error instanceof SyntaxError && 'body' in error)
      return answer(400, { code: 'JSON', message: 'The request is not valid JSON. Reload the page and try again.' });
    const status = statusOf(error);
    if (status !== undefined) return answer(status, CLIENT_FAULTS[status] ?? CLIENT_FAULTS[400]);
    const disk = dataFileFault(file, error);
    logger.error(error);
    if (disk) return answer(507, { code: disk.code, message: disk.message });
    return answer(500, {
      code: 'INTERNAL',
      message: 'The server met a fault that it did not expect. Nothing was saved. Try again; the log says more.',
    });
  };
