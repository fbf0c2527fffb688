import { NotConvergedError, OutOfRangeError, requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, multiply, subtract, type Complex } from '../numeric/complex';
import { BOLTZMANN_J_PER_K } from '../units/constants';

/** Resistors of a matched pad and what each takes of the power. Source: any handbook; Terman, sec. 3. */
export function symmetricPad(lossDb: number, lineOhm: number) {
  requirePositive(lossDb, 'Attenuation (dB)');
  requirePositive(lineOhm, 'Line (ohm)');
  const k = 10 ** (lossDb / 20);
  const teeSeriesOhm = (lineOhm * (k - 1)) / (k + 1);
  const teeShuntOhm = (2 * lineOhm * k) / (k * k - 1);
  return {
    teeSeriesOhm,
    teeShuntOhm,
    piShuntOhm: (lineOhm * (k + 1)) / (k - 1),
    piSeriesOhm: (lineOhm * (k * k - 1)) / (2 * k),
    /** First series, shunt, second series resistor of the T, as shares of the input power. */
    teePowers: [
      teeSeriesOhm / lineOhm,
      ((1 - teeSeriesOhm / lineOhm) ** 2 * lineOhm) / teeShuntOhm,
      teeSeriesOhm / (lineOhm * k * k),
    ] as const,
  };
}

/** The L pad that matches two resistances with least loss. @throws OutOfRangeError when the first is not the larger. */
export function minimumLossPad(largerOhm: number, smallerOhm: number) {
  requirePositive(smallerOhm, 'Smaller resistance (ohm)');
  if (!(largerOhm > smallerOhm))
    throw new OutOfRangeError('The first resistance must be the larger one. Exchange the two.', 'largerOhm');
  const root = Math.sqrt(1 - smallerOhm / largerOhm);
  const ratio = largerOhm / smallerOhm;
  return {
    seriesOhm: largerOhm * root,
    shuntOhm: smallerOhm / root,
    lossDb: 20 * Math.log10(Math.sqrt(ratio) + Math.sqrt(ratio - 1)),
  };
}

/** A star of equal resistors with one input and n outputs; what an open or shorted neighbour does to another output. */
export function resistiveSplitter(outputs: number, lineOhm: number) {
  requireRange(outputs, 'Outputs', 2, 100);
  requirePositive(lineOhm, 'Line (ohm)');
  const ohm = (lineOhm * (outputs - 1)) / (outputs + 1);
  const leg = ohm + lineOhm;
  /** Loss to one output when another hangs on `otherOhm` instead of the line. */
  const lossWith = (otherOhm: number): number => {
    const conductance = (outputs - 1) / leg + (otherOhm === Infinity ? 0 : 1 / (ohm + otherOhm));
    const star = 1 / conductance;
    // EMF 2 behind the line: 1 V at a matched load
    const starVolts = (2 * star) / (lineOhm + ohm + star);
    return -20 * Math.log10((starVolts * lineOhm) / leg);
  };
  const lossDb = 20 * Math.log10(outputs);
  return { ohm, lossDb, isolationDb: lossDb, otherOpenDb: lossWith(Infinity), otherShortDb: lossWith(0) };
}

/** Loss to each of n matched receivers that hang on one line without anything between, dB: each takes 4/(n + 1)² of what the source could give. */
export function plainTeeLossDb(outputs: number): number {
  requireRange(outputs, 'Outputs', 1, 100);
  return 20 * Math.log10((outputs + 1) / 2);
}

/** What a loss ahead of a receiver costs in SNR where noise from outside counts, dB. @param externalFaDb over 290 K. */
export function lossAheadCostDb(lossDb: number, noiseFigureDb: number, externalFaDb: number): number {
  const [outside, without, behind] = [externalFaDb, noiseFigureDb, noiseFigureDb + lossDb].map((db) => 10 ** (db / 10));
  return 10 * Math.log10((outside + behind - 1) / (outside + without - 1));
}

/**
 * A single-section Wilkinson divider (arms of √2·Z₀, a quarter wave at f₀, 2·Z₀ between the outputs) at any frequency, by even and odd
 * modes. Source: Wilkinson, IRE Trans. MTT-8 (1960) 116; Pozar sec. 7.3.
 */
