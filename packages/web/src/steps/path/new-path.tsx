import { BLANK, createOf, SCHEMAS } from '@velvet-reed/contract';
import { newOrder } from '@velvet-reed/station/path/orders';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../data/station';
import { ReceiverByKind } from '../../ui/receiver-by-kind';
import { RecordForm } from '../../ui/record-form';
import { pathFields } from './path-fields';
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
  if (data.targets.length === 0) return <Empty>A path needs a target. Say in Listen what you want to hear.</Empty>;
  if (data.receivers.length === 0)
    return (
      <>
        <Empty>A path needs a receiver. Which one do you have?</Empty>
        <ReceiverByKind />
      </>
    );
  return (
    <RecordForm
      fields={pathFields(data)}
      schema={SCHEMAS.paths}
      fixed={BLANK.paths}
      start={{
        name: '',
        antennaId: String(data.antennas.at(-1)?.id ?? ''),
        targetId: String(data.targets[0].id),
        receiverId: String(data.receivers[0].id),
      }}
      submit="Create path"
      onCancel={onClose}
      onSave={async (values) => {
        const [id] = await save(
          [
            createOf('paths', values, 'path'),
            ...newOrder({ new: 'path' }, 1, []),
            ...newOrder({ new: 'path' }, 2, []),
            entry('path', `Path made: ${values.name}.`),
          ],
          'Path made.',
        );
        onMade(id);
        onClose();
      }}
    />
  );
}
