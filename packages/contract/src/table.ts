import { object, type ObjectSchema, type Schema } from 'yup';
import type { BlankColumn, Column, Columns, JsonSchema } from './columns';

/** What a column holds. */
type Held<C> = C extends Column<infer T> ? T : never;
/** A record by its columns. */
export type ValuesOf<C extends Columns> = { [K in keyof C]: Held<C[K]> };
/** Names of columns that have a value to begin with. */
type BlankName<C extends Columns> = { [K in keyof C]: C[K] extends BlankColumn<unknown> ? K : never }[keyof C];
/** The values that a record begins with. */
export type BlankOf<C extends Columns> = Pick<ValuesOf<C>, BlankName<C>>;
/** A number that points at a record may name one that the same batch makes. */
interface NewReference {
  readonly new: string;
}
type Given<C> = C extends { readonly to: string } ? Held<C> | NewReference : Held<C>;
type GivenOf<C extends Columns> = { [K in keyof C]: Given<C[K]> };
/** What must be said to make a record: everything that has no blank. */
export type NewOf<C extends Columns> = Omit<GivenOf<C>, BlankName<C>> & Partial<Pick<GivenOf<C>, BlankName<C>>>;
/** What may be said to change one. */
export type EditOf<C extends Columns> = Partial<GivenOf<C>>;

type ShapeOf<C extends Columns> = { [K in keyof C]: Schema<Held<C[K]>> };

interface Definition<C extends Columns> {
  /** What a record is called in a sentence. */
  readonly label: string;
  /** The same of several; without it an s is added. */
  readonly plural?: string;
  readonly columns: C;
  /** Column of bytes that never travels as JSON. */
  readonly bytes?: string;
  /** It only says how two other records belong together: it goes along without a question. */
  readonly joins?: boolean;
  /** Rules between columns. */
  readonly rules?: (schema: ObjectSchema<ValuesOf<C>>) => ObjectSchema<ValuesOf<C>>;
}

/** One kind of record: what it is called, its columns, and what follows from them. */
export interface Table<C extends Columns> {
  readonly label: string;
  readonly plural: string;
  readonly columns: C;
  readonly bytes?: string;
  readonly joins: boolean;
  readonly schema: ObjectSchema<ValuesOf<C>>;
  readonly blank: BlankOf<C>;
}

function shapeOf<C extends Columns>(columns: C): ShapeOf<C>;
function shapeOf(columns: Columns): Record<string, Schema> {
  return Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, column.schema]));
}
function schemaOf<C extends Columns>(shape: ShapeOf<C>): ObjectSchema<ValuesOf<C>>;
function schemaOf(shape: Record<string, Schema>): ObjectSchema<Record<string, unknown>> {
  return object(shape);
}
function blankOf<C extends Columns>(columns: C): BlankOf<C>;
function blankOf(columns: Columns): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(columns).flatMap(([name, column]) => ('blank' in column ? [[name, column.blank]] : [])),
  );
}

/** Makes a table of its columns: the schema that reads it and the blank record follow. */
export function tableOf<C extends Columns>({
  label,
  plural,
  columns,
  bytes,
  joins = false,
  rules,
}: Definition<C>): Table<C> {
  const blank = blankOf(columns);
  // forms find the blanks at the schema, whatever rules are added to it
  const schema = schemaOf<C>(shapeOf(columns)).meta({ blank });
  return {
    ...{ label, columns, joins, plural: plural ?? `${label}s` },
    ...(bytes === undefined ? {} : { bytes }),
    schema: rules ? rules(schema) : schema,
    blank,
  };
}

/** JSON Schema of one record, without what the server adds. */
export const recordSchema = ({
  columns,
  label,
}: {
  readonly columns: Columns;
  readonly label: string;
}): JsonSchema => ({
  title: label,
  type: 'object',
  properties: Object.fromEntries(
    Object.entries(columns).map(([name, column]) => [name, { title: column.label, ...column.json }]),
  ),
  required: Object.entries(columns)
    .filter(([, column]) => !('blank' in column))
    .map(([name]) => name),
});
