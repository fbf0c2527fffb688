import { reflectionOf } from '../line/reflection';
import {
  add,
  complex,
  divide,
  fromPolar,
  magnitude,
  multiply,
  scale,
  subtract,
  type Complex,
} from '../numeric/complex';
import { linesOf } from './lines';
import {
  MAX_SWEEP_POINTS,
  readOptions,
  SweepFileError,
  TOUCHSTONE_DEFAULTS,
  type TouchstoneOptions,
} from './touchstone';

/** Gain at one frequency, dB; a loss is negative. */
export interface TransferPoint {
  readonly freqHz: number;
  readonly gainDb: number;
}

/** Noise parameters of a two-port at one frequency, as the file's noise rows give them. */
interface NoisePoint {
  readonly freqHz: number;
  readonly minimumNoiseFigureDb: number;
  /** Noise figure fed from 50 Ω, dB. */
  readonly noiseFigureDb: number;
}

/** A two-port as an application in 50 Ω meets it. */
export interface TwoPort {
  /** |S21| between 50 Ω and 50 Ω, rising frequencies. */
  readonly points: readonly TransferPoint[];
  readonly noise: readonly NoisePoint[];
  /** Reference of the file; other than 50 Ω, the parameters were converted. */
  readonly referenceOhm: number;
}

/** Application's reference. */
const SYSTEM_OHM = 50;
/** Below this |S21| the file holds the instrument's floor, not the part. */
const FLOOR_DB = -200;

type Matrix = readonly [Complex, Complex, Complex, Complex];
const ONE = complex(1);

/** Chain matrix A, B, C, D of S parameters. Source: Pozar, Microwave Engineering, table 4.2 (from memory). */
function chainOfS([s11, s21, s12, s22]: Matrix, ohm: number): Matrix {
  const twice = scale(s21, 2);
  const product = multiply(s12, s21);
  const over = (value: Complex): Complex => divide(value, twice);
  return [
    over(add(multiply(add(ONE, s11), subtract(ONE, s22)), product)),
    scale(over(subtract(multiply(add(ONE, s11), add(ONE, s22)), product)), ohm),
    scale(over(subtract(multiply(subtract(ONE, s11), subtract(ONE, s22)), product)), 1 / ohm),
    over(add(multiply(subtract(ONE, s11), add(ONE, s22)), product)),
  ];
}

/** S21 of a chain matrix: 2 / (A + B/Z0 + C·Z0 + D). */
const s21OfChain = ([a, b, c, d]: Matrix, ohm: number): Complex =>
  divide(complex(2), add(add(a, scale(b, 1 / ohm)), add(scale(c, ohm), d)));

/** S parameters of normalised impedances: (z − 1)(z + 1)⁻¹. */
function sOfZ([z11, z21, z12, z22]: Matrix): Matrix {
  const det = subtract(multiply(add(z11, ONE), add(z22, ONE)), multiply(z12, z21));
  return [
    divide(subtract(multiply(subtract(z11, ONE), add(z22, ONE)), multiply(z12, z21)), det),
    divide(scale(z21, 2), det),
    divide(scale(z12, 2), det),
    divide(subtract(multiply(add(z11, ONE), subtract(z22, ONE)), multiply(z12, z21)), det),
  ];
}

/** S parameters of normalised admittances: (1 − y)(1 + y)⁻¹. */
function sOfY([y11, y21, y12, y22]: Matrix): Matrix {
  const det = subtract(multiply(add(ONE, y11), add(ONE, y22)), multiply(y12, y21));
  return [
    divide(add(multiply(subtract(ONE, y11), add(ONE, y22)), multiply(y12, y21)), det),
    divide(scale(y21, -2), det),
    divide(scale(y12, -2), det),
    divide(add(multiply(add(ONE, y11), subtract(ONE, y22)), multiply(y12, y21)), det),
  ];
}

