import { fixed, frequencyText, showPower } from '../units/format';
import type { Evidence, LaidRun, AntennaState, PartState, Scope } from './scope';

/** What a verdict asks a figure to speak for. What is absent is not asked. */
export interface Question {
  readonly freqHz?: number;
  readonly powerW?: number;
  readonly antennas?: readonly AntennaState[];
  readonly parts?: readonly PartState[];
  readonly receiver?: Scope['receiver'];
  readonly directionDeg?: number;
  readonly bandwidthHz?: number;
  readonly atMs?: number;
  /** Readings that it must rest on at least. */
  readonly count?: number;
}

/** Whether a figure speaks for a question. Stretched: it does, with so much more doubt. Not: the first reason, in words. */
export type Holding =
  | { readonly state: 'covers' }
  | { readonly state: 'stretched'; readonly addsDb: number; readonly because: string }
  | { readonly state: 'not'; readonly reason: string };

/** One dimension looked at: nothing to say, a stretch, or a refusal. */
type Look = undefined | { readonly addsDb: number; readonly because: string } | { readonly reason: string };

/*
 * Rules of stretching. Common practice, no source, unless named; why each is as it is stands in docs/physics.md.
 */
/** Power: up to 6 dB (four times) above the tested one; parts that are linear so far mostly stay so. */
const POWER_TIMES = 4;
const POWER_ADDS_DB = 1;
/** Frequency: so much of it beyond the tested band. */
const FREQUENCY_SHARE = 0.02;
const FREQUENCY_ADDS_DB = 1;
/** Place and bearing that a builder can hold: what moved less stands where it stood, with this doubt. */
export const PLACE_M = 0.3;
export const BEARING_DEG = 3;
const PLACE_ADDS_DB = 1;
/** What the plan rounds away, m. */
const SAME_PLACE_M = 0.01;
/** Bandwidth: a tenth either way is the same, ten times either way is stretched by the law of power over bandwidth. */
const SAME_BANDWIDTH = 1.1;
const BANDWIDTH_TIMES = 10;
const BANDWIDTH_ADDS_DB = 0.5;
/** A frequency typed twice differs by no more. */
const ROUNDING = 1e-9;

const bandText = ([low, high]: readonly [number, number]): string =>
  low === high ? `at ${frequencyText(low, 4)}` : `from ${frequencyText(low, 4)} to ${frequencyText(high, 4)}`;

function power({ powerW }: Scope, asked: Question): Look {
  if (asked.powerW === undefined) return undefined;
  if (powerW === undefined) return { reason: 'nobody wrote down with which power it was taken' };
  if (asked.powerW <= powerW * (1 + ROUNDING)) return undefined;
  const [up, to] = [showPower(powerW), showPower(asked.powerW)].map(({ digits, unit }) => `${digits} ${unit}`);
  return asked.powerW <= POWER_TIMES * powerW * (1 + ROUNDING)
    ? { addsDb: POWER_ADDS_DB, because: `from ${up} to ${to}` }
    : { reason: `tested up to ${up}, asked at ${to}` };
}

/** Largest step from a corner of a run, or the height of an end, to where it was before; infinite where it has other corners. */
const movedM = (now: LaidRun, then: LaidRun): number =>
  now.points.length !== then.points.length
    ? Infinity
    : Math.max(
        ...[Math.abs(now.heightM - then.heightM), Math.abs(now.endHeightM - then.endHeightM)],
        ...now.points.map(([x, y], i) => Math.hypot(x - then.points[i][0], y - then.points[i][1])),
      );

/** Angle between the directions from the first corner to the last, degrees. */
function turnedDeg(now: LaidRun, then: LaidRun): number {
  const bearing = ({ points }: LaidRun): number | undefined => {
    const [from, to] = [points[0], points[points.length - 1]];
    return points.length < 2 || Math.hypot(to[0] - from[0], to[1] - from[1]) < SAME_PLACE_M
      ? undefined
      : Math.atan2(to[0] - from[0], to[1] - from[1]);
  };
  const [a, b] = [bearing(now), bearing(then)];
  if (a === undefined || b === undefined) return 0;
  const turn = Math.abs(((a - b) * 180) / Math.PI) % 360;
  return Math.min(turn, 360 - turn);
}

