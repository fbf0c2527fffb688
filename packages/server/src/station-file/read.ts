import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@velvet-reed/contract';
import {
  checkSums,
  headOf,
  parsedPart,
  partsOf,
  refuseFile,
  refuseNewer,
  UUID,
} from '@velvet-reed/station/file/archive';
import { pictureValues, sha256 } from '../file-store';
import { MIGRATION_NAMES } from '../migrate';
import { bytesName, type FileRecord, type StationContents, type Values } from './contents';

const WHOLE_UUID = new RegExp(`^${UUID}$`);
const breathe = (): Promise<unknown> => new Promise((resolve) => setImmediate(resolve));

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

/**
 * Reads a station file, checked against its own checksums. A file of an older release gets what newer ones added as it begins there.
 * @throws StationFileError with a sentence, for hostile archives, cut ones, damaged ones and those of a newer release.
 */
export async function readStationFile(file: Uint8Array): Promise<StationContents> {
  const parts = await partsOf(file, breathe);
  const head = headOf(parts);
  const release = String(head.release);
  if (!MIGRATION_NAMES.includes(release) && release > (MIGRATION_NAMES.at(-1) ?? '')) refuseNewer();
  checkSums(parts, sha256);
  if (!isRecord(head.station)) return refuseFile('The station in the file cannot be read.');
  const records: Partial<Record<ResourceName, readonly FileRecord[]>> = {};
  const bytes = new Map<string, Uint8Array>();
  const seen = new Set<string>();
  for (const name of RESOURCE_NAMES) {
    const list = parsedPart(parts, `records/${name}.json`) ?? [];
    if (!Array.isArray(list) || !list.every(isRecord))
      return refuseFile(`The list of ${RESOURCES[name].plural} cannot be read.`);
    for (const { uuid } of list) {
      if (seen.has(uuid)) refuseFile(`A ${RESOURCES[name].label} stands in the file twice.`);
      seen.add(uuid);
      const part = parts[bytesName(name, uuid)];
      if (RESOURCES[name].bytes && !part) refuseFile(`The bytes of a ${RESOURCES[name].label} are missing.`);
      if (part) bytes.set(bytesName(name, uuid), part);
    }
    const blank: Values = RESOURCES[name].blank;
    records[name] = list.map((record: FileRecord) => {
      const own = name === 'attachments' ? cleanPicture(record, bytes.get(bytesName(name, record.uuid))) : undefined;
      if (own) bytes.set(bytesName(name, record.uuid), own.bytes);
      return { ...blank, ...record, ...(own ? { size: own.size, sha256: own.sha256 } : {}) };
    });
  }
  const earlier = parsedPart(parts, 'earlier.json');
  return {
    ...{ station: head.station, records: records as StationContents['records'], bytes },
    earlier: isValues(earlier) ? (earlier as StationContents['earlier']) : {},
  };
}
