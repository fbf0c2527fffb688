import { requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, parallel, type Complex } from '../numeric/complex';
import { VACUUM_PERMEABILITY_H_PER_M } from '../units/constants';
import { powerDb } from '../units/decibel';
import { powerTransfer, reflectionOf, swrOf } from './reflection';

/** Loss against the available power when a source of `sourceOhm` feeds an impedance whose real power all counts, dB. */
const mismatchLossDb = (load: Complex, sourceOhm: number): number => -powerDb(powerTransfer(complex(sourceOhm), load));

/** A wound transformer whose only fault is its magnetising inductance. */
export interface WoundTransformer {
  readonly inductanceFactorH: number;
  readonly primaryTurns: number;
  /** Impedance ratio, secondary over primary; the turns ratio is its root. */
  readonly ratio: number;
  readonly sourceOhm: number;
  readonly loadOhm: number;
}

/** Magnetising inductance of the primary, H: A_L·N². */
export const magnetisingH = (inductanceFactorH: number, turns: number): number => inductanceFactorH * turns ** 2;

/** Frequency at which the magnetising inductance takes 3 dB, Hz: (R_s ‖ R_L/n) / (2πL_m). */
export function transformerCornerHz(transformer: WoundTransformer): number {
  const { inductanceFactorH, primaryTurns, ratio, sourceOhm, loadOhm } = transformer;
  [inductanceFactorH, primaryTurns, ratio, sourceOhm, loadOhm].forEach((value) =>
    requirePositive(value, 'Transformer value'),
  );
  const reflected = loadOhm / ratio;
  const sideBySide = (sourceOhm * reflected) / (sourceOhm + reflected);
  return sideBySide / (2 * Math.PI * magnetisingH(inductanceFactorH, primaryTurns));
}

/** Insertion loss against the available power and SWR on the source at one frequency. SWR null: infinite. */
export function transformerAt(transformer: WoundTransformer, freqHz: number) {
  requirePositive(freqHz, 'Frequency (Hz)');
  const { inductanceFactorH, primaryTurns, ratio, sourceOhm, loadOhm } = transformer;
  const omega = 2 * Math.PI * freqHz;
  const seen = parallel(complex(loadOhm / ratio), complex(0, omega * magnetisingH(inductanceFactorH, primaryTurns)));
  return {
    lossDb: mismatchLossDb(seen, sourceOhm),
    swr: swrOf(magnitude(reflectionOf(seen, sourceOhm))),
  };
}

/** Fewest whole primary turns whose magnetising loss stays below a limit at the lowest frequency, matched load, lossless core. */
export function turnsForLoss(input: {
  readonly sourceOhm: number;
  readonly lowestHz: number;
  readonly inductanceFactorH: number;
  readonly mostLossDb: number;
}) {
  for (const [name, value] of Object.entries(input)) requirePositive(value, name);
  const omega = 2 * Math.PI * input.lowestHz;
  // IL = 10 log(1 + (R_s / 2ωL)²), solved for L
  const requiredH = input.sourceOhm / (2 * omega * Math.sqrt(10 ** (input.mostLossDb / 10) - 1));
  const turns = Math.max(1, Math.ceil(Math.sqrt(requiredH / input.inductanceFactorH) - 1e-9));
  const inductanceH = magnetisingH(input.inductanceFactorH, turns);
  return { requiredH, turns, lossDb: powerDb(1 + (input.sourceOhm / (2 * omega * inductanceH)) ** 2) };
}

/** A winding on a lossy core across a matched line. */
export interface LossyCore {
  readonly freqHz: number;
  readonly turns: number;
  /** Core constant l_e/A_e, 1/m. */
  readonly coreConstantPerM: number;
  /** Series permeability μ′ − jμ″. */
  readonly permeability: number;
  readonly lossPermeability: number;
  readonly lineOhm: number;
}

/** Series and parallel form of the winding, what it takes from the line, and which share heats the core. Source: Snelling, Soft Ferrites, ch. 2. */
export function lossyCore(core: LossyCore) {
  requirePositive(core.freqHz, 'Frequency (Hz)');
  requirePositive(core.turns, 'Turns');
  requirePositive(core.coreConstantPerM, 'Core constant (1/m)');
  requireRange(core.lossPermeability, 'Loss permeability', 0);
  const omega = 2 * Math.PI * core.freqHz;
  const airH = (VACUUM_PERMEABILITY_H_PER_M * core.turns ** 2) / core.coreConstantPerM;
  const series = complex(omega * airH * core.lossPermeability, omega * airH * core.permeability);
  const square = series.re ** 2 + series.im ** 2;
  // source EMF 2: 1/R of available power
  const across = parallel(series, complex(core.lineOhm));
  const volts = divide(complex(2 * across.re, 2 * across.im), add(complex(core.lineOhm), across));
  const coreWatts = (volts.re ** 2 + volts.im ** 2) * (series.re / square);
  return {
    seriesOhm: series,
    /** Infinite without core loss: null. */
    parallelOhm: series.re > 0 ? square / series.re : null,
    parallelH: square / series.im / omega,
    lossDb: 20 * Math.log10(magnitude(add(complex(1), divide(complex(core.lineOhm / 2), series)))),
    coreShare: coreWatts * core.lineOhm,
  };
}

/** What an ideal impedance transformer n:1 makes of an antenna, and how it would be without. SWR null: infinite. */
export function transformedMatch(antenna: Complex, ratio: number, lineOhm: number) {
  requirePositive(ratio, 'Ratio');
  const seen = complex(antenna.re / ratio, antenna.im / ratio);
  return {
    seen,
    swr: swrOf(magnitude(reflectionOf(seen, lineOhm))),
    lossDb: mismatchLossDb(seen, lineOhm),
    withoutDb: mismatchLossDb(antenna, lineOhm),
  };
}

/**
 * Insertion loss of the 1:4 bootstrap line transformer between R_s and 4R_s with a line of 2R_s, dB; null at half a wave, where nothing passes.
 * Source: Ruthroff, "Some Broad-Band Transformers", Proc. IRE 47 (1959) 1337.
 */
export function bootstrapLossDb(lineWavelengths: number): number | null {
  requireRange(lineWavelengths, 'Line (wavelengths)', 0);
  const cos = Math.cos(2 * Math.PI * lineWavelengths);
  const sin = Math.sin(2 * Math.PI * lineWavelengths);
  const through = 4 * (1 + cos) ** 2;
  return through < 1e-12 ? null : powerDb(((1 + 3 * cos) ** 2 + 4 * sin ** 2) / through);
}
