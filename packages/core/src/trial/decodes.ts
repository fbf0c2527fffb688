import type { LogRows } from '../formats/log-csv';
import { quantile } from '../numeric/statistics';
import { greatCircle, positionOf, type Position } from '../site/place';
import { powerDb } from '../units/decibel';
import { requirePositive, ShapeError } from '../errors';
import { censoredDifference, snrBandwidth } from './counts';
import { sameSlotsTest } from './same-slots';

/** A weak-signal mode by its figures: time of one transmission, bandwidth of its tones, weakest SNR in 2500 Hz that decodes. */
export interface WeakMode {
  readonly name: string;
  readonly seconds: number;
  readonly bandwidthHz: number;
  readonly limitDb: number;
}

/** What a mode asks, and how often a night offers it. */
export interface PlannedMode extends WeakMode {
  /** Gained over the shortest by listening longer, dB. */
  readonly gainDb: number;
  /** Weakest SNR in its own bandwidth, dB. */
  readonly ownLimitDb: number;
  /** Transmissions in the night. */
  readonly chances: number;
  /** Whether a signal of the given SNR in 2500 Hz decodes, and by how much. */
  readonly marginDb: number | null;
}

/**
 * Modes side by side: what longer integration gains, 10·log(T/T₀), and what it costs in chances.
 * @param nightHours time in which the path is open. @param snr2500Db of the wanted signal; null: not known.
 */
export function planModes(
  modes: readonly WeakMode[],
  nightHours: number,
  snr2500Db: number | null = null,
): readonly PlannedMode[] {
  requirePositive(nightHours, 'Night (h)');
  const shortest = Math.min(...modes.map(({ seconds }) => seconds));
  return modes.map((mode) => ({
    ...mode,
    gainDb: powerDb(mode.seconds / shortest),
    ownLimitDb: snrBandwidth({ snrDb: mode.limitDb, fromHz: 2500, toHz: mode.bandwidthHz }).snrDb,
    chances: Math.floor((nightHours * 3600) / mode.seconds),
    marginDb: snr2500Db === null ? null : snr2500Db - mode.limitDb,
  }));
}

/** Figures of some decodes. */
interface DecodeFigures {
  readonly n: number;
  readonly meanDb: number;
  readonly sdDb: number | null;
  readonly medianDb: number;
  readonly lowDb: number;
  readonly highDb: number;
  readonly leastDb: number;
  readonly mostDb: number;
}

/** A decode that may be none; it stays in the log. */
interface DoubtfulDecode {
  readonly atMs: number;
  readonly sender: string;
  readonly locator: string;
  readonly snrDb: number;
  readonly why: string;
}

/** One eighth of the horizon. */
interface ReachSector {
  readonly name: string;
  readonly decodes: number;
  readonly senders: number;
  readonly farthestKm: number | null;
}

/** A place that was heard. */
interface ReachPlace extends Position {
  readonly distanceKm: number;
  readonly bearingDeg: number;
  readonly decodes: number;
}
/** Places of one report at most: a map of more is a blot. */
const MOST_PLACES = 400;

/** A night of decodes on one antenna. */
export interface DecodeReport {
  readonly all: DecodeFigures | null;
  readonly byMode: readonly { readonly mode: string; readonly figures: DecodeFigures }[];
  readonly senders: number;
  /** Share of the transmissions of a sender, between its first and its last decode, that were decoded; median over senders heard four times or more. */
  readonly consistency: number | null;
  readonly farthestKm: number | null;
  readonly sectors: readonly ReachSector[];
  /** Where those heard are, the most decoded first; doubted ones are left out. */
  readonly places: readonly ReachPlace[];
  readonly doubtful: readonly DoubtfulDecode[];
}

function figuresOf(values: Float64Array): DecodeFigures | null {
  const known = values.filter((one) => !Number.isNaN(one));
  const n = known.length;
  if (n === 0) return null;
  const mean = known.reduce((sum, one) => sum + one, 0) / n;
  const squares = known.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  return {
    ...{ n, meanDb: mean, sdDb: n < 2 ? null : Math.sqrt(squares / (n - 1)), medianDb: quantile(known, 0.5) },
    ...{
      lowDb: quantile(known, 0.1),
      highDb: quantile(known, 0.9),
      leastDb: quantile(known, 0),
      mostDb: quantile(known, 1),
    },
  };
}

/** A decode this near to the weakest its mode allows may be noise, dB. Common practice, no source. */
const NEAR_LIMIT_DB = 2;
/** Nobody else heard within this distance: another region than the night's. Common practice, no source. */
const REGION_KM = 1500;
const SECTORS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'] as const;
/** Decodes of a sender that its regularity is told from. */
const LEAST_HEARD = 4;

