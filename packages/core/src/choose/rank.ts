import { antennaKind } from '../antenna/kinds';
import type { Fit, PlaceRoom } from '../antenna/kind';
import { capital, frequencyText } from '../units/format';
import { type BurdenParts, burdenParts, withdrawnBecause, type BurdenWeights, type Restrictions } from './burden';
import { candidateFit, type CandidateSpec, type ReadyCandidate } from './candidate';
import {
  forecasterAt,
  hearingState,
  orderDb,
  overallLossDb,
  overallWeaknessDb,
  SERVED_DB,
  UNUSABLE_DB,
  type ForecastPlace,
  type HearingState,
  type ForecastTarget,
  type TargetForecast,
} from './forecast';

/** Quiet-first: outside noise sets the floor, so SNR counts. Signal-first: the receiver sets the floor, so level counts. */
export type RankView = 'quiet' | 'signal';

/** One antenna that could be had here, judged on every target. */
export interface Candidate {
  readonly spec: CandidateSpec;
  readonly fit: Fit;
  /** Why it is out under the station's restrictions. */
  readonly withdrawn?: string;
  readonly forecasts: readonly TargetForecast[];
  /** Weighted mean of SNR lost against an ideal antenna, −12..30 dB, over what could be judged; undefined where nothing could be. */
  readonly lossDb?: number;
  /** Weighted mean of signal missing against an isotropic antenna, dB; undefined with the loss. */
  readonly weaknessDb?: number;
  /** How many targets are in which state. */
  readonly counts: Readonly<Record<HearingState, number>>;
  readonly burdenDb: number;
  /** What price, work and looks count in it, dB. */
  readonly burdens: BurdenParts;
  /** What it is ranked by: loss or weakness, plus burden. */
  readonly scoreDb: number;
  readonly reason: string;
}

/** How the listener wants the ranking made. */
export interface RankRules {
  readonly view: RankView;
  readonly weights: BurdenWeights;
  readonly restrictions: Restrictions;
  readonly room: PlaceRoom;
}

const NO_BURDEN: BurdenParts = { price: 0, effort: 0, sight: 0 };

/** Whether it was judged on anything: what lies outside the range of its formulas on all targets was not. */
export const isJudged = ({ lossDb }: Candidate): boolean => lossDb !== undefined;

/** Ranks candidates; what does not fit or is withdrawn stands below everything that may stay, whatever it would hear. */
export function rankCandidates(
  ready: readonly ReadyCandidate[],
  targets: readonly ForecastTarget[],
  place: ForecastPlace,
  rules: RankRules,
): readonly Candidate[] {
  if (targets.length === 0) return [];
  const forecaster = forecasterAt(place);
  return ready
    .map((one) => {
      const forecast = forecaster((freqHz) => one.fromTransmitter(freqHz), one.head);
      return judge(
        one,
        targets.map((target) => forecast(target, one.toward(target))),
        rules,
      );
    })
    .sort(byRank);
}

/** Ranked candidates in the order of either way to rank: what they hear is the same. */
export const inView = (ranked: readonly Candidate[], view: RankView): readonly Candidate[] =>
  ranked
    .map((candidate) => ({ ...candidate, scoreDb: orderDb(candidate.forecasts, view) + candidate.burdenDb }))
    .sort(byRank);

/** Whether it may be put up here at all. */
export const mayStay = (candidate: Candidate): boolean => candidate.fit.fits && !candidate.withdrawn;

/** Targets that it hears, well or weakly. */
export const heardCount = ({ counts }: Candidate): number => counts.served + counts.weak;
/** Targets that it makes nothing of, or overloads the receiver on. */
export const spoiltCount = ({ counts }: Candidate): number => counts.unusable + counts.overloads;
/** Whether it may be recommended: it may stay, hears something, and nothing that could be judged is unusable with it. */
export const usable = (candidate: Candidate): boolean =>
  mayStay(candidate) && heardCount(candidate) > 0 && spoiltCount(candidate) === 0;
