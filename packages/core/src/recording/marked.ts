import { ShapeError } from '../errors';
import { median } from '../numeric/statistics';
import type { BandSeries } from './band-levels';

/** A stretch of a recording in which the antenna pointed one way. */
export interface DirectionMark {
  readonly startS: number;
  readonly stopS: number;
  readonly deg: number;
}

/** Turning takes a moment: this share at either end of a stretch is left out. */
const TURNING_SHARE = 0.15;
const LEAST_VALUES = 3;

/** Directions in the marks of a recording: a label that is a number, with or without a degree sign. */
export const directionsIn = (
  marks: readonly { readonly startS: number; readonly stopS: number; readonly text: string }[],
): readonly DirectionMark[] =>
  marks.flatMap(({ startS, stopS, text }) => {
    const deg = /^\s*([-−]?\d+(?:\.\d+)?)\s*°?\s*$/.exec(text)?.[1];
    return deg === undefined ? [] : [{ startS, stopS, deg: Number(deg.replace('−', '-')) }];
  });

/**
 * Typed marks: a line is the second at which the antenna came to stand, and the direction; each lasts until the next.
 * @throws ShapeError for a line that is none, or times that do not ascend.
 */
export function typedMarks(text: string, lengthS: number): readonly DirectionMark[] {
  const lines = text
    .split(/\n|;/)
    .map((line) => line.trim())
    .filter(Boolean);
  const read = lines.map((line) => {
    const found = /^(\d+(?:\.\d+)?)\s*s?[\s,:]+([-−]?\d+(?:\.\d+)?)°?$/.exec(line);
    if (!found) throw new ShapeError(`"${line.slice(0, 30)}" is no second with its direction. Write it as 12.5 30.`);
    return { startS: Number(found[1]), deg: Number(found[2].replace('−', '-')) };
  });
  return read.map(({ startS, deg }, i) => {
    const stopS = read[i + 1]?.startS ?? lengthS;
    if (stopS <= startS)
      throw new ShapeError(
        `The direction ${deg}° begins at ${startS} s, and ends at ${stopS} s. Put the lines in order, within the recording.`,
      );
    return { startS, stopS, deg };
  });
}

/**
 * Level in the signal's band while the antenna pointed each way: the median of power, so that a crash does not count.
 * @returns pairs of degrees and dB of full scale. @throws ShapeError for a stretch too short to hold three values.
 */
export function levelsAtMarks(
  { startS, stepS, signal }: BandSeries,
  marks: readonly DirectionMark[],
): readonly (readonly [deg: number, dbfs: number])[] {
  return marks.map((mark) => {
    const margin = TURNING_SHARE * (mark.stopS - mark.startS);
    const from = Math.max(0, Math.ceil((mark.startS + margin - startS) / stepS));
    const to = Math.min(signal.length, Math.floor((mark.stopS - margin - startS) / stepS) + 1);
    if (to - from < LEAST_VALUES)
      throw new ShapeError(`The stretch of ${mark.deg}° is too short to be read. Let the antenna stand longer.`);
    return [mark.deg, 10 * Math.log10(Math.max(1e-30, median([...signal.subarray(from, to)])))];
  });
}
