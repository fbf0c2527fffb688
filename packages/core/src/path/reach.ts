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
