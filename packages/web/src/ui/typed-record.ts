import type { FieldSpec } from './record-form';
import { dayText } from './moment-text';
import { typedFrequency, typedLength, typedNumber, typedPower } from './typed';

/** A quantity as a person would type it. */
function typedQuantity(field: Extract<FieldSpec, { kind: 'quantity' }>, value: number): string {
  switch (field.dimension) {
    case 'frequency':
      return typedFrequency(value);
    case 'length':
      return typedLength(value);
    case 'power':
      return typedPower(value);
    case 'level':
      return `${typedNumber(value)} dBm`;
    case 'gain':
      return `${typedNumber(value)} dB`;
    case 'speed':
      return `${typedNumber(value)} m/s`;
    case 'time':
      return `${typedNumber(value)} s`;
    case 'resistance':
      return `${typedNumber(value)} ohm`;
    case 'angle':
      return `${typedNumber(value)}°`;
    default:
      return typedNumber(value);
  }
}

/** What a person would have typed for a stored record, as start values of its form. */
export function typedRecord(
  fields: readonly FieldSpec[],
  record: Readonly<Record<string, unknown>>,
): Record<string, string | boolean> {
  return Object.fromEntries(fields.map((field) => [field.name, typedValue(field, record)]));
}

function typedValue(field: FieldSpec, record: Readonly<Record<string, unknown>>): string | boolean {
  const value = record[field.name];
  if (field.kind === 'flag') return value === true;
  if (field.kind === 'read' && field.write) return field.write(record);
  if (field.kind === 'date') return typeof value === 'number' ? dayText(value) : '';
  if (typeof value === 'number') return field.kind === 'quantity' ? typedQuantity(field, value) : String(value);
  return typeof value === 'string' ? value : '';
}
