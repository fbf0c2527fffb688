import { OutOfRangeError, requirePositive } from '../errors';

/** A coil's inductance and self-capacitance from resonances with two known capacitors. */
export interface CoilFromTwoResonances {
  readonly inductanceH: number;
  readonly selfCapacitanceF: number;
}

/**
 * Inductance and self-capacitance of a coil from two resonances: f² = 1/(4π²L(C + C_self)) at both.
 * @throws OutOfRangeError when the larger capacitor does not give the lower frequency, or the readings ask for a negative self-capacitance.
 * Source: Terman, Radio Engineers' Handbook, sec. 13 (from memory).
 */
export function coilFromTwoResonances(
  first: { readonly capacitanceF: number; readonly freqHz: number },
  second: { readonly capacitanceF: number; readonly freqHz: number },
): CoilFromTwoResonances {
  for (const one of [first, second]) {
    requirePositive(one.capacitanceF, 'Capacitance (F)');
    requirePositive(one.freqHz, 'Frequency (Hz)');
  }
  const [large, small] = first.capacitanceF > second.capacitanceF ? [first, second] : [second, first];
  const ratio = (small.freqHz / large.freqHz) ** 2;
  if (!(ratio > 1) || large.capacitanceF === small.capacitanceF)
    throw new OutOfRangeError(
      'The larger capacitor must give the lower frequency. Check which reading belongs to which.',
    );
  const selfCapacitanceF = (large.capacitanceF - ratio * small.capacitanceF) / (ratio - 1);
  if (selfCapacitanceF < 0)
    throw new OutOfRangeError('These readings ask for a negative self-capacitance. Read both resonances again.');
  return {
    selfCapacitanceF,
    inductanceH: 1 / ((2 * Math.PI * large.freqHz) ** 2 * (large.capacitanceF + selfCapacitanceF)),
  };
}

/** A coil of N turns tuned to a frequency: what it needs and what it gives. */
export interface TunedCoil {
  readonly inductanceH: number;
  /** H per turn². */
  readonly factorH: number;
  /** Capacitance to add to the coil's own. */
  readonly externalF: number;
  readonly reactanceOhm: number;
  /** Parallel resistance at resonance: Q times the reactance. */
  readonly parallelOhm: number;
  /** Turns of a coupling winding that shows `lineOhm`, unrounded. */
  readonly couplingTurns: number;
  /** Q when matched: half. */
  readonly loadedQ: number;
}

/**
 * Tuning of a coil on a rod or form: L = A_L·N², C = 1/(ω²L) less the self-capacitance, R_p = QωL, coupling turns N√(R_line/R_p).
 * @throws OutOfRangeError when the self-capacitance alone tunes it lower.
 */
export function tunedCoil(input: {
  readonly turns: number;
  readonly inductanceH: number;
  readonly selfCapacitanceF: number;
  readonly q: number;
  readonly freqHz: number;
  readonly lineOhm: number;
}): TunedCoil {
  const { turns, inductanceH, selfCapacitanceF, q, freqHz, lineOhm } = input;
  requirePositive(turns, 'Turns');
  requirePositive(inductanceH, 'Inductance (H)');
  requirePositive(q, 'Q');
  requirePositive(freqHz, 'Frequency (Hz)');
  const omega = 2 * Math.PI * freqHz;
  const externalF = 1 / (omega * omega * inductanceH) - selfCapacitanceF;
  if (!(externalF > 0))
    throw new OutOfRangeError('The coil’s own capacitance tunes it below that frequency already. Take fewer turns.');
  const reactanceOhm = omega * inductanceH;
  const parallelOhm = q * reactanceOhm;
  return {
    inductanceH,
    factorH: inductanceH / turns ** 2,
    externalF,
    reactanceOhm,
    parallelOhm,
    couplingTurns: turns * Math.sqrt(lineOhm / parallelOhm),
    loadedQ: q / 2,
  };
}
