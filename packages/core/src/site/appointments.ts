import { OutOfRangeError } from '../errors';
import { clockShows, momentShown } from './clock';
import { satellitePasses } from './passes';
import type { Position } from './place';
import type { Repeat } from './repeats';
import type { ScheduledSatellite } from './schedule';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

/** An hour somebody keeps free to listen. */
export interface Appointment {
  readonly id: string;
  readonly name: string;
  readonly atMs: number;
  readonly minutes: number;
  readonly repeats: Repeat;
  /** Undefined: no frequency is needed, or it is not known yet. */
  readonly freqHz?: number | undefined;
  /** The receiver it takes; undefined: any. */
  readonly receiverId?: string | undefined;
  /** Length of one transmission of a timed mode; undefined: none. */
  readonly slotMinutes?: number | undefined;
  /** Zone whose clock it keeps when it comes again; undefined or empty: it keeps to UTC. */
  readonly zone?: string | undefined;
}

/** One time an appointment comes. */
export interface Occurrence {
  readonly appointment: Appointment;
  readonly fromMs: number;
  readonly toMs: number;
}

/** A receiver as far as two things at once matter. */
export interface BusyReceiver {
  readonly id: string;
  readonly name: string;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
}

/** Times an appointment comes between two moments, those that began before included. @throws OutOfRangeError for a length that is none. */
export function occurrencesOf(appointment: Appointment, fromMs: number, toMs: number): readonly Occurrence[] {
  const { atMs, minutes, repeats, zone = '' } = appointment;
  if (!(minutes > 0)) throw new OutOfRangeError('An appointment needs a length. Give its minutes.', 'minutes');
  const lengthMs = minutes * MINUTE_MS;
  const one = (beginMs: number): Occurrence => ({ appointment, fromMs: beginMs, toMs: beginMs + lengthMs });
  if (repeats === 'once') return atMs < toMs && atMs + lengthMs > fromMs ? [one(atMs)] : [];
  const everyMs = repeats === 'daily' ? DAY_MS : 7 * DAY_MS;
  const found: Occurrence[] = [];
  const shown = clockShows(zone, atMs);
  // a clock is moved by less than a day: one time more on either side, and what lies outside is left out
  const first = Math.max(0, Math.floor((fromMs - lengthMs - atMs - DAY_MS) / everyMs) + 1);
  for (let n = first; atMs + n * everyMs < toMs + DAY_MS; n++) {
    const beginMs = n === 0 ? atMs : momentShown(zone, shown + n * everyMs);
    if (beginMs + lengthMs > fromMs && beginMs < toMs) found.push(one(beginMs));
  }
  return found;
}

/**
 * Beginnings of the whole transmissions of a timed mode within a stretch: they stand at multiples of their length, counted from midnight UTC of the day in
 * which the stretch begins; one that has begun already or does not end in time cannot be decoded.
 */
export function slotStarts(fromMs: number, toMs: number, slotMinutes: number): readonly number[] {
  const slotMs = slotMinutes * MINUTE_MS;
  if (!(slotMs > 0)) return [];
  const midnight = Math.floor(fromMs / DAY_MS) * DAY_MS;
  const first = Math.ceil((fromMs - midnight) / slotMs);
  const count = Math.max(0, Math.floor((toMs - midnight) / slotMs) - first);
  return Array.from({ length: count }, (_, i) => midnight + (first + i) * slotMs);
}

/** Share of a receiver's band that its filters leave usable. Common practice, no source. */
const USABLE = 0.8;
/** Widest span that one receiver hears at once, Hz. */
export const heardAtOnceHz = ({ sampleRateHz, complexSamples }: BusyReceiver): number =>
  USABLE * (complexSamples ? sampleRateHz : sampleRateHz / 2);

/** Two occurrences that want one receiver at the same time. */
export interface Clash {
  readonly first: Occurrence;
  readonly second: Occurrence;
  readonly fromMs: number;
  readonly toMs: number;
  /** The receiver both want; undefined: there are not enough of them. */
  readonly receiver?: BusyReceiver | undefined;
  /** How far apart the two frequencies are, where both are known, Hz. */
  readonly apartHz?: number | undefined;
}

/**
 * Pairs of occurrences that cannot both be heard: they overlap, want the same receiver (or the only one there is), and their frequencies are farther apart
 * than it hears at once, or one of them is not known. With two receivers or more, one without a receiver of its own finds a free one.
 */
export function clashes(occurrences: readonly Occurrence[], receivers: readonly BusyReceiver[]): readonly Clash[] {
  const sorted = [...occurrences].sort((a, b) => a.fromMs - b.fromMs);
  const wants = ({ appointment }: Occurrence): string | undefined =>
    appointment.receiverId ?? (receivers.length === 1 ? receivers[0].id : undefined);
  const found: Clash[] = [];
  for (const [i, first] of sorted.entries())
    for (const second of sorted.slice(i + 1)) {
      if (second.fromMs >= first.toMs) break;
      const [a, b] = [wants(first), wants(second)];
      if (a === undefined || b === undefined || a !== b) continue;
      const receiver = receivers.find(({ id }) => id === a);
      const [fa, fb] = [first.appointment.freqHz, second.appointment.freqHz];
      const apartHz = fa === undefined || fb === undefined ? undefined : Math.abs(fa - fb);
      if (receiver && apartHz !== undefined && apartHz <= heardAtOnceHz(receiver)) continue;
      found.push({ first, second, fromMs: second.fromMs, toMs: Math.min(first.toMs, second.toMs), receiver, apartHz });
    }
  return found;
}

/** Passes as occurrences, so that they can clash with appointments. */
export const passOccurrences = (
  satellites: readonly ScheduledSatellite[],
  station: Position,
  fromMs: number,
  toMs: number,
): readonly Occurrence[] =>
  satellites.flatMap((satellite) =>
    satellitePasses(satellite, station, { fromMs, toMs, leastDeg: satellite.leastDeg }).map(
      ({ riseMs, setMs }): Occurrence => ({
        appointment: {
          ...{ id: `satellite-${satellite.id}`, name: `pass of ${satellite.name}`, repeats: 'once' },
          ...{ atMs: riseMs, minutes: (setMs - riseMs) / MINUTE_MS, freqHz: satellite.freqHz },
        },
        fromMs: riseMs,
        toMs: setMs,
      }),
    ),
  );