function antennas(scope: Scope, asked: Question): Look {
  if (!asked.antennas) return undefined;
  if (!scope.antennas) return { reason: 'nobody wrote down how the antennas stood' };
  let stretched: Look;
  for (const now of asked.antennas) {
    const then = scope.antennas.find(({ id }) => id === now.id);
    if (!then) return { reason: `it was taken without ${now.name}` };
    if (now.revision !== then.revision) {
      const was = then.revision === undefined ? 'another revision' : `revision ${then.revision}`;
      return {
        reason: `it was taken on ${was} of ${then.name}${now.revision === undefined ? '' : `, now it is revision ${now.revision}`}`,
      };
    }
    const [runs, before] = [now.runs ?? [], then.runs ?? []];
    if ((runs.length === 0) !== (before.length === 0))
      return { reason: `since then ${now.name} was ${runs.length > 0 ? 'laid on' : 'taken off'} the plan` };
    const moved =
      runs.length === before.length ? Math.max(0, ...runs.map((run, i) => movedM(run, before[i]))) : Infinity;
    const turned = Number.isFinite(moved) ? Math.max(0, ...runs.map((run, i) => turnedDeg(run, before[i]))) : 0;
    if (moved <= SAME_PLACE_M) continue;
    if (moved > PLACE_M || turned > BEARING_DEG)
      return {
        reason: Number.isFinite(moved)
          ? `since then ${now.name} was moved by ${moved < 0.995 ? `${fixed(100 * moved, 0)} cm` : `${fixed(moved, 1)} m`}`
          : `since then ${now.name} was laid otherwise`,
      };
    stretched = { addsDb: PLACE_ADDS_DB, because: `${now.name} was moved by ${fixed(100 * moved, 0)} cm` };
  }
  const gone = scope.antennas.find(({ id }) => !asked.antennas?.some((one) => one.id === id));
  return gone ? { reason: `since then ${gone.name} was taken out` } : stretched;
}

function parts(scope: Scope, asked: Question): Look {
  if (!asked.parts) return undefined;
  if (!scope.parts) return { reason: 'nobody wrote down with which parts it was taken' };
  const then = new Map(scope.parts.map((part) => [part.id, part]));
  const now = new Set(asked.parts.map(({ id }) => id));
  // what went or came says more than what it changed at its neighbours
  const gone = scope.parts.find(({ id }) => !now.has(id));
  if (gone) return { reason: `since then ${gone.name} was taken out` };
  const come = asked.parts.find(({ id }) => !then.has(id));
  if (come) return { reason: `since then ${come.name} was put in` };
  const other = asked.parts.find(({ id, state }) => then.get(id)?.state !== state);
  return other && { reason: `since then ${other.name} was changed or connected differently` };
}

function receiver(scope: Scope, asked: Question): Look {
  if (!asked.receiver) return undefined;
  if (!scope.receiver) return { reason: 'nobody wrote down with which receiver it was taken' };
  if (scope.receiver.id !== asked.receiver.id)
    return { reason: `it was taken with ${scope.receiver.name}, not with ${asked.receiver.name}` };
  return scope.receiver.gain === asked.receiver.gain
    ? undefined
    : { reason: `it was taken at another gain of ${asked.receiver.name}` };
}

