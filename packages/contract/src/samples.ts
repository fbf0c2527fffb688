import { ShapeError, type SweepData } from '@velvet-reed/core';

/** Samples of a sweep as bytes: little-endian float64, all frequencies (Hz), then all real, then all imaginary parts. */
export function packSamples(sweep: Pick<SweepData, 'freqHz' | 're' | 'im'>): Uint8Array<ArrayBuffer> {
  const n = sweep.freqHz.length;
  const view = new DataView(new ArrayBuffer(n * 24));
  [sweep.freqHz, sweep.re, sweep.im].forEach((values, block) =>
    values.forEach((value, i) => view.setFloat64((block * n + i) * 8, value, true)),
  );
  return new Uint8Array(view.buffer);
}

/** The reverse of packSamples. @throws ShapeError if the bytes are not a whole number of samples. */
export function unpackSamples(bytes: Uint8Array, referenceOhm: number): SweepData {
  if (bytes.byteLength % 24 !== 0) throw new ShapeError('The stored sweep is incomplete. Import its file again.');
  const n = bytes.byteLength / 24;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const block = (k: number): Float64Array =>
    Float64Array.from({ length: n }, (_, i) => view.getFloat64((k * n + i) * 8, true));
  return { freqHz: block(0), re: block(1), im: block(2), referenceOhm };
}
