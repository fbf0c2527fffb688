import { requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, multiply, type Complex } from '../numeric/complex';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';

/** Insertion loss of something across a matched line, dB: 20 log |1 + Z₀/(2Z)|. */
const shuntLossDb = (z: Complex, lineOhm: number): number =>
  20 * Math.log10(magnitude(add(complex(1), divide(complex(lineOhm / 2), z))));

/** A series resonant circuit across the line: coil for a capacitor, depth, width between the 3 dB points, loss elsewhere. */
export function notchTrap(trap: {
  readonly notchHz: number;
  readonly farad: number;
  readonly q: number;
  readonly lineOhm: number;
}) {
  for (const [name, value] of Object.entries(trap)) requirePositive(value, name);
  const omega = 2 * Math.PI * trap.notchHz;
  const henry = 1 / (omega * omega * trap.farad);
  const ohm = (omega * henry) / trap.q;
  const half = trap.lineOhm / 2;
  // |1 + half/(r + jX)|² = 2  →  X² = (r + half)² − 2r²
  const reactance = Math.sqrt(Math.max(0, (ohm + half) ** 2 - 2 * ohm ** 2));
  // |ωL − 1/(ωC)| = X at two frequencies whose product is ω₀² and whose difference is X/L
  const widthHz = reactance / henry / (2 * Math.PI);
  return {
    henry,
    depthDb: 20 * Math.log10(1 + half / ohm),
    widthHz,
    lossDb: (freqHz: number): number => {
      const w = 2 * Math.PI * freqHz;
      return shuntLossDb(complex(ohm, w * henry - 1 / (w * trap.farad)), trap.lineOhm);
    },
  };
}

/** A piece of coax across the line: a quarter wave open, or half a wave shorted, at the notch. */
export interface Stub {
  readonly kind: 'open quarter' | 'shorted half';
  readonly notchHz: number;
  readonly velocityFactor: number;
  readonly lineOhm: number;
  readonly stubOhm: number;
  /** Loss of the cable at the notch, dB per 100 m; it grows with the root of the frequency. */
  readonly dbPer100m: number;
}

/** Length, depth, loss at other frequencies and the next notch of a stub. Cut it long and trim it. */
export function coaxStub(stub: Stub) {
  requirePositive(stub.notchHz, 'Notch (Hz)');
  requireRange(stub.velocityFactor, 'Velocity factor (ratio)', 0.1, 1);
  requireRange(stub.dbPer100m, 'Loss (dB per 100 m)', 0, 10_000);
  requirePositive(stub.lineOhm, 'Line (ohm)');
  requirePositive(stub.stubOhm, 'Stub (ohm)');
  const speed = stub.velocityFactor * SPEED_OF_LIGHT_M_PER_S;
  const open = stub.kind === 'open quarter';
  const lengthM = open ? speed / (4 * stub.notchHz) : speed / (2 * stub.notchHz);
  const lossDb = (freqHz: number): number => {
    // no cable is without loss: so little is left that a notch stays a number
    const nepers = Math.max(
      1e-7,
      ((stub.dbPer100m / 100) * Math.sqrt(freqHz / stub.notchHz) * lengthM) / (20 * Math.log10(Math.E)),
    );
    const phase = (2 * Math.PI * freqHz * lengthM) / speed;
    // tanh(a + jb) = (sinh 2a + j sin 2b) / (cosh 2a + cos 2b)
    const den = Math.cosh(2 * nepers) + Math.cos(2 * phase);
    const tanh = complex(Math.sinh(2 * nepers) / den, Math.sin(2 * phase) / den);
    const z = open ? divide(complex(stub.stubOhm), tanh) : multiply(complex(stub.stubOhm), tanh);
    return shuntLossDb(z, stub.lineOhm);
  };
  return {
    lengthM,
    depthDb: lossDb(stub.notchHz),
    lossDb,
    nextNotchHz: open ? 3 * stub.notchHz : 2 * stub.notchHz,
  };
}
