import type { ShownQuantity } from '@velvet-reed/core/units';

type Origin = 'model' | 'measured' | 'catalogue' | 'assumed';

/** Where a number comes from; shown when it is opened. */
export interface Provenance {
  readonly origin: Origin;
  /** How it follows from its inputs, in words or symbols. */
  readonly formula: string;
  readonly inputs?: readonly (readonly [name: string, value: string])[];
  readonly source: string;
}

/** A part of a sentence: words, or a number with its unit and its origin. */
export type Piece = string | { readonly shown: ShownQuantity; readonly provenance: Provenance };

/** What to do next. */
export interface NextStep {
  readonly pieces: readonly Piece[];
  /** Room in which it is done, where that is another one: "bench/trim". */
  readonly room?: string;
}

/** A verdict as it is said: pages draw it, the command line prints it. */
export interface Said {
  readonly pieces: readonly Piece[];
  /** Something is wrong, or may harm. */
  readonly tone?: 'caution' | 'danger';
  readonly next?: NextStep;
}

/** "Next: cut 98 mm off each arm." of "Cut 98 mm off each arm." */
export const nextWords = (sentence: string): string => `Next: ${sentence.charAt(0).toLowerCase()}${sentence.slice(1)}`;

const pieceText = (piece: Piece): string =>
  typeof piece === 'string'
    ? piece
    : `${piece.shown.digits}${piece.shown.unit === '' || piece.shown.unit.startsWith('°') ? '' : ' '}${piece.shown.unit}`;

/** A verdict as plain text, its next step behind it. */
export const saidText = ({ pieces, next }: Said): string =>
  [pieces, next?.pieces ?? []]
    .map((one) => one.map(pieceText).join(''))
    .filter((text) => text !== '')
    .join(' ');
