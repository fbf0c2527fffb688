import { ShapeError } from '@velvet-reed/core/errors';
import type { Spectrum, SweepData } from '@velvet-reed/core/formats';
import { type Calibration, STANDARD_NAMES } from '@velvet-reed/core/sweep';

/** Columns of equal length as bytes: little-endian float64, one column after the other. */
function packColumns(columns: readonly Float64Array[]): Uint8Array<ArrayBuffer> {
  const n = columns[0]?.length ?? 0;
  const view = new DataView(new ArrayBuffer(n * 8 * columns.length));
  columns.forEach((values, block) => values.forEach((value, i) => view.setFloat64((block * n + i) * 8, value, true)));
  return new Uint8Array(view.buffer);
}

/** The reverse. @throws ShapeError if the bytes are not a whole number of rows. */
function unpackColumns(bytes: Uint8Array, count: number, what: string): readonly Float64Array[] {
  if (bytes.byteLength % (8 * count) !== 0)
    throw new ShapeError(`The stored ${what} is incomplete. Take it again, or import its file again.`);
  const n = bytes.byteLength / (8 * count);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Array.from({ length: count }, (_, k) =>
    Float64Array.from({ length: n }, (__, i) => view.getFloat64((k * n + i) * 8, true)),
  );
}

/** Samples of a sweep as bytes: all frequencies (Hz), then all real, then all imaginary parts. */
export const packSamples = (sweep: Pick<SweepData, 'freqHz' | 're' | 'im'>): Uint8Array<ArrayBuffer> =>
  packColumns([sweep.freqHz, sweep.re, sweep.im]);

/** The reverse of packSamples. @throws ShapeError if the bytes are not a whole number of samples. */
export function unpackSamples(bytes: Uint8Array, referenceOhm: number): SweepData {
  const [freqHz, re, im] = unpackColumns(bytes, 3, 'sweep');
  return { freqHz, re, im, referenceOhm };
}

/** A spectrum as bytes: all frequencies (Hz), then all levels (dB). */
export const packSpectrum = (spectrum: Spectrum): Uint8Array<ArrayBuffer> =>
  packColumns([spectrum.freqHz, spectrum.levelDb]);

/** The reverse of packSpectrum. @throws ShapeError if the bytes are not whole rows. */
export function unpackSpectrum(bytes: Uint8Array): Spectrum {
  const [freqHz, levelDb] = unpackColumns(bytes, 2, 'spectrum');
  return { freqHz, levelDb };
}

/** Readings of a calibration as bytes: frequencies, then real and imaginary parts of open, short and load. */
export const packCalibration = ({
  freqHz,
  readings,
}: Pick<Calibration, 'freqHz' | 'readings'>): Uint8Array<ArrayBuffer> =>
  packColumns([freqHz, ...STANDARD_NAMES.flatMap((name) => [readings[name].re, readings[name].im])]);

/** The reverse of packCalibration. @throws ShapeError if the bytes are not whole rows. */
export function unpackCalibration(bytes: Uint8Array): Pick<Calibration, 'freqHz' | 'readings'> {
  const [freqHz, ...rest] = unpackColumns(bytes, 7, 'calibration');
  return {
    freqHz,
    readings: {
      open: { re: rest[0], im: rest[1] },
      short: { re: rest[2], im: rest[3] },
      load: { re: rest[4], im: rest[5] },
    },
  };
}
