import type { StationData } from '../../data/station';
import type { FieldSpec } from '../../ui/record-form';

/** What an antenna is called, what it is for, and since when it stands. */
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
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
];
