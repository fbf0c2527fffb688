import { boolean, mixed, object, string, ValidationError, type InferType } from 'yup';
import { LEVEL_SCALES, type TableQuestion } from '@velvet-reed/core/formats';
import { choice, listOf, quantity, recordId, wholeNumber } from './fields';
import { RESOURCE_NAMES, type EditValues, type NewValues, type ResourceName, type Values } from './resources';

const NO_CHANGE = 'A change must be a group of named fields. Correct it.';
const UNKNOWN = ({ unknown }: { unknown?: string }): string =>
  `The field "${String(unknown).slice(0, 80)}" is not known here. Leave it out.`;
/** A name that the client makes up. */
const uuid = (what: string) =>
  string()
    .typeError(`${what} must be a text.`)
    .matches(/^[0-9a-f-]{36}$/, `${what} must be a UUID. Leave it out.`);

const anyValues = mixed<Record<string, unknown>>(
  (value): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value),
)
  .typeError('The values must be a group of named fields.')
  .required('The values are missing.');

const createSchema = object({
  op: choice('Operation', ['create'] as const),
  resource: choice('Resource', RESOURCE_NAMES),
  /** Name under which later changes of the batch may refer to the new record. */
  as: string().max(40).optional(),
  values: anyValues,
}).noUnknown(true, UNKNOWN);

const updateSchema = object({
  op: choice('Operation', ['update'] as const),
  resource: choice('Resource', RESOURCE_NAMES),
  id: recordId('Record'),
  version: wholeNumber('Version', 1, Number.MAX_SAFE_INTEGER),
  values: anyValues,
}).noUnknown(true, UNKNOWN);

const deleteSchema = object({
  op: choice('Operation', ['delete'] as const),
  resource: choice('Resource', RESOURCE_NAMES),
  id: recordId('Record'),
  version: wholeNumber('Version', 1, Number.MAX_SAFE_INTEGER),
  /** Take along what means nothing without it; without this such a record is not deleted. */
  along: boolean().optional(),
}).noUnknown(true, UNKNOWN);

/** One edit as it arrives: its values are read by the schema of its table. */
export type ArrivedChange =
  InferType<typeof createSchema> | InferType<typeof updateSchema> | InferType<typeof deleteSchema>;

/** One edit of a kind of record; a number that points at a record may be { "new": name } of one made earlier in the batch. */
type ChangeOf<R extends ResourceName> =
  | { readonly op: 'create'; readonly resource: R; readonly as?: string; readonly values: NewValues<R> }
  | {
      readonly op: 'update';
      readonly resource: R;
      readonly id: number;
      readonly version: number;
      readonly values: EditValues<R>;
    };
/** Taking a record away; `along`: with what means nothing without it. */
interface Deletion {
  readonly op: 'delete';
  readonly resource: ResourceName;
  readonly id: number;
  readonly version: number;
  readonly along?: boolean;
}
/** One edit among several that are saved together or not at all. */
export type Change = { [R in ResourceName]: ChangeOf<R> }[ResourceName] | Deletion;

/** A new record of a kind that is only known where this is called; `as`: what later changes of the batch call it. */
export function createOf<R extends ResourceName>(resource: R, values: NewValues<R>, as?: string): Change;
export function createOf(resource: ResourceName, values: object, as?: string): object {
  return { op: 'create', resource, values, ...(as === undefined ? {} : { as }) };
}

/** A record as far as a change of it needs to know it. */
interface Known {
  readonly id: number;
  readonly version: number;
}
/** A change of a record whose kind is only known where this is called. */
export function updateOf<R extends ResourceName>(resource: R, record: Known, values: EditValues<R> | Values<R>): Change;
export function updateOf(resource: ResourceName, { id, version }: Known, values: object): object {
  return { op: 'update', resource, id, version, values };
}

const EAGER = { strict: true, abortEarly: true } as const;

/** One change. @throws ValidationError */
async function changeOf(value: unknown): Promise<ArrivedChange> {
  const op = typeof value === 'object' && value !== null && 'op' in value ? value.op : undefined;
  if (op === 'create') return createSchema.required(NO_CHANGE).validate(value, EAGER);
  if (op === 'update') return updateSchema.required(NO_CHANGE).validate(value, EAGER);
  if (op === 'delete') return deleteSchema.required(NO_CHANGE).validate(value, EAGER);
  throw new ValidationError('A change must say its operation: create, update or delete. Correct it.', value, 'changes');
}

/** Most changes of one batch. */
const MOST_CHANGES = 500;

/** A batch of edits; undone as one. The length is looked at before any of its entries. */
const batchSchema = object({
  changes: mixed<unknown[]>((value): value is unknown[] => Array.isArray(value))
    .typeError('The list of changes is missing.')
    .required('The list of changes is missing.')
    .test('some', 'There is nothing to save.', (list) => list.length > 0)
    .test('few', 'Too many changes at once. Save in parts.', (list) => list.length <= MOST_CHANGES),
  /** Name of the batch, made by the client: sent again after a lost answer, it is not carried out twice. */
  key: uuid('The name of the batch').optional(),
  /** The browser that saves; undo takes back only its own. */
  device: uuid('The name of the device').optional(),
})
  .noUnknown(true, UNKNOWN)
  .required('The request has no body. Send a list of changes.');

/** Reads a batch; the first fault ends it. @throws ValidationError */
export async function readBatch(
  body: unknown,
): Promise<{ readonly changes: readonly ArrivedChange[]; readonly key?: string; readonly device?: string }> {
  const { changes, key, device } = await batchSchema.validate(body, { strict: true, abortEarly: true });
  const read: ArrivedChange[] = [];
  for (const change of changes) read.push(await changeOf(change));
  return { changes: read, key, device };
}

/** Which batch is taken back, and for whom. */
export const undoSchema = object({
  batch: uuid('The name of the batch').optional(),
  device: uuid('The name of the device').optional(),
})
  .noUnknown(true, UNKNOWN)
  .required('The request has no body. Name the batch.');

/** What a person says of a table that does not say it itself. */
export const answerSchema = object({
  columns: listOf<string>(
    'Columns',
    (value): value is string => typeof value === 'string' && value.length < 40,
    1,
    64,
  ).optional(),
  unit: choice('Unit', ['Hz', 'kHz', 'MHz', 'GHz'] as const).optional(),
  decimal: choice('Decimal sign', ['.', ','] as const).optional(),
  dateOrder: choice('Order of the date', ['dmy', 'mdy'] as const).optional(),
  zoneMin: wholeNumber('Time zone (minutes)', -840, 840).optional(),
  level: choice('Scale of the level', LEVEL_SCALES).optional(),
  ohm: quantity('Impedance (ohm)', 1, 10_000).optional(),
  zeroDbm: quantity('Level at 0 dB (dBm)', -300, 300).optional(),
  clock: choice('Clock', ['set-back', 'disorder'] as const).optional(),
}).noUnknown(true, UNKNOWN);

/** How the server says no: a stable code, a sentence that says how to mend it, and the field it is about if there is one. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly fields?: readonly { readonly field: string; readonly message: string }[];
  /** The file can be read once this is answered. */
  readonly question?: TableQuestion;
}
