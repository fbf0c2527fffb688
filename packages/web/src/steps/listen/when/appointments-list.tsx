import { createOf, SCHEMAS } from '@velvet-reed/contract';
import { occurrencesOf, REPEATS } from '@velvet-reed/core/site';
import { countText, frequencyText } from '@velvet-reed/core/units';
import { useMoment } from '../../../data/moment';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { CalendarButton, type Alarm } from '../../../ui/calendar-button';
import { Disclosure } from '../../../ui/disclosure';
import { momentText } from '../../../ui/moment-text';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { appointmentOf, calendarEvents, clashText, keptBetween, slotsOf } from './appointments';

const DAY_MS = 86_400_000;
const ALARMS: readonly Alarm[] = [
  { minutes: 0, label: 'when it begins' },
  { minutes: -5, label: '5 min before' },
  { minutes: -15, label: '15 min before' },
  { minutes: -60, label: '1 h before' },
];
/** The clock of this device, by its name. */
const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
/** So far ahead the next time of an appointment is sought. */
const AHEAD_DAYS = 366;

/** "2026-03-10 18:30" of UTC. */
function readBegin(text: string): { readonly values: Record<string, unknown> } | { readonly fault: string } {
  const match = /^(\d{4}-\d{2}-\d{2})[ T](\d{1,2}):(\d{2})(?: ?(?:UTC|Z))?$/i.exec(text.trim());
  const ms = match ? Date.parse(`${match[1]}T${match[2].padStart(2, '0')}:${match[3]}:00Z`) : NaN;
  // a day that the month does not have moves into the next one: that is refused, not guessed
  if (!Number.isFinite(ms) || new Date(ms).toISOString().slice(0, 10) !== match?.[1])
    return { fault: `"${text.trim()}" is not a day and an hour. Type it like 2026-03-10 18:30, in UTC.` };
  return { values: { atMs: ms } };
}

const minutes = (name: string, label: string, hint: string, optional = false): FieldSpec => ({
  ...{ name, label, kind: 'read', hint },
  read(text) {
    if (optional && text.trim() === '') return { values: { [name]: null } };
    const match = /^(\d+(?:[.,]\d+)?)\s*(h|hours?|min|minutes?|s|seconds?)?$/i.exec(text.trim());
    if (!match) return { fault: `"${text.trim()}" is not a length of time. Type it like 45 min, 2 h or 15 s.` };
    const unit = (match[2] ?? 'min').toLowerCase();
    const factor = unit.startsWith('h') ? 60 : unit.startsWith('s') ? 1 / 60 : 1;
    return { values: { [name]: Number(match[1].replace(',', '.')) * factor } };
  },
  write: ({ [name]: value }) => (typeof value === 'number' ? lengthText(value) : ''),
});

/** "45 min", "2 h", "15 s". */
const lengthText = (value: number): string =>
  value < 1 ? `${Math.round(value * 60)} s` : value % 60 === 0 ? `${value / 60} h` : `${Number(value.toFixed(2))} min`;

