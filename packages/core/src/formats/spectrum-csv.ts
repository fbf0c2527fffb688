import { SweepFileError, MAX_SWEEP_POINTS } from './touchstone';
import type { Spectrum } from '../sweep/noise-peak';

const UNIT_HZ: Readonly<Record<string, number>> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/**
 * Reads a recorded spectrum: two columns, frequency and level in dB or dBm, separated by comma, semicolon, tab or blanks. A heading may name the
 * frequency's unit; without one Hz is meant. Rows must ascend.
 * @throws SweepFileError with the line number.
 */
export function readSpectrumCsv(text: string): Spectrum {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  let scale = 1;
  const freq: number[] = [];
  const level: number[] = [];
  lines.forEach((line, i) => {
    const trimmed = line.trim();
    if (trimmed === '' || /^[#!]/.test(trimmed)) return;
    if (freq.length === 0 && /[a-z]/i.test(trimmed.replace(/e[+-]?\d/gi, ''))) {
      scale = UNIT_HZ[/(khz|mhz|ghz|hz)/i.exec(trimmed)?.[1].toLowerCase() ?? 'hz'] ?? 1;
      return;
    }
    const cells = trimmed.split(/[;\t]|,\s*|\s+/).filter(Boolean);
    const [f, db] = cells.map(Number);
    if (cells.length < 2 || !Number.isFinite(f) || !Number.isFinite(db))
      throw new SweepFileError(i + 1, 'a row needs a frequency and a level in dB. Correct or delete it.');
    if (freq.length > 0 && f * scale <= freq[freq.length - 1])
      throw new SweepFileError(i + 1, 'the frequencies must ascend. Sort the rows.');
    if (freq.length >= MAX_SWEEP_POINTS)
      throw new SweepFileError(i + 1, `more than ${MAX_SWEEP_POINTS} rows. Record fewer points.`);
    freq.push(f * scale);
    level.push(db);
  });
  if (freq.length < 2) throw new SweepFileError(1, 'the file holds no spectrum. It needs rows of frequency and level.');
  return { freqHz: Float64Array.from(freq), levelDb: Float64Array.from(level) };
}
