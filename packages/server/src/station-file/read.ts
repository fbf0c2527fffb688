import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@velvet-reed/contract';
import { Unzip, UnzipInflate, type Unzipped } from 'fflate';
import { pictureValues, sha256 } from '../file-store';
import { MIGRATION_NAMES } from '../migrate';
import { RequestError } from '../refusals';
import { bytesName, type FileRecord, type StationContents, type Values } from './contents';
import { STATION_FORMAT, STATION_VERSION } from './write';

/** What a whole station unpacked may take, and how many parts: far above what a listener gathers in years. */
const MOST_BYTES = 1_500_000_000;
const MOST_PARTS = 100_000;
const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
/** Names of the parts; any other is no station's. Nothing is ever unpacked onto the disk. */
const PART = new RegExp(
  `^(?:(?:station|earlier|checksums)\\.json|(?:records/[A-Za-z]+\\.json|tables/[A-Za-z]+\\.csv|bytes/[A-Za-z]+/${UUID}))$`,
);
const WHOLE_UUID = new RegExp(`^${UUID}$`);

const refuse = (what: string): never => {
  throw new RequestError(`${what} Nothing was taken in.`);
};

/** So much of an archive is unpacked before others get their turn. */
const PIECE_BYTES = 1 << 18;

/**
 * The parts of an archive, unpacked piece by piece. What it says of its own size is not believed: what comes out is counted.
 * @param most bytes unpacked. @throws RequestError for what is none, is cut off, or is made to harm.
 */
export async function partsOf(file: Uint8Array, most = MOST_BYTES): Promise<Unzipped> {
  const parts: Unzipped = {};
  let [total, count, open] = [0, 0, 0];
  let bad: string | undefined;
  const spoil = (why: string): void => void (bad ??= why);
  const archive = new Unzip((part) => {
    count += 1;
    if (!PART.test(part.name)) spoil(`The part "${part.name.slice(0, 60)}" does not belong to a station file.`);
    if (Object.hasOwn(parts, part.name)) spoil(`The part "${part.name.slice(0, 60)}" stands in the archive twice.`);
    if (count > MOST_PARTS) spoil(TOO_MUCH);
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
      parts[part.name] = Buffer.concat(pieces);
    };
    part.start();
  });
  archive.register(UnzipInflate);
  try {
    for (let at = 0; at < file.length && bad === undefined; at += PIECE_BYTES) {
      archive.push(file.subarray(at, at + PIECE_BYTES), at + PIECE_BYTES >= file.length);
      await new Promise((resolve) => setImmediate(resolve));
    }
  } catch {
    spoil(CUT_OFF);
  }
  if (bad !== undefined) refuse(bad);
  // the list of parts at its end: an archive without it was cut off, though all parts be there
  const listEnds = Buffer.from(file.subarray(Math.max(0, file.length - MOST_END))).lastIndexOf(END_OF_LIST);
  if (count === 0 || open > 0 || listEnds < 0) refuse(CUT_OFF);
  return parts;
}
/** Signature of the end of the list of parts, and how far from the end of the file it stands at most: with the longest comment. Source: ZIP APPNOTE 4.3.16. */
const END_OF_LIST = Buffer.from([0x50, 0x4b, 0x05, 0x06]);
const MOST_END = 22 + 65_535;
const CUT_OFF = 'This is no station file, or it is cut off. Copy it again from where it was saved.';
const TOO_MUCH = 'This archive unpacks to more than any station holds.';

function parsed(parts: Unzipped, name: string): unknown {
  const part = parts[name];
  if (!part) return undefined;
  try {
    return JSON.parse(Buffer.from(part).toString('utf8'));
  } catch {
    return refuse(`The part ${name} is damaged. Copy the file again from where it was saved.`);
  }
}

const isValues = (value: unknown): value is Values =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isRecord = (value: unknown): value is FileRecord =>
  isValues(value) &&
  typeof value.id === 'number' &&
  typeof value.uuid === 'string' &&
  WHOLE_UUID.test(value.uuid) &&
  typeof value.createdAt === 'string' &&
  !Number.isNaN(Date.parse(value.createdAt));

const PICTURE_NAME = /\.(png|jpe?g)$/i;
/** A picture of a file as it is kept here, without what it tells of its place; undefined for other files, which stay byte for byte. */
const cleanPicture = ({ name }: FileRecord, bytes: Uint8Array | undefined) =>
  bytes && PICTURE_NAME.test(String(name))
    ? pictureValues({ name: String(name), bytes: Buffer.from(bytes) })
    : undefined;

/** Every part is there, and is what it was when it was saved. */
function checkSums(parts: Unzipped): void {
  const sums = parsed(parts, 'checksums.json');
  if (!isValues(sums)) return refuse('The list of checksums is missing: the file is cut off, or no station file.');
  for (const name of Object.keys(parts))
    if (name !== 'checksums.json' && sums[name] !== sha256(parts[name]))
      refuse(
        `The part ${name} is not what was saved: it was damaged or changed. Copy the file again, or take an older one.`,
      );
  for (const name of Object.keys(sums)) if (!parts[name]) refuse(`The part ${name} is missing. Copy the file again.`);
}

/**
 * Reads a station file, checked against its own checksums. A file of an older release gets what newer ones added as it begins there.
 * @throws RequestError with a sentence, for hostile archives, cut ones, damaged ones and those of a newer release.
 */
export async function readStationFile(file: Uint8Array): Promise<StationContents> {
  const parts = await partsOf(file);
  const head = parsed(parts, 'station.json');
  if (!isValues(head) || head.format !== STATION_FORMAT)
    return refuse('This is no station file. Choose one that was saved under Notebook, Station file.');
  const release = String(head.release);
  if (
    head.version !== STATION_VERSION ||
    (!MIGRATION_NAMES.includes(release) && release > (MIGRATION_NAMES.at(-1) ?? ''))
  )
    refuse('This file comes from a newer release than this one. Bring this computer up to date, then open it again.');
  checkSums(parts);
  if (!isRecord(head.station)) return refuse('The station in the file cannot be read.');
  const records: Partial<Record<ResourceName, readonly FileRecord[]>> = {};
  const bytes = new Map<string, Uint8Array>();
  const seen = new Set<string>();
  for (const name of RESOURCE_NAMES) {
    const list = parsed(parts, `records/${name}.json`) ?? [];
    if (!Array.isArray(list) || !list.every(isRecord))
      return refuse(`The list of ${RESOURCES[name].plural} cannot be read.`);
    for (const { uuid } of list) {
      if (seen.has(uuid)) refuse(`A ${RESOURCES[name].label} stands in the file twice.`);
      seen.add(uuid);
      const part = parts[bytesName(name, uuid)];
      if (RESOURCES[name].bytes && !part) refuse(`The bytes of a ${RESOURCES[name].label} are missing.`);
      if (part) bytes.set(bytesName(name, uuid), part);
    }
    const blank: Values = RESOURCES[name].blank;
    records[name] = list.map((record: FileRecord) => {
      const own = name === 'attachments' ? cleanPicture(record, bytes.get(bytesName(name, record.uuid))) : undefined;
      if (own) bytes.set(bytesName(name, record.uuid), own.bytes);
      return { ...blank, ...record, ...(own ? { size: own.size, sha256: own.sha256 } : {}) };
    });
  }
  const earlier = parsed(parts, 'earlier.json');
  return {
    ...{ station: head.station, records: records as StationContents['records'], bytes },
    earlier: isValues(earlier) ? (earlier as StationContents['earlier']) : {},
  };
}
