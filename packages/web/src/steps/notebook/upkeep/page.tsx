import { createOf, SCHEMAS, updateOf, type Change, type Saved } from '@velvet-reed/contract';
import { AFTER_STORM_DAYS, CALIBRATION_DAYS, dutiesFor, dutyState } from '@velvet-reed/core/antenna';
import { countText, fixed } from '@velvet-reed/core/units';
import { latestRevision } from '@velvet-reed/station/derive';
import { useNow } from '../../../data/now';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import type { CalendarEvent } from '../../../ui/calendar';
import { CalendarButton, type Alarm } from '../../../ui/calendar-button';
import { Disclosure } from '../../../ui/disclosure';
import { speedText } from '../../../ui/place-fields';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Caution, Next, Note, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';

const DAY_MS = 86_400_000;
/** A day begins at midnight of the calendar's own clock. */
const ALARMS: readonly Alarm[] = [
  { minutes: 9 * 60, label: 'at 9 o’clock of the day' },
  { minutes: -6 * 60, label: 'at 18 o’clock of the day before' },
  { minutes: -7 * 24 * 60 + 9 * 60, label: 'a week before' },
];
const dayText = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
const KIND_WORDS: Readonly<Record<Saved<'upkeep'>['kind'], string>> = {
  ...{ ropes: 'ropes and insulators', joints: 'joints and seals', rods: 'rods and clamps', paint: 'paint' },
  ...{ battery: 'battery', calibration: 'calibration', storm: 'after a storm', other: 'something else' },
};

export default function UpkeepRoom() {
  return <StationPage>{(data) => <Upkeep data={data} />}</StationPage>;
}

interface Standing {
  readonly duty: Saved<'upkeep'>;
  readonly dueMs: number;
  readonly state: 'late' | 'due' | 'later' | 'finished';
}

function Upkeep({ data }: { readonly data: StationData }) {
  const nowMs = useNow();
  const all = data.upkeep
    .map((duty): Standing => ({ duty, ...dutyState(duty, nowMs) }))
    .sort((a, b) => a.dueMs - b.dueMs);
  const open = all.filter(({ state }) => state !== 'finished');
  const pressing = open.filter(({ state }) => state !== 'later');
  const [first] = open;
  return (
    <Room
      title="Upkeep, Notebook"
      verdict={
        !first ? (
          <>
            Nothing is watched over yet. <Next>Next: take over what your antennas want, below.</Next>
          </>
        ) : pressing.length === 0 ? (
          <>
            All is in order; next: {first.duty.name}, {dayText(first.dueMs)}.{' '}
            <Next>Next: nothing until then, unless a storm comes.</Next>
          </>
        ) : (
          <>
            Due: {countText(pressing.length, 'look')}, first: {first.duty.name}
            {nowMs > first.dueMs
              ? `, ${fixed((nowMs - first.dueMs) / DAY_MS, 0)} days late`
              : `, by ${dayText(first.dueMs)}`}
            . <Next>Next: look, mend, and tick it.</Next>
          </>
        )
      }
      margin={
        <Note title="How often">
          <p>
            What antennas of each kind want and how often is common practice, no source; halve it by the sea. Change any
            of it: your ropes know better.
          </p>
        </Note>
      }
    >
      <Section title="What wants a look" hint="the soonest first">
        {all.length === 0 ? (
          <div data-evidence className="evidence">
            <Empty>No duty is kept yet.</Empty>
          </div>
        ) : (
          <Duties data={data} all={all} nowMs={nowMs} />
        )}
      </Section>
      <Storm data={data} />
      <Proposals data={data} />
      <OldCalibrations data={data} nowMs={nowMs} />
      <Section title="Elsewhere">
        <p className="flex flex-wrap items-center gap-4">
          <CalendarButton
            name="upkeep"
            alarms={ALARMS}
            waiting={open.filter(({ duty }) => duty.uuid === undefined).length}
            events={(alarmMinutes) => calendarEvents(data, open, alarmMinutes)}
          />
          <Disclosure label="Add a duty of your own" look="quiet">
            {(close) => <OwnDuty data={data} onDone={close} />}
          </Disclosure>
        </p>
      </Section>
    </Room>
  );
}

