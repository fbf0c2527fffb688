import { REED_HIGH_HZ, REED_LOW_HZ, type FocusBand } from '../data/focus';

/** Lanes of the Reed from the top, and their heights. */
export const LANES = ['Wanted', 'Antennas', 'Transmitters', 'Path'] as const;
export const LANE_PX = 20;
export const TOP_PX = 5;
export const REED_HEIGHT_PX = TOP_PX + LANES.length * LANE_PX + 20;

/** The part of the spectrum in view. */
export type ReedView = FocusBand;
export const WHOLE_REED: ReedView = { lowHz: REED_LOW_HZ, highHz: REED_HIGH_HZ };
/** The closest zoom: a ratio of 1.01 between the ends. */
const CLOSEST = Math.log(1.01);

/** A place on the Reed, px, for a frequency; and the way back. */
export interface ReedScale {
  (freqHz: number): number;
  readonly invert: (px: number) => number;
  /** Frequencies to name: powers of ten where more than one and a half decades are in view, else some six round ones. */
  readonly ticks: readonly number[];
}

/** Decades in view above which only powers of ten are named. */
const MANY_DECADES = 1.5;
const NARROW_TICKS = 6;

/** Round frequencies between two ends: powers of ten, or multiples of 1, 2 or 5 times one. */
function ticksBetween(lowHz: number, highHz: number): readonly number[] {
  if (Math.log10(highHz / lowHz) > MANY_DECADES) {
    const first = Math.ceil(Math.log10(lowHz) - 1e-9);
    const last = Math.floor(Math.log10(highHz) + 1e-9);
    return Array.from({ length: last - first + 1 }, (_, i) => 10 ** (first + i));
  }
  const rough = (highHz - lowHz) / NARROW_TICKS;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 5, 10].find((one) => one * power >= rough) ?? 10) * power;
  const first = Math.ceil(lowHz / step);
  return Array.from({ length: Math.floor(highHz / step) - first + 1 }, (_, i) => (first + i) * step);
}

/** Frequency on a log axis of so many px. */
export function reedScale({ lowHz, highHz }: ReedView, widthPx: number): ReedScale {
  const perPx = Math.log(highHz / lowHz) / widthPx;
  return Object.assign((freqHz: number) => Math.log(freqHz / lowHz) / perPx, {
    invert: (px: number) => lowHz * Math.exp(px * perPx),
    ticks: ticksBetween(lowHz, highHz),
  });
}

/** Zooms by a factor (below 1: closer) about a frequency, staying on the Reed. */
export function zoomView(view: ReedView, factor: number, aboutHz: number): ReedView {
  const whole = Math.log(REED_HIGH_HZ / REED_LOW_HZ);
  const span = Math.log(view.highHz / view.lowHz);
  const next = Math.min(whole, Math.max(CLOSEST, span * factor));
  const share = Math.log(aboutHz / view.lowHz) / span;
  return keepOnReed(aboutHz * Math.exp(-share * next), next);
}

/** Shifts the view by a share of its width. */
export function panView(view: ReedView, share: number): ReedView {
  const span = Math.log(view.highHz / view.lowHz);
  return keepOnReed(view.lowHz * Math.exp(share * span), span);
}

function keepOnReed(lowHz: number, span: number): ReedView {
  const low = Math.min(Math.max(lowHz, REED_LOW_HZ), REED_HIGH_HZ / Math.exp(span));
  return { lowHz: low, highHz: low * Math.exp(span) };
}

/** Moves the focus band by a factor or changes its width about its middle, in log frequency. */
export function nudgeBand(band: FocusBand, move: number, widen: number): FocusBand {
  const middle = Math.sqrt(band.lowHz * band.highHz) * Math.exp(move);
  const half = (Math.log(band.highHz / band.lowHz) / 2) * widen;
  return { lowHz: middle * Math.exp(-half), highHz: middle * Math.exp(half) };
}
