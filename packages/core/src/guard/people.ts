import { requirePositive, requireRange } from '../errors';
import { meshOf } from '../solver/mesh';
import type { Ground, Point } from '../solver/model';
import { nearFieldPerRootWatt } from '../solver/near-field';
import { solveAt } from '../solver/solve';
import { wavelengthM } from '../units/wavelength';
import { type PlacedAntenna, placedWires } from '../antenna/placed-wires';

/** Share of the peak power that the mean over a transmission is, by mode. Common practice, no source. */
export const MODE_SHARES = [
  { id: 'cw', name: 'Morse', share: 0.4 },
  { id: 'ssb', name: 'speech, single sideband', share: 0.2 },
  { id: 'fm', name: 'FM, digital modes', share: 1 },
  { id: 'am', name: 'AM at its carrier', share: 1 },
] as const;

/** Heights at which a body is, m. */
const BODY_HEIGHTS_M = [0.5, 1, 1.5, 2] as const;
/** Directions that are looked at. */
const DIRECTIONS = 12;

/** The field where people are, averaged over time. */
export interface PeopleField {
  readonly distanceM: number;
  /** Largest over directions and heights, V/m and A/m, RMS of the averaged power. */
  readonly eVPerM: number;
  readonly hAPerM: number;
  /** Where the electric field is largest. */
  readonly heightM: number;
  readonly bearingDeg: number;
  /** Inside λ/2π the two fields stand in no fixed ratio: both count. */
  readonly near: boolean;
  /** E over H, Ω; 377 far away. */
  readonly waveOhm: number;
}

/**
 * Electric and magnetic field about a transmit antenna, at heights of people, from the solver's near field over the station's ground.
 * @param meanW power that goes into the antenna, averaged over time. @param distancesM from its middle on the ground.
 * @throws OutOfRangeError for an antenna without wires. Range: what stands about (houses, people) is not in it.
 */
export function* fieldOfPeople(
  antenna: PlacedAntenna,
  ground: Ground,
  freqHz: number,
  meanW: number,
  distancesM: readonly number[],
): Generator<{ readonly share: number }, readonly PeopleField[]> {
  requirePositive(freqHz, 'Frequency (Hz)');
  requireRange(meanW, 'Mean power (W)', 0, 1e6);
  const wires = placedWires({ ...antenna, at: [0, 0] });
  if (!wires) return [];
  const model = { ...wires, ground };
  const mesh = meshOf(model, freqHz, 1);
  const solution = solveAt(model, mesh, freqHz);
  const root = Math.sqrt(meanW);
  const fields: PeopleField[] = [];
  for (const [i, distanceM] of distancesM.entries()) {
    requirePositive(distanceM, 'Distance (m)');
    let best = { e: 0, h: 0, heightM: 0, bearingDeg: 0 };
    let mostH = 0;
    for (let k = 0; k < DIRECTIONS; k += 1) {
      const bearing = (2 * Math.PI * k) / DIRECTIONS;
      for (const heightM of BODY_HEIGHTS_M) {
        const place: Point = [distanceM * Math.sin(bearing), distanceM * Math.cos(bearing), heightM];
        const { e, h } = nearFieldPerRootWatt(solution, place);
        mostH = Math.max(mostH, h);
        if (e > best.e) best = { e, h, heightM, bearingDeg: (360 * k) / DIRECTIONS };
      }
      yield { share: (i + (k + 1) / DIRECTIONS) / distancesM.length };
    }
    fields.push({
      distanceM,
      // peak phasors: RMS is less by √2
      eVPerM: (best.e * root) / Math.SQRT2,
      hAPerM: (mostH * root) / Math.SQRT2,
      ...{ heightM: best.heightM, bearingDeg: best.bearingDeg, waveOhm: best.e / best.h },
      near: distanceM < wavelengthM(freqHz) / (2 * Math.PI),
    });
  }
  return fields;
}
