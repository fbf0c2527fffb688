import { complex, fromPolar, type Complex } from '../numeric/complex';
import { gammaOfSwr, reflectionOf } from '../line/reflection';
import { MAX_SWEEP_POINTS, readTouchstone, SweepFileError, type SweepData } from './touchstone';

/** What a column heading means; the first pattern that fits wins. */
const HEADINGS: readonly { readonly is: RegExp; readonly column: Column }[] = [
  { is: /^(freq|f)\b|^frequency/, column: 'freq' },
  { is: /^(s11|gamma|rho)?[ _(]*re(al)?\b/, column: 'gammaRe' },
  { is: /^(s11|gamma|rho)?[ _(]*im(ag)?\b/, column: 'gammaIm' },
  { is: /phase|angle|deg/, column: 'angle' },
  { is: /(s11|gamma).*db|^return ?loss|^rl\b/, column: 'gammaDb' },
  { is: /^(s11|gamma|rho).*mag|^\|?(s11|gamma|rho)\|?$/, column: 'gammaMag' },
  { is: /^(r|rs|resistance)\b/, column: 'r' },
  { is: /^(x|xs|reactance)\b/, column: 'x' },
  { is: /^v?swr/, column: 'swr' },
];
type Column = 'freq' | 'gammaRe' | 'gammaIm' | 'gammaMag' | 'gammaDb' | 'angle' | 'r' | 'x' | 'swr';
const UNIT_HZ: Readonly<Record<string, number>> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** Splits at the separator that the heading uses; decimal commas are allowed when the separator is a semicolon or a tab. */
function splitter(heading: string): (line: string) => string[] {
  const separator = heading.includes(';') ? ';' : heading.includes('\t') ? '\t' : ',';
  return (line) => line.split(separator).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
}

/** A sweep from a table, with the quantities the table held. An SWR alone has no phase: `phaseKnown` is false. */
export interface CsvSweep extends SweepData {
  readonly phaseKnown: boolean;
}

/**
 * Reads a table with a heading: frequency (unit in the heading, else Hz, or MHz if all values are below 30 000), and one of
 * re + im, magnitude or dB + angle, R + X, or SWR alone.
 * @throws SweepFileError with the line number.
 */
export function readSweepCsv(text: string, referenceOhm = 50): CsvSweep {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  const headingIndex = lines.findIndex((line) => line.trim() !== '' && !/^[#!]/.test(line.trim()));
  if (headingIndex < 0) throw new SweepFileError(1, 'the table is empty. Export it again with a heading row.');
  const split = splitter(lines[headingIndex]);
  const headings = split(lines[headingIndex]).map((cell) => cell.toLowerCase().replaceAll('_', ' '));
  const columns = headings.map((cell) => HEADINGS.find(({ is }) => is.test(cell))?.column);
  const at = (column: Column): number => columns.indexOf(column);
  const kind = pickKind(at);
  if (at('freq') < 0 || !kind)
    throw new SweepFileError(
      headingIndex + 1,
      'the heading must name a frequency and one of: re and im, magnitude (or dB) and phase, R and X, or SWR. Example: "freq_MHz, R, X".',
    );
  const rows: { f: number; gamma: Complex }[] = [];
  for (let i = headingIndex + 1; i < lines.length; i += 1) {
    if (lines[i].trim() === '' || /^[#!]/.test(lines[i].trim())) continue;
    const cells = split(lines[i]);
    const read = (column: Column): number => {
      const cell = cells[at(column)];
      const value = cell === undefined || cell === '' ? NaN : Number(cell.replace(',', '.'));
      if (!Number.isFinite(value))
        throw new SweepFileError(
          i + 1,
          `"${(cell ?? '').slice(0, 40)}" in column ${at(column) + 1} is not a number. Correct or delete that row.`,
        );
      return value;
    };
    const f = read('freq');
    if (f < 0 || (rows.length > 0 && f <= rows[rows.length - 1].f))
      throw new SweepFileError(i + 1, 'the frequency is negative or does not rise from the row before. Sort the rows.');
    if (rows.length >= MAX_SWEEP_POINTS)
      throw new SweepFileError(i + 1, `more than ${MAX_SWEEP_POINTS} points. Export fewer points.`);
    const gamma = kind(read, referenceOhm, i + 1);
    if (!Number.isFinite(gamma.re) || !Number.isFinite(gamma.im))
      throw new SweepFileError(i + 1, 'this row gives no finite reflection. Correct or delete it.');
    rows.push({ f, gamma });
  }
  if (rows.length === 0)
    throw new SweepFileError(lines.length, 'the table ends without a row of data. Export it again.');
  const unit = /\b(ghz|mhz|khz|hz)\b/.exec(headings[at('freq')])?.[1];
  const scale = unit ? UNIT_HZ[unit] : rows[rows.length - 1].f < 30_000 ? 1e6 : 1;
  return {
    freqHz: Float64Array.from(rows, (row) => row.f * scale),
    re: Float64Array.from(rows, (row) => row.gamma.re),
    im: Float64Array.from(rows, (row) => row.gamma.im),
    referenceOhm,
    phaseKnown: kind !== swrOnly,
  };
}

type RowReader = (read: (column: Column) => number, referenceOhm: number, lineNumber: number) => Complex;
const swrOnly: RowReader = (read, _reference, lineNumber) => {
  const swr = read('swr');
  if (swr < 1) throw new SweepFileError(lineNumber, `SWR ${swr} is below 1, which cannot be. Correct that row.`);
  return complex(gammaOfSwr(swr));
};

function pickKind(at: (column: Column) => number): RowReader | undefined {
  if (at('gammaRe') >= 0 && at('gammaIm') >= 0) return (read) => complex(read('gammaRe'), read('gammaIm'));
  if (at('gammaMag') >= 0 && at('angle') >= 0) return (read) => fromPolar(read('gammaMag'), read('angle'));
  if (at('gammaDb') >= 0 && at('angle') >= 0)
    return (read) => fromPolar(10 ** (-Math.abs(read('gammaDb')) / 20), read('angle'));
  if (at('r') >= 0 && at('x') >= 0) return (read, reference) => reflectionOf(complex(read('r'), read('x')), reference);
  if (at('swr') >= 0) return swrOnly;
  return undefined;
}

/** Reads either format by what the text looks like: a comma or semicolon heading with letters is a table. */
export function readSweepText(text: string): CsvSweep {
  const first = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .find((line) => line.trim() !== '' && !/^[!]/.test(line.trim()));
  if (
    first !== undefined &&
    !/^[#[]/.test(first.trim()) &&
    /[a-z]{1,}.*[,;\t]/i.test(first) &&
    !/^[-+.\d]/.test(first.trim())
  )
    return readSweepCsv(text);
  return { ...readTouchstone(text), phaseKnown: true };
}
