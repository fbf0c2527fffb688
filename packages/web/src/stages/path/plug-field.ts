import { CoreError, readConnector } from '@velvet-reed/core';
import type { FieldSpec } from '../../ui/record-form';

/** A connector, read here once so that the search for adapters can rely on it. An optional one may stay empty. */
export const plugField = (name: string, label: string, optional = false): FieldSpec => ({
  name,
  label,
  kind: 'read',
  hint: 'family and gender, like N-f',
  read: (text) => {
    if (optional && text.trim() === '') return { value: '' };
    try {
      readConnector(text);
      return { value: text.trim() };
    } catch (error) {
      if (error instanceof CoreError) return { fault: error.message };
      throw error;
    }
  },
});
