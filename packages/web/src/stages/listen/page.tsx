import { SCHEMAS, stationSchema, type Saved } from '@velvet-reed/contract';
import {
  bandText,
  countText,
  emitterField,
  frequencyText,
  greatCircle,
  ituRegionOf,
  lengthText,
  locatorOf,
  parsePosition,
  showPower,
  sunTimes,
} from '@velvet-reed/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { bandsOf } from '../../data/derive';
import { useFocus } from '../../data/focus';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Disclosure } from '../../ui/disclosure';
import { PLACE_FIELDS } from '../../ui/place-fields';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { DeleteButton } from '../../ui/record-row';
import { Next, Note, Section, Stage, Wide } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { typedFrequency, typedLength, typedNumber } from '../../ui/typed';
import { inDb, Value } from '../../ui/value';

const clock = (ms: number | undefined): string =>
  ms === undefined ? 'not today' : `${new Date(ms).toISOString().slice(11, 16)} UTC`;

/** "19.3° W" from a signed angle. */
const degrees = (value: number, positive: string, negative: string): string =>
  `${Math.abs(value)}° ${value < 0 ? negative : positive}`;

export default function ListenPage() {
  return <StationPage>{(data) => <Listen data={data} />}</StationPage>;
}

function Listen({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { station, targets, emitters } = data;
  return (
    <Stage
      title="Listen"
      verdict={
        targets.length === 0 ? (
          <>
            {station.name} lies in ITU Region {ituRegionOf(station)}.{' '}
            <Next>Next: say what you want to hear, below.</Next>
          </>
        ) : (
          <>
            You want to hear {countText(targets.length, 'service')} from {station.name}, past{' '}
            {countText(emitters.filter((emitter) => !emitter.own).length, 'transmitter')} nearby.{' '}
            <Next>
              Next: <Link to={`/s/${stationId}/choose`}>see which antenna serves them here.</Link>
            </Next>
          </>
        )
      }
      margin={<PlaceNotes data={data} />}
    >
      <Targets data={data} />
      <Neighbours data={data} />
      <Receivers data={data} />
      <Distances data={data} />
    </Stage>
  );
}

function PlaceNotes({ data }: { readonly data: StationData }) {
  const { station } = data;
  const { saveStation } = useWrite();
  const [now] = useState(() => Date.now());
  const sun = sunTimes(station, now);
  return (
    <>
      <Note title="The place">
        <p>
          <span className="font-mono">{locatorOf(station)}</span>, ITU Region {ituRegionOf(station)},{' '}
          {degrees(station.latDeg, 'N', 'S')} {degrees(station.lonDeg, 'E', 'W')}
        </p>
        <p>
          Sunrise <span className="font-mono">{clock(sun.riseMs)}</span>, sunset{' '}
          <span className="font-mono">{clock(sun.setMs)}</span>; civil twilight{' '}
          <span className="font-mono">{clock(sun.dawnMs)}</span> to{' '}
          <span className="font-mono">{clock(sun.duskMs)}</span>
        </p>
        <p>
          Room for {lengthText(station.spanM)} of wire, supports of {lengthText(station.heightM)}; noise class{' '}
          {station.environment.replace('_', ' ')}.
        </p>
        <Disclosure label="Change the place" look="quiet">
          {(close) => (
            <RecordForm
              fields={PLACE_FIELDS}
              schema={stationSchema}
              fixed={{ latDeg: station.latDeg, lonDeg: station.lonDeg }}
              start={{
                name: station.name,
                environment: station.environment,
                noiseOffsetDb: `${station.noiseOffsetDb} dB`,
                spanM: typedLength(station.spanM),
                heightM: typedLength(station.heightM),
                groundId: station.groundId,
                cableId: station.cableId,
                lineLengthM: typedLength(station.lineLengthM),
              }}
              submit="Save the place"
              onCancel={close}
              onSave={async (values) => {
                await saveStation(station.version, stationSchema.cast(values));
                close();
              }}
            />
          )}
        </Disclosure>
      </Note>
      <Note title="How these are known">
        <p>
          Region by the dividing lines of the Radio Regulations, Article 5. Sun times by solar position with refraction
          (0.833°), within 2 minutes; hills are not known.
        </p>
      </Note>
    </>
  );
}

const BAND_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  { name: 'lowHz', label: 'From', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'highHz', label: 'To', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'bandwidthHz', label: 'Received bandwidth', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz' },
];
const TARGET_FIELDS: readonly FieldSpec[] = [
  ...BAND_FIELDS,
  { name: 'weight', label: 'How much it matters, 1 to 5', kind: 'quantity', dimension: 'plain' },
];

const bandStart = (band: { name: string; lowHz: number; highHz: number; bandwidthHz: number }) => ({
  name: band.name,
  lowHz: typedFrequency(band.lowHz),
  highHz: typedFrequency(band.highHz),
  bandwidthHz: typedFrequency(band.bandwidthHz),
});

function Targets({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const { setBand } = useFocus();
  const [editing, setEditing] = useState<number>();
  return (
    <Section title="Wanted" hint="the heavier a wish weighs, the more it decides">
      {data.targets.length === 0 ? (
        <Empty>Nothing wanted yet. Take a band from the catalogue, or enter your own.</Empty>
      ) : (
        <ul className="border-t border-rule">
          {data.targets.map((target) => (
            <li key={target.id} className="border-b border-rule py-1">
              <div className="flex flex-wrap items-baseline gap-x-4">
                <span className="grow font-semibold">{target.name}</span>
                <span className="font-mono tabular-nums">{bandText(target.lowHz, target.highHz)}</span>
                <span className="text-sm text-dim">weight {target.weight}</span>
                <span>
                  <Button look="quiet" onClick={() => setBand(target)} aria-label={`Focus on ${target.name}`}>
                    Focus
                  </Button>
                  <Button look="quiet" onClick={() => setEditing(target.id)} aria-label={`Change ${target.name}`}>
                    Change
                  </Button>
                  <DeleteButton resource="targets" record={target} name={target.name} />
                </span>
              </div>
              {editing === target.id && (
                <RecordForm
                  fields={TARGET_FIELDS}
                  schema={SCHEMAS.targets}
                  start={{ ...bandStart(target), weight: typedNumber(target.weight) }}
                  submit="Save the wish"
                  onCancel={() => setEditing(undefined)}
                  onSave={async (values) => {
                    await save(
                      [{ op: 'update', resource: 'targets', id: target.id, version: target.version, values }],
                      'Wish changed.',
                    );
                    setEditing(undefined);
                  }}
                />
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <Disclosure label="Add from the catalogue" look={data.targets.length === 0 ? 'main' : 'plain'}>
          {(close) => <Catalogue data={data} onClose={close} />}
        </Disclosure>
        <Disclosure label="Add your own frequency">
          {(close) => (
            <RecordForm
              fields={TARGET_FIELDS}
              schema={SCHEMAS.targets}
              start={{ name: '', lowHz: '', highHz: '', bandwidthHz: '2.4 kHz', weight: '3' }}
              submit="Add this wish"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'targets', values },
                    entry('listen', `Wish added: ${String(values.name)}.`),
                  ],
                  'Wish added.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

/** The region's bands; each can be wanted, edited for this station, or hidden. */
function Catalogue({ data, onClose }: { readonly data: StationData; readonly onClose: () => void }) {
  const { save, trySave } = useWrite();
  const [filter, setFilter] = useState('');
  const [editing, setEditing] = useState<string>();
  const bands = bandsOf(data).filter((band) =>
    `${band.name} ${band.service}`.toLowerCase().includes(filter.toLowerCase()),
  );
  const editOf = (bandId: string): Saved<'bandEdits'> | undefined =>
    data.bandEdits.find((edit) => edit.bandId === bandId);
  return (
    <div className="border border-rule p-3">
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-sm text-dim">
          Search the catalogue of Region {ituRegionOf(data.station)}
          <input className="block text-ink" value={filter} onChange={(event) => setFilter(event.target.value)} />
        </label>
        <Button look="quiet" onClick={onClose}>
          Close the catalogue
        </Button>
      </div>
      <ul className="mt-2 max-h-96 overflow-y-auto" tabIndex={0} aria-label="Bands and services">
        {bands.map((band) => (
          <li key={band.id} className="border-b border-rule py-0.5">
            <div className="flex flex-wrap items-center gap-x-3">
              <span className="grow">
                {band.name} {editOf(band.id) && <em className="text-sm text-plum">your edit</em>}
              </span>
              <span className="font-mono text-sm tabular-nums">{bandText(band.lowHz, band.highHz)}</span>
              <Button
                look="quiet"
                aria-label={`Want ${band.name}`}
                onClick={() =>
                  void trySave(
                    [
                      {
                        op: 'create',
                        resource: 'targets',
                        values: {
                          name: band.name,
                          lowHz: band.lowHz,
                          highHz: band.highHz,
                          bandwidthHz: band.bandwidthHz,
                          weight: 3,
                        },
                      },
                      entry('listen', `Wish added: ${band.name}.`),
                    ],
                    `${band.name} is wanted.`,
                  )
                }
              >
                Want it
              </Button>
              <Button look="quiet" aria-label={`Edit ${band.name}`} onClick={() => setEditing(band.id)}>
                Edit
              </Button>
            </div>
            {editing === band.id && (
              <RecordForm
                fields={BAND_FIELDS}
                schema={SCHEMAS.bandEdits}
                fixed={{ bandId: band.id, hidden: false }}
                start={bandStart(band)}
                submit="Keep this edit"
                onCancel={() => setEditing(undefined)}
                onSave={async (values) => {
                  const edit = editOf(band.id);
                  await save(
                    [
                      edit
                        ? { op: 'update', resource: 'bandEdits', id: edit.id, version: edit.version, values }
                        : { op: 'create', resource: 'bandEdits', values },
                    ],
                    'Band edited.',
                  );
                  setEditing(undefined);
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

const EMITTER_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'like 3 kW FM' },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'powerW', label: 'Power', kind: 'quantity', dimension: 'power', bareUnit: 'W' },
  {
    name: 'powerKind',
    label: 'Stated as',
    kind: 'choice',
    options: [
      { value: 'ERP', label: 'ERP, against a dipole' },
      { value: 'EIRP', label: 'EIRP, against isotropic' },
      { value: 'EMRP', label: 'EMRP, against a short vertical' },
    ],
  },
  { name: 'distanceM', label: 'Distance', kind: 'quantity', dimension: 'length', bareUnit: 'km', hint: 'like 1.8 km' },
  { name: 'own', label: 'My own transmitter', kind: 'flag' },
];

function Neighbours({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Transmitters nearby" hint="they decide whether an amplifier overloads">
      {data.emitters.length === 0 ? (
        <Empty>
          None entered. Look up broadcast transmitters within 30 km; overload forecasts are only as good as this list.
        </Empty>
      ) : (
        <Wide label="Table of transmitters">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Transmitter</th>
                <th scope="col">Frequency</th>
                <th scope="col">Power</th>
                <th scope="col">Distance</th>
                <th scope="col">Field here</th>
                <th scope="col">Isotropic level</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data.emitters.map((emitter) => (
                <EmitterRow key={emitter.id} emitter={emitter} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="mt-3">
        <Disclosure label="Add a transmitter">
          {(close) => (
            <RecordForm
              fields={EMITTER_FIELDS}
              schema={SCHEMAS.emitters}
              start={{ name: '', freqHz: '', powerW: '', powerKind: 'ERP', distanceM: '', own: false }}
              submit="Add the transmitter"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'emitters', values },
                    entry('listen', `Transmitter added: ${String(values.name)}.`),
                  ],
                  'Transmitter added.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

function EmitterRow({ emitter }: { readonly emitter: Saved<'emitters'> }) {
  const field = emitterField(emitter);
  const power = showPower(emitter.powerW);
  const inputs = [
    ['power', `${power.digits} ${power.unit} ${emitter.powerKind}`],
    ['distance', lengthText(emitter.distanceM)],
    ['frequency', frequencyText(emitter.freqHz)],
  ] as const;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {emitter.name}
        {field.caution && <p className="max-w-60 text-xs text-caution">{field.caution}</p>}
      </th>
      <td className="font-mono whitespace-nowrap">{frequencyText(emitter.freqHz)}</td>
      <td className="font-mono whitespace-nowrap">
        {power.digits} {power.unit} <span className="text-dim">{emitter.powerKind}</span>
      </td>
      <td className="font-mono whitespace-nowrap">{lengthText(emitter.distanceM)}</td>
      <td>
        <Value
          shown={inDb(field.fieldDbuv, 0, 'dBµV/m')}
          provenance={{
            origin: 'model',
            formula: `E = √(30·EIRP)/d = ${field.fieldVPerM.toPrecision(3)} V/m, free space, line of sight`,
            inputs,
            source: 'free-space propagation; buildings take 10 to 30 dB off, a ground reflection adds up to 6 dB',
          }}
        />
      </td>
      <td>
        <Value
          shown={inDb(field.isotropicDbm, 0, 'dBm')}
          provenance={{
            origin: 'model',
            formula: 'P = E²/η · λ²/4π into a matched isotropic antenna',
            inputs,
            source: 'free-space propagation',
          }}
        />
      </td>
      <td>
        <DeleteButton resource="emitters" record={emitter} name={emitter.name} />
      </td>
    </tr>
  );
}

const RECEIVER_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'by what it is' },
  { name: 'minHz', label: 'Tunes from', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'maxHz', label: 'Tunes to', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'noiseFigureDb', label: 'Noise figure', kind: 'quantity', dimension: 'gain' },
  { name: 'iip2Dbm', label: '2nd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'iip3Dbm', label: '3rd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'bits', label: 'Effective bits', kind: 'quantity', dimension: 'plain' },
  { name: 'fullScaleDbm', label: 'Full scale', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'sampleRateHz', label: 'Sample rate', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'complexSamples', label: 'I and Q samples', kind: 'flag' },
];

function Receivers({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Receivers" hint="without one, nothing can be judged">
      {data.receivers.length === 0 ? (
        <Empty>
          No receiver yet. Its noise figure decides how much antenna is enough; 15 dB is usual on short wave, 6 dB at
          VHF.
        </Empty>
      ) : (
        <ul className="border-t border-rule">
          {data.receivers.map((receiver) => (
            <li key={receiver.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
              <span className="grow font-semibold">{receiver.name}</span>
              <span className="font-mono text-sm">
                {frequencyText(receiver.minHz, 2)} to {frequencyText(receiver.maxHz, 2)}
              </span>
              <Value
                shown={inDb(receiver.noiseFigureDb, 0)}
                provenance={{
                  origin: 'catalogue',
                  formula: 'Noise figure as entered',
                  source: 'your entry: data sheet or measurement',
                }}
              />
              <DeleteButton resource="receivers" record={receiver} name={receiver.name} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <Disclosure label="Add a receiver">
          {(close) => (
            <RecordForm
              fields={RECEIVER_FIELDS}
              schema={SCHEMAS.receivers}
              start={{
                name: '',
                minHz: '10 kHz',
                maxHz: '30 MHz',
                noiseFigureDb: '15 dB',
                iip2Dbm: '60 dBm',
                iip3Dbm: '20 dBm',
                bits: '12',
                fullScaleDbm: '0 dBm',
                sampleRateHz: '122.88 MHz',
                complexSamples: false,
              }}
              submit="Add the receiver"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [{ op: 'create', resource: 'receivers', values: SCHEMAS.receivers.cast(values) }],
                  'Receiver added.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

/** Great circle to any place, without storing it. */
function Distances({ data }: { readonly data: StationData }) {
  const [text, setText] = useState('38 N 60 W');
  let answer: string;
  let fault = false;
  try {
    const path = greatCircle(data.station, parsePosition(text));
    answer = `${path.distanceKm.toFixed(0)} km, bearing ${path.bearingDeg.toFixed(1)}°, and back ${path.backBearingDeg.toFixed(1)}° (true north, great circle)`;
  } catch (error) {
    fault = true;
    answer = error instanceof Error ? error.message : 'Type a position.';
  }
  return (
    <Section title="Distance and bearing">
      <label htmlFor="far" className="block text-sm text-dim">
        To coordinates or a locator
      </label>
      <div className="flex flex-wrap items-center gap-4">
        <input
          id="far"
          className="w-56 font-mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={fault || undefined}
          aria-describedby="far-answer"
        />
        <output id="far-answer" className={fault ? 'text-danger' : 'font-mono tabular-nums'}>
          {answer}
        </output>
      </div>
    </Section>
  );
}
