import { OutOfRangeError, requirePositive } from '../errors';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import type { Reception } from './kind';

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
 * Pyramidal horn whose flare is the optimum for its mouth: gain, slant lengths to the apex, half-power widths.
 * @param widthM in the H plane. @param heightM in the E plane. Source: Balanis ch. 13 (a²/3λ, b²/2λ, 78 λ/a and 54 λ/b degrees; from memory).
 */
export function optimumHorn(widthM: number, heightM: number, freqHz: number) {
  requirePositive(widthM, 'Width of the mouth (m)');
  requirePositive(heightM, 'Height of the mouth (m)');
  const lambda = wavelengthM(freqHz);
  return {
    gainDbi: hornGainDbi(widthM, heightM, freqHz),
    slantHM: widthM ** 2 / (3 * lambda),
    slantEM: heightM ** 2 / (2 * lambda),
    beamEDeg: (54 * lambda) / heightM,
    beamHDeg: (78 * lambda) / widthM,
  };
}

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

/** Signal lost by pointing beside the target, dB: 12·(error / beamwidth)². Holds to half a beamwidth. Source: Gaussian main lobe. */
export const pointingLossDb = (errorDeg: number, beamwidthDeg: number): number => 12 * (errorDeg / beamwidthDeg) ** 2;

/**
 * Modes of an air-filled rectangular guide at a frequency: cut-off of the dominant mode and of the next one, and below cut-off how fast a
 * wave dies away, dB/m. Source: Pozar sec. 3.3.
 */
export function rectangularGuide(widthM: number, heightM: number, freqHz: number) {
  requirePositive(widthM, 'Width of the guide (m)');
  requirePositive(heightM, 'Height of the guide (m)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const cutoffHz = SPEED_OF_LIGHT_M_PER_S / (2 * widthM);
  const common = {
    cutoffHz,
    nextCutoffHz: Math.min(SPEED_OF_LIGHT_M_PER_S / widthM, SPEED_OF_LIGHT_M_PER_S / (2 * heightM)),
    quarterFreeM: wavelengthM(freqHz) / 4,
  };
  if (freqHz > cutoffHz) {
    const { guideWavelengthM, probeFromEndM } = waveguide(widthM, freqHz);
    return { ...common, propagates: true as const, guideWavelengthM, quarterGuideM: probeFromEndM };
  }
  const k = (2 * Math.PI) / wavelengthM(freqHz);
  const nepersPerM = Math.sqrt((Math.PI / widthM) ** 2 - k * k);
  return { ...common, propagates: false as const, attenuationDbPerM: NEPER_DB * nepersPerM };
}

const NEPER_DB = 20 * Math.log10(Math.E);

/** A feed works within this share of the frequency it was made for. Common practice, no source. */
const FEED_RANGE = 0.15;

/** What an aperture hands on when it points at what is wanted: its gain near its own frequency, nothing claimed elsewhere. */
export function apertureReception(designHz: number, freqHz: number, gainDbi: number): Reception {
  if (Math.abs(freqHz / designHz - 1) <= FEED_RANGE)
    return {
      realisedGainDbi: gainDbi,
      transfer: 1,
      validity: 'rough',
      remark: 'Pointed at it; loss in the feed is not counted.',
    };
  return {
    realisedGainDbi: 0,
    transfer: 0,
    validity: 'outside',
    remark: 'Far from the frequency its feed is made for: no margin is given, 0 dBi is assumed for overload.',
  };
}
