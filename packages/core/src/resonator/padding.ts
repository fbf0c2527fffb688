import { OutOfRangeError, requirePositive, requireRange } from '../errors';
import { powerDb } from '../units/decibel';

/** A circuit that resonates somewhere and should resonate lower. */
export interface PaddingQuestion {
  /** Capacitor in the circuit now, F. */
  readonly installedF: number;
  /** The coil's own capacitance, F; 0 when nobody measured it. */
  readonly selfF: number;
  readonly measuredHz: number;
  readonly targetHz: number;
  readonly q: number;
}

/**
 * Capacitance to add so that a circuit comes down to its target: (C + C_self)·((f/f_t)² − 1); how much a picofarad moves it there, and what
 * is lost at the target until then.
 * @throws OutOfRangeError when it lies below the target already: capacitance must then be taken off.
 */
export function padding({ installedF, selfF, measuredHz, targetHz, q }: PaddingQuestion) {
  requirePositive(installedF, 'Installed capacitance (F)');
  requireRange(selfF, 'Self-capacitance (F)', 0);
  requirePositive(measuredHz, 'Measured resonance (Hz)');
  requirePositive(targetHz, 'Target (Hz)');
  requirePositive(q, 'Q');
  const square = (measuredHz / targetHz) ** 2 - 1;
  if (square < 0)
    throw new OutOfRangeError('It resonates below the target already. Take capacitance off, or turns.', 'measuredHz');
  const totalF = installedF + selfF;
  const addF = totalF * square;
  return {
    addF,
    /** What one would add without knowing the coil's own capacitance. */
    withoutSelfF: installedF * square,
    /** Frequency per capacitance where it stands now, Hz/F (negative). */
    slopeHzPerF: -measuredHz / (2 * totalF),
    lossNowDb: detuningLossDb(measuredHz, targetHz, q),
    predictedHz: (extraF: number): number => measuredHz * Math.sqrt(totalF / (totalF + extraF)),
  };
}

/** Loss of a tuned circuit beside its resonance, dB: 10 log(1 + (Q(f/f₀ − f₀/f))²). */
export function detuningLossDb(resonanceHz: number, freqHz: number, q: number): number {
  const off = q * (freqHz / resonanceHz - resonanceHz / freqHz);
  return powerDb(1 + off * off);
}

/** Q that a loss beside the resonance tells; undefined without loss or detuning. */
export function qFromDetuning(resonanceHz: number, freqHz: number, lossDb: number): number | undefined {
  const off = Math.abs(freqHz / resonanceHz - resonanceHz / freqHz);
  return lossDb > 0 && off > 0 ? Math.sqrt(10 ** (lossDb / 10) - 1) / off : undefined;
}

/** Whether readings of one coil in several positions agree; beyond the limit nothing is sealed. */
export function repeatability(readingsHz: readonly number[], limitShare = 0.004) {
  readingsHz.forEach((one) => requirePositive(one, 'Reading (Hz)'));
  const spreadHz = Math.max(...readingsHz) - Math.min(...readingsHz);
  const meanHz = readingsHz.reduce((sum, value) => sum + value, 0) / readingsHz.length;
  const limitHz = limitShare * meanHz;
  return { spreadHz, limitHz, enough: readingsHz.length >= 3, agrees: readingsHz.length >= 3 && spreadHz <= limitHz };
}
