import { SCHEMAS, PATH_DEFAULTS } from '@velvet-reed/contract';
import { entry, useWrite, type StationData } from '../../data/station';
import { RecordForm } from '../../ui/record-form';
import { Empty } from '../../ui/states';

/** A path begun: which antenna, on what it is judged, which receiver. */
export function NewPath({
  data,
  onClose,
  onMade,
}: {
  readonly data: StationData;
  readonly onClose: () => void;
  readonly onMade: (id: number) => void;
}) {
  const { save } = useWrite();
  if (data.receivers.length === 0 || data.targets.length === 0)
    return <Empty>A path needs a receiver and a wish. Enter both in Listen.</Empty>;
  const options = (rows: readonly { id: number; name: string }[]) =>
    rows.map((row) => ({ value: String(row.id), label: row.name }));
  return (
    <RecordForm
      fields={[
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
      ]}
      schema={SCHEMAS.paths}
      fixed={PATH_DEFAULTS}
      start={{
        name: '',
        antennaId: String(data.antennas.at(-1)?.id ?? ''),
        targetId: String(data.targets[0].id),
        receiverId: String(data.receivers[0].id),
      }}
      submit="Make the path"
      onCancel={onClose}
      onSave={async (values) => {
        const [id] = await save(
          [{ op: 'create', resource: 'paths', values }, entry('path', `Path made: ${String(values.name)}.`)],
          'Path made.',
        );
        onMade(id);
        onClose();
      }}
    />
  );
}
