import { antennaKind } from '../antenna/kinds';
import type { Fit, PlaceRoom } from '../antenna/kind';
import { capital, countText, frequencyText, midSentence } from '../units/format';
import { type BurdenParts, burdenParts, withdrawnBecause, type BurdenWeights, type Restrictions } from './burden';
import { candidateFit, type CandidateSpec, noiseAskOf, type ReadyCandidate } from './candidate';
import { type Addition, filtersFor, preamplifierFor } from './additions';
import {
  COUNTS_FROM_DB,
  type ForecastMeans,
  type ForecastPlace,
  forecasterAt,
  type ForecastTarget,
  hearingState,
  type HearingState,
  orderDb,
  overallHeard,
  overallLossDb,
  overallWeaknessDb,
  type TargetForecast,
  UNUSABLE_DB,
  WELL_DB,
} from './forecast';
import type { Ranged } from './house-noise';
import { type OwnTransmission, ownTransmission } from './own-transmitter';

/** Quiet-first: outside noise sets the floor, so SNR counts. Signal-first: the receiver sets the floor, so level counts. */
export type RankView = 'quiet' | 'signal';

/** One antenna that could be had here, judged on every target. */
export interface Candidate {
  readonly spec: CandidateSpec;
  readonly fit: Fit;
  /** Why it is out under the station's restrictions. */
  readonly withdrawn?: string;
  readonly forecasts: readonly TargetForecast[];
  /** How far usual stations stand over the noise with it, weighted mean, dB; undefined where nothing could be judged. */
  readonly heard?: Ranged;
  /** How much less than the best that may be put up here, dB; undefined with it. */
  readonly behindDb?: number;
  /** Weighted mean of SNR lost against a lossless antenna in the open here, dB, over what could be judged; undefined where nothing could be. */
  readonly lossDb?: number;
  /** Weighted mean of signal missing against an isotropic antenna, dB; undefined with the loss. */
  readonly weaknessDb?: number;
  /** How many targets are in which state. */
  readonly counts: Readonly<Record<HearingState, number>>;
  readonly burdenDb: number;
  /** What price, work and looks count in it, dB. */
  readonly burdens: BurdenParts;
  /** What it is ranked by: what is heard, less the burdens; the largest is first. */
  readonly sumDb: number;
  /** What is put between it and the line, and what each brings. */
  readonly additions: readonly { readonly addition: Addition; readonly bringsDb: number }[];
  /** What the listener's own transmitter does to it. */
  readonly own?: OwnTransmission;
  readonly reason: string;
}

/** How the listener wants the ranking made. */
export interface RankRules {
  readonly view: RankView;
  readonly weights: BurdenWeights;
  readonly restrictions: Restrictions;
  readonly room: PlaceRoom;
}

const NO_BURDEN: BurdenParts = { price: 0, effort: 0, sight: 0, guard: 0 };

/** Whether it was judged on anything: what lies outside the range of its formulas on all targets was not. */
export const isJudged = ({ lossDb }: Candidate): boolean => lossDb !== undefined;

/**
 * Ranks candidates; what does not fit or is withdrawn stands below everything that may stay, whatever it would hear. Of candidates that share an id, which are
 * one kind at several spots and in several sizes, the best stands for all.
 */
export function rankCandidates(
  ready: readonly ReadyCandidate[],
  targets: readonly ForecastTarget[],
  place: ForecastPlace,
  rules: RankRules,
): readonly Candidate[] {
  if (targets.length === 0) return [];
  const forecaster = forecasterAt(place);
  // which size, spot and addition of a kind stands for it is a matter of what is heard, in either view
  const quiet: RankRules = { ...rules, view: 'quiet' };
  const helps = helpsFor(targets, place);
  const judgedWith = (one: ReadyCandidate, additions: readonly Addition[]): Candidate => {
    const means: ForecastMeans = { ...(one.head ? { head: one.head } : {}), noise: noiseAskOf(one.spec), additions };
    const forecast = forecaster((freqHz) => one.fromTransmitter(freqHz), means);
    return judge(
      one,
      targets.map((target) => forecast(target, one.toward(target))),
      { rules: quiet, additions, own: ownTransmission(one, place.ownTransmitters ?? []) },
    );
  };
  const bestOfKind = new Map<string, Candidate>();
  for (const one of ready) {
    const candidate = withHelp((additions) => judgedWith(one, additions), one, helps);
    const before = bestOfKind.get(one.spec.id);
    if (!before || byRank(candidate, before) < 0) bestOfKind.set(one.spec.id, candidate);
  }
  const ranked = against([...bestOfKind.values()].sort(byRank));
  return rules.view === 'quiet' ? ranked : inView(ranked, rules.view);
}

