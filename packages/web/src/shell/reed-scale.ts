import { scaleLog, type ScaleLogarithmic } from 'd3-scale';
import { REED_HIGH_HZ, REED_LOW_HZ, type FocusBand } from '../data/focus';

/** The part of the spectrum in view. */
export type ReedView = FocusBand;
export const WHOLE_REED: ReedView = { lowHz: REED_LOW_HZ, highHz: REED_HIGH_HZ };
/** The closest zoom: a ratio of 1.01 between the ends. */
const CLOSEST = Math.log(1.01);

export const reedScale = (view: ReedView, widthPx: number): ScaleLogarithmic<number, number> =>
  scaleLog().domain([view.lowHz, view.highHz]).range([0, widthPx]);

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
