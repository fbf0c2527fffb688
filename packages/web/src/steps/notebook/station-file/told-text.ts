import { frequencyText } from '@velvet-reed/core/units';
import type { Told } from '../../../data/station-files';
import { momentText } from '../../../ui/moment-text';

/** "Frequency" of "Frequency (Hz)". */
export const nameOfLabel = (label: string): string => label.replace(/ \([^()]*\)$/, '');

/** A value as one reads it, with the unit that its label names. */
export function toldText(label: string, value: Told): string {
  const unit = / \(([^()]*)\)$/.exec(label)?.[1] ?? '';
  if (value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value.trim() === '' ? 'empty' : value;
  if (unit === 'Hz') return frequencyText(value, 6);
  if (unit === 'ms') return `${momentText(value)} UTC`;
  return `${Number(value.toPrecision(6))} ${unit}`.trim();
}
