import { SCHEMAS } from '@velvet-reed/contract';
import { silentMiddle } from '@velvet-reed/core/bearing';
import { byMonth, floorSteps, type RecurringHour, recurringHour } from '@velvet-reed/core/noise';
import { fixed, frequencyText, lengthText, listText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { type JudgedDirection, type JudgedTurn, judgedDirection, suspectsIn } from '@velvet-reed/station/direction';
import { levelsOf } from '@velvet-reed/station/levels';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { Curves } from '../../../ui/curves';
import { Disclosure } from '../../../ui/disclosure';
import { QuickAnswer } from '../../../ui/quick-answer';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { tried } from '../../../ui/tried';
import { FixMap, ON_MAP_M } from './fix-map';
import { FixPlan } from './fix-plan';
import { TurnByHand } from './turn-by-hand';
import { TurnByTable } from './turn-by-table';

export default function DirectionRoom() {
  return <StationPage>{(data) => <Direction data={data} />}</StationPage>;
}

/** The two ends of an axis. */
const ends = (axisDeg: number): string => `${fixed(axisDeg, 1)}° or ${fixed((axisDeg + 180) % 360, 1)}°`;
const place = (x: number, y: number): string =>
  `${fixed(Math.abs(x), 0)} m ${x >= 0 ? 'east' : 'west'}, ${fixed(Math.abs(y), 0)} m ${y >= 0 ? 'north' : 'south'}`;

function Direction({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const judged = judgedDirection(data.nullLogs);
  const far = data.nullLogs.some(({ xM, yM }) => Math.hypot(xM, yM) > ON_MAP_M);
  const [chosen, setChosen] = useState<number>();
  const turn = judged.turns.find(({ log }) => log.id === chosen) ?? judged.turns.at(-1);
  return (
    <Room
      title="Direction, Noise"
      verdict={<Verdict data={data} judged={judged} />}
      picker={
        judged.turns.length > 1 && (
          <label className="text-sm text-dim">
            Turn
            <select
              className="ml-2 text-ink"
              value={turn?.log.id}
              onChange={(event) => setChosen(Number(event.target.value))}
            >
              {judged.turns.map(({ log }) => (
                <option key={log.id} value={log.id}>
                  {log.name}
                </option>
              ))}
            </select>
          </label>
        )
      }
      margin={
        <>
          <Note title="How to turn">
            <p>
              Steps of 15°, the same gain, a few seconds each; away from fences and wires. A null is sharper than a
              maximum: what lies beside it tells the most.
            </p>
          </Note>
          <Note title="Both ends">
            <p>
              A figure of eight does not know front from back. A second place decides, or a sense antenna. A magnetic
              compass near steel lies.
            </p>
          </Note>
        </>
      }
    >
      {judged.turns.length === 0 ? (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>Turn the loop once round where you stand, and type direction and level line by line.</Empty>
        </div>
      ) : (
        <div className="grid items-start gap-x-8 gap-y-4 lg:grid-cols-2" data-evidence>
          {turn && <TurnCurve turn={turn} />}
          {far ? <FixMap data={data} judged={judged} /> : <FixPlan data={data} judged={judged} />}
        </div>
      )}
      <div className="h-5" />
      <Turns judged={judged} />
      <div className="flex flex-wrap items-start gap-3">
        <Disclosure label="Log a turn" look={judged.turns.length === 0 ? 'main' : 'plain'}>
          {(close) => <NewTurn data={data} onDone={close} />}
        </Disclosure>
        <Disclosure label="Read it as you turn">{(close) => <TurnByHand data={data} onDone={close} />}</Disclosure>
        <Disclosure label="With a turntable">{(close) => <TurnByTable data={data} onDone={close} />}</Disclosure>
      </div>
      <p className="mt-1 text-sm text-dim">
        A turn that was recorded: <Link to={`/s/${stationId}/trials/recording`}>mark it in Recording</Link>.
      </p>
      <div className="h-6" />
      <WhenItComes data={data} />
      <Silent />
    </Room>
  );
}

function Verdict({ data, judged }: { readonly data: StationData; readonly judged: JudgedDirection }) {
  const { turns, fix, fault } = judged;
  if (turns.length === 0)
    return (
      <>
        No turn is logged, so nobody knows from where it comes. <Next>Next: turn the loop here, in steps of 15°.</Next>
      </>
    );
  if (fault)
    return (
      <>
        <span className="text-caution">{fault}</span> <Next>Next: look which turn fits worst, below.</Next>
      </>
    );
  if (!fix) {
    const only = turns.find((one) => one.fit);
    return only?.fit ? (
      <>
        The null points to {ends(only.fit.axisDeg)}, within {fixed(only.fit.halfDeg, 1)}° (95 %),{' '}
        {fixed(only.fit.depthDb, 0)} dB deep (measured).{' '}
        <Next>Next: turn again at a second place, well aside of that line.</Next>
      </>
    ) : (
      <>
        {turns[0].fault} <Next>Next: turn on.</Next>
      </>
    );
  }
  const suspects = suspectsIn(data, fix);
  return (
    <>
      It comes from {place(fix.xM, fix.yM)}, within {lengthText(fix.semiMajorM, 2)} by {lengthText(fix.semiMinorM, 2)}{' '}
      (1 σ, measured; the region of 95&nbsp;% is drawn)
      {suspects.length > 0 ? `: ${suspects.join(', ')} ${suspects.length === 1 ? 'lies' : 'lie'} there` : ''}.
      {fix.culprit &&
        ` ${fix.culprit.name} was ${fix.culprit.how === 'left out' ? 'left out: it fits no other' : 'back to front, and is turned round'}.`}{' '}
      <Next>
        {fix.doubtful.length > 0
          ? `Next: make sure of ${listText(fix.doubtful)}: taken for the plane of the loop instead of its null, it fits as well.`
          : fix.next
            ? `Next: turn once more at ${place(fix.next.xM, fix.next.yM)}.`
            : 'Next: go there, and switch it off.'}
      </Next>
    </>
  );
}

/** Levels round the axis and the figure of eight through them. */
function TurnCurve({ turn: { fit, readings, log, fault } }: { readonly turn: JudgedTurn }) {
  const fold = (deg: number): number => ((deg % 180) + 180) % 180;
  const read = [...readings]
    .map(({ axisDeg, levelDbm }) => ({ x: fold(axisDeg), y: levelDbm }))
    .sort((a, b) => a.x - b.x);
  const fitted = fit ? Array.from({ length: 181 }, (_, deg) => ({ x: deg, y: fit.at(deg) })) : [];
  const ys = [...read, ...fitted].map(({ y }) => y);
  const range = [10 * Math.floor(Math.min(...ys) / 10), 10 * Math.ceil(Math.max(...ys) / 10 + 0.01)] as const;
  return (
    <div>
      <Curves
        name="turn"
        label={`Levels of ${log.name} over the axis; the numbers stand below`}
        x={{ head: 'axis (degrees)', decimals: 0 }}
        y={{ head: 'level (dBm)', decimals: 1 }}
        traces={[
          { id: 'read', name: 'read', look: 1, points: read },
          ...(fit ? [{ id: 'fit', name: 'figure of eight', look: 0, points: fitted }] : []),
        ]}
        bands={[]}
        markers={fit ? [{ name: 'null', x: fit.axisDeg }] : []}
        visible={[0, 180]}
        drawn={[0, 180]}
        range={range}
        ticks={[range[0], (range[0] + range[1]) / 2, range[1]]}
        logarithmic={false}
        height={230}
        caption="axis, degrees true (both ends alike); dBm"
      />
      {fault && <p className="text-caution">{fault}</p>}
    </div>
  );
}

const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Place', kind: 'text' },
  {
    name: 'xM',
    label: 'East of the middle',
    kind: 'quantity',
    dimension: 'length',
    bareUnit: 'm',
    hint: 'west: minus',
  },
  {
    name: 'yM',
    label: 'North of the middle',
    kind: 'quantity',
    dimension: 'length',
    bareUnit: 'm',
    hint: 'south: minus',
  },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz', optional: true },
  {
    ...{ name: 'meaning', label: 'Directions are of', kind: 'choice' },
    options: [
      { value: 'null', label: 'the null' },
      { value: 'plane', label: 'the plane of the loop' },
    ],
  },
  {
    ...{ name: 'declinationDeg', label: 'Declination', kind: 'quantity', dimension: 'angle' },
    hint: 'added to a magnetic compass; east is plus; 0: true',
  },
  {
    ...{ name: 'sigmaDeg', label: 'Compass and mark, error', kind: 'quantity', dimension: 'angle' },
    hint: 'common to all directions of the turn: 3° by hand; what the levels leave is fitted beside it',
  },
  readingsField('readings', 'Direction and level, a line each', false),
  readingsField('sense', 'The same with the sense antenna', true),
];

/** Lines of "direction level", in degrees and dBm. */
function readingsField(name: string, label: string, optional: boolean): FieldSpec {
  return {
    ...{ name, label, kind: 'read', long: true, hint: optional ? 'may stay empty' : 'as 0 -66.4' },
    read: (text) => {
      const lines = text
        .split(/\n|;/)
        .map((line) => line.trim())
        .filter(Boolean);
      const pairs = lines.map((line) => /^(-?\d+(?:\.\d+)?)°?[\s,:]+([-−]?\d+(?:\.\d+)?)(?:\s*dBm)?$/.exec(line));
      const bad = pairs.findIndex((one) => one === null);
      if (bad >= 0)
        return {
          fault: `"${lines[bad].slice(0, 30)}" is no direction with its level. Write degrees and dBm, as in 15 -70.5.`,
        };
      return { value: pairs.flatMap((one) => (one ? [[Number(one[1]), Number(one[2].replace('−', '-'))]] : [])) };
    },
    write: (record) => {
      const stored = record[name];
      return Array.isArray(stored) ? stored.map((one) => (Array.isArray(one) ? one.join(' ') : '')).join('\n') : '';
    },
  };
}

function NewTurn({ data, onDone }: { readonly data: StationData; readonly onDone: () => void }) {
  const { save } = useWrite();
  return (
    <RecordForm
      fields={FIELDS}
      schema={SCHEMAS.nullLogs}
      fixed={{ atMs: 0, antennaId: null, conditions: '' }}
      start={{
        ...{ name: `Turn ${data.nullLogs.length + 1}`, xM: '0 m', yM: '0 m', freqHz: '', meaning: 'null' },
        ...{ declinationDeg: '0°', sigmaDeg: '3°', readings: '', sense: '' },
      }}
      submit="Keep this turn"
      onCancel={onDone}
      onSave={async (values) => {
        await save(
          [
            { op: 'create', resource: 'nullLogs', values: SCHEMAS.nullLogs.cast({ ...values, atMs: Date.now() }) },
            entry(
              'noise',
              `${values.name}: a turn of ${Array.isArray(values.readings) ? values.readings.length : 0} readings.`,
            ),
          ],
          'Kept.',
        );
        onDone();
      }}
    />
  );
}

function Turns({ judged }: { readonly judged: JudgedDirection }) {
  if (judged.turns.length === 0) return null;
  return (
    <Section title="Turns">
      <ul className="max-w-4xl border-t border-rule">
        {judged.turns.map((turn) => (
          <TurnRow key={turn.log.id} turn={turn} />
        ))}
      </ul>
    </Section>
  );
}

function TurnRow({ turn: { log, fit, bearingDeg, fault } }: { readonly turn: JudgedTurn }) {
  return (
    <li className="border-b border-rule py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <strong>{log.name}</strong>
        <span className="text-sm text-dim">
          {place(log.xM, log.yM)}
          {log.freqHz === null ? '' : `, ${frequencyText(log.freqHz, 4)}`}
        </span>
        <ChangeButton resource="nullLogs" record={log} name={log.name} fields={FIELDS} />
        <DeleteButton resource="nullLogs" record={log} name={log.name} />
      </div>
      {fault ? (
        <p className="text-caution">{fault}</p>
      ) : (
        fit && (
          <p className="max-w-prose">
            Null axis {ends(fit.axisDeg)} ± {fixed(fit.halfDeg, 1)}° by the levels (95 %), and ±{' '}
            {fixed(2 * log.sigmaDeg, 0)}° by compass and mark; maximum {fixed(fit.maximumDbm, 1)} dBm, floor{' '}
            {fixed(fit.floorDbm, 0)} dBm, {fixed(fit.depthDb, 0)} dB deep, scatter {fixed(fit.scatterDb, 1)} dB
            (measured). The lowest sample, {fixed(fit.lowestDeg, 0)}°, is {fixed(fit.lowestOffDeg, 0)}° off.
            {bearingDeg !== undefined && ` By the sense antenna it lies at ${fixed(bearingDeg, 0)}°.`}
            {fit.doubtful.length > 0 &&
              ` ${fit.doubtful.length} reading${fit.doubtful.length === 1 ? '' : 's'} hardly count: a crash or a slip.`}{' '}
            <span className="text-dim">
              {fit.halving.readings} more at {fixed(fit.halving.atDeg[0], 0)}° and {fixed(fit.halving.atDeg[1], 0)}°
              would halve the interval.
            </span>
          </p>
        )
      )}
    </li>
  );
}

/** Where nothing is heard: the middle of the silence. */
const Silent = () => (
  <QuickAnswer
    title="Silence between two edges"
    hint="where the source vanishes in the noise, its middle counts"
    specs={[
      { name: 'from', label: 'It vanishes at', dimension: 'angle', start: '' },
      { name: 'to', label: 'and comes back at', dimension: 'angle', start: '' },
    ]}
    answer={(value) => {
      const { axisDeg, widthDeg } = silentMiddle(value('from'), value('to'));
      return `Axis ${ends(axisDeg)}, the middle of ${fixed(widthDeg, 0)}° of silence (measured).`;
    }}
  />
);

/** Hours that recur: of the turns that heard it, beside the steps of the noise log. */
function WhenItComes({ data }: { readonly data: StationData }) {
  const log = [...levelsOf(data).log].sort((a, b) => a.atMs - b.atMs);
  const { value: steps = [] } = tried(() => floorSteps(log, data.station));
  const heard = data.nullLogs.map(({ atMs }) => atMs);
  const rows = [
    { name: 'Turns that heard it', times: heard },
    { name: 'The noise log rises', times: steps.filter(({ stepDb }) => stepDb > 0).map(({ atMs }) => atMs) },
    { name: 'The noise log falls', times: steps.filter(({ stepDb }) => stepDb < 0).map(({ atMs }) => atMs) },
  ].filter(({ times }) => times.length > 0);
  if (rows.length === 0) return null;
  return (
    <Section
      title="When it comes"
      hint="recurring hours, UTC, and months; beside the steps of the noise log (measured)"
    >
      <ul className="list-disc pl-5">
        {rows.map(({ name, times }) => (
          <li key={name}>
            {name}, {times.length} time{times.length === 1 ? '' : 's'}: {hourWords(recurringHour(times))};{' '}
            {byMonth(times)
              .map(({ month, count }) => `${month} ${count}`)
              .join(', ')}
            .
          </li>
        ))}
      </ul>
    </Section>
  );
}

const two = (hour: number): string => String(hour % 24).padStart(2, '0');
const hourWords = (found: RecurringHour | undefined): string =>
  found
    ? `on ${found.days} days between ${two(found.fromHour)}:00 and ${two(found.fromHour + 2)}:00 (by chance ${found.byChance < 0.001 ? 'less than 0.1' : fixed(100 * found.byChance, 1)} %)`
    : 'no hour recurs on three days yet';
