import { frequenciesAlong, type PathStage } from './stages';

/** What decides which frequencies a receiver shows where they are. */
interface Reach {
  readonly minHz: number;
  readonly maxHz: number;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
}

/**
 * Highest frequency that a receiver shows where it is, Hz: the end of its range, and with real samples never above half the sample rate. What lies
 * beyond is shown folded back, among everything else that folds there (Nyquist).
 */
export const highestHz = ({ maxHz, sampleRateHz, complexSamples }: Omit<Reach, 'minHz'>): number =>
  complexSamples ? maxHz : Math.min(maxHz, sampleRateHz / 2);

/** Whether a receiver shows a whole band, or one frequency, where it is. */
export const reaches = (receiver: Reach, lowHz: number, highHz = lowHz): boolean =>
  lowHz >= receiver.minHz && highHz <= highestHz(receiver);

/** Where something at the antenna comes out at the receiver of a chain, Hz: elsewhere behind a converter. */
export const arrivesAtHz = (stages: readonly PathStage[], freqHz: number): number =>
  frequenciesAlong(stages, freqHz)[stages.length];

/** Whether a receiver shows a whole band that its chain may bring elsewhere. */
export function reachesThrough(stages: readonly PathStage[], receiver: Reach, lowHz: number, highHz: number): boolean {
  const ends = [lowHz, highHz].map((freqHz) => arrivesAtHz(stages, freqHz));
  return reaches(receiver, Math.min(...ends), Math.max(...ends));
}
