import { quantile } from '../numeric/statistics';
import type { Spectrum } from '../formats/spectrum-csv';
import { blocksOf, dbfs, powerOfTwo, transforms, transformsOf, type Stretch } from './frames';
import { secondsOf, type Recording } from './layout';

/** What of a recording is drawn. */
export interface PictureView extends Stretch {
  /** Hz from the recording's centre. */
  readonly lowHz: number;
  readonly highHz: number;
  readonly columns: number;
  readonly rows: number;
}

/** Levels over time and frequency, and the spectrum below. */
export interface Waterfall {
  readonly columns: number;
  readonly rows: number;
  /** Rows that are there already; those behind them are still computed. */
  readonly done: number;
  /** dBFS in one transform's resolution, row by row, earliest first. */
  readonly levelDb: Float32Array;
  readonly resolutionHz: number;
  readonly rowS: number;
  readonly spectrum: {
    /** Middle of each column, Hz from the centre. */
    readonly offsetHz: Float64Array;
    readonly meanDb: Float32Array;
    readonly medianDb: Float32Array;
    readonly peakDb: Float32Array;
  };
  /** Levels between which colours are spread, dBFS: nearly all that is there. */
  readonly contrast: { readonly lowDb: number; readonly highDb: number };
}

/** Width of Hann's window in bins, equivalent noise bandwidth: a bin's power times this is that of a carrier in its middle. Source: Harris, Proc. IEEE 66 (1978) 51. */
const HANN_BINS = 1.5;
const LONGEST = 1 << 16;
/** Shares of all levels below the darkest and below the brightest colour. */
const DARKEST = 0.05;
const BRIGHTEST = 0.999;
/** Rows after which what is there is shown. */
const SHOW_EVERY = 32;

/**
 * Waterfall and spectrum of a part of a recording; partial pictures come as steps. Powers are averaged where several transforms fall into one
 * row and the strongest bin stands for a column: a thin carrier is not lost between pixels.
 */
export function* waterfall(recording: Recording, view: PictureView): Generator<Waterfall, Waterfall> {
  const { sampleRateHz } = recording.layout;
  const { columns, rows, lowHz, highHz } = view;
  const toS = Math.min(view.toS, secondsOf(recording.layout));
  const span = Math.max(1, highHz - lowHz);
  const rowFrames = ((toS - view.fromS) * sampleRateHz) / rows;
  // fine enough for the columns, but no longer than a few rows: time would smear
  const length = powerOfTwo(Math.min((columns * sampleRateHz) / span, Math.max(64, 4 * rowFrames)), 64, LONGEST);
  const hop = Math.max(length >> 3, Math.min(length >> 1, Math.round(rowFrames)));
  const plan = transformsOf(recording, length, hop);
  const levelDb = new Float32Array(columns * rows).fill(-300);
  const edges = Array.from(
    { length: columns + 1 },
    (_, i) => (lowHz + (span * i) / columns - plan.firstHz) / plan.binHz,
  );
  const bins = Array.from({ length: columns }, (_, i) => {
    const first = Math.max(0, Math.min(plan.bins - 1, Math.round(edges[i])));
    return [first, Math.max(first + 1, Math.min(plan.bins, Math.round(edges[i + 1])))] as const;
  });
  const mean = new Float64Array(plan.bins);
  const total = new Float64Array(plan.bins);
  const peak = new Float64Array(columns);
  let [row, inRow, inAll] = [0, 0, 0];
  const finishRow = (): void => {
    if (inRow === 0 || row >= rows) return;
    bins.forEach(([first, last], column) => {
      let most = 0;
      for (let bin = first; bin < last; bin += 1) most = Math.max(most, mean[bin]);
      levelDb[row * columns + column] = dbfs((HANN_BINS * most) / inRow);
    });
  };
  const picture = (done: number): Waterfall => {
    const there = levelDb.subarray(0, done * columns);
    const sample = there.filter((_, i) => i % Math.max(1, Math.floor(there.length / 20_000)) === 0);
    const column = (at: number): Float64Array =>
      Float64Array.from({ length: done }, (_, i) => levelDb[i * columns + at]);
    return {
      ...{ columns, rows, done, levelDb: levelDb.slice() },
      resolutionHz: HANN_BINS * plan.binHz,
      rowS: rowFrames / sampleRateHz,
      spectrum: {
        offsetHz: Float64Array.from({ length: columns }, (_, i) => lowHz + (span * (i + 0.5)) / columns),
        meanDb: Float32Array.from(bins, ([first, last]) => {
          let most = 0;
          for (let bin = first; bin < last; bin += 1) most = Math.max(most, total[bin]);
          return dbfs((HANN_BINS * most) / Math.max(1, inAll));
        }),
        medianDb: Float32Array.from({ length: columns }, (_, i) => quantile(column(i), 0.5)),
        peakDb: Float32Array.from(peak, (power) => dbfs(HANN_BINS * power)),
      },
      contrast: {
        lowDb: quantile(Float64Array.from(sample), DARKEST),
        highDb: quantile(Float64Array.from(sample), BRIGHTEST),
      },
    };
  };
  for (const { frame, power } of transforms(recording, plan, { fromS: view.fromS, toS })) {
    const at = Math.min(rows - 1, Math.floor((frame + length / 2 - view.fromS * sampleRateHz) / rowFrames));
    if (at !== row && inRow > 0) {
      finishRow();
      // a row shorter than a transform repeats the one ahead
      for (let skipped = row + 1; skipped < at; skipped += 1)
        levelDb.copyWithin(skipped * columns, row * columns, (row + 1) * columns);
      mean.fill(0);
      inRow = 0;
      if (Math.floor(at / SHOW_EVERY) > Math.floor(row / SHOW_EVERY)) yield picture(at);
    }
    row = Math.max(0, at);
    inRow += 1;
    inAll += 1;
    for (let bin = 0; bin < power.length; bin += 1) {
      mean[bin] += power[bin];
      total[bin] += power[bin];
    }
    bins.forEach(([first, last], column) => {
      for (let bin = first; bin < last; bin += 1) if (power[bin] > peak[column]) peak[column] = power[bin];
    });
  }
  finishRow();
  for (let rest = row + 1; rest < rows && inAll > 0; rest += 1)
    levelDb.copyWithin(rest * columns, row * columns, (row + 1) * columns);
  return picture(inAll > 0 ? rows : 0);
}

