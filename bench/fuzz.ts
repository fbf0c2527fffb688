// Every reader against mutilated files and texts: it gives a result or a sentence of its own, in time. `FUZZ=1000000` is the default.
import { readGains } from '@velvet-reed/core/choose';
import { CoreError } from '@velvet-reed/core/errors';
import { readFloorCsv, readSpectrumCsv, readSweepText, readTouchstone, readTwoPort } from '@velvet-reed/core/formats';
import { readAdapters, readConnector } from '@velvet-reed/core/path';
import { parsePosition, readElements } from '@velvet-reed/core/site';
import { type Dimension, parseQuantity } from '@velvet-reed/core/units';
import { randomFrom } from '@velvet-reed/instruments';
import { printLine } from './print';

const INPUTS = Number(process.env.FUZZ ?? 1_000_000);
const SLOW_MS = 2000;

interface Reader {
  readonly name: string;
  readonly good: readonly string[];
  read(text: string): unknown;
}

const rows = (n: number, row: (i: number) => string): string => Array.from({ length: n }, (_, i) => row(i)).join('\n');
const DIMENSIONS: readonly Dimension[] = ['frequency', 'length', 'level', 'power', 'gain'];

const READERS: readonly Reader[] = [
  {
    name: 'Touchstone one-port',
    good: [
      `! made\n# MHz S RI R 50\n${rows(20, (i) => `${7 + i / 10} 0.${i}1 -0.2`)}`,
      `# GHz Z MA R 75\n${rows(12, (i) => `${1 + i} ${50 + i} ${i}`)}`,
    ],
    read: readTouchstone,
  },
  {
    name: 'Touchstone two-port',
    good: [`# MHz S DB R 50\n${rows(12, (i) => `${1 + i} -20 1 12 -3 -40 2 -18 4`)}\n1 1.2 0.3 40 0.1`],
    read: readTwoPort,
  },
  {
    name: 'sweep as CSV',
    good: [
      `Frequency (MHz),R,X\n${rows(15, (i) => `${7 + i / 10},${50 + i},${i - 7}`)}`,
      `freq;SWR\n${rows(15, (i) => `${7 + i},0;1,${i}`)}`,
    ],
    read: readSweepText,
  },
  {
    name: 'spectrum as CSV',
    good: [`freq_Hz,level_dB\n${rows(20, (i) => `${70000 + 50 * i},-${100 + i}`)}`],
    read: readSpectrumCsv,
  },
  {
    name: 'noise log as CSV',
    good: [`time_utc,dBm\n${rows(15, (i) => `2026-08-04T09:${10 + i}:00Z,-${100 + i}.5`)}`],
    read: (text) => readFloorCsv(text, { day: '2026-08-04' }),
  },
  {
    name: 'orbital elements',
    good: [
      'MADE UP 1\n1 99001U 26001A   26064.50000000  .00000100  00000-0  10000-4 0  9991\n2 99001  98.7000 100.0000 0010000  90.0000 270.0000 14.20000000 10006',
    ],
    read: readElements,
  },
  { name: 'gains of a data sheet', good: ['1 MHz -40\n10 MHz -20\n30 MHz -12'], read: readGains },
  { name: 'connector', good: ['SMA-m', 'N-f', 'BNC female'], read: readConnector },
  { name: 'adapters', good: ['SMA-m to N-f\nBNC-m to SMA-f'], read: readAdapters },
  { name: 'position', good: ['50.2, -19.3', 'IO00ie', "50°12'N 19°18'W"], read: parsePosition },
  ...DIMENSIONS.map((dimension): Reader => ({
    name: `quantity, ${dimension}`,
    good: ['7.1 MHz', '6 ft 3 in', '-73 dBm', 'S9+10', '100 W', '1.5 mm', '12 uV', '7,100'],
    read: (text) => parseQuantity(text, dimension, { bareUnit: dimension === 'frequency' ? 'MHz' : undefined }),
  })),
];

const SPICE = [
  'NaN',
  '1e999',
  '-',
  '+',
  ',',
  ';',
  '\t',
  '\n',
  '\r',
  ' ',
  '"',
  "'",
  '=',
  '#',
  '!',
  '%',
  '\0',
  '﻿',
  '−',
  '١',
  '𝟙',
  '∞',
  'µ',
  '1e-400',
  '9'.repeat(40),
  '[',
  '<',
  '__proto__',
];

/** How long a reader takes over a text, ms. */
function timed(reader: Reader, text: string): number {
  const begun = performance.now();
  try {
    reader.read(text);
  } catch {
    // only its time is asked for here
  }
  return performance.now() - begun;
}

export async function fuzzBench(): Promise<void> {
  const seed = Number(process.env.SEED ?? 77);
  console.log(`  seed ${seed}`);
  const { uniform, pick } = randomFrom(seed);
  const mutilated = (text: string): string => {
    let now = text;
    const times = 1 + Math.floor(4 * uniform());
    for (let i = 0; i < times; i += 1) {
      const at = Math.floor(uniform() * (now.length + 1));
      const to = Math.min(now.length, at + Math.floor(12 * uniform() ** 2));
      const choice = uniform();
      if (choice < 0.3) now = now.slice(0, at) + pick(SPICE) + now.slice(to);
      else if (choice < 0.5) now = now.slice(0, at) + now.slice(to);
      else if (choice < 0.65)
        now = now.slice(0, at) + String.fromCharCode(Math.floor(uniform() * 0x3000)) + now.slice(at);
      else if (choice < 0.8) now = now.slice(0, at) + now.slice(at, to).repeat(3) + now.slice(to);
      else if (choice < 0.9) now = now.split('\n').reverse().join('\n');
      else now = now.replaceAll(pick(['.', ',', ' ', '\n', '-']), pick(SPICE));
    }
    return now;
  };
  const faults = new Map<string, string>();
  let [read, refused, slowest] = [0, 0, 0];
  for (let i = 0; i < INPUTS; i += 1) {
    const reader = READERS[i % READERS.length];
    const text = mutilated(pick(reader.good));
    const begun = performance.now();
    try {
      const value = reader.read(text);
      read += 1;
      if (typeof value === 'number' && !Number.isFinite(value)) faults.set(`${reader.name}: not finite`, text);
    } catch (error) {
      refused += 1;
      if (!(error instanceof CoreError) || error.message.length < 10)
        faults.set(`${reader.name}: ${String(error).slice(0, 120)}`, text);
    }
    let ms = performance.now() - begun;
    // a crowded machine may stand still for a second; a slow reader is slow again
    if (ms > SLOW_MS / 10) ms = Math.min(ms, timed(reader, text));
    if (ms > SLOW_MS) faults.set(`${reader.name}: ${ms.toFixed(0)} ms`, text);
    slowest = Math.max(slowest, ms);
  }
  for (const [what, text] of faults) console.log(`    ${what}\n      ${JSON.stringify(text).slice(0, 200)}`);
  printLine(`${INPUTS} inputs: ${read} read, ${refused} refused; faults`, String(faults.size), '0', faults.size === 0);
  printLine('slowest answer', `${slowest.toFixed(0)} ms`, `${SLOW_MS} ms`, slowest < SLOW_MS);
}
