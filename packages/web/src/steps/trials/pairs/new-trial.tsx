import { SCHEMAS } from '@velvet-reed/contract';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { RecordForm } from '../../../ui/record-form';
import { Empty } from '../../../ui/states';
import { trialFields } from './trial-fields';

export function NewTrial({
  data,
  onClose,
  onMade,
}: {
  readonly data: StationData;
  readonly onClose: () => void;
  readonly onMade: (id: number) => void;
}) {
  const { save } = useWrite();
  if (data.antennas.length < 2)
    return <Empty>A comparison needs two antennas. Choose or enter a second one first, if only the old wire.</Empty>;
  const [a, b] = data.antennas.slice(-2);
  return (
    <RecordForm
      fields={trialFields(data)}
      schema={SCHEMAS.trials}
      start={{
        name: '',
        antennaAId: String(a.id),
        antennaBId: String(b.id),
        freqHz: '9.65 MHz',
        worthDb: '3 dB',
        conditions: '',
        ...{ plannedPairs: '', primary: 'snr', fadingS: '' },
      }}
      submit="Begin the trial"
      onCancel={onClose}
      onSave={async (values) => {
        const [id] = await save(
          [{ op: 'create', resource: 'trials', values }, entry('trials', `Trial begun: ${String(values.name)}.`)],
          'Trial begun.',
        );
        onMade(id);
        onClose();
      }}
    />
  );
}
