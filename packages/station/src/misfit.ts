import { SCHEMAS, type ResourceName } from '@velvet-reed/contract';
import { ValidationError } from 'yup';

/** Why a record does not fit its kind; undefined when it does. */
export function misfitOf(resource: ResourceName, record: Readonly<Record<string, unknown>>): string | undefined {
  try {
    SCHEMAS[resource].validateSync(record, { strict: true, abortEarly: true });
    return undefined;
  } catch (error) {
    if (error instanceof ValidationError) return error.message;
    throw error;
  }
}
