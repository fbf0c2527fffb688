import { RESOURCES, SCHEMAS } from '@velvet-reed/contract';
import { object } from 'yup';
import { typedBands } from '@velvet-reed/station/guard/drawing';
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
    label: 'Transmit frequency',
    kind: 'quantity',
    dimension: 'frequency',
    bareUnit: 'MHz',
    hint: 'every frequency is judged by itself',
  },
  {
    ...{ name: 'bands', label: 'Further transmit frequencies', kind: 'read' },
    read: (text) => {
      const { unread } = typedBands(text);
      return unread.length > 0
        ? {
            fault: `“${unread[0]}” is no frequency. Write frequencies with commas between, such as 3.65, 7.0 to 7.2, 28.5.`,
          }
        : { value: text.trim() };
    },
    hint: 'in MHz, with commas between; a band by its edges: 7.0 to 7.2',
  },
  {
    ...{ name: 'powerSteps', label: 'Powers that can be set', kind: 'text' },
    hint: 'in W, as the radio offers them, such as 5, 10, 25, 50, 100; empty: any',
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
