import type { TransferPoint } from '../path/stages';
import { SweepFileError } from './touchstone';

const UNIT_HZ: Readonly<Record<string, number>> = { HZ: 1, KHZ: 1e3, MHZ: 1e6, GHZ: 1e9 };
const MOST_ROWS = 200_001;

/**
 * Gain over frequency (|S21|) of a two-port Touchstone 1.1 file: nine numbers a row, S11 S21 S12 S22; RI, MA or DB; any reference.
 * @throws SweepFileError with the line number.
 */
export function readTwoPort(text: string): readonly TransferPoint[] {
  let unitHz = 1e9;
  let format = 'MA';
  const points: TransferPoint[] = [];
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .forEach((line, i) => {
      const content = line.split('!')[0].trim();
      if (content === '') return;
      if (content.startsWith('#')) {
        const words = content.slice(1).trim().toUpperCase().split(/\s+/);
        unitHz = UNIT_HZ[words.find((word) => word in UNIT_HZ) ?? 'GHZ'];
        format = words.find((word) => ['RI', 'MA', 'DB'].includes(word)) ?? 'MA';
        if (words.some((word) => ['Y', 'Z', 'H', 'G'].includes(word)))
          throw new SweepFileError(i + 1, 'only S parameters are read for a two-port. Export it as S parameters.');
        return;
      }
      const numbers = content.split(/\s+/).map(Number);
      if (numbers.length !== 9 || !numbers.every(Number.isFinite))
        throw new SweepFileError(
          i + 1,
          `a row of a two-port needs 9 numbers and has ${numbers.length}. Export it as .s2p.`,
        );
      const freqHz = numbers[0] * unitHz;
      if (!(freqHz > 0)) throw new SweepFileError(i + 1, 'the frequency must be above zero. Delete that row.');
      if (points.length > 0 && freqHz <= points[points.length - 1].freqHz)
        throw new SweepFileError(i + 1, 'the frequencies must ascend. Sort the rows.');
      if (points.length >= MOST_ROWS) throw new SweepFileError(i + 1, 'the file is too long. Export fewer points.');
      const [a, b] = [numbers[3], numbers[4]];
      const size = format === 'RI' ? Math.hypot(a, b) : a;
      points.push({ freqHz, gainDb: format === 'DB' ? a : 20 * Math.log10(Math.max(1e-9, size)) });
    });
  if (points.length === 0) throw new SweepFileError(1, 'the file holds no data. Export it again as .s2p.');
  return points;
}

/** At most so many points that keep the curve: those whose leaving out changes it most are kept (Visvalingam & Whyatt 1993). */
export function thinTransfer(points: readonly TransferPoint[], most: number): readonly TransferPoint[] {
  const kept = points.map(({ freqHz, gainDb }) => ({ freqHz, gainDb }));
  const area = (i: number): number => {
    const [a, b, c] = [kept[i - 1], kept[i], kept[i + 1]].map(({ freqHz, gainDb }) => [Math.log(freqHz), gainDb]);
    return Math.abs((a[0] - c[0]) * (b[1] - a[1]) - (a[0] - b[0]) * (c[1] - a[1]));
  };
  if (kept.length > 20 * most) {
    // very long files are first thinned evenly, so that this stays quick
    const even = 20 * most - 1;
    const step = kept.length / even;
    return thinTransfer(
      Array.from({ length: even }, (_, i) => points[Math.floor(i * step)]).concat(points.slice(-1)),
      most,
    );
  }
  while (kept.length > Math.max(2, most)) {
    let least = 1;
    for (let i = 2; i < kept.length - 1; i += 1) if (area(i) < area(least)) least = i;
    kept.splice(least, 1);
  }
  return kept;
}
