import { CoreError } from '@velvet-reed/core/errors';
import { type Dimension, parseQuantity } from '@velvet-reed/core/units';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { useForm, type Resolver, type UseFormRegisterReturn } from 'react-hook-form';
import { ValidationError, type AnyObject, type AnySchema, type ObjectSchema } from 'yup';
import { RefusedError } from '../data/api';
import { Button } from './button';

type Cast = Record<string, unknown>;

/** One field of a form. Quantities are typed as text with any unit and kept in SI. */
export type FieldSpec = {
  readonly name: string;
  readonly label: string;
  readonly hint?: string;
  /** The value goes into a group of this name, and not at all when it is empty. */
  readonly group?: string;
} &
  /** A date is kept as the beginning of its day in UTC, ms; empty: null. */
  (
    | { readonly kind: 'text' | 'long' | 'flag' | 'date' }
    | {
        readonly kind: 'quantity';
        readonly dimension: Dimension;
        readonly bareUnit?: string;
        readonly optional?: boolean;
        /** Frequency at which a level was read, and that decides which level S9 is: as given, or as typed in another field. */
        readonly freqHz?: number;
        readonly freqField?: string;
      }
    | {
        readonly kind: 'choice';
        readonly options: readonly { readonly value: string; readonly label: string }[];
        readonly numeric?: boolean;
      }
    /** A text with a grammar of its own. */
    | {
        readonly kind: 'read';
        /** Several lines are typed or pasted. */
        readonly long?: boolean;
        /** One value, several named ones that belong together (latitude and longitude), or why not. */
        readonly read: (
          text: string,
        ) => { readonly value: unknown } | { readonly values: Cast } | { readonly fault: string };
        /** What a person would have typed for a stored record. */
        readonly write?: (record: Cast) => string;
      }
  );

/** A text that its own reader refused. */
class ReadFault extends CoreError {
  readonly code = 'FIELD_TEXT';
}

type Typed = Record<string, string | boolean>;

/** Puts what was typed into the field's own type. @throws QuantityTextError with the sentence for the field. */
function castField(field: FieldSpec, typed: string | boolean | undefined, freqHz?: number): unknown {
  const text = typeof typed === 'string' ? typed : '';
  switch (field.kind) {
    case 'flag':
      return typed === true;
    case 'quantity':
      if (field.optional && text.trim() === '') return null;
      return parseQuantity(text, field.dimension, { bareUnit: field.bareUnit, freqHz });
    case 'read': {
      const result = field.read(text);
      if ('fault' in result) throw new ReadFault(result.fault, field.name);
      return 'values' in result ? result.values : { [field.name]: result.value };
    }
    case 'date': {
      if (text.trim() === '') return null;
      const atMs = Date.parse(`${text.trim()}T00:00:00Z`);
      if (Number.isNaN(atMs)) throw new ReadFault('This is no date. Write it as 2026-03-10.', field.name);
      return atMs;
    }
    case 'choice':
      return field.numeric ? (text === '' ? null : Number(text)) : text;
    default:
      return text;
  }
}

/** The frequency that a level field is read at; undefined where the form knows none. */
function levelFrequency(field: FieldSpec, fields: readonly FieldSpec[], typed: Typed, fixed: Cast): number | undefined {
  if (field.kind !== 'quantity' || field.dimension !== 'level') return undefined;
  if (field.freqHz !== undefined || field.freqField === undefined) return field.freqHz;
  const other = fields.find(({ name }) => name === field.freqField);
  if (!other) return typeof fixed[field.freqField] === 'number' ? Number(fixed[field.freqField]) : undefined;
  try {
    return Number(castField(other, typed[other.name]));
  } catch {
    return undefined; // told at that field
  }
}

interface FormOptions<V extends AnyObject> {
  readonly fields: readonly FieldSpec[];
  readonly schema: ObjectSchema<V>;
  /** Values that the form does not ask for. */
  readonly fixed?: Cast;
}

/** What a record begins with, by the table behind its schema. */
const blankIn = (schema: AnySchema): Cast => {
  const meta: unknown = schema.meta();
  const blank = typeof meta === 'object' && meta !== null && 'blank' in meta ? meta.blank : undefined;
  return typeof blank === 'object' && blank !== null ? { ...blank } : {};
};

