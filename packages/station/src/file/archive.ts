import { CoreError } from '@velvet-reed/core/errors';
import { strFromU8, Unzip, UnzipInflate, type Unzipped } from 'fflate';

/** A station file that is refused, with a sentence that says how to mend it. */
export class StationFileError extends CoreError {
  readonly code = 'REQUEST';
}

export const STATION_FORMAT = 'velvet-reed-station';
export const STATION_VERSION = 1;

/** What a whole station unpacked may take, and how many parts: far above what a listener gathers in years. */
const MAX_BYTES = 1_500_000_000;
const MAX_PARTS = 100_000;
export const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
/** Names of the parts; any other is no station's. Nothing is ever unpacked onto the disk. */
const PART = new RegExp(
  `^(?:(?:station|earlier|checksums)\\.json|(?:records/[A-Za-z]+\\.json|tables/[A-Za-z]+\\.csv|bytes/[A-Za-z]+/${UUID}))$`,
);

/** Refuses a file. @throws StationFileError */
export const refuseFile = (what: string): never => {
  throw new StationFileError(`${what} Nothing was taken in.`);
};

/** So much of an archive is unpacked before others get their turn. */
const PIECE_BYTES = 1 << 18;
/** Signature of the end of the list of parts, and how far from the end of the file it stands at most: with the longest comment. Source: ZIP APPNOTE 4.3.16. */
const END_OF_LIST = [0x50, 0x4b, 0x05, 0x06];
const MAX_END = 22 + 65_535;
const CUT_OFF = 'This is no station file, or it is cut off. Copy it again from where it was saved.';
const TOO_MUCH = 'This archive unpacks to more than any station holds.';

const hasList = (file: Uint8Array): boolean => {
  for (let at = file.length - END_OF_LIST.length; at >= Math.max(0, file.length - MAX_END); at -= 1)
    if (END_OF_LIST.every((byte, i) => file[at + i] === byte)) return true;
  return false;
};

function joined(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/**
 * The parts of an archive, unpacked piece by piece. What it says of its own size is not believed: what comes out is counted.
 * @param breathe lets others have their turn. @param most bytes unpacked. @throws StationFileError for what is none, is cut off, or is made to harm.
 */
export async function partsOf(file: Uint8Array, breathe: () => Promise<unknown>, most = MAX_BYTES): Promise<Unzipped> {
  const parts: Unzipped = {};
  let [total, count, open] = [0, 0, 0];
  let bad: string | undefined;
  const spoil = (why: string): void => void (bad ??= why);
  const archive = new Unzip((part) => {
    count += 1;
    if (!PART.test(part.name)) spoil(`The part "${part.name.slice(0, 60)}" does not belong to a station file.`);
    if (Object.hasOwn(parts, part.name)) spoil(`The part "${part.name.slice(0, 60)}" stands in the archive twice.`);
    if (count > MAX_PARTS) spoil(TOO_MUCH);
    if (bad !== undefined) return;
    const pieces: Uint8Array[] = [];
    open += 1;
    part.ondata = (error, data, final) => {
      if (error) return spoil(CUT_OFF);
      total += data.length;
      if (total > most) spoil(TOO_MUCH);
      // nothing more is kept of an archive that is refused
      if (bad !== undefined) return part.terminate();
      pieces.push(data);
      if (!final) return;
      open -= 1;
      parts[part.name] = joined(pieces);
    };
    part.start();
  });
  archive.register(UnzipInflate);
  try {
    for (let at = 0; at < file.length && bad === undefined; at += PIECE_BYTES) {
      archive.push(file.subarray(at, at + PIECE_BYTES), at + PIECE_BYTES >= file.length);
      await breathe();
    }
  } catch {
    spoil(CUT_OFF);
  }
  if (bad !== undefined) refuseFile(bad);
  // an archive without the list of parts at its end was cut off, though all parts be there
  if (count === 0 || open > 0 || !hasList(file)) refuseFile(CUT_OFF);
  return parts;
}

/** A part of JSON; undefined where it is missing. @throws StationFileError for a damaged one */
export function parsedPart(parts: Unzipped, name: string): unknown {
  const part = parts[name];
  if (!part) return undefined;
  try {
    return JSON.parse(strFromU8(part));
  } catch {
    return refuseFile(`The part ${name} is damaged. Copy the file again from where it was saved.`);
  }
}

const isValues = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Every part is there, and is what it was when it was saved. @param digest SHA-256 as hexadecimal digits */
export function checkSums(parts: Unzipped, digest: (bytes: Uint8Array) => string): void {
  const sums = parsedPart(parts, 'checksums.json');
  if (!isValues(sums)) return refuseFile('The list of checksums is missing: the file is cut off, or no station file.');
  for (const name of Object.keys(parts))
    if (name !== 'checksums.json' && sums[name] !== digest(parts[name]))
      refuseFile(
        `The part ${name} is not what was saved: it was damaged or changed. Copy the file again, or take an older one.`,
      );
  for (const name of Object.keys(sums))
    if (!parts[name]) refuseFile(`The part ${name} is missing. Copy the file again.`);
}

/** What a station file says of itself, and the station's own values. @throws StationFileError for another kind of file */
export function headOf(parts: Unzipped): Readonly<Record<string, unknown>> {
  const head = parsedPart(parts, 'station.json');
  if (!isValues(head) || head.format !== STATION_FORMAT)
    return refuseFile('This is no station file. Choose one that was saved under Notebook, Station file.');
  if (head.version !== STATION_VERSION) refuseNewer();
  return head;
}
/** Refuses a file of a newer release. @throws StationFileError */
export const refuseNewer = (): never =>
  refuseFile('This file comes from a newer release than this one. Bring this computer up to date, then open it again.');