const fieldsOf = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text', hint: 'what you mean to hear' },
  {
    ...{ name: 'atMs', label: 'Begins, UTC', kind: 'read', read: readBegin },
    write: ({ atMs }) => momentText(Number(atMs)),
    hint: 'like 2026-03-10 18:30',
  },
  minutes('minutes', 'Length', 'like 45 min or 6 h'),
  {
    ...{ name: 'repeats', label: 'Comes', kind: 'choice' },
    options: REPEATS.map((value) => ({ value, label: value })),
  },
  {
    ...{
      name: 'zone',
      label: 'Keeps to',
      kind: 'choice',
      hint: 'a broadcaster keeps to UTC, a club mostly to its clock',
    },
    options: [
      { value: '', label: 'UTC, all year' },
      ...[...new Set([ZONE_HERE, ...data.appointments.map(({ zone }) => zone), ...Intl.supportedValuesOf('timeZone')])]
        .filter((zone) => zone !== '' && zone !== 'UTC')
        .map((zone) => ({ value: zone, label: `the clock of ${zone}` })),
    ],
  },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz', optional: true },
  {
    ...{ name: 'receiverId', label: 'Receiver', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'any that is free' },
      ...data.receivers.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
  {
    ...{ name: 'antennaId', label: 'Antenna', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'not said' },
      ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
  minutes('slotMinutes', 'One transmission lasts', 'for a timed mode: like 2 min or 15 s; empty for none', true),
];

/** The next full quarter of an hour, as one would type it. */
const nextQuarter = (ms: number): string => momentText(Math.ceil(ms / 900_000) * 900_000);

/** Hours kept free, what of them cannot both be heard, and how many transmissions of a timed mode they hold. */
export function Appointments({ data, hours }: { readonly data: StationData; readonly hours: number }) {
  const { save } = useWrite();
  const { atMs } = useMoment();
  const fields = fieldsOf(data);
  const { clashes } = keptBetween(data, atMs, atMs + hours * 3_600_000);
  return (
    <Section
      title="Appointments"
      hint="hours you keep free; with a timed mode, how many whole transmissions fit"
      actions={
        data.appointments.length > 0 && (
          <CalendarButton
            name="appointments"
            alarms={ALARMS}
            waiting={data.appointments.filter(({ uuid }) => uuid === undefined).length}
            events={(alarmMinutes) => calendarEvents(data, alarmMinutes)}
          />
        )
      }
    >
      {clashes.length > 0 && (
        <ul className="mb-2 border-l-4 border-caution pl-3" aria-label="Clashes">
          {clashes.slice(0, 6).map((clash) => (
            <li key={`${clash.first.appointment.id} ${clash.second.appointment.id} ${clash.fromMs}`}>
              {clashText(clash)}.
            </li>
          ))}
          {clashes.length > 6 && <li className="text-dim">{clashes.length - 6} more in this span.</li>}
        </ul>
      )}
      {data.appointments.length === 0 ? (
        <Empty>None kept. An appointment shows whether the path is open then, and what else wants the receiver.</Empty>
      ) : (
        <ul className="max-w-4xl border-t border-rule">
          {data.appointments.map((one) => {
            const [next] = occurrencesOf(appointmentOf(one), atMs, atMs + AHEAD_DAYS * DAY_MS);
            const chances = next && slotsOf(next)?.length;
            return (
              <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1">
                <span className="grow">
                  <strong>{one.name}</strong>{' '}
                  <span className="text-sm text-dim">
                    {one.repeats}
                    {one.zone !== '' && one.repeats !== 'once' && ` by the clock of ${one.zone}`},{' '}
                    {lengthText(one.minutes)}
                    {one.freqHz !== null && `, ${frequencyText(one.freqHz)}`}
                    {chances !== undefined &&
                      `; ${countText(chances, 'chance')} of ${lengthText(one.slotMinutes ?? 0)} each time`}
                  </span>
                </span>
                <span className="font-mono text-sm">{next ? momentText(next.fromMs) : 'over'}</span>
                <ChangeButton resource="appointments" record={one} name={one.name} fields={fields} />
                <DeleteButton resource="appointments" record={one} name={one.name} />
              </li>
            );
          })}
        </ul>
      )}
      <div className="mt-2">
        <Disclosure label="Keep an hour free">
          {(close) => (
            <RecordForm
              fields={fields}
              schema={SCHEMAS.appointments}
              start={{
                ...{ name: '', atMs: nextQuarter(atMs), minutes: '60 min', repeats: 'once', zone: '' },
                ...{ freqHz: '', receiverId: '', antennaId: '', slotMinutes: '' },
              }}
              submit="Keep it free"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [createOf('appointments', values), entry('listen', `Kept free: ${String(values.name)}.`)],
                  'It stands in the lanes.',
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
