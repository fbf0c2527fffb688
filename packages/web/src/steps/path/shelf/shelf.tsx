import { createOf, MOST_TRANSFER_POINTS, SCHEMAS, type Saved, type Values } from '@velvet-reed/contract';
import { gainsText, readGains } from '@velvet-reed/core/choose';
import { CoreError } from '@velvet-reed/core/errors';
import { readTwoPort, thinTransfer, type TransferPoint, type TwoPort } from '@velvet-reed/core/formats';
import { bandText, fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { placeAtEnd, type StageOrder } from '@velvet-reed/station/path/orders';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { fileText } from '../../../data/table-previews';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { dayTyped } from '../../../ui/moment-text';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { typedNumber } from '../../../ui/typed';

const PLUG_HINT = 'family and gender, like N-f';
const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'by what it is, like 20 dB amplifier to 200 MHz' },
  {
    name: 'transfer',
    label: 'Gain by frequency',
    kind: 'read',
    hint: 'like 1 MHz 20, 100 MHz 19.5; losses negative; or take a .s2p file above',
    read: (text) => {
      try {
        return { value: readGains(text).map(({ freqHz, gainDbi }): TransferPoint => ({ freqHz, gainDb: gainDbi })) };
      } catch (error) {
        if (error instanceof CoreError) return { fault: error.message };
        throw error;
      }
    },
  },
  {
    name: 'noiseFigureDb',
    label: 'Noise figure',
    kind: 'quantity',
    dimension: 'gain',
    optional: true,
    hint: 'empty: passive',
  },
  {
    name: 'iip2Dbm',
    label: '2nd-order input intercept',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    optional: true,
  },
  {
    name: 'iip3Dbm',
    label: '3rd-order input intercept',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    optional: true,
  },
  {
    name: 'p1Dbm',
    label: '1 dB compression at the input',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    optional: true,
  },
  {
    name: 'supplyV',
    label: 'Fed over the coax with, V',
    kind: 'quantity',
    dimension: 'plain',
    optional: true,
    hint: 'empty: passive, or a supply of its own',
  },
  { name: 'currentA', label: 'Current, A', kind: 'quantity', dimension: 'plain', optional: true },
  { name: 'connectorIn', label: 'Plug, antenna side', kind: 'text', hint: PLUG_HINT },
  { name: 'connectorOut', label: 'Plug, receiver side', kind: 'text', hint: PLUG_HINT },
  { name: 'cost', label: 'Cost', kind: 'quantity', dimension: 'plain' },
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
  { name: 'measuredMs', label: 'Measured on', kind: 'date', hint: 'empty: by its data sheet' },
];

const START = {
  name: '',
  transfer: '',
  noiseFigureDb: '',
  iip2Dbm: '',
  iip3Dbm: '',
  p1Dbm: '',
  supplyV: '',
  currentA: '',
  connectorIn: 'SMA-f',
  connectorOut: 'SMA-f',
  cost: '0',
  sinceMs: '',
  measuredMs: '',
};

const transferText = (points: readonly TransferPoint[]): string =>
  gainsText(points.map(({ freqHz, gainDb }) => ({ freqHz, gainDbi: Number(gainDb.toPrecision(12)) })));

/** What a file says of a part: its gain, and where it holds noise rows its noise figure in their middle. */
const fileStart = (name: string, { points, noise }: TwoPort): Record<string, string> => ({
  name: name.replace(/\.[^.]*$/, ''),
  transfer: transferText(points),
  ...(noise.length > 0 ? { noiseFigureDb: `${typedNumber(noise[noise.length >> 1].noiseFigureDb)} dB` } : {}),
});

/** What amplifies adds noise: without its noise figure nothing behind it can be judged. */
const PART_FORM = SCHEMAS.parts.test(
  'noise',
  'This part amplifies, so it adds noise of its own. Enter its noise figure from the data sheet.',
  ({ transfer, noiseFigureDb }, { createError }) =>
    noiseFigureDb !== null || !transfer.some(({ gainDb }) => gainDb > 0) || createError({ path: 'noiseFigureDb' }),
);

/** A part as a person would type it again. */
const startOf = (part: Saved<'parts'>): Record<string, string> => {
  const typed = (value: number | null, unit: string): string =>
    value === null ? '' : `${typedNumber(value)}${unit && ' '}${unit}`;
  return {
    name: part.name,
    transfer: transferText(part.transfer),
    noiseFigureDb: typed(part.noiseFigureDb, 'dB'),
    iip2Dbm: typed(part.iip2Dbm, 'dBm'),
    iip3Dbm: typed(part.iip3Dbm, 'dBm'),
    p1Dbm: typed(part.p1Dbm, 'dBm'),
    supplyV: typed(part.supplyV, ''),
    currentA: typed(part.currentA, ''),
    connectorIn: part.connectorIn,
    connectorOut: part.connectorOut,
    cost: typedNumber(part.cost),
    sinceMs: dayTyped(part.sinceMs),
    measuredMs: dayTyped(part.measuredMs),
  };
};

