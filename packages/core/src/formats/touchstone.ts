import { CoreError } from '../errors';
import { angleDeg, type Complex, complex, divide, fromPolar, magnitude, scale } from '../numeric/complex';
import { reflectionOf } from '../line/reflection';
import { linesOf } from './lines';

/** Reflection over frequency as measured or computed: three arrays of one length, ascending frequencies. */
export interface SweepData {
  readonly freqHz: Float64Array;
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** Real reference resistance of the reflections. */
  readonly referenceOhm: number;
}

/** A text file cannot be read as a sweep; says the line and the mend. */
export class SweepFileError extends CoreError {
  readonly code: string = 'SWEEP_FILE';
  constructor(
    readonly lineNumber: number,
    why: string,
  ) {
    super(`Line ${lineNumber}: ${why}`);
  }
}

type TouchstoneParameter = 'S' | 'Z' | 'Y';
type TouchstoneNumbers = 'RI' | 'MA' | 'DB';
type TouchstoneUnit = 'Hz' | 'kHz' | 'MHz' | 'GHz';

const UNIT_HZ: Readonly<Record<string, number>> = { HZ: 1, KHZ: 1e3, MHZ: 1e6, GHZ: 1e9 };
/** Most points read from one file; enough for any pocket analyser, and bounded memory. */
export const MAX_SWEEP_POINTS = 200_001;

export interface TouchstoneOptions {
  readonly unitHz: number;
  readonly parameter: TouchstoneParameter;
  readonly numbers: TouchstoneNumbers;
  readonly referenceOhm: number;
}

/** Without an option line the standard's defaults hold: GHz, S, MA, 50 Ω. */
export const TOUCHSTONE_DEFAULTS: TouchstoneOptions = { unitHz: 1e9, parameter: 'S', numbers: 'MA', referenceOhm: 50 };

export function readOptions(line: string, lineNumber: number): TouchstoneOptions {
  const words = line.slice(1).trim().split(/\s+/).filter(Boolean);
  let options = TOUCHSTONE_DEFAULTS;
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i].toUpperCase();
    if (word in UNIT_HZ) options = { ...options, unitHz: UNIT_HZ[word] };
    else if (word === 'S' || word === 'Z' || word === 'Y') options = { ...options, parameter: word };
    else if (word === 'RI' || word === 'MA' || word === 'DB') options = { ...options, numbers: word };
    else if (word === 'R') {
      const referenceOhm = Number(words[(i += 1)]);
      if (!(referenceOhm > 0) || !Number.isFinite(referenceOhm))
        throw new SweepFileError(
          lineNumber,
          'the reference resistance after R is not a positive number. Write it like "R 50".',
        );
      options = { ...options, referenceOhm };
    } else if (word === 'G' || word === 'H')
      throw new SweepFileError(lineNumber, `${word} parameters belong to two ports. Export S, Z or Y of one port.`);
    else
      throw new SweepFileError(
        lineNumber,
        `"${words[i].slice(0, 20)}" is no option of this format. An option line looks like "# MHz S RI R 50".`,
      );
  }
  return options;
}

const pairOf = (numbers: TouchstoneNumbers, a: number, b: number): Complex =>
  numbers === 'RI' ? complex(a, b) : fromPolar(numbers === 'DB' ? 10 ** (a / 20) : a, b);

/** A value as reflection; Touchstone 1.1 normalises Z and Y to the reference. */
function toReflection(options: TouchstoneOptions, value: Complex, lineNumber: number): Complex {
  const gamma =
    options.parameter === 'S'
      ? value
      : options.parameter === 'Z'
        ? reflectionOf(scale(value, options.referenceOhm), options.referenceOhm)
        : divide(complex(1 - value.re, -value.im), complex(1 + value.re, value.im));
  if (!Number.isFinite(gamma.re) || !Number.isFinite(gamma.im))
    throw new SweepFileError(lineNumber, 'this value gives no finite reflection. Correct or delete that row.');
  return gamma;
}

/**
 * Reads a one-port Touchstone 1.1 file: S, Z or Y; RI, MA or DB; any unit, reference, comments and spacing.
 * @throws SweepFileError with the line number.
 */
