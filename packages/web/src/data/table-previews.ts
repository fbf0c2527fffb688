import { CoreError } from '@velvet-reed/core/errors';
import {
  readFloorCsv,
  readSpectrumCsv,
  readSweepText,
  type TableAnswer,
  TableQuestionError,
} from '@velvet-reed/core/formats';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import type { Preview, PreviewPoint } from './table-answers';

/** Points drawn of a curve. */
const DRAWN = 400;
/** Text that a preview reads; the file itself is read whole elsewhere. */
const LOOKED_AT = 400_000;

const thin = (points: readonly PreviewPoint[]): readonly PreviewPoint[] =>
  points.filter((_, i) => i % Math.ceil(points.length / DRAWN) === 0);
const range = (values: readonly number[], unit: string): string =>
  `${fixed(Math.min(...values), 1)} to ${fixed(Math.max(...values), 1)} ${unit}`;

/** The beginning of a long text, cut at a line. */
const begin = (text: string): string =>
  text.length <= LOOKED_AT ? text : text.slice(0, text.lastIndexOf('\n', LOOKED_AT));

function tried(make: () => Preview): Preview {
  try {
    return make();
  } catch (error) {
    if (error instanceof TableQuestionError) return { fault: error.question.ask };
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}

/** The return loss that an answer gives. */
export const sweepPreview =
  (text: string) =>
  (answer: TableAnswer): Preview =>
    tried(() => {
      const { freqHz, re, im } = readSweepText(begin(text), answer);
      const points = Array.from(freqHz, (x, i) => ({
        x,
        y: 20 * Math.log10(Math.max(1e-6, Math.hypot(re[i], im[i]))),
      }));
      return {
        label: `${frequencyText(freqHz[0])} to ${frequencyText(freqHz[freqHz.length - 1])}, S11 ${range(
          points.map(({ y }) => y),
          'dB',
        )}`,
        points: thin(points),
      };
    });

/** The spectrum that an answer gives. */
export const spectrumPreview =
  (text: string) =>
  (answer: TableAnswer): Preview =>
    tried(() => {
      const { freqHz, levelDb } = readSpectrumCsv(begin(text), answer);
      return {
        label: `${frequencyText(freqHz[0])} to ${frequencyText(freqHz[freqHz.length - 1])}, ${range([...levelDb], 'dB')}`,
        points: thin(Array.from(freqHz, (x, i) => ({ x, y: levelDb[i] }))),
      };
    });

/** The log that an answer gives. */
export const logPreview =
  (text: string, day: string) =>
  (answer: TableAnswer): Preview =>
    tried(() => {
      const readings = readFloorCsv(begin(text), { ...answer, day });
      const time = (ms: number): string => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');
      return {
        label: `${time(readings[0].atMs)} to ${time(readings[readings.length - 1].atMs)} UTC, ${range(
          readings.map(({ levelDbm }) => levelDbm),
          'dBm',
        )}`,
        points: thin(readings.map(({ atMs, levelDbm }) => ({ x: atMs, y: levelDbm }))),
      };
    });

/** Text of a file in UTF-8, or in UTF-16 with its mark. */
export async function fileText(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  return new TextDecoder(mark).decode(bytes);
}
