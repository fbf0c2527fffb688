import { diodeLimiter } from './pads';

/** Points of one period in the figures of a limiter; its curve is smooth near the levels looked at. */
const LIMITER_SAMPLES = 256;
/** The intercept of a limiter is read this far under its compression, dB. */
const UNDER_COMPRESSION_DB = 10;
const limiters = new Map<string, { readonly p1Dbm: number; readonly iip3Dbm: number }>();

/**
 * Compression and third-order intercept of antiparallel diodes across 50 Ω, by their curve: the level that loses 1 dB more than a faint one, and the
 * intercept that the third harmonic gives 10 dB below that (two equal tones make 9.54 dB more than the harmonic of a cubic law). Diodes do not follow a
 * cubic law: weaker signals make less than this intercept says, stronger ones more. Source: Shockley's equation; power series.
 */
export function limiterFigures(perLeg: number, saturationA: number, emission: number) {
  const key = `${perLeg} ${saturationA} ${emission}`;
  const known = limiters.get(key);
  if (known) return known;
  const at = (availableDbm: number) =>
    diodeLimiter({ availableDbm, saturationA, emission, perLeg, lineOhm: 50 }, LIMITER_SAMPLES);
  const faint = at(FAINT_DBM).lossDb;
  let [low, high] = [FAINT_DBM, STRONG_DBM];
  while (high - low > 1e-3) {
    const middle = (low + high) / 2;
    if (at(middle).lossDb - faint > 1) high = middle;
    else low = middle;
  }
  const below = low - UNDER_COMPRESSION_DB;
  const figures = { p1Dbm: low, iip3Dbm: below - (at(below).thirdDbc + 20 * Math.log10(3)) / 2 };
  limiters.set(key, figures);
  return figures;
}
const FAINT_DBM = -100;
const STRONG_DBM = 60;