/** Forward gain between 50 Ω and 50 Ω, dB. @throws SweepFileError where the parameters have none. */
function gainDb(values: readonly number[], options: TouchstoneOptions, line: number): number {
  const pair = (k: number): Complex => {
    const [a, b] = [values[k], values[k + 1]];
    return options.numbers === 'RI' ? complex(a, b) : fromPolar(options.numbers === 'DB' ? 10 ** (a / 20) : a, b);
  };
  // as written, to the last digit, where nothing has to be converted
  if (options.parameter === 'S' && options.numbers === 'DB' && options.referenceOhm === SYSTEM_OHM)
    return Math.max(FLOOR_DB, values[3]);
  const read: Matrix = [pair(1), pair(3), pair(5), pair(7)];
  const s = options.parameter === 'Z' ? sOfZ(read) : options.parameter === 'Y' ? sOfY(read) : read;
  const forward = magnitude(s[1]);
  const through =
    options.referenceOhm === SYSTEM_OHM || forward === 0
      ? forward
      : magnitude(s21OfChain(chainOfS(s, options.referenceOhm), SYSTEM_OHM));
  if (!Number.isFinite(through))
    throw new SweepFileError(line, 'these parameters have no finite gain. Correct or delete that row.');
  return through === 0 ? FLOOR_DB : Math.max(FLOOR_DB, 20 * Math.log10(through));
}

/** Noise figure fed from 50 Ω: F = Fmin + 4·rn·|Γs − Γopt|² / ((1 − |Γs|²)·|1 + Γopt|²), rn and Γ against the file's reference. */
function noisePoint(values: readonly number[], unitHz: number, referenceOhm: number): NoisePoint {
  const [freq, minimumNoiseFigureDb, size, angle, rn] = values;
  const optimum = fromPolar(size, angle);
  const source = reflectionOf(complex(SYSTEM_OHM), referenceOhm);
  const away = magnitude(subtract(source, optimum)) ** 2;
  const share = (1 - magnitude(source) ** 2) * magnitude(add(ONE, optimum)) ** 2;
  const factor = 10 ** (minimumNoiseFigureDb / 10) + (4 * rn * away) / share;
  return { freqHz: freq * unitHz, minimumNoiseFigureDb, noiseFigureDb: 10 * Math.log10(factor) };
}

const PER_ROW = 9;
const PER_NOISE_ROW = 5;

/**
 * Reads a two-port Touchstone 1.1 file: S, Z or Y; RI, MA or DB; any reference (converted to 50 Ω); rows wrapped over lines; noise rows behind the others.
 * @throws SweepFileError with the line number.
 */
export function readTwoPort(text: string): TwoPort {
  let options: TouchstoneOptions | undefined;
  const points: TransferPoint[] = [];
  const noise: NoisePoint[] = [];
  let open: number[] = [];
  let openLine = 0;
  let lastHz = -1;
  const whole = (): void => {
    const current = options ?? TOUCHSTONE_DEFAULTS;
    const freqHz = open[0] * current.unitHz;
    if (!(freqHz >= 0) || freqHz > 1e12)
      throw new SweepFileError(
        openLine,
        'the frequency is negative or beyond 1000 GHz. Correct that row, or the unit in the option line.',
      );
    if (freqHz <= lastHz) throw new SweepFileError(openLine, 'the frequencies must ascend. Sort the rows.');
    if (points.length >= MAX_SWEEP_POINTS)
      throw new SweepFileError(openLine, 'the file is too long. Export fewer points.');
    const gain = gainDb(open, current, openLine);
    lastHz = freqHz;
    // at direct current a curve over a logarithmic axis has no place; the first point above it stands for it
    if (freqHz > 0) points.push({ freqHz, gainDb: gain });
    open = [];
  };
  for (const { line, text: raw } of linesOf(text)) {
    const content = raw.split('!')[0].trim();
    if (content === '') continue;
    if (content.startsWith('['))
      throw new SweepFileError(line, 'this is version 2 of the format. Export version 1.1, or as S parameters (.s2p).');
    if (content.startsWith('#')) {
      if (options === undefined && points.length + open.length > 0)
        throw new SweepFileError(line, 'the option line stands behind data. Move it above the first row.');
      options ??= readOptions(content, line); // the standard: later option lines are ignored
      continue;
    }
    const words = content.split(/\s+/);
    const numbers = words.map(Number);
    const bad = words.find((_, i) => !Number.isFinite(numbers[i]));
    if (bad !== undefined)
      throw new SweepFileError(line, `"${bad.slice(0, 40)}" is not a number. Correct or delete that row.`);
    const current = options ?? TOUCHSTONE_DEFAULTS;
    if (open.length > 0) {
      // rows of three whose first number rises are those of one port, not a wrapped row
      const onePort = open.length === 3 && numbers.length === 3 && numbers[0] > open[0];
      if (onePort || open.length + numbers.length > PER_ROW)
        throw new SweepFileError(
          openLine,
          `a row of a two-port needs 9 numbers and has ${open.length}. Export it as .s2p.`,
        );
      open.push(...numbers);
    } else if (
      points.length > 0 &&
      numbers.length === PER_NOISE_ROW &&
      (noise.length > 0 || numbers[0] * current.unitHz <= lastHz)
    ) {
      const [freq, minimum, size, , rn] = numbers;
      const last = noise.at(-1)?.freqHz ?? -1;
      if (freq * current.unitHz <= last || minimum < 0 || size < 0 || size > 1 || rn < 0)
        throw new SweepFileError(line, 'this noise row is out of order or impossible. Correct or delete it.');
      noise.push(noisePoint(numbers, current.unitHz, current.referenceOhm));
      continue;
    } else if (noise.length > 0 || numbers.length > PER_ROW)
      throw new SweepFileError(
        line,
        `a row of a two-port needs 9 numbers and has ${numbers.length}. Export it as .s2p.`,
      );
    else {
      open = numbers;
      openLine = line;
    }
    if (open.length === PER_ROW) whole();
  }
  if (open.length > 0)
    throw new SweepFileError(
      openLine,
      `a row of a two-port needs 9 numbers and has ${open.length}. Export it as .s2p.`,
    );
  if (points.length === 0) throw new SweepFileError(1, 'the file holds no data. Export it again as .s2p.');
  return { points, noise, referenceOhm: (options ?? TOUCHSTONE_DEFAULTS).referenceOhm };
}

