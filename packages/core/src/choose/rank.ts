import { startDesign, ANTENNA_KINDS } from '../antenna/kinds';
import type { AntennaKind, Design, Fit, KindId, PlaceRoom, Reception } from '../antenna/kind';
import { frequencyText } from '../units/format';
import {
  forecastTarget,
  LOST_DB,
  overallLossDb,
  type ForecastPlace,
  type ForecastTarget,
  type TargetForecast,
} from './forecast';

/** One antenna that could be built here, judged on every wanted target. */
export interface Candidate {
  readonly design: Design;
  readonly kind: AntennaKind;
  readonly fit: Fit;
  readonly forecasts: readonly TargetForecast[];
  /** Weighted mean SNR loss on the targets asked about, 0..30 dB; less is better. */
  readonly lossDb: number;
  readonly reason: string;
}

const centreOf = (target: ForecastTarget): number => (target.lowHz + target.highHz) / 2;

/**
 * Ranks the kinds of antenna for the targets given. Each kind is cut for each target in turn; its best cut that fits stands for it. What
 * does not fit ranks below everything that does, whatever it would hear.
 */
export function rankCandidates(
  targets: readonly ForecastTarget[],
  room: PlaceRoom,
  place: ForecastPlace,
): readonly Candidate[] {
  if (targets.length === 0) return [];
  const judge = (design: Design, kind: AntennaKind, receptionAt: (freqHz: number) => Reception): Candidate => {
    const forecasts = targets.map((target) => forecastTarget(receptionAt, kind.head, target, place));
    const fit = kind.fit(design, room);
    return {
      design,
      kind,
      fit,
      forecasts,
      lossDb: overallLossDb(forecasts),
      reason: reasonFor(forecasts, fit, design),
    };
  };
  // kinds without a closed-form reception wait for a ranking by the wire model
  return ANTENNA_KINDS.filter((kind) => 'reception' in kind)
    .flatMap((kind) => {
      const cuts = [...new Set(targets.map(centreOf))].map((freqHz) => {
        const design = startDesign(kind.id, freqHz);
        return judge(design, kind, receptionOf(kind, design));
      });
      return cuts.sort(byRank).slice(0, 1);
    })
    .sort(byRank);
}

const receptionOf = (kind: AntennaKind, design: Design): ((freqHz: number) => Reception) =>
  kind.reception?.(design) ?? (() => ({ realisedGainDbi: 0, transfer: 0, validity: 'outside' }));

const byRank = (a: Candidate, b: Candidate): number => Number(b.fit.fits) - Number(a.fit.fits) || a.lossDb - b.lossDb;

/** The deciding number in a sentence. */
function reasonFor(forecasts: readonly TargetForecast[], fit: Fit, design: Design): string {
  if (!fit.fits) return `Does not fit: ${fit.reason}.`;
  const spoilt = forecasts.find((forecast) => (forecast.worstProduct?.overNoiseDb ?? -99) > 0);
  if (spoilt?.worstProduct)
    return `${spoilt.worstProduct.emitters.join(' and ')} (${spoilt.worstProduct.label}) make ${frequencyText(spoilt.worstProduct.freqHz)} in its ${spoilt.worstProduct.madeIn}, ${spoilt.worstProduct.overNoiseDb.toFixed(0)} dB over the noise.`;
  const heard = forecasts.filter((forecast) => forecast.snrLossDb !== undefined && forecast.snrLossDb < 3);
  if (heard.length === forecasts.length && forecasts.length === 1) {
    const only = forecasts[0];
    return `On ${only.target.name} the outside noise arrives ${only.marginDb?.toFixed(0)} dB above what the receiver adds.`;
  }
  if (heard.length === 0) {
    const unknown = forecasts.every((forecast) => forecast.snrLossDb === undefined);
    return unknown
      ? 'Outside the range of its formulas on everything asked for.'
      : 'The receiver adds more noise than arrives from outside.';
  }
  return `Cut for ${frequencyText(design.freqHz, 3)} it hears ${heard.length} of ${forecasts.length} with under 3 dB lost.`;
}

/** Everything a person needs to say why a kind was chosen. */
export interface ChoiceVerdict {
  readonly best?: Candidate;
  readonly runnerUp?: Candidate;
  /** How much outside noise would have to fall before the choice costs 3 dB on its weakest served target, dB. */
  readonly turnsAtDb?: number;
}

/** The winner, the next best and what would turn it round. */
export function choiceVerdict(ranked: readonly Candidate[]): ChoiceVerdict {
  const best = ranked.find((candidate) => candidate.fit.fits && candidate.lossDb < LOST_DB);
  if (!best) return {};
  const margins = best.forecasts.flatMap((forecast) =>
    forecast.marginDb !== undefined && forecast.marginDb > 0 ? [forecast.marginDb] : [],
  );
  return {
    best,
    runnerUp: ranked.find((candidate) => candidate !== best && candidate.fit.fits),
    ...(margins.length > 0 ? { turnsAtDb: Math.min(...margins) } : {}),
  };
}

/** A candidate of one kind for one frequency, for drafting without the ranking. */
export const kindName = (id: KindId): string => ANTENNA_KINDS.find((kind) => kind.id === id)?.name ?? id;
