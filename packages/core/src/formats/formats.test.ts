import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readTouchstone, type SweepData, SweepFileError, type TouchstoneFormat, writeTouchstone } from './touchstone';

const sweepArb = fc
  .array(
    fc.record({
      step: fc.double({ min: 1, max: 1e6, noNaN: true }),
      re: fc.double({ min: -0.69, max: 0.69, noNaN: true }),
      im: fc.double({ min: -0.69, max: 0.69, noNaN: true }),
    }),
    { minLength: 1, maxLength: 40 },
  )
  .map((rows): SweepData => {
    let freq = 1e6;
    return {
      freqHz: Float64Array.from(rows, (row) => (freq += row.step)),
      re: Float64Array.from(rows, (row) => row.re || 1e-3),
      im: Float64Array.from(rows, (row) => row.im || 1e-3),
      referenceOhm: 50,
    };
  });
const formatArb = fc.record<Required<TouchstoneFormat>>({
  parameter: fc.constantFrom('S', 'Z', 'Y'),
  numbers: fc.constantFrom('RI', 'MA', 'DB'),
  unit: fc.constantFrom('Hz', 'kHz', 'MHz', 'GHz'),
});

describe('Touchstone 1.1', () => {
  test('every parameter, number format and unit comes back within 1e-9', () => {
    fc.assert(
      fc.property(sweepArb, formatArb, (sweep, format) => {
        const back = readTouchstone(writeTouchstone(sweep, format));
        sweep.freqHz.forEach((freq, i) => {
          expect(Math.abs(back.freqHz[i] / freq - 1)).toBeLessThan(1e-9);
          expect(Math.hypot(back.re[i] - sweep.re[i], back.im[i] - sweep.im[i])).toBeLessThan(1e-9);
        });
      }),
      { seed: 21, numRuns: 200 },
    );
  });
  test('no text crashes the reader; every refusal names a line that exists', () => {
    const line = fc.oneof(
      fc.string({ maxLength: 30 }),
      fc.constantFrom(
        '# MHz S RI R 50',
        '! note',
        '1 2 3',
        '2 0.1 0.2 ! end',
        '# GHZ Z MA R 75',
        '[Version] 2.0',
        '1e999 0 0',
        'NaN 1 2',
      ),
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
        const text = lines.join('\n');
        try {
          expect(readTouchstone(text).freqHz.length).toBeGreaterThan(0);
        } catch (error) {
          if (!(error instanceof SweepFileError)) throw error;
          expect(error.lineNumber).toBeGreaterThanOrEqual(1);
          expect(error.lineNumber).toBeLessThanOrEqual(text.split(/\r\n|\n|\r/).length);
          expect(error.message).toMatch(/^Line \d+: .+\.$/s);
        }
      }),
      { seed: 22, numRuns: 500 },
    );
  });
  // Touchstone 1.1 specification: defaults GHz, S, MA, 50 Ω; Z and Y are normalised to the reference.
  test('without an option line the defaults of the standard hold', () => {
    const sweep = readTouchstone('1 0.5 90');
    expect([sweep.freqHz[0], sweep.referenceOhm]).toEqual([1e9, 50]);
    expect(sweep.im[0]).toBeCloseTo(0.5, 12);
  });
  test('normalised impedance 2 on 75 Ω reflects a third', () => {
    expect(readTouchstone('# MHz Z RI R 75\n10 2 0').re[0]).toBeCloseTo(1 / 3, 12);
  });
  test('comments, odd spacing, option words in any order and Windows line ends are read', () => {
    const sweep = readTouchstone(
      '! made by hand\r\n#  R 50   ri s MHZ\r\n\r\n 7.0\t 0.1  -0.2 ! dip\r\n  7.1   .2   0\r\n',
    );
    expect([...sweep.freqHz]).toEqual([7e6, 7.1e6]);
  });
  test.each([
    ['# MHz S RI R 50\n1 2', /Line 2: this row has 2 numbers; a one-port row needs 3/],
    ['# MHz S RI R 50\n1 2 3 4 5 6 7 8 9', /two-port file/],
    ['# MHz S RI R 50\n2 0 0\n1 0 0', /Line 3: the frequency does not rise/],
    ['# MHz S RI R -50', /Line 1: the reference resistance/],
    ['# MHz S XX R 50', /"XX" is no option/],
    ['# MHz S RI R 50\n1 zero 0', /"zero" is not a number/],
    ['! nothing', /ends without a row/],
    ['1 0 0\n# MHz S RI R 50', /Line 2: the option line stands behind data/],
    ['[Version] 2.0', /Export version 1.1/],
    ['# MHz Z RI R 50\n1 -1 0', /no finite reflection/],
  ])('%j is refused with the line and the mend', (text, sentence) => {
    expect(() => readTouchstone(text)).toThrow(sentence);
  });
});
