import type { StationData } from '@velvet-reed/station/record';
import type { FieldSpec } from '../../ui/record-form';

const options = (rows: readonly { id: number; name: string }[]) =>
  rows.map((row) => ({ value: String(row.id), label: row.name }));

/** What a path joins. */
export const pathFields = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    name: 'antennaId',
    label: 'Antenna',
    kind: 'choice',
    numeric: true,
    options: [{ value: '', label: 'isotropic, none drafted' }, ...options(data.antennas)],
  },
  { name: 'targetId', label: 'Judged on', kind: 'choice', numeric: true, options: options(data.targets) },
  { name: 'receiverId', label: 'Receiver', kind: 'choice', numeric: true, options: options(data.receivers) },
];