/** The next best when nothing is usable throughout: it hears some targets, and overloads the receiver on none. */
const partlyUsable = (candidate: Candidate): boolean =>
  mayStay(candidate) && heardCount(candidate) > 0 && candidate.counts.overloads === 0;

const tier = (candidate: Candidate): number =>
  usable(candidate) ? 3 : partlyUsable(candidate) ? 2 : mayStay(candidate) ? 1 : 0;
const byRank = (a: Candidate, b: Candidate): number =>
  tier(b) - tier(a) || a.scoreDb - b.scoreDb || a.burdenDb - b.burdenDb;

/** Where a candidate stands apart: what is there, what is on paper, what could be bought, what could be built; and what fails on some of what is asked. */
export type CandidateGroup = 'built' | 'drafted' | 'to buy' | 'kinds' | 'failing';
const candidateGroup = ({ spec }: Pick<Candidate, 'spec'>): Exclude<CandidateGroup, 'failing'> =>
  spec.source === 'bought' ? 'to buy' : spec.source === 'kind' ? 'kinds' : spec.standing ? 'built' : 'drafted';

/**
 * Ranked candidates apart by what they are, each group in its order; the group of the best comes first. What is usable on less than the best of them
 * stands in a group of its own at the end: no name in an upper group is one that must not be taken.
 */
export function inGroups(
  ranked: readonly Candidate[],
): readonly { readonly group: CandidateGroup; readonly candidates: readonly Candidate[] }[] {
  const best = Math.max(...ranked.map(tier));
  const groups = new Map<CandidateGroup, Candidate[]>();
  const sound = ranked.filter((one) => tier(one) === best);
  for (const one of sound) {
    const group = candidateGroup(one);
    groups.set(group, [...(groups.get(group) ?? []), one]);
  }
  const failing = ranked.filter((one) => tier(one) < best);
  return [
    ...[...groups].map(([group, candidates]) => ({ group, candidates })),
    ...(failing.length > 0 ? [{ group: 'failing' as const, candidates: failing }] : []),
  ];
}

function judge(
  { spec }: ReadyCandidate,
  forecasts: readonly TargetForecast[],
  { view, weights, restrictions, room }: RankRules,
): Candidate {
  const fit = candidateFit(spec, room);
  // what stands there already needs nobody's leave; a draft on paper does
  const stands = spec.source === 'own' && spec.standing === true;
  // a danger is none of taste: it counts for what stands, too
  const danger =
    spec.source === 'own' && spec.forbidden ? `a danger as laid: ${spec.forbidden.replace(/\.$/, '')}` : undefined;
  const withdrawn = danger ?? (stands ? undefined : withdrawnBecause(spec.burden, restrictions));
  const burdens = stands ? NO_BURDEN : burdenParts(spec.burden, weights);
  const burden = burdens.price + burdens.effort + burdens.sight;
  const counts = { served: 0, weak: 0, unusable: 0, overloads: 0, 'not judged': 0 };
  for (const forecast of forecasts) counts[hearingState(forecast)] += 1;
  return {
    spec,
    fit: stands ? { ...fit, fits: true, reason: 'stands already' } : fit,
    ...(withdrawn ? { withdrawn } : {}),
    forecasts,
    lossDb: overallLossDb(forecasts),
    weaknessDb: overallWeaknessDb(forecasts),
    counts,
    ...{ burdenDb: burden, burdens },
    scoreDb: orderDb(forecasts, view) + burden,
    reason: withdrawn ? `${capital(withdrawn)}.` : reasonFor(forecasts, fit, spec, stands),
  };
}