export function wilkinson(centreHz: number, freqHz: number) {
  requirePositive(centreHz, 'Middle frequency (Hz)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const tangent = complex(0, Math.tan(((Math.PI / 2) * freqHz) / centreHz));
  const arm = Math.SQRT2; // in units of Z₀
  const along = (load: Complex): Complex =>
    multiply(
      complex(arm),
      divide(add(load, multiply(complex(arm), tangent)), add(complex(arm), multiply(load, tangent))),
    );
  const reflect = (z: Complex, reference: number): Complex =>
    divide(subtract(z, complex(reference)), add(z, complex(reference)));
  // even: the common port looks like 2; odd: it is shorted, and half of the resistor (1) lies across the output
  const even = reflect(along(complex(2)), 1);
  const shorted = multiply(complex(arm), tangent);
  const odd = reflect(divide(shorted, add(complex(1), shorted)), 1);
  const input = reflect(along(complex(1)), 2);
  const returned = magnitude(input) ** 2;
  const half = (a: Complex): Complex => complex(a.re / 2, a.im / 2);
  const db = (size: number): number | null => (size < 1e-12 ? null : -20 * Math.log10(size));
  return {
    lossDb: -10 * Math.log10((1 - returned) / 2),
    isolationDb: db(magnitude(half(subtract(even, odd)))),
    inputReturnLossDb: db(magnitude(input)),
    outputReturnLossDb: db(magnitude(half(add(even, odd)))),
  };
}

/** A choke that feeds DC and a capacitor that keeps it from the receiver. */
export function biasTee(tee: {
  readonly lineOhm: number;
  readonly freqHz: number;
  readonly henry: number;
  readonly farad: number;
  readonly ampere: number;
  readonly chokeOhm: number;
  readonly cableOhm: number;
}) {
  requirePositive(tee.freqHz, 'Frequency (Hz)');
  requirePositive(tee.henry, 'Choke (H)');
  requirePositive(tee.farad, 'Capacitor (F)');
  const omega = 2 * Math.PI * tee.freqHz;
  const z0 = tee.lineOhm;
  const series = complex(0, -1 / (omega * tee.farad));
  const shunt = complex(0, omega * tee.henry);
  // choke across the side of the source, then the capacitor into the load
  const load = add(complex(z0), series);
  const seen = divide(multiply(load, shunt), add(load, shunt));
  const gamma = magnitude(divide(subtract(seen, complex(z0)), add(seen, complex(z0))));
  // lossless parts: what is not reflected arrives
  return {
    chokeCornerHz: z0 / 2 / (2 * Math.PI * tee.henry),
    capacitorCornerHz: 1 / (2 * Math.PI * tee.farad * 2 * z0),
    lossDb: -10 * Math.log10(1 - gamma * gamma),
    returnLossDb: -20 * Math.log10(gamma),
    dropV: tee.ampere * (tee.chokeOhm + tee.cableOhm),
  };
}

const ELECTRON_C = 1.602176634e-19;
const DIODE_K = 300.15;

/**
 * Antiparallel diodes across a matched line: level that passes, what they take, and the third harmonic that they make. Resistive diodes
 * without capacitance; one period solved at `samples` points, then its Fourier parts. Source: Shockley's equation.
 * @throws NotConvergedError when a point finds no solution.
 */
export function diodeLimiter(
  limiter: {
    readonly availableDbm: number;
    readonly saturationA: number;
    readonly emission: number;
    readonly perLeg: number;
    readonly lineOhm: number;
  },
  samples = 4096,
) {
  requirePositive(limiter.saturationA, 'Saturation current (A)');
  requirePositive(limiter.emission, 'Emission coefficient');
  requireRange(limiter.perLeg, 'Diodes per leg', 1, 20);
  const z0 = limiter.lineOhm;
  const thermalV = (limiter.perLeg * limiter.emission * BOLTZMANN_J_PER_K * DIODE_K) / ELECTRON_C;
  const emfPeak = 2 * Math.sqrt(2 * z0 * 10 ** (limiter.availableDbm / 10) * 1e-3);
  const thevenin = emfPeak / 2;
  const source = z0 / 2;
  /** Voltage at which line and diodes agree: v + source·2·I_s·sinh(v/V_t) = open voltage. */
  const solve = (open: number): number => {
    let v =
      Math.sign(open) *
      Math.min(Math.abs(open), thermalV * Math.asinh(Math.abs(open) / (2 * source * limiter.saturationA)));
    for (let round = 0; round < 200; round += 1) {
      const f = v + 2 * source * limiter.saturationA * Math.sinh(v / thermalV) - open;
      const slope = 1 + ((2 * source * limiter.saturationA) / thermalV) * Math.cosh(v / thermalV);
      const step = f / slope;
      v -= step;
      if (Math.abs(step) < 1e-13) return v;
    }
    throw new NotConvergedError('The voltage across the diodes', open);
  };
  let [first, third, peakV] = [0, 0, 0];
  for (let i = 0; i < samples; i += 1) {
    const phase = (2 * Math.PI * (i + 0.5)) / samples;
    const v = solve(thevenin * Math.sin(phase));
    first += (2 / samples) * v * Math.sin(phase);
    third += (2 / samples) * v * Math.sin(3 * phase);
    peakV = Math.max(peakV, Math.abs(v));
  }
  const dbm = (peak: number): number => 10 * Math.log10((peak * peak) / (2 * z0) / 1e-3);
  return {
    outDbm: dbm(first),
    lossDb: limiter.availableDbm - dbm(first),
    thirdDbc: 20 * Math.log10(Math.abs(third / first)),
    peakV,
  };
}