/** Ranked candidates with how far each is behind the best that may be put up. */
function against(ranked: readonly Candidate[]): readonly Candidate[] {
  const best = Math.max(...ranked.flatMap((one) => (mayStay(one) && one.heard ? [one.heard.middle] : [])));
  return ranked.map((one) =>
    one.heard && Number.isFinite(best) ? { ...one, behindDb: Math.max(0, best - one.heard.middle) } : one,
  );
}

/** What can be put between an antenna and its line for these targets here. */
interface Helps {
  readonly preamplifier?: Addition;
  readonly filters: readonly Addition[];
}
function helpsFor(targets: readonly ForecastTarget[], place: ForecastPlace): Helps {
  const preamplifier = preamplifierFor(targets);
  return {
    ...(preamplifier ? { preamplifier } : {}),
    filters: filtersFor(
      targets,
      place.transmitters.map(({ freqHz }) => freqHz),
    ),
  };
}

/** Outside noise so far above what the chain adds leaves nothing for a preamplifier to win, dB. */
const AMPLE_DB = 15;

/** A candidate with whatever helps it by more than it costs: a filter where transmitters spoil it, a preamplifier where the chain is deaf. */
function withHelp(
  judged: (additions: readonly Addition[]) => Candidate,
  { head, spec }: ReadyCandidate,
  { preamplifier, filters }: Helps,
): Candidate {
  const plain = judged([]);
  // what stands is judged as it stands, and nothing gets ahead of an amplifier that is bought with its antenna
  if (spec.source === 'own' || !plain.heard || (spec.source === 'bought' && head)) return plain;
  const spoilt = plain.forecasts.some(
    (one) => hearingState(one) === 'overloads' || (one.worstProduct?.overNoiseDb ?? -Infinity) > 0,
  );
  const deaf = !head && plain.forecasts.some(({ marginDb }) => marginDb !== undefined && marginDb < AMPLE_DB);
  const amplified = deaf && preamplifier ? [preamplifier] : [];
  const sets: (readonly Addition[])[] = [
    ...(spoilt ? filters.map((one) => [one]) : []),
    ...amplified.map((one) => [one]),
    ...(spoilt ? filters.flatMap((one) => amplified.map((two) => [one, two])) : []),
  ];
  const best = sets.map((set) => ({ set, tried: judged(set) })).sort((a, b) => byRank(a.tried, b.tried))[0];
  if (!best || byRank(best.tried, plain) >= 0) return plain;
  const heardDb = (one: Candidate): number => one.heard?.middle ?? COUNTS_FROM_DB;
  return {
    ...best.tried,
    additions: best.set.map((addition) => ({
      addition,
      bringsDb: heardDb(best.tried) - heardDb(judged(best.set.filter((one) => one !== addition))),
    })),
  };
}

