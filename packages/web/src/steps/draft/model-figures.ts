import type { Provenance } from '@velvet-reed/station/said';
import { reflectionOf, swrOf } from '@velvet-reed/core/line';
import { magnitude } from '@velvet-reed/core/numeric';
import type { ModelSweep, SpotAnalysis } from '@velvet-reed/core/solver';
import { findResonances } from '@velvet-reed/core/sweep';
import { frequencyText } from '@velvet-reed/core/units';

/** A model's curves under one name. */
export interface ModelCurves {
  readonly name: string;
  readonly look: number;
  readonly spot?: SpotAnalysis | undefined;
  readonly sweep?: ModelSweep | undefined;
}

export const METHOD =
  'thin-wire moment method, piecewise sinusoids; real ground by Sommerfeld integrals, far field by Fresnel';

export const modelProvenance = (
  state: { readonly spot?: SpotAnalysis; readonly movement?: number; readonly sweep?: ModelSweep },
  formula: string,
): Provenance => ({
  origin: 'model',
  formula,
  inputs: [
    ...(state.spot
      ? [['at', frequencyText(state.spot.freqHz)] as const, ['segments', String(state.spot.segments)] as const]
      : []),
    ...(state.movement === undefined
      ? []
      : [['|Γ| moves on a finer mesh', `${(100 * state.movement).toPrecision(2)} %`] as const]),
    ...(state.spot?.averageGain === undefined
      ? []
      : [['average-gain test', state.spot.averageGain.toFixed(3)] as const]),
    ...(state.sweep
      ? [
          ['curve solved at', `${state.sweep.solvedHz.length} frequencies`] as const,
          ...(state.sweep.interpolated > 0
            ? [['its matrix interpolated at', `${state.sweep.interpolated} of them`] as const]
            : []),
          ['|Γ| of the curve within', `${(100 * state.sweep.errorBound).toPrecision(1)} %`] as const,
        ]
      : []),
  ],
  source: METHOD,
});

/** A sweep's SWR at each of its points on 50 Ω. */
export const swrOfSweep = (sweep: ModelSweep): (number | null)[] =>
  Array.from(sweep.freqHz, (_, i) =>
    swrOf(magnitude(reflectionOf({ re: sweep.resistance[i], im: sweep.reactance[i] }, 50))),
  );

/** Deepest dip of a modelled sweep. */
export function modelDip(sweep: ModelSweep) {
  const gamma = Array.from(sweep.freqHz, (_, i) =>
    reflectionOf({ re: sweep.resistance[i], im: sweep.reactance[i] }, 50),
  );
  const dips = findResonances({
    freqHz: sweep.freqHz,
    re: Float64Array.from(gamma, (g) => g.re),
    im: Float64Array.from(gamma, (g) => g.im),
    referenceOhm: 50,
  });
  return [...dips].sort((a, b) => (a.swr ?? 99) - (b.swr ?? 99))[0];
}

/** Gain at an elevation along the peak's azimuth, read from the elevation cut. */
export function gainAt(
  { elevation: { angleDeg, gainDbi } }: Pick<SpotAnalysis, 'elevation'>,
  elevationDeg: number,
): number {
  const i = angleDeg.findIndex((one) => one >= elevationDeg);
  if (i <= 0) return gainDbi[0];
  const share = (elevationDeg - angleDeg[i - 1]) / (angleDeg[i] - angleDeg[i - 1]);
  return gainDbi[i - 1] + share * (gainDbi[i] - gainDbi[i - 1]);
}
