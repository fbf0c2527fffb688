import { BLANK, type Saved, SCHEMAS, updateOf, type Values } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { DeleteButton } from '../../../ui/record-row';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Section } from '../../../ui/section';
import { typedRecord } from '../../../ui/typed-record';
import type { Opened } from './use-opened';

/** The server keeps a file up to this. */
const MOST_KEPT_BYTES = 64_000_000;

const NOT_SAID = { value: '', label: 'not said' };

const fieldsOf = (data: StationData): readonly FieldSpec[] => {
  const antennas = [NOT_SAID, ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name }))];
  const frequency = (name: string, label: string, bareUnit: string): FieldSpec => ({
    ...{ name, label, kind: 'quantity', dimension: 'frequency', bareUnit, optional: true },
  });
  return [
    { name: 'name', label: 'Name', kind: 'text' },
    { name: 'centreHz', label: 'Centre frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'antennaAId', label: 'Antenna heard first', kind: 'choice', options: antennas, numeric: true },
    { name: 'antennaBId', label: 'Antenna in turn with it', kind: 'choice', options: antennas, numeric: true },
    {
      ...{ name: 'receiverId', label: 'Receiver', kind: 'choice', numeric: true },
      options: [NOT_SAID, ...data.receivers.map(({ id, name }) => ({ value: String(id), label: name }))],
    },
    {
      ...{
        name: 'fullScaleDbm',
        label: 'Full scale at that gain',
        kind: 'quantity',
        dimension: 'level',
        bareUnit: 'dBm',
      },
      ...{ optional: true, hint: 'level of a sine that just fills it; empty: levels stay in dBFS' },
    },
    {
      ...frequency('signalHz', 'Signal at', 'MHz'),
      hint: 'without a centre: from the middle, such as 740 Hz or -2000 Hz',
    },
    frequency('bandwidthHz', 'Bandwidth', 'Hz'),
    frequency('quietHz', 'Quiet at', 'MHz'),
    {
      ...{ name: 'turnS', label: 'Time of a turn', kind: 'quantity', dimension: 'time', bareUnit: 's', optional: true },
      hint: 'empty: looked for',
    },
  ];
};

/** The values of a kept recording, without what the server adds. */
const valuesOf = ({
  id: _id,
  version: _version,
  stationId: _station,
  createdAt: _created,
  ...values
}: Saved<'recordings'>): Values<'recordings'> => values;

/** What was set, kept with the file's checksum: the same file gives the same numbers again. */
export function RecordingSettings({
  data,
  opened,
  draft,
  onKept,
}: {
  readonly data: StationData;
  readonly opened: Opened;
  /** What is set on the picture now. */
  readonly draft: Partial<Values<'recordings'>>;
  readonly onKept: (id: number) => void;
}) {
  const { save, keepRecording } = useWrite();
  const { chosen, layout, open, record, checksum } = opened;
  if (!chosen || !layout || !open) return null;
  const values: Values<'recordings'> = {
    ...BLANK.recordings,
    ...{ name: chosen.name.slice(0, 120), meaning: open.meaning, centreHz: open.centreHz },
    ...{ fileBytes: chosen.file.size, checksum: checksum ?? '' },
    ...{ lengthS: layout.frames / layout.sampleRateHz, sampleRateHz: layout.sampleRateHz },
    startMs: layout.captures[0]?.startMs ?? null,
    ...(record ? valuesOf(record) : {}),
    ...draft,
  };
  const keepFile = async (): Promise<void> => {
    try {
      const kept = await keepRecording(new File([chosen.file], chosen.name), values);
      if (typeof kept === 'object' && kept !== null && 'id' in kept) onKept(Number(kept.id));
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <Section
      title="What it is, and what was set"
      hint={
        record
          ? `kept; SHA-256 ${record.checksum.slice(0, 12)}…; what is typed counts once it is kept`
          : 'not kept yet: the file stays where it is; what is typed counts once it is kept'
      }
    >
      <RecordForm
        key={`${record?.id ?? 0} ${JSON.stringify(draft)}`}
        fields={fieldsOf(data)}
        schema={SCHEMAS.recordings}
        start={typedRecord(fieldsOf(data), { ...values })}
        fixed={{ ...values }}
        submit={record ? 'Keep these settings' : 'Keep the settings'}
        onSave={async (typed) => {
          const [id] = await save(
            record
              ? [updateOf('recordings', record, typed)]
              : [{ op: 'create', resource: 'recordings', values: typed }],
            'Settings kept.',
          );
          if (!record) onKept(id);
        }}
      />
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {!record && chosen.file.size <= MOST_KEPT_BYTES && chosen.metaText === undefined && (
          <Button disabled={!checksum} onClick={() => void keepFile()}>
            Keep the file too, {(chosen.file.size / 1e6).toFixed(1)} MB
          </Button>
        )}
        {record && <DeleteButton resource="recordings" record={record} name={record.name} />}
      </div>
    </Section>
  );
}
