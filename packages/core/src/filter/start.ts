import { frequencyText } from '../units/format';
import type { FilterShape } from './response';

const SHAPE_NAMES: Readonly<Record<FilterShape, string>> = {
  lowpass: 'Low-pass',
  highpass: 'High-pass',
  bandpass: 'Band-pass',
  bandstop: 'Band-stop',
};

/** Room between a wanted band and the edge of a new filter for it: the edge of a ripple filter may come out a tenth off with 5 % parts. */
export const EDGE_RATIO = 1.15;

/** The name that a filter gives itself by its shape and edges (Hz). */
export function filterName(shape: FilterShape, edgeLowHz: number, edgeHighHz: number): string {
  const [low, high] = [frequencyText(edgeLowHz, 3), frequencyText(edgeHighHz, 3)];
  const edges = { lowpass: high, highpass: low, bandpass: `${low} to ${high}`, bandstop: `${low} to ${high}` }[shape];
  return `${SHAPE_NAMES[shape]} ${edges}`;
}

/** Whether a filter still has the name that it gave itself, so that a change may rename it. */
export const namedByShape = (name: string): boolean => /^(Low|High|Band)-(pass|stop) [\d.]+ [kMG]?Hz/.test(name);

/** Edges of a new filter that leaves a band (Hz) its room, to three digits. */
export const edgesForBand = (lowHz: number, highHz: number) => ({
  edgeLowHz: Number((lowHz / EDGE_RATIO).toPrecision(3)),
  edgeHighHz: Number((highHz * EDGE_RATIO).toPrecision(3)),
});
