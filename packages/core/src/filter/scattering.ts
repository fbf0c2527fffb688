import { add, complex, divide, multiply, subtract, type Complex } from '../numeric/complex';
import { ladderChain, type Branch } from './ladder';

/** The four scattering parameters of a filter at one frequency, on its line's resistance. */
export interface Scattering {
  readonly s11: Complex;
  readonly s21: Complex;
  readonly s12: Complex;
  readonly s22: Complex;
}

/** Scattering parameters of a ladder of lossy parts. Source: Pozar, Microwave Engineering, table 4.2. */
export function ladderScattering(
  branches: readonly Branch[],
  freqHz: number,
  lineOhm: number,
  coilOhm: (henry: number) => number = () => 0,
): Scattering {
  const { a, b, c, d } = ladderChain(branches, freqHz, coilOhm);
  const bn = complex(b.re / lineOhm, b.im / lineOhm);
  const cn = complex(c.re * lineOhm, c.im * lineOhm);
  const sum = add(add(a, d), add(bn, cn));
  const det = subtract(multiply(a, d), multiply(b, c));
  return {
    s11: divide(subtract(add(a, bn), add(cn, d)), sum),
    s12: divide(complex(2 * det.re, 2 * det.im), sum),
    s21: divide(complex(2), sum),
    s22: divide(subtract(add(bn, d), add(a, cn)), sum),
  };
}

/** A filter as a two-port Touchstone 1.1 file: S11 S21 S12 S22 as real and imaginary parts. */
export function filterTouchstone(
  branches: readonly Branch[],
  freqsHz: readonly number[],
  lineOhm: number,
  coilOhm?: (henry: number) => number,
): string {
  const pair = ({ re, im }: Complex): string => `${re} ${im}`;
  const rows = freqsHz.map((freqHz) => {
    const s = ladderScattering(branches, freqHz, lineOhm, coilOhm);
    return [freqHz, pair(s.s11), pair(s.s21), pair(s.s12), pair(s.s22)].join(' ');
  });
  return [`! model, ladder of ${branches.length} branches`, `# Hz S RI R ${lineOhm}`, ...rows, ''].join('\n');
}
