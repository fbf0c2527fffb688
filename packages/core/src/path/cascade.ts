import { CoreError, requireRange } from '../errors';
import { STANDARD_TEMPERATURE_K } from '../units/constants';
import { powerDb, powerRatio } from '../units/decibel';

/** A stage of a chain has a value that no real stage can have. */
export class InvalidStageError extends CoreError {
  readonly code = 'INVALID_STAGE';
  constructor(
    readonly position: number,
    why: string,
  ) {
    super(`Stage ${position}: ${why} Correct that stage.`);
  }
}

/** Gain and noise factor of one stage at one frequency, as ratios. */
export interface NoiseStage {
  readonly gain: number;
  readonly noiseFactor: number;
}

/** A passive stage: F = 1 + (L − 1)·T/T₀. Its noise figure equals its loss only at 290 K. */
export function passiveStage(lossDb: number, temperatureK = STANDARD_TEMPERATURE_K): NoiseStage {
  requireRange(temperatureK, 'Temperature (K)', 0);
  const loss = powerRatio(lossDb);
  return { gain: 1 / loss, noiseFactor: 1 + ((loss - 1) * temperatureK) / STANDARD_TEMPERATURE_K };
}

/** An active stage from its gain and noise figure at 290 K. */
export const activeStage = (gainDb: number, noiseFigureDb: number): NoiseStage => ({
  gain: powerRatio(gainDb),
  noiseFactor: powerRatio(noiseFigureDb),
});

/**
 * Noise factor of stages in signal order, antenna first, with available gains.
 * @returns ratio ≥ 1 referred to 290 K; 1 for an empty chain.
 * @throws InvalidStageError if a gain is not positive or a noise factor is below 1.
 * Source: Friis, "Noise Figures of Radio Receivers", Proc. IRE 32 (1944) 419-422.
 */
export function cascadeNoiseFactor(stages: readonly NoiseStage[]): number {
  let factor = 1;
  let gainAhead = 1;
  stages.forEach((stage, i) => {
    if (!(stage.gain > 0) || !Number.isFinite(stage.gain))
      throw new InvalidStageError(i + 1, 'its gain is not a positive power ratio.');
    if (!(stage.noiseFactor >= 1 - 1e-12) || !Number.isFinite(stage.noiseFactor))
      throw new InvalidStageError(i + 1, 'its noise figure is below 0 dB.');
    factor += (stage.noiseFactor - 1) / gainAhead;
    gainAhead *= stage.gain;
  });
  return factor;
}

/** Equivalent noise temperature of a noise factor, K. */
export const noiseTemperatureK = (noiseFactor: number): number => (noiseFactor - 1) * STANDARD_TEMPERATURE_K;

/** Gain and INPUT intercepts of one stage; an intercept left out counts as negligible distortion. */
export interface InterceptStage {
  readonly gainDb: number;
  readonly iip3Dbm?: number | null;
  readonly iip2Dbm?: number | null;
}

/** Input-referred intercepts of a chain of flat stages; null when no stage distorts. */
export interface CascadeIntercepts {
  readonly gainDb: number;
  readonly iip3CoherentDbm: number | null;
  readonly iip3IncoherentDbm: number | null;
  readonly iip2CoherentDbm: number | null;
  readonly iip2IncoherentDbm: number | null;
}

/**
 * Intercepts of a chain, products adding in phase (coherent, worst case) or at random (incoherent).
 * 1/IIP3 = Σ G/IIP3ᵢ and 1/√IIP2 = Σ √(G/IIP2ᵢ); with squares for the incoherent sums (G: gain ahead of the stage).
 * Only for signals that every stage passes alike: behind a filter use `intermodAtAntenna`.
 */
export function cascadeIntercepts(stages: readonly InterceptStage[]): CascadeIntercepts {
  let gainAhead = 1;
  const sums = { third: 0, thirdSquared: 0, secondRoot: 0, second: 0 };
  for (const stage of stages) {
    if (stage.iip3Dbm != null) {
      const term = gainAhead / powerRatio(stage.iip3Dbm);
      sums.third += term;
      sums.thirdSquared += term * term;
    }
    if (stage.iip2Dbm != null) {
      const term = gainAhead / powerRatio(stage.iip2Dbm);
      sums.secondRoot += Math.sqrt(term);
      sums.second += term;
    }
    gainAhead *= powerRatio(stage.gainDb);
  }
  const level = (sum: number, power: number): number | null => (sum > 0 ? -power * powerDb(sum) : null);
  return {
    gainDb: powerDb(gainAhead),
    iip3CoherentDbm: level(sums.third, 1),
    iip3IncoherentDbm: level(sums.thirdSquared, 0.5),
    iip2CoherentDbm: level(sums.secondRoot, 2),
    iip2IncoherentDbm: level(sums.second, 1),
  };
}
