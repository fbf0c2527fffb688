import { ShapeError } from '../errors';
import type { GainReading } from './setup-card';

/** Units that may stand behind a figure. */
const UNITS = /\s*dB(FS)?\b/gi;

/**
 * Rows of gain and the noise it shows, two figures a line; the first line may be a heading, units may stand behind the figures.
 * @throws ShapeError naming the line that is not two figures: no row is left out in silence.
 */
export function readGainRows(text: string): readonly GainReading[] {
  const lines = text
    .split('\n')
    .map((line, i) => ({ line: line.trim(), number: i + 1 }))
    .filter(({ line }) => line !== '');
  const figures = (line: string): readonly number[] =>
    line
      .replaceAll('−', '-')
      .replace(UNITS, '')
      .split(/[,;\t ]+/)
      .filter(Boolean)
      .map(Number);
  const heading = lines.length > 0 && figures(lines[0].line).every(Number.isNaN) ? 1 : 0;
  return lines.slice(heading).map(({ line, number }): GainReading => {
    const row = figures(line);
    if (row.length !== 2 || !row.every(Number.isFinite))
      throw new ShapeError(
        `Line ${number}, “${line}”, is not two figures. Write the gain in dB and the noise in dBFS, like “10, −97”.`,
      );
    return { gainDb: row[0], noiseDbfs: row[1] };
  });
}