function Duties({
  data,
  all,
  nowMs,
}: {
  readonly data: StationData;
  readonly all: readonly Standing[];
  readonly nowMs: number;
}) {
  const { trySave } = useWrite();
  const done = (duty: Saved<'upkeep'>): Promise<unknown> =>
    trySave(
      [
        updateOf('upkeep', duty, { doneMs: nowMs }),
        createOf('entries', {
          step: 'notebook',
          text: `Looked at: ${duty.name}.`,
          atMs: nowMs,
          antennaId: duty.antennaId,
        }),
      ],
      `${duty.name}: done.`,
    );
  return (
    <Wide evidence label="What wants a look">
      <table className="w-full">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Antenna</th>
            <th scope="col">Due, UTC</th>
            <th scope="col">Last done</th>
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {all.map(({ duty, dueMs, state }) => (
            <tr key={duty.id} className={state === 'finished' ? 'text-dim' : ''}>
              <th scope="row" className="text-ink">
                {duty.name}
                {duty.note !== '' && <span className="block text-sm text-dim">{duty.note}</span>}
              </th>
              <td>{data.antennas.find(({ id }) => id === duty.antennaId)?.name ?? ''}</td>
              <td className="whitespace-nowrap">
                {state === 'finished' ? (
                  'finished'
                ) : (
                  <>
                    <span className="font-mono">{dayText(dueMs)}</span>
                    {state !== 'later' && (
                      <b className="block text-sm font-semibold text-caution">
                        {state === 'late' ? 'late' : 'due soon'}
                      </b>
                    )}
                  </>
                )}
              </td>
              <td className="font-mono whitespace-nowrap">{duty.doneMs === null ? 'never' : dayText(duty.doneMs)}</td>
              <td className="whitespace-nowrap">
                {state !== 'finished' && (
                  <Button look="quiet" aria-label={`Done today: ${duty.name}`} onClick={() => void done(duty)}>
                    Done today
                  </Button>
                )}
                <ChangeButton resource="upkeep" record={duty} name={duty.name} fields={dutyFields(data)} />
                <DeleteButton resource="upkeep" record={duty} name={duty.name} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

/** A forecast above the limit, and the look after it. */
function Storm({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const { windLimitMPerS: limit, windForecastMPerS: forecast } = data.station;
  const passed = (): Promise<unknown> => {
    const atMs = Date.now();
    return trySave(
      [
        createOf('upkeep', {
          ...{ name: `After the storm of ${dayText(atMs)}: ropes, rods, joints, mast and guys`, kind: 'storm' },
          ...{ everyDays: AFTER_STORM_DAYS, sinceMs: atMs },
        }),
        entry('notebook', 'A storm above the wind limit has passed.'),
      ],
      'A look after the storm is due.',
    );
  };
  return (
    <Section
      title="Wind"
      hint={
        limit === null
          ? 'the limit of the weakest support is entered in Listen, Place'
          : `the weakest support stands ${speedText(limit)}`
      }
    >
      {limit !== null && forecast !== null && forecast >= limit && (
        <Caution>
          Wind warning: the forecast of {speedText(forecast)} reaches the limit of {speedText(limit)}. Lower the pole
          now, with a second person, and not in a gust.
        </Caution>
      )}
      <Button onClick={() => void passed()}>A storm above the limit has passed</Button>
    </Section>
  );
}

/** What the antennas of the station want and nobody keeps yet. */
function Proposals({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const proposed = data.antennas.flatMap((antenna) => {
    const revision = latestRevision(data, antenna.id);
    const kept = new Set(data.upkeep.filter(({ antennaId }) => antennaId === antenna.id).map(({ kind }) => kind));
    return revision
      ? dutiesFor(revision.kind, false).flatMap((duty) => (kept.has(duty.kind) ? [] : [{ antenna, duty }]))
      : [];
  });
  if (proposed.length === 0) return null;
  const take = (share: number): Promise<unknown> =>
    trySave(
      proposed.map(({ antenna, duty }): Change =>
        createOf('upkeep', {
          ...duty,
          everyDays: Math.round(duty.everyDays * share),
          sinceMs: Date.now(),
          antennaId: antenna.id,
        }),
      ),
      'Taken over.',
    );
  return (
    <Section title="What your antennas want" hint="by their kind, not kept yet">
      <ul className="max-w-3xl border-t border-rule">
        {proposed.map(({ antenna, duty }) => (
          <li key={`${antenna.id} ${duty.kind}`} className="border-b border-rule py-1">
            {antenna.name}: {duty.name}, every {duty.everyDays} days
          </li>
        ))}
      </ul>
      <p className="mt-2 flex flex-wrap gap-3">
        <Button look="main" onClick={() => void take(1)}>
          Take all over
        </Button>
        <Button onClick={() => void take(0.5)}>Take all over, twice as often: salt spray reaches here</Button>
      </p>
    </Section>
  );
}

function OldCalibrations({ data, nowMs }: { readonly data: StationData; readonly nowMs: number }) {
  const old = [
    ...data.calibrations.map(({ name, madeMs }) => ({ name: `Calibration ${name}`, madeMs })),
    ...data.accessories.flatMap(({ name, measuredMs }) =>
      measuredMs === null ? [] : [{ name: `${name}, as measured`, madeMs: measuredMs }],
    ),
  ].filter(({ madeMs }) => nowMs - madeMs > CALIBRATION_DAYS * DAY_MS);
  if (old.length === 0) return null;
  return (
    <Section title="Grown old" hint="calibrations and measured parts older than a year">
      <ul>
        {old.map(({ name, madeMs }) => (
          <li key={`${name} ${madeMs}`}>
            {name}: {dayText(madeMs)}, measure it again.
          </li>
        ))}
      </ul>
    </Section>
  );
}

const dutyFields = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'What is looked at', kind: 'text' },
  {
    name: 'kind',
    label: 'Kind',
    kind: 'choice',
    options: Object.entries(KIND_WORDS).map(([value, label]) => ({ value, label })),
  },
  {
    ...{ name: 'everyDays', label: 'Every (days)', kind: 'read' },
    read: (text) => {
      const days = Number(text.replace(/\s*(d|days?)$/, ''));
      return Number.isFinite(days) && text.trim() !== ''
        ? { value: days }
        : { fault: 'This is no number of days. Type for example 180.' };
    },
    write: (record) => String(record.everyDays),
  },
  { name: 'doneMs', label: 'Last done', kind: 'date' },
  {
    ...{ name: 'antennaId', label: 'Antenna', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'none' },
      ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
  { name: 'note', label: 'Note', kind: 'text' },
];

function OwnDuty({ data, onDone }: { readonly data: StationData; readonly onDone: () => void }) {
  const { save } = useWrite();
  return (
    <RecordForm
      fields={dutyFields(data)}
      schema={SCHEMAS.upkeep}
      fixed={{ sinceMs: 0 }}
      start={{ name: '', kind: 'other', everyDays: '180', doneMs: '', antennaId: '', note: '' }}
      submit="Keep it"
      onCancel={onDone}
      onSave={async (values) => {
        await save([createOf('upkeep', { ...values, sinceMs: Date.now() })], 'Kept.');
        onDone();
      }}
    />
  );
}

/** Open duties as all-day events that repeat; those that still wait to be saved have no name in a calendar, and are left out. */
const calendarEvents = (
  data: StationData,
  open: readonly Standing[],
  alarmMinutes: number | undefined,
): readonly CalendarEvent[] =>
  open.flatMap(({ duty: { uuid, version, name, note, kind, everyDays }, dueMs }) =>
    uuid === undefined
      ? []
      : {
          ...{ uuid, sequence: version - 1, title: name, atMs: dueMs, zone: '', alarmMinutes },
          text: `${data.station.name}${note === '' ? '' : `: ${note}`}`,
          ...(kind === 'storm'
            ? {}
            : { repeats: { every: 'DAILY' as const, interval: Math.max(1, Math.round(everyDays)) } }),
        },
  );
