import type { StationData } from '@velvet-reed/station/record';
import type { FieldSpec } from '../../../ui/record-form';

const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const listOf = (records: readonly { readonly name: string }[]): string =>
  records
    .slice(0, 4)
    .map(({ name }) => name)
    .join(', ');

/** An input by the names of its receiver and antenna; where the station has one of that name, the input points at it. */
export const inputFields = (data: StationData): readonly FieldSpec[] => [
  {
    name: 'name',
    label: 'Receiver input',
    kind: 'read',
    read: (name) => ({
      values: { name, receiverId: data.receivers.find((one) => sameName(one.name, name))?.id ?? null },
    }),
    hint: data.receivers.length > 0 ? `of ${listOf(data.receivers)}, or any other` : '',
  },
  {
    name: 'antennaName',
    label: 'Fed by antenna',
    kind: 'read',
    read: (antennaName) => ({
      values: { antennaName, antennaId: data.antennas.find((one) => sameName(one.name, antennaName))?.id ?? null },
    }),
    hint: data.antennas.length > 0 ? `${listOf(data.antennas)}, or one that is not drafted` : '',
  },
  {
    name: 'isolationDb',
    label: 'Isolation while transmitting',
    kind: 'quantity',
    dimension: 'gain',
    optional: true,
    hint: 'transmitter output to this input; empty: not known',
  },
  {
    name: 'limitDbm',
    label: 'Its limit',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    hint: '0 dBm unless the maker says otherwise',
  },
  { name: 'disconnects', label: 'A switch opens it while transmitting', kind: 'flag' },
];