function frequency({ frequenciesHz }: Scope, { freqHz }: Question): Look {
  if (freqHz === undefined) return undefined;
  if (!frequenciesHz || frequenciesHz.length === 0)
    return { reason: 'nobody wrote down at which frequency it was taken' };
  if (frequenciesHz.some(([low, high]) => freqHz >= low * (1 - ROUNDING) && freqHz <= high * (1 + ROUNDING)))
    return undefined;
  const near = frequenciesHz.find(
    ([low, high]) => freqHz >= low * (1 - FREQUENCY_SHARE) && freqHz <= high * (1 + FREQUENCY_SHARE),
  );
  if (near) return { addsDb: FREQUENCY_ADDS_DB, because: `${bandText(near)}, asked at ${frequencyText(freqHz, 4)}` };
  const [closest] = [...frequenciesHz].sort((a, b) => away(a, freqHz) - away(b, freqHz));
  return { reason: `tested ${bandText(closest)}, asked at ${frequencyText(freqHz, 4)}` };
}
const away = ([low, high]: readonly [number, number], freqHz: number): number =>
  Math.max(Math.log(low / freqHz), Math.log(freqHz / high));

function direction({ directionsDeg }: Scope, { directionDeg }: Question): Look {
  if (directionDeg === undefined) return undefined;
  if (!directionsDeg) return { reason: 'nobody wrote down in which directions it was taken' };
  const turn = (deg: number): number => ((deg % 360) + 360) % 360;
  return directionsDeg.some(([from, to]) => to - from >= 360 || turn(directionDeg - from) <= turn(to - from))
    ? undefined
    : { reason: `nothing was measured toward ${fixed(turn(directionDeg), 0)}°` };
}

function bandwidth(scope: Scope, { bandwidthHz }: Question): Look {
  if (bandwidthHz === undefined) return undefined;
  if (scope.bandwidthHz === undefined) return { reason: 'nobody wrote down in which bandwidth it was taken' };
  const times = Math.max(bandwidthHz / scope.bandwidthHz, scope.bandwidthHz / bandwidthHz);
  if (times <= SAME_BANDWIDTH) return undefined;
  const words = `in ${frequencyText(scope.bandwidthHz, 3)}, asked in ${frequencyText(bandwidthHz, 3)}`;
  return times <= BANDWIDTH_TIMES ? { addsDb: BANDWIDTH_ADDS_DB, because: words } : { reason: `taken ${words}` };
}

function times(scope: Scope, { atMs }: Question): Look {
  if (atMs === undefined) return undefined;
  if (!scope.times) return { reason: 'nobody wrote down when it was taken' };
  const day = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
  return atMs >= scope.times.fromMs && atMs <= scope.times.toMs
    ? undefined
    : { reason: `taken from ${day(scope.times.fromMs)} to ${day(scope.times.toMs)} only` };
}

function quality({ quality: { count, clipped = 0, dropped = 0, agc } = {} }: Evidence<unknown>, asked: Question): Look {
  if (asked.count !== undefined && (count ?? 0) < asked.count)
    return { reason: `it rests on ${count ?? 0} of the ${asked.count} readings that it needs` };
  if (clipped > 0) return { reason: `${clipped} samples stood at full scale` };
  if (dropped > 0) return { reason: `${dropped} samples were lost` };
  return agc === true ? { reason: 'the automatic gain control was on, so levels are no levels' } : undefined;
}

/**
 * Whether a figure speaks for a question, dimension by dimension: quality, parts, antennas, receiver, frequency, power, direction, bandwidth, time.
 * What was not written down covers nothing. Stretches add up.
 */
export function holdsFor(evidence: Evidence<unknown>, asked: Question): Holding {
  const { scope } = evidence;
  const looks = [
    quality(evidence, asked),
    ...[parts, antennas, receiver, frequency, power, direction, bandwidth, times].map((look) => look(scope, asked)),
  ];
  const refusal = looks.find((look) => look !== undefined && 'reason' in look);
  if (refusal && 'reason' in refusal) return { state: 'not', reason: refusal.reason };
  const stretches = looks.flatMap((look) => (look && 'addsDb' in look ? [look] : []));
  return stretches.length === 0
    ? { state: 'covers' }
    : {
        state: 'stretched',
        addsDb: stretches.reduce((sum, { addsDb }) => sum + addsDb, 0),
        because: stretches.map(({ because }) => because).join('; '),
      };
}