/** Place of a locator; null for a word that is none. */
function placeIn(locator: string): Position | null {
  try {
    return positionOf(locator);
  } catch {
    return null;
  }
}

const placeOf = (locator: string, known: Map<string, Position | null>): Position | null => {
  const found = known.get(locator);
  if (found !== undefined) return found;
  const place = placeIn(locator);
  known.set(locator, place);
  return place;
};

/** Places of the senders that have one, by sender. */
interface Sender {
  readonly rows: number[];
  readonly place: Position | null;
}

function sendersOf({ words }: LogRows): ReadonlyMap<string, Sender> {
  const places = new Map<string, Position | null>();
  const senders = new Map<string, { rows: number[]; place: Position | null }>();
  words.sender.forEach((name, i) => {
    const one = senders.get(name) ?? { rows: [], place: null };
    one.rows.push(i);
    one.place ??= words.locator[i] ? placeOf(words.locator[i], places) : null;
    senders.set(name, one);
  });
  return senders;
}

/** Usual time from one slot to the next: the least gap between two decodes that comes often. */
function slotMs(at: Float64Array): number {
  const gaps = at
    .slice(1)
    .map((one, i) => one - at[i])
    .filter((gap) => gap > 0);
  return gaps.length === 0 ? 60_000 : Math.max(1000, quantile(gaps, 0.05));
}

/**
 * Statistics, reach and doubt of a log of decodes; 100,000 rows take well under a second.
 * A decode is doubted when its sender is heard once only and it lies near the weakest its mode allows, or in a region where nobody else is heard:
 * two of three signs. Repeats clear it. Nothing is deleted.
 * @param home of the receiving station. @param modes with their limits, by name; others count from the weakest decode of the log.
 */
export function decodeReport(log: LogRows, home: Position, modes: readonly WeakMode[] = []): DecodeReport {
  const { atMs, snrDb } = log.numbers;
  const senders = sendersOf(log);
  const located = [...senders.values()].flatMap(({ place, rows }) =>
    place ? [{ place, rows, ...greatCircle(home, place) }] : [],
  );
  const modeNames = [...new Set(log.words.mode)];
  const weakest = figuresOf(snrDb)?.leastDb ?? -Infinity;
  const limitOf = (mode: string): number => modes.find(({ name }) => name === mode)?.limitDb ?? weakest;
  // a locator that no place on earth has is a decode that is none, however often it comes
  const impossible = ({ rows, place }: Sender): boolean =>
    place === null && rows.some((i) => (log.words.locator[i] ?? '') !== '');
  const none = new Set([...senders.values()].filter(impossible).flatMap(({ rows }) => rows));
  const counted = snrDb.map((db, i) => (none.has(i) ? NaN : db));
  const doubtful = [...senders].flatMap(([sender, one]): DoubtfulDecode[] => {
    const { rows, place } = one;
    if (impossible(one))
      return rows.map((i) => ({
        ...{ atMs: atMs[i], sender, locator: log.words.locator[i] ?? '', snrDb: snrDb[i] },
        why: 'its locator is of no place on earth',
      }));
    if (rows.length !== 1) return [];
    const [i] = rows;
    const nearLimit = !Number.isNaN(snrDb[i]) && snrDb[i] <= limitOf(log.words.mode[i] ?? '') + NEAR_LIMIT_DB;
    const alone =
      place !== null &&
      located.length > 1 &&
      located.every((other) => other.rows[0] === i || greatCircle(place, other.place).distanceKm > REGION_KM);
    if (!nearLimit && !alone) return [];
    // one weak decode from where others are heard is what the edge of a mode looks like
    if (!(nearLimit && (alone || place === null)) && !alone) return [];
    return [
      {
        ...{ atMs: atMs[i], sender, locator: log.words.locator[i] ?? '', snrDb: snrDb[i] },
        why: [
          'heard once',
          ...(nearLimit ? [`within ${NEAR_LIMIT_DB} dB of the weakest that decodes`] : []),
          ...(alone
            ? [`nobody else heard within ${REGION_KM} km of its locator`]
            : place === null
              ? ['without a locator']
              : []),
        ].join(', '),
      },
    ];
  });
  const doubted = new Set(doubtful.map(({ sender }) => sender));
  const trusted = located.filter(({ rows }) => !doubted.has(log.words.sender[rows[0]]));
  const distances = Float64Array.from(trusted, ({ distanceKm }) => distanceKm);
  const slot = slotMs(atMs);
  const regular = [...senders.values()].flatMap(({ rows }) => {
    if (rows.length < LEAST_HEARD) return [];
    const span = atMs[rows[rows.length - 1]] - atMs[rows[0]];
    return [Math.min(1, rows.length / (1 + Math.round(span / slot)))];
  });
  return {
    all: figuresOf(counted),
    byMode: modeNames.flatMap((mode) => {
      const figures = figuresOf(counted.filter((_, i) => log.words.mode[i] === mode));
      return figures ? [{ mode, figures }] : [];
    }),
    senders: senders.size,
    consistency: regular.length === 0 ? null : quantile(regular, 0.5),
    farthestKm: distances.length === 0 ? null : Math.max(...distances),
    sectors: SECTORS.map((name, k) => {
      const own = trusted.filter(({ bearingDeg }) => Math.round(bearingDeg / 45) % 8 === k);
      return {
        name,
        decodes: own.reduce((sum, { rows }) => sum + rows.length, 0),
        senders: own.length,
        farthestKm: own.length === 0 ? null : Math.max(...own.map(({ distanceKm }) => distanceKm)),
      };
    }),
    places: trusted
      .map(({ place, distanceKm, bearingDeg, rows }) => ({ ...place, distanceKm, bearingDeg, decodes: rows.length }))
      .sort((one, other) => other.decodes - one.decodes)
      .slice(0, MOST_PLACES),
    doubtful,
  };
}