/** Resolution wanted for the mean spectrum of a recording. */
export interface SpectrumAsk extends Partial<Stretch> {
  /** Least number of bins. */
  readonly points?: number;
  /** Absolute frequencies, Hz; absent: all that the recording holds. */
  readonly lowHz?: number;
  readonly highHz?: number;
}

/** Mean spectrum of a recording, absolute frequencies, dBFS in one bin of its resolution. */
export function* meanSpectrum(
  recording: Recording,
  { points = 2048, lowHz = -Infinity, highHz = Infinity, ...part }: SpectrumAsk = {},
): Generator<{ readonly share: number }, Spectrum & { readonly binHz: number }> {
  const stretch = { fromS: part.fromS ?? 0, toS: part.toS ?? secondsOf(recording.layout) };
  const frames = (stretch.toS - stretch.fromS) * recording.layout.sampleRateHz;
  const plan = transformsOf(recording, powerOfTwo(Math.min(points, frames / 2), 64, LONGEST));
  const sum = new Float64Array(plan.bins);
  let count = 0;
  for (const { power } of transforms(recording, plan, stretch)) {
    for (let i = 0; i < sum.length; i += 1) sum[i] += power[i];
    count += 1;
    if (count % 512 === 0) yield { share: (count * plan.hop) / frames };
  }
  const all = Array.from(sum, (power, i) => ({
    hz: recording.centreHz + plan.firstHz + i * plan.binHz,
    db: dbfs(power / Math.max(1, count)),
  })).filter(({ hz }) => hz >= lowHz && hz <= highHz);
  return {
    freqHz: Float64Array.from(all, ({ hz }) => hz),
    levelDb: Float64Array.from(all, ({ db }) => db),
    binHz: plan.binHz,
  };
}

/** Highest value of a recording, as a share of full scale, and how many moments reach it. */
export function* peakOf(
  recording: Recording,
): Generator<{ readonly share: number }, { peakDbfs: number; clipped: number }> {
  const { meaning, frames } = recording.layout;
  let [most, clipped] = [0, 0];
  for (const { re, im, count, frame } of blocksOf(recording)) {
    for (let i = 0; i < count; i += 1) {
      const a = Math.abs(re[i]);
      const b = meaning === 'real' ? 0 : Math.abs(im[i]);
      if (Math.max(a, b) >= FULL_SCALE) clipped += 1;
      most = Math.max(most, meaning === 'iq' ? Math.hypot(a, b) : Math.max(a, b));
    }
    yield { share: (frame + count) / frames };
  }
  return { peakDbfs: dbfs(most * most), clipped };
}
/** The last step of 16 bits counts as full. */
const FULL_SCALE = 32767 / 32768;