/** The deciding number in a sentence: what forbids it first, then overload, then what is heard. */
function reasonFor(forecasts: readonly TargetForecast[], fit: Fit, spec: CandidateSpec, stands: boolean): string {
  if (!fit.fits && !stands) return `Does not fit: ${fit.reason}.`;
  const clips = [...forecasts].sort((a, b) => (a.headroomDb ?? Infinity) - (b.headroomDb ?? Infinity))[0];
  if (clips?.headroomDb !== undefined && clips.headroomDb < 0 && hearingState(clips) === 'overloads')
    return `The transmitters nearby drive ${clips.receiver?.name ?? 'the receiver'} ${Math.abs(clips.headroomDb).toFixed(0)} dB over its full scale: not usable on ${clips.target.name} without a filter or pad.`;
  const spoilt = [...forecasts]
    .filter((forecast) => (forecast.worstProduct?.overNoiseDb ?? -Infinity) > 0)
    .sort((a, b) => (b.worstProduct?.overNoiseDb ?? 0) - (a.worstProduct?.overNoiseDb ?? 0))[0];
  if (spoilt?.worstProduct) {
    const { transmitters, label, freqHz, madeIn, overNoiseDb } = spoilt.worstProduct;
    const unusable = overNoiseDb > UNUSABLE_DB ? `: not usable on ${spoilt.target.name}` : '';
    return `${transmitters.join(' and ')} (${label}) make ${frequencyText(freqHz)} in its ${madeIn}, ${overNoiseDb.toFixed(0)} dB over the noise${unusable}.`;
  }
  const deaf = forecasts.filter(({ receiver }) => !receiver);
  if (deaf.length === forecasts.length)
    return 'No receiver of this station tunes what is asked for: add one in Listen, then it can be judged.';
  if (forecasts.length === 1 && forecasts[0].marginDb !== undefined) {
    const [only] = forecasts;
    const side = (only.marginDb ?? 0) >= 0 ? 'above' : 'below';
    const pattern =
      only.patternDb !== undefined && Math.abs(only.patternDb) >= 1
        ? `; its pattern ${only.patternDb > 0 ? 'wins' : 'costs'} ${Math.abs(only.patternDb).toFixed(0)} dB at ${only.target.arrivalDeg.toFixed(0)}°`
        : '';
    return `On ${only.target.name} the outside noise arrives ${Math.abs(only.marginDb ?? 0).toFixed(0)} dB ${side} what the chain adds${pattern}.`;
  }
  const served = forecasts.filter((forecast) => hearingState(forecast) === 'served');
  if (served.length === 0)
    return forecasts.every((forecast) => forecast.snrLossDb === undefined)
      ? 'Outside the range of its formulas on everything asked for.'
      : 'The chain adds more noise than arrives from outside.';
  const cut = spec.source === 'bought' ? '' : `Cut for ${frequencyText(spec.design.freqHz, 3)} it`;
  return `${cut || 'It'} hears ${served.length} of ${forecasts.length} with under ${SERVED_DB} dB lost to the chain.`;
}

/** The assumption that decides between the two schools, for the winners of both views. */
export function schoolsSentence(quiet: Candidate | undefined, signal: Candidate | undefined): string {
  if (!quiet || !signal) return 'Neither way of ranking finds an antenna that fits and hears.';
  const margins = quiet.forecasts.flatMap(({ marginDb }) => (marginDb === undefined ? [] : [marginDb]));
  const least = margins.length > 0 ? Math.min(...margins) : undefined;
  const decides =
    least === undefined
      ? 'no margin could be computed'
      : least >= 0
        ? `outside noise arrives at least ${least.toFixed(0)} dB above what the chain adds, so level adds nothing and quiet-first holds until noise falls by that much`
        : `on its weakest target the chain adds ${Math.abs(least).toFixed(0)} dB more than arrives, so there more signal would help`;
  return quiet.spec.id === signal.spec.id
    ? `Both ways choose the same antenna: ${decides}.`
    : `Quiet-first takes ${quiet.spec.name}, signal-first ${signal.spec.name}. What decides: ${decides}.`;
}

/** Name of the kind behind a candidate, or its own. */
export const candidateKindName = (spec: CandidateSpec): string =>
  spec.source === 'bought' ? spec.name : antennaKind(spec.design.kind).name;
