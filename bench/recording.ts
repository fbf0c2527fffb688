import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { meanSpectrum, recordingOf, type ByteSource } from '../packages/core/src/recording';
import { median, printLine } from './print';

/** Moments of the made recording: I and Q as floats. */
const FRAMES = 1 << 23;
const POINTS = 4096;

/** The same by a general-purpose library, where this machine has it. */
const SCIPY = `
import sys, time, numpy as np
from scipy import signal
z = np.fromfile(sys.argv[1], dtype='<c8')
best = 1e9
for _ in range(3):
    t = time.perf_counter()
    f, p = signal.welch(z, 1e6, window='hann', nperseg=${POINTS}, return_onesided=False, detrend=False)
    best = min(best, time.perf_counter() - t)
print(best, p.sum() * 1e6 / ${POINTS})
`;

function scipySeconds(file: string): readonly [seconds: number, power: number] | undefined {
  try {
    const [seconds, power] = execFileSync('python3', ['-c', SCIPY, file], { encoding: 'utf8' })
      .trim()
      .split(' ')
      .map(Number);
    return [seconds, power];
  } catch {
    return undefined;
  }
}

/** Speed of windowed transforms and averages through a long recording, against a general-purpose library on the same data. */
export async function recordingBench(): Promise<void> {
  const values = new Float32Array(2 * FRAMES);
  let state = 1;
  for (let i = 0; i < values.length; i += 1) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    values[i] = state / 2147483648 - 1;
  }
  const bytes = new Uint8Array(values.buffer);
  const source: ByteSource = { size: bytes.length, read: (offset, length) => bytes.slice(offset, offset + length) };
  const recording = recordingOf(source, {
    ...{ sample: 'f32', bigEndian: false, channels: 2, meaning: 'iq', sampleRateHz: 1e6, offset: 0, frames: FRAMES },
    ...{ captures: [], annotations: [], remarks: [] },
  });
  const times: number[] = [];
  let power = 0;
  for (let run = 0; run < 3; run += 1) {
    const begun = performance.now();
    const steps = meanSpectrum(recording, { points: POINTS });
    let step = steps.next();
    while (!step.done) step = steps.next();
    times.push((performance.now() - begun) / 1000);
    power = step.value.levelDb.reduce((sum, db) => sum + 10 ** (db / 10), 0);
  }
  const seconds = Math.min(...times);
  const rate = FRAMES / seconds / 1e6;
  printLine(
    'complex samples through window, transform and mean',
    `${rate.toFixed(1)} million/s`,
    '5 million/s',
    rate >= 5,
  );
  printLine('the same, middle of three', `${(FRAMES / median(times) / 1e6).toFixed(1)} million/s`, '5 million/s', true);
  const folder = mkdtempSync(path.join(tmpdir(), 'velvet-reed-bench-'));
  try {
    const file = path.join(folder, 'noise.cf32');
    writeFileSync(file, bytes);
    const other = scipySeconds(file);
    if (!other) return;
    const ratio = seconds / other[0];
    printLine('time against scipy.signal.welch', ratio.toFixed(2), 'at most 3', ratio <= 3);
    const apart = Math.abs(10 * Math.log10(power / other[1]));
    printLine('power apart from it', `${apart.toFixed(4)} dB`, '0.01 dB', apart <= 0.01);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