/** Parts that the listener has, with their own data; each can go into the path, and the search may use them all. */
export function Shelf({
  data,
  path,
  orders,
}: {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly orders: readonly StageOrder[];
}) {
  const { save, trySave } = useWrite();
  const [editing, setEditing] = useState<number>();
  const used = new Set(data.pathStages.filter((stage) => stage.pathId === path.id).map(({ partId }) => partId));
  return (
    <Section title="Parts shelf" hint="what you have, by your own data or its sheet">
      {data.parts.length === 0 ? (
        <Empty>No part yet. Enter an amplifier or filter with its gain over frequency, or take its .s2p file.</Empty>
      ) : (
        <ul className="max-w-4xl border-t border-rule">
          {data.parts.map((part) => (
            <li key={part.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
              <span className="grow">
                {part.name} <span className="text-sm text-dim">{describe(part)}</span>
              </span>
              <Button
                look="quiet"
                disabled={used.has(part.id)}
                onClick={() =>
                  void trySave(
                    [
                      createOf(
                        'pathStages',
                        { pathId: path.id, kind: 'part', name: part.name, partId: part.id },
                        'stage',
                      ),
                      ...placeAtEnd(orders, { new: 'stage' }),
                      entry('path', `${path.name}: put in ${part.name}.`),
                    ],
                    'In the path.',
                  )
                }
              >
                {used.has(part.id) ? 'in this path' : `Put ${part.name} into this path`}
              </Button>
              <Button look="quiet" aria-label={`Change ${part.name}`} onClick={() => setEditing(part.id)}>
                Change
              </Button>
              <DeleteButton resource="parts" record={part} name={part.name} />
              {editing === part.id && (
                <RecordForm
                  fields={FIELDS}
                  schema={PART_FORM}
                  start={startOf(part)}
                  submit="Save the part"
                  onCancel={() => setEditing(undefined)}
                  version={part.version}
                  onSave={async (values, version) => {
                    await save([{ op: 'update', resource: 'parts', id: part.id, version, values }], 'Part changed.');
                    setEditing(undefined);
                  }}
                />
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <Disclosure label="Add a part">
          {(close) => (
            <NewPart
              onSave={async (values) => {
                await save(
                  [{ op: 'create', resource: 'parts', values }, entry('path', `Part on the shelf: ${values.name}.`)],
                  'On the shelf.',
                );
                close();
              }}
              onCancel={close}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

function describe(part: Saved<'parts'>): string {
  const [first, last] = [part.transfer[0], part.transfer[part.transfer.length - 1]];
  const gains = part.transfer.map(({ gainDb }) => gainDb);
  const range = `${fixed(Math.min(...gains), 1)} to ${fixed(Math.max(...gains), 1)} dB`.replaceAll('-', '−');
  return [
    part.noiseFigureDb === null ? 'passive' : `noise figure ${fixed(part.noiseFigureDb, 1)} dB`,
    part.transfer.length === 1
      ? `${fixed(first.gainDb, 1).replace('-', '−')} dB`
      : `${range}, ${bandText(first.freqHz, last.freqHz)}`,
    `${part.connectorIn} / ${part.connectorOut}`,
    ...(part.supplyV === null ? [] : [`${part.supplyV} V over the coax`]),
  ].join(', ');
}

function NewPart({
  onSave,
  onCancel,
}: {
  readonly onSave: (values: Values<'parts'>) => Promise<void>;
  readonly onCancel: () => void;
}) {
  const [file, setFile] = useState<{ readonly name: string; readonly part: TwoPort }>();
  const [fault, setFault] = useState('');
  const take = async (chosen: File): Promise<void> => {
    try {
      const part = readTwoPort(await fileText(chosen));
      setFile({ name: chosen.name, part: { ...part, points: thinTransfer(part.points, MOST_TRANSFER_POINTS) } });
      setFault('');
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(`${chosen.name}: ${error.message} Nothing was taken.`);
    }
  };
  return (
    <div>
      <label className="text-sm text-dim">
        Measured two-port (.s2p), port 1 at the antenna
        <input
          type="file"
          accept=".s2p,.txt"
          className="ml-2 max-w-60 border-0 text-sm text-ink"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = '';
            if (chosen) void take(chosen);
          }}
        />
      </label>
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      <RecordForm
        key={file?.name ?? ''}
        fields={FIELDS}
        schema={PART_FORM}
        start={file ? { ...START, ...fileStart(file.name, file.part) } : START}
        submit="Put it on the shelf"
        onCancel={onCancel}
        onSave={onSave}
      />
    </div>
  );
}
