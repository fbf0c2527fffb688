import { tryDraft } from '../antenna/attempt';
import { countText, listText, midSentence, numberText } from '../units/format';
import { COUNTS_TO_DB, hearingState, type TargetForecast } from './forecast';
import type { Ranged } from './house-noise';
import { type AntennaSet, bestSets } from './sets';
import { SPOT_WORDS } from './spot';
import { heardCount, mayStay, spoiltCount, usable, type Candidate } from './rank';

/** How a choice stands. */
type ChoiceState =
  'nothing wanted' | 'no receiver' | 'computing' | 'nothing fits' | 'overload' | 'nothing hears' | 'partly' | 'best';

/** Where the next step is taken. */
type ChoiceStep = 'listen' | 'path' | 'bench' | 'draft' | 'choose' | 'noise' | 'guard';

/** The choice as data: page, notes, report and rail read this and word nothing of their own. */
export interface ChoiceVerdict {
  readonly state: ChoiceState;
  /** What is recommended; only in the states `best` and `partly`. */
  readonly best?: Candidate;
  /** Several antennas that are better than any one; `best` is the one of them with the most targets. */
  readonly set?: AntennaSet;
  /** The next of those that may be recommended. */
  readonly runnerUp?: Candidate;
  /** Targets in all, and those that the best hears. */
  readonly asked: number;
  readonly heard: number;
  /** What is so and the number that decides it, one sentence. */
  readonly sentence: string;
  readonly next: string;
  readonly step: ChoiceStep;
}

/** A name inside a sentence: kinds in lower case, a listener's own names as they were given. */
export const candidateName = ({ spec }: Candidate): string =>
  spec.source === 'kind' ? midSentence(spec.name) : spec.name;

const worstRoom = (candidates: readonly Candidate[]): number | undefined =>
  candidates
    .flatMap(({ forecasts }) => Math.min(...forecasts.map(({ headroomDb }) => headroomDb ?? Infinity)))
    .filter(Number.isFinite)
    .sort((a, b) => b - a)[0];

const dbText = (db: number): string => `${Math.abs(db).toFixed(0)} dB`;

