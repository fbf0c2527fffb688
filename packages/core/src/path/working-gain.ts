import { analyseBands, type PathAnalysis } from './plan';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import { atWorkingGains } from './receiver-kinds';
import type { PathStage } from './stages';

/** A chain with its receiver at the gain that suits it. */
export interface AtGain {
  /** Its name says the gain, where its kind has several. */
  readonly receiver: PathReceiver;
  readonly analysis: PathAnalysis;
}

const isOver = ({ firstOverload, canClip }: PathAnalysis): boolean => firstOverload !== undefined || canClip;
/** Least room of any stage, the receiver's with the peaks of all carriers, dB. */
const leastRoomDb = ({ reports, peakHeadroomDb }: PathAnalysis): number =>
  Math.min(peakHeadroomDb ?? Infinity, ...reports.map(({ roomDb }) => roomDb ?? Infinity));

/** What a listener would choose: nothing overloaded before anything that is, then the least SNR lost. */
const suitsBetter = (a: AtGain, b: AtGain): boolean => {
  if (isOver(a.analysis) !== isOver(b.analysis)) return isOver(b.analysis);
  return isOver(a.analysis)
    ? leastRoomDb(a.analysis) > leastRoomDb(b.analysis)
    : a.analysis.snrLossWithProductsDb < b.analysis.snrLossWithProductsDb;
};

/** Several wanted bands, each with the receiver at the gain that suits it there. */
export function bandsAtWorkingGain(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  bands: readonly Omit<PathQuestion, 'signals'>[],
  signals: readonly PathSignal[],
): readonly AtGain[] {
  const settings = atWorkingGains(receiver).map((one) => ({
    receiver: one,
    analyses: analyseBands(stages, one, bands, signals),
  }));
  return bands.map((_, i) =>
    settings
      .map((one): AtGain => ({ receiver: one.receiver, analysis: one.analyses[i] }))
      .reduce((best, one) => (suitsBetter(one, best) ? one : best)),
  );
}

/** A chain on its wanted band, the receiver at the gain that suits it. */
export const atWorkingGain = (stages: readonly PathStage[], receiver: PathReceiver, question: PathQuestion): AtGain =>
  bandsAtWorkingGain(stages, receiver, [question], question.signals)[0];
