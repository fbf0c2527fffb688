import type { Provenance } from '@velvet-reed/station/said';
import {
  type Candidate,
  COUNTS_FROM_DB,
  COUNTS_TO_DB,
  type RankView,
  signalOf,
  type TargetForecast,
} from '@velvet-reed/core/choose';

const METHOD =
  'moment method over this ground; ITU-R P.372 medians with the usual noise of a house, or your own floor; usual stations assumed; Friis 1944';

/** How far a usual station stands over the noise, target by target. */
export const heardProvenance = (forecasts: readonly TargetForecast[]): Provenance => ({
  origin: 'model',
  formula:
    `signal of a usual station − (outside noise + what the chain adds) in its bandwidth; mean over the targets by weight, each counted from ${COUNTS_FROM_DB} to ${COUNTS_TO_DB} dB, what is not heard or not judged as ${COUNTS_FROM_DB} dB`.replaceAll(
      '-',
      '−',
    ),
  inputs: forecasts.map(
    ({ target, heard }) =>
      [target.name, heard === undefined ? 'not judged' : `${heard.middle.toFixed(0)} dB over the noise`] as const,
  ),
  source: METHOD,
});

/** What one target is heard with, and what is assumed of the station and of the noise. */
export const targetProvenance = (forecast: TargetForecast): Provenance => ({
  origin: 'model',
  formula:
    'signal of a usual station through this antenna − noise through it and of the chain, in the target’s bandwidth',
  inputs: [
    ['a usual station', signalOf(forecast.target).assumed],
    [
      'its signal, lossless antenna',
      `${signalOf(forecast.target).isotropicDbm.toFixed(0)} dBm ± ${signalOf(forecast.target).errorDb.toFixed(0)} dB`,
    ],
    ['polarised', signalOf(forecast.target).polarisation],
    [
      'noise',
      `${forecast.noise.middle.toFixed(0)} dB over kT₀ (${forecast.noise.low.toFixed(0)} to ${forecast.noise.high.toFixed(0)}), ${forecast.noise.from}`,
    ],
    ['of it the house', `${forecast.noise.houseDb.toFixed(0)} dB`],
    ['receiver', forecast.receiver?.name ?? 'none'],
  ],
  source: METHOD,
});

export const weaknessProvenance = (forecasts: readonly TargetForecast[]): Provenance => ({
  origin: 'model',
  formula: 'gain toward the arriving wave, as fed, plus its amplifier, less the line; mean over the targets by weight',
  inputs: forecasts.map(
    ({ target, signalDb }) =>
      [target.name, signalDb === undefined ? 'not computed' : `${signalDb.toFixed(1)} dB`] as const,
  ),
  source: METHOD,
});

/** The sum that orders the ranking: what is heard, less what price, work, looks and the own transmitter count. */
export const sumProvenance = ({ forecasts, sumDb, burdenDb, burdens }: Candidate, view: RankView): Provenance => {
  const heard = view === 'quiet' ? heardProvenance(forecasts) : weaknessProvenance(forecasts);
  return {
    ...heard,
    formula: `${view === 'quiet' ? 'dB over the noise' : 'signal'} less price, work and looks by your weights. ${heard.formula}`,
    inputs: [
      [view === 'quiet' ? 'over the noise' : 'signal', `${(sumDb + burdenDb).toFixed(1)} dB`],
      ['price', `−${burdens.price.toFixed(1)} dB`],
      ['work', `−${burdens.effort.toFixed(1)} dB`],
      ['looks', `−${burdens.sight.toFixed(1)} dB`],
      ...(burdens.guard > 0 ? [['own transmitter', `−${burdens.guard.toFixed(1)} dB`] as const] : []),
      ...(heard.inputs ?? []),
    ],
  };
};

export const marginProvenance = (forecast: TargetForecast): Provenance => ({
  origin: 'model',
  formula: 'outside noise through the antenna ÷ noise that antenna, line and receiver add',
  inputs: [
    ['outside noise Fa', `${forecast.externalFaDb.toFixed(0)} dB over kT₀`],
    ['gain toward it, as fed', `${forecast.reception.realisedGainDbi.toFixed(1)} dBi`],
    ['arrives at', `${forecast.target.arrivalDeg.toFixed(0)}° elevation`],
    ['receiver', forecast.receiver?.name ?? 'none'],
    ['formulas', { holds: 'hold here', rough: 'rough here', outside: 'do not hold here' }[forecast.reception.validity]],
  ],
  source: METHOD,
});

export const gainProvenance = (forecast: TargetForecast): Provenance => ({
  origin: 'model',
  formula: 'gain toward the target at its arrival angle, loss and mismatch included',
  inputs: [
    ['arrives at', `${forecast.target.arrivalDeg.toFixed(0)}° elevation`],
    [
      'bearing',
      forecast.target.bearingDeg === undefined ? 'not said' : `${forecast.target.bearingDeg.toFixed(0)}° true`,
    ],
  ],
  source: METHOD,
});