/** Names of the targets in some states, at most three by name. */
function namesOf(forecasts: readonly TargetForecast[], wanted: (forecast: TargetForecast) => boolean): string {
  const names = forecasts.filter(wanted).map(({ target }) => target.name);
  return names.length <= 3 ? names.join(', ') : `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
}

/** "24 dB over your noise (12 to 36)" */
export function heardText({ low, middle, high }: Ranged): string {
  if (middle > COUNTS_TO_DB - 0.5) return `${COUNTS_TO_DB} dB or more over your noise`;
  const over = middle >= 0 ? 'over' : 'under';
  const shown = (db: number): string => (over === 'over' ? db : -db).toFixed(0).replace('-', '−');
  const [from, to] = over === 'over' ? [low, high] : [high, low];
  return `${shown(middle)} dB ${over} your noise (${shown(from)} to ${shown(to)})`;
}

/** From here the house is said to decide, dB. */
const HOUSE_DECIDES_DB = 6;

/** What the noise of the house costs the candidate at most on a target, dB; 0 where a floor was measured. */
const houseDbOf = ({ forecasts }: Candidate): number =>
  Math.max(0, ...forecasts.map(({ noise }) => (noise.measured ? 0 : noise.houseDb)));

/** What is put beside it: "with a preamplifier at the antenna". */
const withWords = ({ additions }: Candidate): string =>
  additions.length === 0 ? '' : `, with a ${additions.map(({ addition }) => addition.name).join(' and a ')}`;

/** What the recommended antenna does, with the number that decides; while others are still computed it leads only so far. */
function bestSentence(best: Candidate, heard: number, complete: boolean, missed: string): string {
  const { forecasts, spec } = best;
  const name = `${spec.source === 'kind' ? 'the ' : ''}${candidateName(best)}`;
  const where = spec.source === 'kind' && spec.spot ? ` ${SPOT_WORDS[spec.spot.kind]}` : '';
  // what is still computed may turn it: no figure yet
  if (!complete) return `So far the best is ${name}${where}.`;
  const over = best.heard ? heardText(best.heard) : '';
  const houseDb = houseDbOf(best);
  const house = houseDb >= HOUSE_DECIDES_DB ? `; your house takes up to ${dbText(houseDb)}` : '';
  const does =
    forecasts.length > 1
      ? `it hears ${heard} of ${forecasts.length} targets${missed}, ${over}`
      : `a usual ${midSentence(forecasts[0].target.name)} station stands ${over}`;
  return `Best here is ${name}${where}${withWords(best)}: ${does}${house}.`;
}

/** A transmitter of the listener's own comes first: what it puts on the antenna. */
const ownSentence = ({ own }: Candidate): string => {
  if (!own) return '';
  const level = `${own.levelDbm >= 0 ? '+' : '−'}${Math.abs(own.levelDbm).toFixed(0)} dBm`;
  return `Your own ${own.name} brings some ${level} ${own.amplified ? 'into the amplifier of the antenna' : 'to the antenna'}. `;
};

/** Several antennas, each for what it hears best; `undefined` where one serves as well. */
function setSentence(
  ranked: readonly Candidate[],
): { readonly sentence: string; readonly best: Candidate; readonly set: AntennaSet } | undefined {
  const targets = ranked[0]?.forecasts.map(({ target }) => target) ?? [];
  if (targets.length < 2) return undefined;
  const set = bestSets(ranked, targets).findLast(({ worthIt }) => worthIt);
  if (!set || set.antennas.length < 2) return undefined;
  const lowestHz = ({ targets: its }: AntennaSet['antennas'][number]): number =>
    Math.min(Infinity, ...its.map(({ lowHz }) => lowHz));
  const members = [...set.antennas].sort((a, b) => b.targets.length - a.targets.length || lowestHz(a) - lowestHz(b));
  const named = members.map(({ candidate, targets: its }, i) => {
    const the = candidate.spec.source === 'kind' ? 'the ' : '';
    const count = i === 0 ? countText(its.length, 'target') : numberText(its.length);
    const what = its.length > 2 ? count : listText(its.map(({ name }) => midSentence(name)));
    return `${the}${candidateName(candidate)} for ${what}`;
  });
  return {
    ...{ set, best: members[0].candidate },
    sentence: `Best here are ${members.length === 2 ? 'two' : 'three'}: ${named.join(', ')}.`,
  };
}

/** Name and cut length of the first piece to make, where the design can be drawn. */
export function firstPiece({
  spec,
}: Candidate):
  { readonly count: number; readonly name: string; readonly cutM: number; readonly finishedM: number } | undefined {
  if (spec.source === 'bought') return undefined;
  return tryDraft(spec.design).draft?.pieces[0];
}

function nextOf(best: Candidate): Pick<ChoiceVerdict, 'next' | 'step'> {
  const { spec, own } = best;
  if (own?.destroys) return { next: 'Plan Guard first.', step: 'guard' };
  if (houseDbOf(best) >= HOUSE_DECIDES_DB) return { next: 'Find in Noise what your own house adds.', step: 'noise' };
  if (spec.source === 'own' && spec.standing)
    return { next: 'It stands already: measure it on the Bench.', step: 'bench' };
  if (spec.source === 'own') return { next: 'It is drafted: cut and build it.', step: 'draft' };
  if (spec.source === 'bought') return { next: 'Compare its price with what you would build.', step: 'choose' };
  return { next: 'Draft it.', step: 'draft' };
}

/**
 * The choice from a ranking, best first. Nothing that overloads the receiver or is not usable on a judged target is recommended while anything else is; what is
 * recommended although it misses targets says which.
 */
export function choiceVerdict(ranked: readonly Candidate[], complete = true): ChoiceVerdict {
  const asked = ranked[0]?.forecasts.length ?? 0;
  const none = { asked, heard: 0 };
  if (asked === 0)
    return {
      ...none,
      state: complete ? 'nothing wanted' : 'computing',
      sentence: complete
        ? 'Nothing is wanted yet that an antenna here could be asked for.'
        : 'Asking the wire model what each antenna hears here…',
      ...(complete
        ? { next: 'Say what you want to hear.', step: 'listen' }
        : { next: 'The wire model is still at work.', step: 'choose' }),
    };
  if (ranked.every(({ forecasts }) => forecasts.every(({ receiver }) => !receiver)))
    return {
      ...none,
      state: 'no receiver',
      sentence: 'No receiver of yours tunes this, so nothing can be judged.',
      next: 'Add your receiver in Listen.',
      step: 'listen',
    };
  const may = ranked.filter(mayStay);
  const good = may.filter(usable);
  const some = may.filter((one) => heardCount(one) > 0 && one.counts.overloads === 0 && spoiltCount(one) > 0);
  const [best, runnerUp] = good.length > 0 ? good : some;
  const set = complete ? setSentence(ranked) : undefined;
  if (set && best)
    return {
      ...{ state: 'best', best: set.best, set: set.set, runnerUp: best === set.best ? runnerUp : best },
      ...{ asked, heard: heardCount(set.best), sentence: `${ownSentence(set.best)}${set.sentence}` },
      ...nextOf(set.best),
    };
  if (best) {
    const heard = heardCount(best);
    const partly = good.length === 0;
    const missed = namesOf(best.forecasts, (forecast) => ['unusable', 'overloads'].includes(hearingState(forecast)));
    return {
      state: partly ? 'partly' : 'best',
      best,
      runnerUp,
      asked,
      heard,
      sentence: `${complete ? ownSentence(best) : ''}${bestSentence(best, heard, complete, partly ? `, not ${missed}` : '')}`,
      ...nextOf(best),
    };
  }
  if (!complete)
    return {
      ...none,
      state: 'computing',
      sentence: 'Asking the wire model what each antenna hears here…',
      next: 'The wire model is still at work.',
      step: 'choose',
    };
  if (may.length === 0)
    return {
      ...none,
      state: 'nothing fits',
      sentence: 'Nothing fits here under the rules of the place.',
      next: 'Look at the reasons below; another spot or another rule may change it.',
      step: 'choose',
    };
  const room = worstRoom(may.filter(({ counts }) => counts.overloads > 0));
  if (room !== undefined)
    return {
      ...none,
      state: 'overload',
      sentence: `Every antenna that fits overloads your receiver: at best by ${dbText(room)}.`,
      next: 'Plan a filter or pad in the Path, then judge again.',
      step: 'path',
    };
  return {
    ...none,
    state: 'nothing hears',
    sentence: 'Nothing that fits here hears this.',
    next: 'Look at the reasons below; another spot or another receiver may change it.',
    step: 'choose',
  };
}