/** Area of the triangle that a point spans with its neighbours. */
const triangle = (points: readonly TransferPoint[], a: number, b: number, c: number): number => {
  const [x0, x1, x2] = [a, b, c].map((i) => Math.log(points[i].freqHz));
  const [y0, y1, y2] = [a, b, c].map((i) => points[i].gainDb);
  return Math.abs((x0 - x2) * (y1 - y0) - (x0 - x1) * (y2 - y0));
};

/**
 * At most so many points that keep the curve: those whose leaving out changes it least go first (Visvalingam & Whyatt 1993), by a heap of areas, so that
 * 200,001 points take a fraction of a second.
 */
export function thinTransfer(points: readonly TransferPoint[], most: number): readonly TransferPoint[] {
  const n = points.length;
  const keep = Math.max(2, most);
  if (n <= keep) return points;
  const before = Int32Array.from({ length: n }, (_, i) => i - 1);
  const after = Int32Array.from({ length: n }, (_, i) => i + 1);
  const area = Float64Array.from({ length: n }, (_, i) =>
    i === 0 || i === n - 1 ? Infinity : triangle(points, i - 1, i, i + 1),
  );
  const heap = Int32Array.from({ length: n }, (_, i) => i);
  const place = Int32Array.from({ length: n }, (_, i) => i);
  let size = n;
  const swap = (i: number, j: number): void => {
    [heap[i], heap[j]] = [heap[j], heap[i]];
    place[heap[i]] = i;
    place[heap[j]] = j;
  };
  const sink = (from: number): void => {
    for (let i = from; ;) {
      let least = i;
      for (const child of [2 * i + 1, 2 * i + 2])
        if (child < size && area[heap[child]] < area[heap[least]]) least = child;
      if (least === i) return;
      swap(i, least);
      i = least;
    }
  };
  const rise = (from: number): void => {
    for (let i = from; i > 0 && area[heap[i]] < area[heap[(i - 1) >> 1]]; i = (i - 1) >> 1) swap(i, (i - 1) >> 1);
  };
  for (let i = (n >> 1) - 1; i >= 0; i -= 1) sink(i);
  const gone = new Uint8Array(n);
  while (size > keep) {
    const i = heap[0];
    size -= 1;
    swap(0, size);
    sink(0);
    gone[i] = 1;
    const [left, right] = [before[i], after[i]];
    after[left] = right;
    before[right] = left;
    for (const one of [left, right]) {
      if (one === 0 || one === n - 1) continue;
      // never below what was taken out: the order of importance stays
      area[one] = Math.max(area[i], triangle(points, before[one], one, after[one]));
      sink(place[one]);
      rise(place[one]);
    }
  }
  return points.filter((_, i) => gone[i] === 0);
}
