import { CHOKES } from '@velvet-reed/core/antenna';
import type { StationData } from '@velvet-reed/station/record';
import type { FieldSpec } from '../../ui/record-form';

/** What an antenna is called, what it is for, where it hangs, and since when. */
export const antennaFields = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    name: 'targetId',
    label: 'For',
    kind: 'choice',
    numeric: true,
    options: [
      { value: '', label: 'no target in particular' },
      ...data.targets.map((one) => ({ value: String(one.id), label: one.name })),
    ],
  },
  {
    name: 'spotId',
    label: 'Hangs',
    kind: 'choice',
    numeric: true,
    hint: 'its noise is that of the spot',
    options: [
      { value: '', label: 'not said' },
      ...data.spots.map((one) => ({ value: String(one.id), label: one.name })),
    ],
  },
  {
    ...{ name: 'choke', label: 'Choke at the feed', kind: 'choice' },
    options: CHOKES.map((value) => ({ value, label: value })),
  },
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
];
