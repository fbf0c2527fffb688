import { complex } from '../numeric/complex';
import { powerTransfer } from '../line/reflection';
import { COPPER_CONDUCTIVITY_S_PER_M } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { dipoleDirectivity, dipoleImpedance, dipoleLossOhm, INDUCED_EMF_MAX_WAVELENGTHS } from './induced-emf';
import type { Reception } from './kind';
import { LINE_OHM } from '../line/coax';

/** Loss and mismatch of a wire fed in the middle (or against radials) as an equivalent straight dipole. */
export interface EquivalentDipole {
  /** Electrically equal straight length, m. */
  readonly lengthM: number;
  readonly diameterM: number;
  /** Radiation resistance against the straight dipole's (a V or a ground plane has less). */
  readonly resistanceScale: number;
  readonly rough: boolean;
}

/** Gain taken for overload forecasts where no formula here holds; an upper bound for a long wire off its resonances. */
const BEYOND_MODEL_GAIN_DBI = 0;

/**
 * What an equivalent dipole delivers into a 50 Ω line: induced-EMF impedance, ohmic loss in copper, mismatch. Above 0.75 λ the
 * impedance theory does not hold: no margin is computed there and an upper bound stands for the gain.
 */
export function wireReception(dipole: EquivalentDipole, freqHz: number): Reception {
  const wavelengths = dipole.lengthM / wavelengthM(freqHz);
  if (wavelengths > INDUCED_EMF_MAX_WAVELENGTHS)
    return {
      realisedGainDbi: BEYOND_MODEL_GAIN_DBI,
      transfer: 0,
      validity: 'outside',
      remark: `${wavelengths.toFixed(1)} λ long here: beyond the impedance formula (0.75 λ). 0 dBi is assumed for overload, no margin is given.`,
    };
  const radius = dipole.diameterM / 2;
  const straight = dipoleImpedance(dipole.lengthM, radius, freqHz);
  const lossOhm = dipoleLossOhm(dipole.lengthM, radius, freqHz, COPPER_CONDUCTIVITY_S_PER_M);
  const radiationOhm = straight.re * dipole.resistanceScale;
  const feed = complex(radiationOhm + lossOhm, straight.im * dipole.resistanceScale);
  const transfer = (radiationOhm / (radiationOhm + lossOhm)) * powerTransfer(complex(LINE_OHM), feed);
  return {
    realisedGainDbi: powerDb(dipoleDirectivity(dipole.lengthM, freqHz) * transfer),
    transfer,
    validity: dipole.rough ? 'rough' : 'holds',
    ...(wavelengths < 0.3
      ? { remark: `Only ${wavelengths.toFixed(2)} λ long here: most of the signal is turned back at the feed.` }
      : {}),
  };
}
