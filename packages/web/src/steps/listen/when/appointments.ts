import { CoreError } from '@velvet-reed/core/errors';
import type { Saved } from '@velvet-reed/contract';
import {
  type Appointment,
  type Clash,
  clashes,
  type Occurrence,
  occurrencesOf,
  passOccurrences,
  slotStarts,
} from '@velvet-reed/core/site';
import { frequencyText } from '@velvet-reed/core/units';
import type { StationData } from '@velvet-reed/station/record';
import type { CalendarEvent } from '../../../ui/calendar';
import { clockText } from '../../../ui/moment-text';

/** An appointment as the core reckons with it. */
export const appointmentOf = (one: Saved<'appointments'>): Appointment => ({
  ...{ id: String(one.id), name: one.name, atMs: one.atMs, minutes: one.minutes, repeats: one.repeats },
  freqHz: one.freqHz ?? undefined,
  receiverId: one.receiverId === null ? undefined : String(one.receiverId),
  slotMinutes: one.slotMinutes ?? undefined,
  zone: one.zone,
});

/** Elements that cannot be followed have no passes; the timetable says why. */
function passesOf(find: () => readonly Occurrence[]): readonly Occurrence[] {
  try {
    return find();
  } catch (error) {
    if (error instanceof CoreError) return [];
    throw error;
  }
}

/** What is kept free between two moments, and what of it cannot both be heard: among appointments, and with passes of satellites. */
export function keptBetween(
  data: StationData,
  fromMs: number,
  toMs: number,
): { readonly occurrences: readonly Occurrence[]; readonly clashes: readonly Clash[] } {
  const occurrences = data.appointments.flatMap((one) => occurrencesOf(appointmentOf(one), fromMs, toMs));
  const satellites = data.satellites.map((one) => ({ ...one, id: String(one.id) }));
  const passes =
    occurrences.length === 0 ? [] : passesOf(() => passOccurrences(satellites, data.station, fromMs, toMs));
  const receivers = data.receivers.map((one) => ({ ...one, id: String(one.id) }));
  const appointed = new Set<Occurrence>(occurrences);
  return {
    occurrences: [...occurrences].sort((a, b) => a.fromMs - b.fromMs),
    // two passes that overlap are the sky's matter, not a clash of plans
    clashes: clashes([...occurrences, ...passes], receivers).filter(
      ({ first, second }) => appointed.has(first) || appointed.has(second),
    ),
  };
}

const dayAndClock = (ms: number): string => new Date(ms).toISOString().slice(5, 16).replace('T', ' ');

/** Why two things cannot both be heard. */
export const clashText = ({ first, second, fromMs, toMs, receiver, apartHz }: Clash): string =>
  `${first.appointment.name} and ${second.appointment.name} overlap ${dayAndClock(fromMs)} to ${clockText(toMs)} UTC${
    receiver ? ` on the ${receiver.name}` : ''
  }${apartHz === undefined ? '' : `, ${frequencyText(apartHz, 3)} apart`}`;

/** Beginnings of the transmissions in one occurrence; undefined: no timed mode. */
export const slotsOf = ({ appointment: { slotMinutes }, fromMs, toMs }: Occurrence): readonly number[] | undefined =>
  slotMinutes === undefined ? undefined : slotStarts(fromMs, toMs, slotMinutes);

/** Appointments as a calendar program keeps them; those that still wait to be saved have no name there, and are left out. */
export const calendarEvents = (data: StationData, alarmMinutes: number | undefined): readonly CalendarEvent[] =>
  data.appointments.flatMap(({ uuid, version, name, freqHz, atMs, minutes, zone, repeats }) =>
    uuid === undefined
      ? []
      : {
          ...{ uuid, sequence: version - 1, title: name, atMs, minutes, zone, alarmMinutes },
          text: freqHz === null ? data.station.name : `${frequencyText(freqHz)}, ${data.station.name}`,
          ...(repeats === 'once'
            ? {}
            : { repeats: { every: repeats === 'daily' ? ('DAILY' as const) : ('WEEKLY' as const), interval: 1 } }),
        },
  );
