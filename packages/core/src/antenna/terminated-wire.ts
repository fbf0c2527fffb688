import type { LumpedLoad } from '../solver/model';
import { conductor, fedAt, lengthParameter, yesNoParameter } from './dimensions';
import { wavelengthM } from '../units/wavelength';
import type { Design, Dimensions, Parameter, PlaceRoom } from './kind';

/** Height of the short radials that stand for the earth rods at both ends. */
const RADIAL_HEIGHT_M = 0.1;
export const EARTH_OHM: Parameter = {
  id: 'earthOhm',
  label: 'Earth resistance at each end',
  dimension: 'resistance',
  bareUnit: 'Ω',
  least: 0,
  most: 2000,
  hint: 'rods in ordinary soil: 30 to 200 Ω, assumed',
  start: () => 60,
};
export const TERMINATION: Parameter = {
  id: 'terminationOhm',
  label: 'Termination at the far end',
  dimension: 'resistance',
  bareUnit: 'Ω',
  least: 1,
  most: 5000,
  start: () => 450,
};
/** Shorter where the run of a place ends, as long as it still hears one way: down to a share of a wavelength. */
export const endsWithTheRun =
  (leastShare: number) =>
  ({ lengthM }: Dimensions, { freqHz }: Design, room: PlaceRoom): Dimensions => ({
    lengthM: Math.min(lengthM, Math.max(room.spanM, leastShare * wavelengthM(freqHz))),
  });
/** Feed and termination change places: it hears the other way. */
export const REVERSED = yesNoParameter('reversed', 'Feed and termination exchanged');
export const RADIAL = lengthParameter('radialM', 'Short radials at each end', 5, {
  least: 0.5,
  most: 40,
  hint: 'two, across the wire',
});

/** A wire along −x … toward +x: fed at x = 0, terminated at the far end; it hears best from beyond the termination. */
function wires({ lengthM, heightM, radialM, terminationOhm, earthOhm, reversed }: Dimensions, design: Design) {
  const low = Math.min(RADIAL_HEIGHT_M, 0.5 * heightM);
  const end = (x: number, name: string) => [
    conductor(design, `${name} radial 1`, [x, 0, low], [x, radialM, low]),
    conductor(design, `${name} radial 2`, [x, 0, low], [x, -radialM, low]),
  ];
  // the resistance of the fed end's earth lies in series at the top of its downlead, where the same current flows
  const [feed, far] = reversed ? ([2, 0] as const) : ([0, 2] as const);
  const foot = (downlead: 0 | 2): number => (downlead === 0 ? 0 : 1);
  const loads: LumpedLoad[] = [
    { wire: far, position: foot(far), ohm: terminationOhm + earthOhm },
    { wire: feed, position: 1 - foot(feed), ohm: earthOhm },
  ];
  return {
    wires: [
      conductor(design, 'near downlead', [0, 0, low], [0, 0, heightM]),
      conductor(design, 'wire', [0, 0, heightM], [lengthM, 0, heightM]),
      conductor(design, 'far downlead', [lengthM, 0, heightM], [lengthM, 0, low]),
      ...end(0, 'near'),
      ...end(lengthM, 'far'),
    ],
    ports: fedAt(feed, foot(feed)),
    loads,
  };
}

export const EARTH_REMARK =
  'Earth rods are not modelled as buried wires: a lumped resistance (assumed) with two short radials stands for each. Measure yours and enter it.';
export const SHARED = {
  ignores: ['allowance'] as const,
  pieces: ({ lengthM, heightM, radialM }: Dimensions) => [
    { name: 'wire with downleads', count: 1, finishedM: lengthM + 2 * heightM, keep: true },
    { name: 'short radial', count: 4, finishedM: radialM, keep: true },
  ],
  wires,
};