/** @throws ValidationError */
function checked<V extends AnyObject>(schema: ObjectSchema<V>, values: Cast): V;
function checked(schema: AnySchema, values: Cast): unknown {
  const read: unknown = schema.validateSync(values, { strict: true, abortEarly: false });
  return read;
}

/** Casts and validates; the first fault of each field stands beside it, the rest of the form stays as typed. */
function readForm<V extends AnyObject>(
  typed: Typed,
  { fields, schema, fixed = {} }: FormOptions<V>,
): { values?: V; faults: Record<string, string> } {
  const values: Cast = { ...blankIn(schema), ...fixed };
  const groups: Record<string, Cast> = Object.fromEntries(
    fields.flatMap(({ group }) => (group === undefined ? [] : [[group, {}]])),
  );
  const faults: Record<string, string> = {};
  for (const field of fields) {
    try {
      const value = castField(field, typed[field.name], levelFrequency(field, fields, typed, fixed));
      if (field.group !== undefined)
        groups[field.group] = { ...groups[field.group], ...(value === null ? {} : { [field.name]: value }) };
      else if (field.kind === 'read') Object.assign(values, value);
      else values[field.name] = value;
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      faults[field.name] = error.message;
    }
  }
  Object.assign(values, groups);
  try {
    const read = checked(schema, values);
    return Object.keys(faults).length > 0 ? { faults } : { values: read, faults };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    for (const fault of error.inner.length > 0 ? error.inner : [error]) {
      const at = fields.find(({ name, group }) => (group === undefined ? name : `${group}.${name}`) === fault.path);
      const known = at !== undefined;
      const { name } = at ?? fields[0];
      // a rule about two fields counts only when each of them is fine by itself
      if (known || Object.keys(faults).length === 0) faults[name] ??= fault.message;
    }
  }
  return { faults };
}

/** A form for one record. `onSave` may throw a RefusedError: its sentences land beside their fields. */
export function RecordForm<V extends AnyObject>({
  fields,
  schema,
  fixed,
  start,
  submit,
  version = 0,
  onSave,
  onCancel,
  onTyped,
  doubt,
  children,
  resetAfter = false,
  takesFocus = false,
}: FormOptions<V> & {
  readonly start: Readonly<Record<string, string | boolean>>;
  readonly submit: string;
  /** Version of the record that is changed: what is saved is meant for the state in which the person began to type, whatever others save meanwhile. */
  readonly version?: number;
  readonly onSave: (values: V, version: number) => Promise<unknown>;
  readonly onCancel?: () => void;
  /** Called with the values on every valid edit, for live results. */
  readonly onTyped?: (values: V) => void;
  /** A question about values that look like a slip of the keyboard; asked once, not refused. */
  readonly doubt?: (values: V) => string | undefined;
  /** Stands above the buttons. */
  readonly children?: ReactNode;
  readonly resetAfter?: boolean;
  /** The form was just opened from a button elsewhere: its first field takes the focus. */
  readonly takesFocus?: boolean;
}) {
  const [asked, setAsked] = useState<string>();
  const [begun, setBegun] = useState<number>();
  const id = useId();
  const options = { fields, schema, fixed };
  const resolver: Resolver<Typed> = (typed) => {
    const { faults } = readForm(typed, options);
    const errors = Object.fromEntries(
      Object.entries(faults).map(([name, message]) => [name, { type: 'value', message }]),
    );
    return Object.keys(errors).length > 0 ? { values: {}, errors } : { values: typed, errors: {} };
  };
  const form = useForm<Typed>({ defaultValues: start, resolver, reValidateMode: 'onChange', shouldFocusError: true });
  const { errors, isSubmitting, dirtyFields } = form.formState;
  // values that arrive later (a sweep that is still loading) fill what nobody has typed in yet; what was typed stays
  const wanted = JSON.stringify(start);
  const given = useRef(wanted);
  useEffect(() => {
    if (given.current === wanted) return;
    given.current = wanted;
    for (const [name, value] of Object.entries(start))
      if (!dirtyFields[name]) form.resetField(name, { defaultValue: value });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the text stands for the values
  }, [wanted]);

  const { setFocus } = form;
  const first = fields[0]?.name;
  useEffect(() => {
    if (takesFocus && first !== undefined) setFocus(first);
  }, [takesFocus, first, setFocus]);

  const save = form.handleSubmit(async (typed) => {
    const { values } = readForm(typed, options);
    if (!values) return;
    const question = doubt?.(values);
    if (question && question !== asked) return setAsked(question);
    setAsked(undefined);
    try {
      await onSave(values, begun ?? version);
      setBegun(undefined);
      // what was typed meanwhile into other fields stays; what was saved is cleared, or is no longer a change
      for (const name of Object.keys(typed))
        if (form.getValues(name) === typed[name])
          form.resetField(name, { defaultValue: resetAfter ? start[name] : typed[name] });
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      // told that it was changed elsewhere, the person sees both and decides: the next press counts for the new state
      if (error.status === 409) setBegun(undefined);
      const beside = (error.refusal.fields ?? []).filter(({ field }) => fields.some(({ name }) => name === field));
      beside.forEach(({ field, message }) => form.setError(field, { type: 'server', message }));
      if (beside.length === 0) form.setError('root', { type: 'server', message: error.message });
    }
  });

  const typed = (): void => {
    setBegun((old) => old ?? version);
    setAsked(undefined);
    if (!onTyped) return;
    const { values } = readForm(form.getValues(), options);
    if (values) onTyped(values);
  };

  return (
    <form noValidate onSubmit={(event) => void save(event)} onChange={typed} className="my-3">
      <div className="flex flex-wrap gap-x-5 gap-y-3">
        {fields.map((field) => (
          <FieldRow
            key={field.name}
            field={field}
            id={`${id}-${field.name}`}
            registration={form.register(field.name)}
            fault={errors[field.name]?.message}
          />
        ))}
      </div>
      {errors.root?.message && (
        <p role="alert" className="mt-2 max-w-prose text-danger">
          {errors.root.message}
        </p>
      )}
      {children}
      {asked && (
        <p role="alert" className="mt-2 max-w-prose border-l-4 border-caution pl-3">
          {asked} Correct it, or save it as it stands.
        </p>
      )}
      <div className="mt-3 flex gap-3">
        <Button type="submit" look="main" busy={isSubmitting}>
          {asked ? 'Save anyway' : submit}
        </Button>
        {onCancel && (
          <Button look="quiet" onClick={onCancel}>
            Cancel
          </Button>
        )}
      </div>
    </form>
  );
}

