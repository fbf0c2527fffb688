import { OutOfRangeError } from '../errors';

const DAY_MS = 86_400_000;
const formatters = new Map<string, Intl.DateTimeFormat>();

/** Digits of a zone's clock. @throws RangeError for a zone that the running system does not know */
function clockOf(zone: string): Intl.DateTimeFormat {
  const made =
    formatters.get(zone) ??
    new Intl.DateTimeFormat('en-US', {
      ...{ timeZone: zone, hourCycle: 'h23', year: 'numeric', month: 'numeric', day: 'numeric' },
      ...{ hour: 'numeric', minute: 'numeric', second: 'numeric', era: 'short' },
    });
  formatters.set(zone, made);
  return made;
}

/** A zone by its name in the IANA Time Zone Database. @throws OutOfRangeError for a name that it does not have */
export function readZone(text: string): string {
  const zone = text.trim();
  try {
    clockOf(zone);
    return zone;
  } catch {
    throw new OutOfRangeError(
      `No clock is known by the name "${text.slice(0, 60)}". Type a zone like Europe/Lisbon.`,
      'zone',
    );
  }
}

/** What a zone's clock shows at a moment, as if it showed UTC, ms. An empty zone is UTC. */
export function clockShows(zone: string, ms: number): number {
  if (zone === '') return ms;
  const part: Record<string, string> = {};
  for (const { type, value } of clockOf(zone).formatToParts(ms)) part[type] = value;
  const seconds = Date.UTC(
    ...([Number(part.year), Number(part.month) - 1, Number(part.day)] as const),
    ...([Number(part.hour), Number(part.minute), Number(part.second)] as const),
  );
  return seconds + (((ms % 1000) + 1000) % 1000);
}

/**
 * The moment at which a zone's clock shows a time. A time that comes twice in autumn is the first of the two; one that is left out in spring is reckoned
 * with the offset before the gap (RFC 5545, 3.3.5).
 * @param shown as if it were UTC, ms
 */
export function momentShown(zone: string, shown: number): number {
  if (zone === '') return shown;
  const before = clockShows(zone, shown - DAY_MS) - (shown - DAY_MS);
  const after = clockShows(zone, shown + DAY_MS) - (shown + DAY_MS);
  const fits = [before, after].map((offset) => shown - offset).find((ms) => clockShows(zone, ms) === shown);
  return fits ?? shown - before;
}
