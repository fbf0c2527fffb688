import type { Request, RequestHandler } from 'express';
import { CoreError } from '@velvet-reed/core/errors';
import { QueryTypes } from 'sequelize';
import type { Database } from './database';

/** Header with the id of the file of stations: an answer says which file it comes from, a request which one it is meant for. */
const FILE_HEADER = 'X-Data-File';

/** A request that was meant for the stations of another data folder. Nothing was changed. */
class OtherFileError extends CoreError {
  readonly code = 'OTHER_FILE';
  constructor() {
    super(
      'Another data folder is served at this address now, and this was meant for the one before. Nothing was changed. Copy what you typed, then reload the page to see what is here.',
    );
  }
}

/** The bytes at an address are not those that the page knows by their checksum. */
class OtherBytesError extends CoreError {
  readonly code = 'OTHER_BYTES';
  constructor() {
    super('This file is not the one that the page knows. Reload the page.');
  }
}

/** Every answer names the file of stations, and a request that names another one is refused. */
export function forThisFile(db: Database): RequestHandler {
  let known: string | undefined;
  const idOf = async (): Promise<string> => {
    if (known !== undefined) return known;
    const [row] = await db.sequelize.query<{ readonly id: string }>('SELECT id FROM data_file', {
      type: QueryTypes.SELECT,
    });
    known = row.id;
    return known;
  };
  return async (req, res, next) => {
    const id = await idOf();
    res.set(FILE_HEADER, id);
    const meant = req.get(FILE_HEADER);
    if (meant !== undefined && meant !== '' && meant !== id) throw new OtherFileError();
    next();
  };
}

/** An address that names a checksum names these very bytes. @returns whether it does */
export function requireSum({ query }: Request, checksum: unknown): boolean {
  if (query.sum === undefined) return false;
  if (query.sum !== checksum) throw new OtherBytesError();
  return true;
}