const isLong = (field: FieldSpec): boolean => field.kind === 'long' || (field.kind === 'read' && field.long === true);

function FieldRow({
  field,
  id,
  registration,
  fault,
}: {
  readonly field: FieldSpec;
  readonly id: string;
  readonly registration: UseFormRegisterReturn;
  readonly fault?: string;
}) {
  const describedBy =
    [field.hint ? `${id}-hint` : '', fault ? `${id}-fault` : ''].filter(Boolean).join(' ') || undefined;
  const common = { id, 'aria-invalid': fault ? true : undefined, 'aria-describedby': describedBy, ...registration };
  return (
    <div className={isLong(field) ? 'w-full max-w-2xl' : 'w-full sm:w-auto sm:max-w-64'}>
      <label
        htmlFor={id}
        className={field.kind === 'flag' ? 'flex items-center gap-2 sm:mt-7' : 'block text-sm text-dim'}
      >
        {field.kind === 'flag' && <input type="checkbox" {...common} />}
        {field.label}
      </label>
      {field.kind === 'choice' && (
        <select {...common} className="w-full min-w-44">
          {field.options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      )}
      {field.kind === 'date' && <input type="date" {...common} className="w-full min-w-36 font-mono" />}
      {isLong(field) && (
        <textarea rows={3} {...common} className={field.kind === 'read' ? 'w-full font-mono text-sm' : 'w-full'} />
      )}
      {!isLong(field) && (field.kind === 'text' || field.kind === 'quantity' || field.kind === 'read') && (
        <input
          type="text"
          autoComplete="off"
          inputMode={field.kind === 'quantity' ? 'text' : undefined}
          {...common}
          className={`w-full min-w-36 ${field.kind === 'text' ? '' : 'font-mono'}`}
        />
      )}
      {field.hint && (
        <p id={`${id}-hint`} className="mt-0.5 text-xs text-dim">
          {field.hint}
        </p>
      )}
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-sm text-danger">
          {fault}
        </p>
      )}
    </div>
  );
}
