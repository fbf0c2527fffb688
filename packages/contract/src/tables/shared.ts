import type { TestContext, ValidationError } from 'yup';
import { CABLE_CHOICES, readConnector } from '@velvet-reed/core/path';
import { line, real, text, withRule } from '../columns';

/** What a listener may want to hear or has to reckon with: from the lowest VLF to millimetre waves. */
export const FREQUENCY = [1e3, 300e9] as const;
export const LEVEL = [-250, 80] as const;
export const BAND_ORDER = 'The lower edge must lie below the upper edge. Exchange the two.';

export const CABLE_IDS = CABLE_CHOICES.map(({ value }) => value);

/** Whether a reader of the core takes a text; its own sentence says why not. */
export const readBy =
  (read: (text: string) => unknown) =>
  (value: string, { createError }: TestContext): true | ValidationError => {
    try {
      read(value);
      return true;
    } catch (error) {
      return createError({ message: error instanceof Error ? error.message : String(error) });
    }
  };
/** A connector by family and gender. */
export const connector = (label: string) => withRule(line(label, 20), readBy(readConnector));
/** The same; empty: not known. */
export const maybeConnector = (label: string) =>
  withRule(text(label, 20), (value, context) => value.trim() === '' || readBy(readConnector)(value, context));

/** A band by its edges, and what it is listened to with. */
export const BAND = {
  name: line('Name'),
  lowHz: real('Lower edge (Hz)', ...FREQUENCY),
  highHz: real('Upper edge (Hz)', ...FREQUENCY),
  bandwidthHz: real('Bandwidth (Hz)', 1, 100e6),
};
export const inOrder = (value: { readonly lowHz: number; readonly highHz: number }): boolean =>
  value.lowHz < value.highHz;
