import { RESOURCES, SCHEMAS } from '@velvet-reed/contract';
import { object } from 'yup';
import type { FieldSpec } from '../../ui/record-form';

/** What a plan asks for; the power is kept with the transmitter, which Listen and the plan show too. */
export const PLAN_SCHEMA = SCHEMAS.guardPlans
  .omit(['transmitterId'])
  .concat(object({ powerW: RESOURCES.transmitters.columns.powerW.schema }));

export const PLAN_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  { name: 'powerW', label: 'Transmit power (peak)', kind: 'quantity', dimension: 'power', bareUnit: 'W' },
  {
    name: 'freqHz',
    label: 'Highest transmit frequency',
    kind: 'quantity',
    dimension: 'frequency',
    bareUnit: 'MHz',
    hint: 'isolation is worst there',
  },
  { name: 'marginToKeepDb', label: 'Margin to keep', kind: 'quantity', dimension: 'gain', hint: '10 dB by convention' },
  {
    name: 'meterResolutionW',
    label: 'Smallest step of your wattmeter',
    kind: 'quantity',
    dimension: 'power',
    bareUnit: 'W',
  },
];
