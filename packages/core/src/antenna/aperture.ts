import { OutOfRangeError, requirePositive } from '../errors';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

/** Gain of a dish, dBi: η(πD/λ)²; beamwidth about 70 λ/D degrees; far field from 2D²/λ. Holds from a diameter of about 8 λ. Source: Balanis ch. 15. */
export function dish(diameterM: number, freqHz: number, efficiency: number) {
  requirePositive(diameterM, 'Diameter (m)');
  const lambda = wavelengthM(freqHz);
  return {
    gainDbi: powerDb(efficiency * ((Math.PI * diameterM) / lambda) ** 2),
    beamwidthDeg: (70 * lambda) / diameterM,
    farFieldM: (2 * diameterM ** 2) / lambda,
    wavelengths: diameterM / lambda,
  };
}

/** Pyramidal horn of aperture a × b, dBi: 0.51·4πab/λ² at optimum flare. Source: Balanis ch. 13 (aperture efficiency 51 %). */
export const hornGainDbi = (widthM: number, heightM: number, freqHz: number): number =>
  powerDb((0.51 * 4 * Math.PI * widthM * heightM) / wavelengthM(freqHz) ** 2);

/**
 * Rectangular waveguide's dominant mode: cut-off c/(2a), guide wavelength λ/√(1 − (f_c/f)²), probe of a quarter wave a quarter guide wave
 * from the closed end. @throws OutOfRangeError below cut-off. Source: Pozar sec. 3.3.
 */
export function waveguide(widthM: number, freqHz: number) {
  requirePositive(widthM, 'Width of the guide (m)');
  const cutoffHz = SPEED_OF_LIGHT_M_PER_S / (2 * widthM);
  if (!(freqHz > cutoffHz))
    throw new OutOfRangeError(
      `A guide ${(widthM * 1000).toPrecision(3)} mm wide passes nothing below ${(cutoffHz / 1e6).toPrecision(4)} MHz. Make it wider.`,
      'guideWidthM',
    );
  const lambda = wavelengthM(freqHz);
  const guideWavelengthM = lambda / Math.sqrt(1 - (cutoffHz / freqHz) ** 2);
  return { cutoffHz, guideWavelengthM, probeFromEndM: guideWavelengthM / 4, probeLengthM: 0.22 * lambda };
}
