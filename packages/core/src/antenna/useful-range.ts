import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { dimensionsOf } from './dimensions';
import type { Design, KindId } from './kind';
import { antennaKind } from './kinds';
import { SMALL_LOOP_MAX_WAVELENGTHS } from './probes';

/**
 * Frequencies at which a kind is worth building at all: below, it would be larger than anybody puts up; above, another kind does it better or the wire
 * model ends. Common practice, no source; wide on purpose, so that nothing sensible is left out.
 */
const KIND_BANDS: Readonly<Record<KindId, readonly [lowHz: number, highHz: number]>> = {
  'half-wave-dipole': [150e3, 1.3e9],
  'v-dipole': [150e3, 1.3e9],
  'flat-v-dipole': [150e3, 1.3e9],
  'fan-dipole': [1e6, 300e6],
  'folded-dipole': [150e3, 1.3e9],
  'quarter-wave': [150e3, 1.3e9],
  'vertical-over-radials': [500e3, 60e6],
  'whip-on-surface': [20e6, 1.3e9],
  'end-fed-wire': [10e3, 60e6],
  'square-loop': [150e3, 500e6],
  'delta-loop': [150e3, 150e6],
  'amplified-loop': [10e3, 60e6],
  'field-probe': [10e3, 60e6],
  'rectangle-beam': [3e6, 500e6],
  yagi: [7e6, 1.3e9],
  discone: [20e6, 1.3e9],
  'travelling-wave-wire': [150e3, 30e6],
  'ground-laid-wire': [100e3, 15e6],
  'ground-loop': [100e3, 15e6],
  'ferrite-rod': [10e3, 2e6],
  dish: [900e6, 300e9],
  horn: [900e6, 300e9],
};

/** The frequencies at which a kind is worth building, Hz. */
export const kindBand = (kind: KindId): readonly [lowHz: number, highHz: number] => KIND_BANDS[kind];

/** Whether a kind is worth asking at a frequency. */
export const worthAsking = (kind: KindId, freqHz: number): boolean => {
  const [lowHz, highHz] = KIND_BANDS[kind];
  return freqHz >= lowHz && freqHz <= highHz;
};

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
