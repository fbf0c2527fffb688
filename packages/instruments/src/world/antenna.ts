import { finish, sweepModel, type WireModel } from '@velvet-reed/core/solver';

/** Feed impedance at ascending frequencies, Ω. */
interface Impedances {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/** Feed impedance of a hidden antenna over frequency. */
export type AntennaTruth = (freqHz: Float64Array) => Impedances;

/** Impedance on a grid that ascends. */
export interface ImpedanceTable extends Impedances {
  readonly freqHz: Float64Array;
}

const POINTS_PER_OCTAVE = 401;
/** Octaves about the design frequency that the wires are solved for; beyond them the impedance is carried on plainly. */
const OCTAVES_BELOW = 3;
const OCTAVES_ABOVE = 3;

/** Index of the last grid point at or below a frequency, at most the last but one. */
function place(grid: Float64Array, freq: number): number {
  let low = 0;
  let high = grid.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (grid[middle] <= freq) low = middle;
    else high = middle;
  }
  return low;
}

/** Impedance between grid points; below the grid like a short wire (a capacitor whose radiation falls with f²), above it as at its end. */
export function tabulated(table: ImpedanceTable): AntennaTruth {
  const { freqHz: grid, re, im } = table;
  const last = grid.length - 1;
  return (freqHz) => {
    const out = { re: new Float64Array(freqHz.length), im: new Float64Array(freqHz.length) };
    freqHz.forEach((freq, i) => {
      if (freq <= grid[0]) {
        const ratio = freq / grid[0];
        out.re[i] = re[0] * ratio * ratio;
        out.im[i] = Math.min(im[0], -1) / ratio;
      } else if (freq >= grid[last]) {
        out.re[i] = re[last];
        out.im[i] = im[last];
      } else {
        const k = place(grid, freq);
        const share = (freq - grid[k]) / (grid[k + 1] - grid[k]);
        out.re[i] = re[k] + share * (re[k + 1] - re[k]);
        out.im[i] = im[k] + share * (im[k + 1] - im[k]);
      }
    });
    return out;
  };
}

/** Impedance of wires over a span, solved octave by octave. */
export function solvedTable(model: WireModel, lowHz: number, highHz: number): ImpedanceTable {
  const freq: number[] = [];
  const re: number[] = [];
  const im: number[] = [];
  for (let from = lowHz; from < highHz * 0.999; from *= 2) {
    const sweep = finish(
      sweepModel(model, { lowHz: from, highHz: Math.min(highHz, 2 * from), points: POINTS_PER_OCTAVE }),
    );
    const skip = freq.length > 0 ? 1 : 0; // the first point repeats the last of the octave below
    freq.push(...sweep.freqHz.slice(skip));
    re.push(...sweep.resistance.slice(skip));
    im.push(...sweep.reactance.slice(skip));
  }
  return { freqHz: Float64Array.from(freq), re: Float64Array.from(re), im: Float64Array.from(im) };
}

/**
 * The wires as built: each octave is solved when it is first asked for, then remembered.
 * @param aboutHz frequency the antenna is meant for.
 */
export function solvedAntenna(model: WireModel, aboutHz: number): AntennaTruth {
  const octaves = new Map<number, AntennaTruth>();
  const octave = (k: number): AntennaTruth => {
    const known = octaves.get(k);
    if (known) return known;
    const from = aboutHz * 2 ** (k - 0.5);
    const made = tabulated(solvedTable(model, from, 2 * from));
    octaves.set(k, made);
    return made;
  };
  return (freqHz) => {
    const out = { re: new Float64Array(freqHz.length), im: new Float64Array(freqHz.length) };
    let i = 0;
    while (i < freqHz.length) {
      const at = (freq: number): number =>
        Math.max(-OCTAVES_BELOW, Math.min(OCTAVES_ABOVE, Math.floor(Math.log2(freq / aboutHz) + 0.5)));
      const k = at(freqHz[i]);
      let end = i + 1;
      while (end < freqHz.length && at(freqHz[end]) === k) end += 1;
      const z = octave(k)(freqHz.subarray(i, end));
      out.re.set(z.re, i);
      out.im.set(z.im, i);
      i = end;
    }
    return out;
  };
}

/**
 * The same wires made larger by a factor, in free space: every frequency falls by it and the impedance stays. Exact for perfect conductors
 * whose diameters grow along (principle of similitude, Sinclair, Proc. IRE 36 (1948) 1364).
 */
export const scaledAntenna =
  (antenna: AntennaTruth, factor: number): AntennaTruth =>
  (freqHz) =>
    antenna(freqHz.map((freq) => freq * factor));
