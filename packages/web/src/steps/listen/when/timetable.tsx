import { clockText } from '../../../ui/moment-text';
import { SCHEMAS } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import {
  ELEMENTS_OLD_DAYS,
  elementsEpochMs,
  heardDays,
  type ListeningWindow,
  listeningWindows,
  readElements,
} from '@velvet-reed/core/site';
import { countText, frequencyText } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { useMoment } from '../../../data/moment';
import { antennaTurns, comparisonsOf } from '@velvet-reed/station/trials/conditions';
import { heardMarks } from '@velvet-reed/station/heard';
import { useNow } from '../../../data/now';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { keptBetween, slotsOf } from './appointments';
import { Appointments } from './appointments-list';
import { DayLanes, type Lane } from './day-lanes';

const day = (ms: number): string => new Date(ms).toISOString().slice(5, 10);
const SHOWN = 14;
/** So many lanes stand on one screen; the weightiest targets come first. */
const MOST_LANES = 13;
/** Of these, so many for antennas by rules of trials. */
const MOST_RULED = 1;
/** So many for appointments. */
const MOST_KEPT = 4;
const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;

/** Windows of the coming hours, or why there are none. */
function useWindows(
  data: StationData,
  hours: number,
): { readonly windows: readonly ListeningWindow[]; readonly fault?: string } {
  const { atMs } = useMoment();
  return useMemo(() => {
    const targets = data.targets.map((target) => ({ ...target, id: String(target.id) }));
    const satellites = data.satellites.map((one) => ({ ...one, id: String(one.id) }));
    try {
      return { windows: listeningWindows(targets, satellites, data.station, atMs, hours, heardMarks(data)) };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return {
        windows: listeningWindows(targets, [], data.station, atMs, hours, heardMarks(data)),
        fault: error.message,
      };
    }
  }, [data, atMs, hours]);
}

