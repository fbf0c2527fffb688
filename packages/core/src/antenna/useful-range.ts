import { dimensionsOf } from './dimensions';
import type { Design, KindId } from './kind';
import { antennaKind } from './kinds';

/** Whether a kind is worth asking at a frequency. */
export const worthAsking = (kind: KindId, freqHz: number): boolean => {
  const [lowHz, highHz] = antennaKind(kind).bandHz;
  return freqHz >= lowHz && freqHz <= highHz;
};

/** Frequency ratio over which a resonant antenna counts as good: SWR stays below about 3. Common practice, no source. */
const GOOD_RATIO = 1.045;

/** Span in which an antenna is worth trying, for a lane on a frequency strip: rough, by kind; the model and the Bench know better. */
export function usefulRange(design: Design): readonly [lowHz: number, highHz: number] {
  const { parameters, usefulHz } = antennaKind(design.kind);
  return (
    usefulHz?.(design, dimensionsOf(parameters, design)) ?? [design.freqHz / GOOD_RATIO, design.freqHz * GOOD_RATIO]
  );
}
