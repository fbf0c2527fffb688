import { CABLE_CLASSES, GROUND_CLASSES } from '@velvet-reed/core';
import type { FieldSpec } from './record-form';

const ENVIRONMENT_OPTIONS = [
  { value: 'city', label: 'city' },
  { value: 'residential', label: 'residential' },
  { value: 'rural', label: 'rural' },
  { value: 'quiet_rural', label: 'quiet rural' },
];

/** What a place offers; the position is asked for on its own. */
export const PLACE_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    name: 'environment',
    label: 'Noise class (ITU-R P.372)',
    kind: 'choice',
    options: ENVIRONMENT_OPTIONS,
    hint: 'how built-up the surroundings are',
  },
  {
    name: 'noiseOffsetDb',
    label: 'Your offset to it',
    kind: 'quantity',
    dimension: 'gain',
    hint: '10 to 15 dB more in dense housing',
  },
  {
    name: 'spanM',
    label: 'Longest straight run',
    kind: 'quantity',
    dimension: 'length',
    bareUnit: 'm',
    hint: 'between supports, like 38 m',
  },
  { name: 'heightM', label: 'Support height', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
  {
    name: 'groundId',
    label: 'Ground below the antennas',
    kind: 'choice',
    options: GROUND_CLASSES.filter((one) => one.id !== 'free').map((one) => ({ value: one.id, label: one.name })),
  },
  {
    name: 'cableId',
    label: 'Cable into the house',
    kind: 'choice',
    options: CABLE_CLASSES.map((cable) => ({ value: cable.id, label: cable.name })),
  },
  { name: 'lineLengthM', label: 'Its length', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
];