/** Next good windows: sun at both ends, the targets' hours, satellite passes. */
export function Timetable({ data, hours }: { readonly data: StationData; readonly hours: number }) {
  const { windows, fault } = useWindows(data, hours);
  const { atMs, day: chosen } = useMoment();
  const nowMs = useNow();
  const { occurrences, clashes } = useMemo(() => keptBetween(data, atMs, atMs + hours * HOUR_MS), [data, atMs, hours]);
  const kept: readonly Lane[] = data.appointments
    .map(({ id, name }) => ({
      ...{ id: `appointment-${id}`, name, windows: [] },
      kept: occurrences
        .filter(({ appointment }) => appointment.id === String(id))
        .map((one) => ({ fromMs: one.fromMs, toMs: one.toMs, slots: slotsOf(one) ?? [] })),
      clashes: clashes.filter((one) =>
        [one.first, one.second].some(({ appointment }) => appointment.id === String(id)),
      ),
    }))
    .filter((lane) => lane.kept.length > 0)
    .slice(0, MOST_KEPT);
  const heard: readonly Lane[] = [
    ...[...data.targets].sort((a, b) => b.weight - a.weight).map(({ id, name }) => ({ id: String(id), name })),
    ...data.satellites.map(({ id, name }) => ({ id: `satellite-${id}`, name })),
  ]
    .slice(0, MOST_LANES - kept.length - MOST_RULED)
    .map((lane) => {
      const target = data.targets.find(({ id }) => String(id) === lane.id);
      return {
        ...lane,
        windows: windows.filter(({ id }) => id === lane.id),
        ...(target ? { heardDays: heardDays(heardMarks(data), target) } : {}),
      };
    });
  const ruled: readonly Lane[] = comparisonsOf(data)
    .map((one): Lane => {
      const turns = antennaTurns(one, atMs, atMs + hours * HOUR_MS);
      const name = (id: number): string => (id === one.antennaAId ? one.names.a : one.names.b);
      return {
        ...{ id: `rule-${one.antennaAId}-${one.antennaBId}`, name: 'Best antenna', windows: [] },
        turns: turns.map(({ antennaId, ...turn }) => ({
          ...turn,
          ...{ name: name(antennaId), second: antennaId === one.antennaBId },
        })),
      };
    })
    .filter(({ turns }) => turns && turns.length > 0)
    .slice(0, MOST_RULED);
  const lanes = [...kept, ...ruled, ...heard];
  const always = windows.filter((one) => one.toMs - one.fromMs >= DAY_MS);
  const passing = windows.filter((one) => !always.includes(one));
  const good = passing.filter((one) => one.quality === 'good');
  const shown = (good.length > 0 ? good : passing).slice(0, SHOWN);
  return (
    <>
      {lanes.length > 0 && (
        <DayLanes
          lanes={lanes}
          station={data.station}
          fromMs={atMs}
          hours={hours}
          nowMs={chosen === undefined ? nowMs : undefined}
        />
      )}
      <Appointments data={data} hours={hours} />
      <Section
        title="Next good windows"
        hint="UTC and your time; by distance, frequency, month and hour, and passes; no forecast of the ionosphere"
      >
        {fault && <p className="text-caution">{fault}</p>}
        {always.length > 0 && (
          <p className="text-sm">At any hour: {always.map((one) => `${one.name} (${one.quality})`).join(', ')}.</p>
        )}
        {shown.length === 0 ? (
          <Empty>No window in the next 24 hours. Give targets a place, or paste the elements of a satellite.</Empty>
        ) : (
          <Wide label="Next good windows">
            <table className="w-full max-w-4xl text-sm">
              <thead>
                <tr>
                  <th scope="col">UTC</th>
                  <th scope="col">Your time</th>
                  <th scope="col">What</th>
                  <th scope="col">Why</th>
                </tr>
              </thead>
              <tbody>
                {shown.map((one) => (
                  <tr key={`${one.id} ${one.fromMs}`}>
                    <td className="font-mono whitespace-nowrap">
                      {day(one.fromMs)} {clockText(one.fromMs)}–{clockText(one.toMs)}
                    </td>
                    <td className="font-mono whitespace-nowrap text-dim">
                      {new Date(one.fromMs).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}
                    </td>
                    <th scope="row" className="text-ink">
                      {one.name}
                    </th>
                    <td>
                      {one.quality}: {one.why}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
        )}
        {good.length > SHOWN && (
          <p className="text-sm text-dim">{countText(good.length - SHOWN, 'later window')} not shown.</p>
        )}
        <Satellites data={data} />
      </Section>
    </>
  );
}

const FIELDS: readonly FieldSpec[] = [
  {
    name: 'line1',
    label: 'Orbital elements',
    kind: 'read',
    long: true,
    read: (text) => {
      try {
        return { values: { ...readElements(text) } };
      } catch (error) {
        if (error instanceof CoreError) return { fault: error.message };
        throw error;
      }
    },
    write: ({ name, line1, line2 }) => [name, line1, line2].map(String).join('\n'),
    hint: 'two lines of 69 characters as published, a line with the name may stand before them',
  },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  {
    name: 'leastDeg',
    label: 'Above elevation',
    kind: 'quantity',
    dimension: 'angle',
    bareUnit: '°',
    hint: 'horizon 0, overhead 90',
  },
];

function Satellites({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const { atMs } = useMoment();
  return (
    <div className="mt-4">
      <h3 className="font-semibold">Satellites</h3>
      {data.satellites.length > 0 && (
        <ul className="border-t border-rule">
          {data.satellites.map((one) => {
            const oldDays = Math.abs(atMs - elementsEpochMs(one)) / DAY_MS;
            return (
              <li key={one.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
                <span className="grow">
                  {one.name}
                  {oldDays > ELEMENTS_OLD_DAYS && (
                    <span className="ml-2 text-sm text-caution">
                      elements {oldDays.toFixed(0)} days away from this day: passes can be minutes off; paste new ones
                    </span>
                  )}
                </span>
                <span className="font-mono text-sm">{frequencyText(one.freqHz)}</span>
                <ChangeButton resource="satellites" record={one} name={one.name} fields={FIELDS} />
                <DeleteButton resource="satellites" record={one} name={one.name} />
              </li>
            );
          })}
        </ul>
      )}
      <div className="mt-2">
        <Disclosure label="Paste orbital elements">
          {(close) => (
            <RecordForm
              fields={FIELDS}
              schema={SCHEMAS.satellites}
              start={{ line1: '', freqHz: '137.5 MHz', leastDeg: '10°' }}
              submit="Add the satellite"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'satellites', values },
                    entry('listen', `Satellite added: ${String(values.name)}.`),
                  ],
                  'Its passes are in the timetable.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </div>
  );
}
