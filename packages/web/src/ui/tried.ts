import { CoreError } from '@velvet-reed/core/errors';

/** What a computation gives, or the sentence that says why it gives nothing. */
export function tried<T>(make: () => T): { readonly value?: T; readonly fault?: string } {
  try {
    return { value: make() };
  } catch (error) {
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}
