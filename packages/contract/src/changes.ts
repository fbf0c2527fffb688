import { array, lazy, mixed, object, string, type InferType } from 'yup';
import { choice, recordId, wholeNumber } from './fields';
import { RESOURCE_NAMES } from './resources';

/** A stand-in for the id of a record made earlier in the same batch: { "new": "antenna" }. */
export interface NewReference {
  readonly new: string;
}

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
}).noUnknown();

const updateSchema = object({
  op: choice('Operation', ['update'] as const),
  resource: choice('Resource', RESOURCE_NAMES),
  id: recordId('Record'),
  version: wholeNumber('Version', 1, Number.MAX_SAFE_INTEGER),
  values: anyValues,
}).noUnknown();

const deleteSchema = object({
  op: choice('Operation', ['delete'] as const),
  resource: choice('Resource', RESOURCE_NAMES),
  id: recordId('Record'),
  version: wholeNumber('Version', 1, Number.MAX_SAFE_INTEGER),
}).noUnknown();

/** One edit among several that are saved together or not at all. */
export type Change = InferType<typeof createSchema> | InferType<typeof updateSchema> | InferType<typeof deleteSchema>;

const changeSchema = lazy((value: unknown) => {
  const op = typeof value === 'object' && value !== null && 'op' in value ? value.op : undefined;
  return op === 'update' ? updateSchema : op === 'delete' ? deleteSchema : createSchema;
});

/** A batch of edits; undone as one. */
export const batchSchema = object({
  changes: array()
    .of(changeSchema)
    .min(1, 'There is nothing to save.')
    .max(500, 'Too many changes at once. Save in parts.')
    .required('The list of changes is missing.'),
  /** Name of the batch, made by the client: sent again after a lost answer, it is not carried out twice. */
  key: string()
    .matches(/^[0-9a-f-]{36}$/, 'The name of the batch must be a UUID. Leave it out.')
    .optional(),
})
  .noUnknown()
  .required('The request has no body. Send a list of changes.');

/** How the server says no: a stable code, a sentence that says how to mend it, and the field it is about if there is one. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly fields?: readonly { readonly field: string; readonly message: string }[];
}
