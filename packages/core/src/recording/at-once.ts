import { requirePositive, requireRange, ShapeError } from '../errors';
import type { TrialPair } from '../trial/verdict';
import { type BandSeries, levelOver } from './band-levels';

/** Two antennas on two receivers at the same moments, block by block. */
export interface AtOnce {
  /** Levels in dBFS; A is what the first channel heard at the beginning. */
  readonly pairs: readonly (TrialPair & { readonly atS: number })[];
  /** Second receiver less the first, dB; null where the antennas were never exchanged: then it is in every difference. */
  readonly receivers: { readonly levelDb: number; readonly noiseDb: number } | null;
}

/** Left out about the moment at which antennas are exchanged, s. */
const SETTLE_S = 1;

interface BlockLevels {
  readonly atS: number;
  readonly first: ReturnType<typeof levelOver>;
  readonly second: ReturnType<typeof levelOver>;
}

/** Mean of second less first; undefined where either was never read. */
function meanLess(blocks: readonly BlockLevels[], of: 'levelDbfs' | 'noiseDbfs'): number | undefined {
  const all = blocks.flatMap(({ first, second }) => {
    const [a, b] = [first[of], second[of]];
    return a === null || b === null ? [] : [b - a];
  });
  return all.length === 0 ? undefined : all.reduce((sum, one) => sum + one, 0) / all.length;
}

/**
 * Two channels against each other in blocks of the same time: no fading stands between them. Exchanging the antennas once takes out what the
 * two receivers differ by, with as many blocks before it as after: d = (B − A) + g before, (A − B) + g after.
 * @param exchangedAtS moment at which the antennas were exchanged, s; null: never.
 * @throws OutOfRangeError, ShapeError where there is no whole block on both sides.
 * Source: the exchange is the usual way to take an instrument out of a comparison (common practice, no source).
 */
export function pairsAtOnce(
  first: BandSeries,
  second: BandSeries,
  { blockS, exchangedAtS }: { readonly blockS: number; readonly exchangedAtS: number | null },
): AtOnce {
  requirePositive(blockS, 'Length of a block (s)');
  const lengthS = first.startS + first.signal.length * first.stepS;
  if (exchangedAtS !== null) requireRange(exchangedAtS, 'Moment of the exchange (s)', 0, lengthS);
  const size = Math.max(1, Math.round(blockS / first.stepS));
  const index = (s: number): number => Math.round((s - first.startS) / first.stepS);
  const block = (from: number): BlockLevels => ({
    atS: first.startS + (from + size / 2) * first.stepS,
    first: levelOver(first, from, from + size),
    second: levelOver(second, from, from + size),
  });
  const count = Math.min(first.signal.length, second.signal.length);
  const run = (from: number, to: number): BlockLevels[] =>
    Array.from({ length: Math.max(0, Math.floor((to - from) / size)) }, (_, i) => block(from + i * size));
  if (exchangedAtS === null) {
    const all = run(0, count);
    if (all.length === 0) throw new ShapeError('The recording is shorter than one block. Make the blocks shorter.');
    return { pairs: all.map((one) => pairOf(one, { levelDb: 0, noiseDb: 0 }, false)), receivers: null };
  }
  const stop = index(exchangedAtS - SETTLE_S);
  const before = run(stop - size * Math.floor(stop / size), stop);
  const after = run(index(exchangedAtS + SETTLE_S), count);
  const each = Math.min(before.length, after.length);
  if (each === 0)
    throw new ShapeError('There is no whole block before and after the exchange. Make the blocks shorter.');
  const [used, later] = [before.slice(-each), after.slice(0, each)];
  const middle = (of: 'levelDbfs' | 'noiseDbfs'): number =>
    ((meanLess(used, of) ?? meanLess(later, of) ?? 0) + (meanLess(later, of) ?? meanLess(used, of) ?? 0)) / 2;
  const receivers = { levelDb: middle('levelDbfs'), noiseDb: middle('noiseDbfs') };
  return {
    pairs: [...used.map((one) => pairOf(one, receivers, false)), ...later.map((one) => pairOf(one, receivers, true))],
    receivers,
  };
}

function pairOf(
  { atS, first, second }: BlockLevels,
  { levelDb, noiseDb }: { readonly levelDb: number; readonly noiseDb: number },
  exchanged: boolean,
) {
  const own = { level: first.levelDbfs, noise: first.noiseDbfs };
  const other = {
    level: second.levelDbfs === null ? null : second.levelDbfs - levelDb,
    noise: second.noiseDbfs - noiseDb,
  };
  const [a, b] = exchanged ? [other, own] : [own, other];
  return { atS, levelADbm: a.level, noiseADbm: a.noise, levelBDbm: b.level, noiseBDbm: b.noise };
}
