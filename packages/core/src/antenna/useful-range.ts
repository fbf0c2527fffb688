import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { dimensionsOf } from './dimensions';
import type { Design } from './kind';
import { antennaKind } from './kinds';
import { SMALL_LOOP_MAX_WAVELENGTHS } from './probes';

/** Frequency ratio over which a resonant antenna counts as good: SWR stays below about 3. Common practice, no source. */
const GOOD_RATIO = 1.045;

/** Span in which an antenna is worth trying, for a lane on a frequency strip: rough, by kind; the model and the Bench know better. */
export function usefulRange(design: Design): readonly [lowHz: number, highHz: number] {
  const kind = antennaKind(design.kind);
  const d = dimensionsOf(kind.parameters, design);
  switch (design.kind) {
    case 'amplified-loop':
      return [1e5, (SMALL_LOOP_MAX_WAVELENGTHS * SPEED_OF_LIGHT_M_PER_S) / (Math.PI * d.loopDiameterM)];
    case 'field-probe':
      return [1e4, SPEED_OF_LIGHT_M_PER_S / (8 * d.heightM)];
    case 'discone':
      return [design.freqHz, 8 * design.freqHz];
    case 'ground-loop':
      return [(0.05 * SPEED_OF_LIGHT_M_PER_S) / (4 * d.sideM), (0.9 * SPEED_OF_LIGHT_M_PER_S) / (4 * d.sideM)];
    case 'travelling-wave-wire':
    case 'ground-laid-wire':
      return [(0.4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM, (4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM];
    default:
      return [design.freqHz / GOOD_RATIO, design.freqHz * GOOD_RATIO];
  }
}