export function readTouchstone(text: string): SweepData {
  let options: TouchstoneOptions | undefined;
  const freq: number[] = [];
  const re: number[] = [];
  const im: number[] = [];
  let lineNumber = 1;
  for (const entry of linesOf(text)) {
    lineNumber = entry.line;
    const line = entry.text.split('!')[0].trim();
    if (line === '') continue;
    if (line.startsWith('['))
      throw new SweepFileError(lineNumber, 'this is version 2 of the format. Export version 1.1, or CSV.');
    if (line.startsWith('#')) {
      if (freq.length > 0 && !options)
        throw new SweepFileError(lineNumber, 'the option line stands behind data. Move it above the first row.');
      options ??= readOptions(line, lineNumber); // the standard: later option lines are ignored
      continue;
    }
    const words = line.split(/[\s,;]+/).filter(Boolean);
    if (words.length !== 3)
      throw new SweepFileError(
        lineNumber,
        `this row has ${words.length} number${words.length === 1 ? '' : 's'}; a one-port row needs 3. ${words.length === 9 ? 'This is a two-port file: export the reflection (one port) only.' : 'Complete or delete that row, or export the sweep again.'}`,
      );
    const [f, a, b] = words.map(Number);
    const bad = words.find((_, i) => !Number.isFinite([f, a, b][i]));
    if (bad !== undefined)
      throw new SweepFileError(lineNumber, `"${bad.slice(0, 40)}" is not a number. Correct or delete that row.`);
    const current = options ?? TOUCHSTONE_DEFAULTS;
    const freqHz = f * current.unitHz;
    if (!(freqHz >= 0) || freqHz > 1e12)
      throw new SweepFileError(
        lineNumber,
        options
          ? 'the frequency is negative or beyond 1000 GHz. Correct that row, or the unit in the option line.'
          : `without an option line frequencies count in GHz, and ${f} GHz cannot be. Put a line like "# Hz S MA R 50" above the first row.`,
      );
    if (freq.length > 0 && freqHz <= freq[freq.length - 1])
      throw new SweepFileError(
        lineNumber,
        'the frequency does not rise from the row before. Sort the rows, or export the sweep again.',
      );
    if (freq.length >= MAX_SWEEP_POINTS)
      throw new SweepFileError(
        lineNumber,
        `more than ${MAX_SWEEP_POINTS} points. Export fewer points or a narrower span.`,
      );
    const gamma = toReflection(current, pairOf(current.numbers, a, b), lineNumber);
    freq.push(freqHz);
    re.push(gamma.re);
    im.push(gamma.im);
  }
  if (freq.length === 0)
    throw new SweepFileError(
      lineNumber,
      'the file ends without a row of data. Export the sweep again, as a one-port (.s1p) file.',
    );
  return {
    freqHz: Float64Array.from(freq),
    re: Float64Array.from(re),
    im: Float64Array.from(im),
    referenceOhm: (options ?? TOUCHSTONE_DEFAULTS).referenceOhm,
  };
}

/** How a written file should look. */
export interface TouchstoneFormat {
  readonly parameter?: TouchstoneParameter;
  readonly numbers?: TouchstoneNumbers;
  readonly unit?: TouchstoneUnit;
}

/** Writes a sweep as Touchstone 1.1; every digit is kept, so that reading it back gives the same numbers. */
export function writeTouchstone(sweep: SweepData, format: TouchstoneFormat = {}): string {
  const { parameter = 'S', numbers = 'RI', unit = 'Hz' } = format;
  const rows = Array.from(sweep.freqHz, (freqHz, i) => {
    const gamma = complex(sweep.re[i], sweep.im[i]);
    const one = complex(1);
    const value =
      parameter === 'S'
        ? gamma
        : parameter === 'Z'
          ? divide(complex(1 + gamma.re, gamma.im), complex(1 - gamma.re, -gamma.im))
          : divide(complex(one.re - gamma.re, -gamma.im), complex(1 + gamma.re, gamma.im));
    const size = magnitude(value);
    const pair =
      numbers === 'RI' ? [value.re, value.im] : [numbers === 'DB' ? 20 * Math.log10(size) : size, angleDeg(value)];
    return `${freqHz / UNIT_HZ[unit.toUpperCase()]} ${pair[0]} ${pair[1]}`;
  });
  return [`# ${unit} ${parameter} ${numbers} R ${sweep.referenceOhm}`, ...rows, ''].join('\n');
}
