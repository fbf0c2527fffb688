import { tryDraft } from '../antenna/attempt';
import { midSentence } from '../units/format';
import { hearingState, type TargetForecast } from './forecast';
import { heardCount, mayStay, spoiltCount, usable, type Candidate } from './rank';

/** How a choice stands. */
type ChoiceState =
  'nothing wanted' | 'no receiver' | 'computing' | 'nothing fits' | 'overload' | 'nothing hears' | 'partly' | 'best';

/** Where the next step is taken. */
type ChoiceStep = 'listen' | 'path' | 'bench' | 'draft' | 'choose';

/** The choice as data: page, notes, report and rail read this and word nothing of their own. */
export interface ChoiceVerdict {
  readonly state: ChoiceState;
  /** What is recommended; only in the states `best` and `partly`. */
  readonly best?: Candidate;
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

/** What the recommended antenna does, with the number that decides; while others are still computed it leads only so far. */
function bestSentence(best: Candidate, heard: number, complete: boolean): string {
  const { forecasts, lossDb = 0, spec } = best;
  const size = dbText(lossDb);
  const against =
    size === '0 dB'
      ? 'as well as a lossless antenna'
      : `with ${size} ${lossDb > 0 ? 'less' : 'more'} SNR than a lossless antenna`;
  const name = `${spec.source === 'kind' ? 'the ' : ''}${candidateName(best)}`;
  const lead = complete ? 'Best here is' : 'So far the best is';
  if (forecasts.length > 1)
    return `${lead} ${name}: it hears ${heard} of ${forecasts.length} targets, ${against}, by weight.`;
  return `${lead} ${name}: it hears ${forecasts[0].target.name} ${against}.`;
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
  const { spec } = best;
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
      sentence: partly
        ? `${complete ? 'No antenna here' : 'So far no antenna'} hears everything wanted. ${bestSentence(best, heard, complete)} Not ${missed}.`
        : bestSentence(best, heard, complete),
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
      next: 'Look at the reasons below; a longer run or another rule may change it.',
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
    next: 'Look at the reasons below; a longer run or another receiver may change it.',
    step: 'choose',
  };
}
