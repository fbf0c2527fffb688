import { isScope, type Scope } from '@velvet-reed/core/evidence';
import type { Schema, TestContext, ValidationError } from 'yup';
import {
  choice as choiceSchema,
  flag as flagSchema,
  line as lineSchema,
  listOf,
  namedNumbers,
  namedTexts,
  optionalQuantity,
  optionalRecordId,
  quantity,
  scopeValue,
  recordId,
  shortText,
  wholeNumber,
  wordList,
} from './fields';

/** How a column lies in the file. */
export type Store = 'real' | 'whole' | 'text' | 'flag' | 'json';
/** A piece of a JSON Schema. */
export type JsonSchema = Readonly<Record<string, unknown>>;

/** One column of a table: everything that schemas, models, references, blank records and file formats need to know of it. */
export interface Column<T> {
  /** What a person calls it, with its unit. */
  readonly label: string;
  readonly schema: Schema<T>;
  readonly store: Store;
  /** May be null: not said, not measured, none. */
  readonly optional: boolean;
  readonly json: JsonSchema;
  /** The table that its number points into. */
  readonly to?: string;
  /** Points at what the record means nothing without, although it may be empty. */
  readonly along?: boolean;
  /** A file that belongs to the record and goes with it. */
  readonly own?: boolean;
  /** Measured, or where it came from: nobody changes it afterwards. */
  readonly evidence?: boolean;
  /** What a record begins with when nobody says anything else. */
  readonly blank?: T;
}
export type Columns = Readonly<Record<string, Column<unknown>>>;
/** A column that a new record need not name. */
export type BlankColumn<T> = Column<T> & { readonly blank: T };
/** A column that points at a record. */
type RefColumn<T> = Column<T> & { readonly to: string };

const orNull = (json: JsonSchema): JsonSchema => ({ ...json, type: [json.type, 'null'] });
const ID: JsonSchema = { type: 'integer', minimum: 1 };

/** A number in the unit that the label names. */
export const real = (label: string, min: number, max: number): Column<number> => ({
  ...{ label, store: 'real', optional: false, schema: quantity(label, min, max) },
  json: { type: 'number', minimum: min, maximum: max },
});
export const maybeReal = (label: string, min: number, max: number): BlankColumn<number | null> => ({
  ...{ label, store: 'real', optional: true, schema: optionalQuantity(label, min, max), blank: null },
  json: orNull({ type: 'number', minimum: min, maximum: max }),
});
export const whole = (label: string, min: number, max: number): Column<number> => ({
  ...{ label, store: 'whole', optional: false, schema: wholeNumber(label, min, max) },
  json: { type: 'integer', minimum: min, maximum: max },
});
/** A text that is not empty. */
export const line = (label: string, longest = 80): Column<string> => ({
  ...{ label, store: 'text', optional: false, schema: lineSchema(label, longest) },
  json: { type: 'string', minLength: 1, maxLength: longest },
});
/** A text that may be empty. */
export const text = (label: string, longest = 20_000): BlankColumn<string> => ({
  ...{ label, store: 'text', optional: false, schema: shortText(label, longest), blank: '' },
  json: { type: 'string', maxLength: longest },
});
export const choice = <T extends string>(label: string, options: readonly T[]): Column<T> => ({
  ...{ label, store: 'text', optional: false, schema: choiceSchema(label, options) },
  json: { enum: [...options] },
});
export const flag = (label: string): Column<boolean> => ({
  ...{ label, store: 'flag', optional: false, schema: flagSchema(label) },
  json: { type: 'boolean' },
});
/** A record of another table at the same station; it means nothing without it, and goes when it goes. */
export const ref = (to: string, label: string): RefColumn<number> => ({
  ...{ label, to, store: 'whole', optional: false, schema: recordId(label), json: ID },
});
/** The same, or none; it stays when the other goes. */
export const maybeRef = (to: string, label: string): RefColumn<number | null> & BlankColumn<number | null> => ({
  ...{ label, to, store: 'whole', optional: true, schema: optionalRecordId(label), json: orNull(ID), blank: null },
});
export const numbers = (label: string): BlankColumn<Record<string, number>> => ({
  ...{ label, store: 'json', optional: false, schema: namedNumbers(label), blank: {} },
  json: { type: 'object', additionalProperties: { type: 'number' } },
});
export const texts = (label: string): BlankColumn<Record<string, string>> => ({
  ...{ label, store: 'json', optional: false, schema: namedTexts(label), blank: {} },
  json: { type: 'object', additionalProperties: { type: 'string' } },
});
export const words = (label: string): BlankColumn<readonly string[]> => ({
  ...{ label, store: 'json', optional: false, schema: wordList(label), blank: [] },
  json: { type: 'array', items: { type: 'string' } },
});
/** A short list of things that a guard knows, such as corners of a plan. Arrays of samples are bytes, never this. */
export const list = <T>(
  label: string,
  isItem: (value: unknown) => value is T,
  { least, most, items }: { readonly least: number; readonly most: number; readonly items: JsonSchema },
): Column<readonly T[]> => ({
  ...{ label, store: 'json', optional: false, schema: listOf(label, isItem, least, most) },
  json: { type: 'array', items, minItems: least, maxItems: most },
});

/** What a record was taken on, and so what it holds for; empty: nobody wrote it down. */
export const takenOn = (): BlankColumn<Scope> => ({
  ...{ label: 'Taken on', store: 'json', optional: false, blank: {} },
  schema: scopeValue('Taken on', isScope),
  json: { type: 'object' },
});

/** A text that must say something, told with a sentence of its own. */
export const filled = (label: string, empty: string, longest = 20_000): Column<string> => ({
  ...{ label, store: 'text', optional: false },
  schema: shortText(label, longest).test('filled', empty, (value) => value.trim().length > 0),
  json: { type: 'string', minLength: 1, maxLength: longest },
});

/** A column with a rule of its own. */
export const withRule = <T, C extends Column<T>>(
  column: C & Column<T>,
  rule: (value: T, context: TestContext) => boolean | ValidationError,
): C => ({ ...column, schema: column.schema.test('rule', '', (value, context) => rule(value, context)) });

/** A column with a value to begin with. */
export const withBlank = <T, C extends Column<T>>(column: C & Column<T>, blank: T): C & BlankColumn<T> => ({
  ...column,
  blank,
});
/** A column that nobody changes once it is stored. */
export const evidence = <C extends Column<unknown>>(column: C): C => ({ ...column, evidence: true });
/** A file that goes with the record. */
export const ownFile = <C extends Column<unknown>>(column: C): C => ({ ...column, own: true });
/** An empty reference is allowed, and yet the record goes with what it points at. */
export const goesAlong = <C extends Column<unknown>>(column: C): C => ({ ...column, along: true });
