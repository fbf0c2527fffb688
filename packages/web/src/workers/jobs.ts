import { CoreError } from '@velvet-reed/core/errors';
import {
  optimiseDesign,
  trimToResonance,
  feedLineStudy,
  wireSensitivities,
  type Design,
  type DesignGoals,
  type PlacedAntenna,
} from '@velvet-reed/core/antenna';
import { solveHearing, type Hearing, type HearingQuestion, type Unheard } from '@velvet-reed/core/choose';
import { designFilter, filterYield, type FilterQuestion, type Tolerance } from '@velvet-reed/core/filter';
import type { Spectrum } from '@velvet-reed/core/formats';
import {
  searchOrder,
  type PathReceiver,
  type PathSignal,
  type PathStage,
  type SearchGoal,
  type ShelfPart,
} from '@velvet-reed/core/path';
import { antennaCoupling, couplingRanges, fieldOfPeople } from '@velvet-reed/core/guard';
import { analyseModel, GROUND_CLASSES, groundClass } from '@velvet-reed/core/solver';
import { fitAsBuilt, noisePeak, type AsBuiltQuestion } from '@velvet-reed/core/sweep';

import {
  openRecording,
  recordingAtOnce,
  recordingLevels,
  recordingList,
  recordingNoise,
  recordingPicture,
  recordingProof,
  recordingSound,
  recordingSpectrum,
  recordingStandard,
} from './recording-jobs';

interface OnGround {
  readonly design: Design;
  readonly groundId: string;
}

/** Two antennas as they stand. */
interface CoupledOn {
  readonly sender: PlacedAntenna;
  readonly other: PlacedAntenna;
  readonly groundId: string;
  readonly freqHz: number;
}

/** A computation that cannot be looked into: one step. */
function* once<A>(compute: () => A): Generator<undefined, A> {
  yield undefined;
  return compute();
}
/** Several questions of a ranking, best of one frequency: they share what the ground does there. Each answer is a step. */
function* solveHearings(
  questions: readonly HearingQuestion[],
): Generator<{ readonly index: number; readonly answer: Hearing | Unheard }, undefined> {
  for (const [index, question] of questions.entries()) {
    let answer: Hearing | Unheard;
    try {
      answer = solveHearing(question);
    } catch (error) {
      // a refusal is an answer; a fault of the moment ends the lot, and is not kept
      if (!(error instanceof CoreError)) throw error;
      answer = { why: error.message };
    }
    yield { index, answer };
  }
  return undefined;
}
const ground = ({ groundId }: { readonly groundId: string }) => groundClass(groundId).ground;

/** All long work of the interface, by name: what it is asked, the steps that it tells on the way, and its answer. */
export const JOBS = {
  analyse: analyseModel,
  trim: (asked: OnGround) => trimToResonance(asked.design, ground(asked)),
  optimise: (asked: OnGround & { readonly ids: readonly string[]; readonly goals: DesignGoals }) =>
    optimiseDesign(asked.design, ground(asked), asked.ids, asked.goals),
  fit: ({ groundId, ...question }: Omit<AsBuiltQuestion, 'ground'> & { readonly groundId: string }) =>
    fitAsBuilt({ ...question, ground: groundClass(groundId).ground }),
  sensitivities: (asked: OnGround) => wireSensitivities(asked.design, ground(asked)),
  yield: ({ question, tolerance }: { readonly question: FilterQuestion; readonly tolerance: Tolerance }) =>
    once(() => filterYield(designFilter(question), question.coilQ, tolerance)),
  order: (asked: {
    readonly shelf: readonly ShelfPart[];
    readonly receiver: PathReceiver;
    readonly goals: readonly SearchGoal[];
    readonly signals: readonly PathSignal[];
    readonly head?: PathStage;
  }) => searchOrder(asked.shelf, asked.receiver, asked.goals, asked.signals, asked.head),
  noisePeak: ({ on, off }: { readonly on: Spectrum; readonly off: Spectrum }) => once(() => noisePeak(on, off)),
  hearings: solveHearings,
  openRecording,
  recordingPicture,
  recordingProof,
  recordingLevels,
  recordingNoise,
  recordingStandard,
  recordingSpectrum,
  recordingAtOnce,
  recordingList,
  recordingSound,
  coupling: (asked: CoupledOn) => once(() => antennaCoupling(asked.sender, asked.other, ground(asked), asked.freqHz)),
  couplingRanges: (asked: CoupledOn) =>
    once(() =>
      couplingRanges(
        asked.sender,
        asked.other,
        GROUND_CLASSES.map((one) => one.ground),
        ground(asked),
        asked.freqHz,
      ),
    ),
  feedLine: feedLineStudy,
  people: ({
    groundId,
    ...asked
  }: {
    readonly antenna: PlacedAntenna;
    readonly groundId: string;
    readonly freqHz: number;
    readonly meanW: number;
    readonly distancesM: readonly number[];
  }) => fieldOfPeople(asked.antenna, groundClass(groundId).ground, asked.freqHz, asked.meanW, asked.distancesM),
} as const;

export type JobName = keyof typeof JOBS;
export type QuestionOf<N extends JobName> = Parameters<(typeof JOBS)[N]>[0];
type RunOf<N extends JobName> = ReturnType<(typeof JOBS)[N]>;
export type StepOf<N extends JobName> = RunOf<N> extends Generator<infer S, unknown> ? S : never;
export type AnswerOf<N extends JobName> = RunOf<N> extends Generator<unknown, infer A> ? A : never;
