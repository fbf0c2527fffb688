import { CoreError } from '@velvet-reed/core/errors';

/** Runs a computation; its refusal becomes a sentence. */
export function tried<T>(compute: () => T): { readonly value?: T; readonly fault?: string } {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}