/** Ranked candidates in the order of either way to rank: what they hear is the same. */
export const inView = (ranked: readonly Candidate[], view: RankView): readonly Candidate[] =>
  ranked
    .map((candidate) => ({ ...candidate, sumDb: orderDb(candidate.forecasts, view) - candidate.burdenDb }))
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
  tier(b) - tier(a) || b.sumDb - a.sumDb || a.burdenDb - b.burdenDb;

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
  {
    rules: { view, weights, restrictions, room },
    additions,
    own,
  }: {
    readonly rules: RankRules;
    readonly additions: readonly Addition[];
    readonly own?: OwnTransmission;
  },
): Candidate {
  const fit = candidateFit(spec, room);
  // what stands there already needs nobody's leave; a draft on paper does
  const stands = spec.source === 'own' && spec.standing === true;
  // a danger is none of taste: it counts for what stands, too
  const danger =
    spec.source === 'own' && spec.forbidden ? `a danger as laid: ${spec.forbidden.replace(/\.$/, '')}` : undefined;
  const withdrawn = danger ?? (stands ? undefined : withdrawnBecause(spec.burden, restrictions));
  const added = {
    ...spec.burden,
    price: spec.burden.price + additions.reduce((sum, one) => sum + one.price, 0),
    hours: spec.burden.hours + additions.reduce((sum, one) => sum + one.hours, 0),
  };
  const burdens = { ...(stands ? NO_BURDEN : burdenParts(added, weights)), guard: own?.countsDb ?? 0 };
  const burden = burdens.price + burdens.effort + burdens.sight + burdens.guard;
  const counts = { served: 0, weak: 0, unusable: 0, overloads: 0, 'not judged': 0 };
  for (const forecast of forecasts) counts[hearingState(forecast)] += 1;
  const heard = overallHeard(forecasts);
  return {
    spec: stands || additions.length === 0 ? spec : { ...spec, burden: added },
    fit: stands ? { ...fit, fits: true, reason: 'stands already' } : fit,
    ...(withdrawn ? { withdrawn } : {}),
    ...(own ? { own } : {}),
    ...(heard ? { heard } : {}),
    forecasts,
    additions: [],
    lossDb: overallLossDb(forecasts),
    weaknessDb: overallWeaknessDb(forecasts),
    counts,
    ...{ burdenDb: burden, burdens },
    sumDb: orderDb(forecasts, view) - burden,
    reason: withdrawn ? `${capital(withdrawn)}.` : reasonFor(forecasts, fit, stands),
  };
}

/** The deciding number in a sentence: what forbids it first, then overload, then what is heard. */
function reasonFor(forecasts: readonly TargetForecast[], fit: Fit, stands: boolean): string {
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
  const known = forecasts.filter(({ heard }) => heard);
  if (known.length === 0) return 'Outside the range of its formulas on everything asked for.';
  if (forecasts.length === 1) return onOne(known[0]);
  const weakest = known.reduce((least, one) => ((one.heard?.middle ?? 0) < (least.heard?.middle ?? 0) ? one : least));
  const served = forecasts.filter((forecast) => hearingState(forecast) === 'served');
  const unjudged = forecasts.length - known.length;
  const open = unjudged > 0 ? ` ${capital(countText(unjudged, 'target'))} not judged.` : '';
  return `${served.length} of ${forecasts.length} at least ${WELL_DB} dB over the noise; the weakest, ${midSentence(weakest.target.name)}, ${overText(weakest)}.${open}`;
}

/** "24 dB over the noise" */
const overText = ({ heard }: TargetForecast): string => {
  const db = heard?.middle ?? 0;
  return `${Math.abs(db).toFixed(0)} dB ${db < 0 ? 'under' : 'over'} the noise`;
};

/** From here the house or the chain is said to decide, dB. */
const DECIDES_DB = 3;

/** What is heard of one target, and what decides it: the house, the chain or the pattern. */
function onOne(forecast: TargetForecast): string {
  const { target, noise, snrLossDb = 0, patternDb = 0 } = forecast;
  const parts = [
    noise.houseDb >= DECIDES_DB ? `the house costs ${noise.houseDb.toFixed(0)} dB` : '',
    snrLossDb >= DECIDES_DB ? `line and receiver cost ${snrLossDb.toFixed(0)} dB` : '',
    Math.abs(patternDb) >= DECIDES_DB
      ? `its pattern ${patternDb > 0 ? 'wins' : 'costs'} ${Math.abs(patternDb).toFixed(0)} dB at ${target.arrivalDeg.toFixed(0)}°`
      : '',
  ].filter(Boolean);
  const why = parts.length > 0 ? `: ${parts.join(', ')}` : '';
  return `A usual ${midSentence(target.name)} station stands ${overText(forecast)}${why}.`;
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
