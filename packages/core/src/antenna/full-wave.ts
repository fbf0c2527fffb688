import { wavelengthM } from '../units/wavelength';
import { INSULATION_FACTOR } from './half-wave-dipole';
import type { Design } from './kind';

/** A full-wave loop resonates a few per cent longer than a wavelength. Common practice (1005 ft over MHz), no source. */
const LOOP_FACTOR = 1.022;
export const fullWaveRoundM = (design: Design): number =>
  LOOP_FACTOR * wavelengthM(design.freqHz) * (design.insulated ? INSULATION_FACTOR : 1);

/** What the wire model needs over the closed form at most, ratio: thick conductors at VHF make a loop resonate higher. Solved over average ground, 2 to 1090 MHz. */
export const loopModelNeeds = (design: Design): number => (design.freqHz < 60e6 ? 1.07 : 1.12);