/** The same transmissions on two antennas at once. */
export interface SlotComparison {
  readonly both: number;
  readonly onlyA: number;
  readonly onlyB: number;
  /** Exact two-sided p of McNemar's test; null where every transmission was heard by both. */
  readonly pTwoSided: number | null;
  /** B less A, dB: of the transmissions that both decoded, and with those that one missed taken as below the weakest. */
  readonly meanDb: number | null;
  readonly censoredDb: number | null;
  readonly sdDb: number | null;
}

/** So many equal rows, and such a share of the shorter night, are no chance. Two set-ups on one sender agree to the dB in a quarter of the slots at most. */
const LEAST_SAME = 8;
const SAME_SHARE = 0.8;
/** Differences that the likelihood is fitted to: more tell no more. */
const MOST_FITTED = 5000;

/**
 * Transmissions of the same sender in the same slot on two antennas: who heard more, and how much stronger.
 * @param slotS length of a slot, s: decodes of one sender within half of it are one transmission.
 */
export function compareSlots(a: LogRows, b: LogRows, slotS: number): SlotComparison {
  requirePositive(slotS, 'Slot (s)');
  const keyOf = (log: LogRows, i: number): string =>
    `${log.words.sender[i]} ${Math.round(log.numbers.atMs[i] / 1000 / slotS)}`;
  const heard = (log: LogRows): Map<string, number> =>
    new Map(Array.from(log.numbers.atMs, (_, i) => [keyOf(log, i), log.numbers.snrDb[i]] as const));
  const [inA, inB] = [heard(a), heard(b)];
  // two receivers do not decode the same SNR at the same millisecond, night-long
  const rowsOf = (log: LogRows): ReadonlySet<string> =>
    new Set(Array.from(log.numbers.atMs, (at, i) => `${at} ${log.words.sender[i]} ${log.numbers.snrDb[i]}`));
  const [rowsA, rowsB] = [rowsOf(a), rowsOf(b)];
  const same = [...rowsA].filter((row) => rowsB.has(row)).length;
  if (same >= LEAST_SAME && same > SAME_SHARE * Math.min(rowsA.size, rowsB.size))
    throw new ShapeError(
      `${same} rows of these two nights are the very same: they are one night that was kept twice. Compare two different ones.`,
    );
  const keys = [...new Set([...inA.keys(), ...inB.keys()])];
  const both = keys.filter((key) => inA.has(key) && inB.has(key)).length;
  const [onlyA, onlyB] = [inA.size - both, inB.size - both];
  const value = (of: Map<string, number>, key: string): number | null => {
    const db = of.get(key);
    return db === undefined || Number.isNaN(db) ? null : db;
  };
  const used = keys.filter((_, i) => i % Math.ceil(keys.length / MOST_FITTED) === 0);
  const [listA, listB] = [inA, inB].map((of) => used.map((key) => value(of, key)));
  const levels = [...listA, ...listB].filter((one) => one !== null);
  const fitted = levels.length === 0 ? undefined : censoredDifference(listB, listA, Math.min(...levels));
  return {
    ...{ both, onlyA, onlyB },
    pTwoSided: onlyA + onlyB === 0 ? null : sameSlotsTest({ both, onlyA, onlyB, none: 0 }).pTwoSided,
    meanDb: fitted?.naiveMeanDb ?? null,
    censoredDb: fitted?.meanDb ?? null,
    sdDb: fitted?.sdDb ?? null,
  };
}
