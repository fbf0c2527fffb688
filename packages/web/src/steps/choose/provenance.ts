import type { Candidate, RankView, TargetForecast } from '@velvet-reed/core/choose';
import type { Provenance } from '../../ui/value';

const METHOD = 'moment method over this ground; ITU-R P.372 medians (±10 dB) or your own floor; Friis 1944';

export const lossProvenance = (forecasts: readonly TargetForecast[]): Provenance => ({
  origin: 'model',
  formula:
    'SNR lost = 10 log (1 + chain noise / outside noise), products counted as noise, less what the pattern wins; mean over the targets by weight, 30 dB where unheard',
  inputs: forecasts.map(
    ({ target, lostDb }) => [target.name, lostDb === undefined ? 'not computed' : `${lostDb.toFixed(1)} dB`] as const,
  ),
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

/** The sum that orders the ranking: what is heard, less what price, work and looks count. */
export const sumProvenance = ({ forecasts, scoreDb, burdenDb, burdens }: Candidate, view: RankView): Provenance => {
  const heard = view === 'quiet' ? lossProvenance(forecasts) : weaknessProvenance(forecasts);
  return {
    ...heard,
    formula: `${view === 'quiet' ? 'SNR won' : 'signal'} less price, work and looks by your weights. ${heard.formula}`,
    inputs: [
      [view === 'quiet' ? 'SNR' : 'signal', `${(burdenDb - scoreDb).toFixed(1)} dB`],
      ['price', `−${burdens.price.toFixed(1)} dB`],
      ['work', `−${burdens.effort.toFixed(1)} dB`],
      ['looks', `−${burdens.sight.toFixed(1)} dB`],
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
