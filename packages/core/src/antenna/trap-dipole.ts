import { conductor, fedAt, heightParameter, lengthParameter, onSupport, plainParameter } from './dimensions';
import { dipoleLengthM, endRopeM, LEAST_HEIGHT_M } from './half-wave-dipole';
import type { Design, Dimensions, Parameter } from './kind';
import { outerLengthM } from './loaded-wire';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Upper band over the lower one, as usual pairs lie: 80 and 40 m, 40 and 20 m. */
const USUAL_RATIO = 2;

/** Coil and capacitor of a trap: resonant on the upper band. */
const trap = ({ upperHz, trapOhm, q }: Dimensions) => {
  const omega = 2 * Math.PI * upperHz;
  return { henry: trapOhm / omega, farad: 1 / (omega * trapOhm), ohm: q * trapOhm, parallel: true };
};
/** Reactance of the trap on the lower band, Ω: X/(u⁻¹ − u) with u the lower over the upper frequency. */
const below = (design: Design, { upperHz, trapOhm }: Dimensions): number => {
  const u = design.freqHz / upperHz;
  return trapOhm / (1 / u - u);
};
const UPPER: Parameter = {
  id: 'upperHz',
  label: 'Upper band',
  dimension: 'frequency',
  bareUnit: 'MHz',
  least: 1e5,
  most: 3e8,
  start: (design) => USUAL_RATIO * design.freqHz,
};

export const trapDipole = wireKind({
  id: 'trap-dipole',
  bandHz: [1.8e6, 60e6],
  burden: { price: 110, hours: 8, sight: 2, mast: true },
  atPlace: onSupport,
  name: 'Trap dipole',
  summary: 'one wire for two bands: traps end it on the upper one and lengthen it on the lower',
  school: 'Traps or a fan of wires: the traps are tidy and lose a little, the fan is wide and loses nothing.',
  parameters: [
    UPPER,
    plainParameter('trapOhm', 'Reactance of a trap part, Ω', 200, 20, 2000, 'coil and capacitor alike, upper band'),
    plainParameter('q', 'Q of the traps', 150, 10, 1000, 'assumed'),
    lengthParameter('innerM', 'Inner wire', (design, { upperHz }) => dipoleLengthM({ ...design, freqHz: upperHz }) / 2),
    lengthParameter('outerM', 'Outer wire', (design, d) =>
      Math.max(0.05, outerLengthM(design.freqHz, d.innerM, below(design, { ...d }), design.diameterM)),
    ),
    heightParameter('Height of the wire'),
  ],
  trim: { id: 'outerM', name: 'each outer wire', share: 1 },
  trimmedWires: ({ freqHz }, { upperHz }) => ({ ids: ['outerM', 'innerM'], bandsHz: [freqHz, upperHz] }),
  usefulHz: ({ freqHz }, { upperHz }) => [0.97 * freqHz, 1.03 * upperHz],
  materials: [...USUAL_PARTS, 'two traps: coil and high-voltage capacitor, or a coil of coax, sealed'],
  goesWrong: [
    'Traps tuned after the wires: set each trap to the upper band on the bench first.',
    'Trimming the outer wires first: the inner ones come first, on the upper band.',
  ],
  pieces: ({ innerM, outerM }) => [
    { name: 'outer wire', count: 2, finishedM: outerM, modelNeeds: 1.1 },
    { name: 'inner wire', count: 2, finishedM: innerM },
  ],
  figures(d) {
    const { henry, farad } = trap(d);
    return [
      {
        ...{ label: 'Trap coil (µH)', value: henry * 1e6, dimension: 'plain', figures: 3, origin: 'model' },
        ...{ formula: 'X / ω on the upper band', source: 'parallel resonance' },
      },
      {
        ...{ label: 'Trap capacitor (pF)', value: farad * 1e12, dimension: 'plain', figures: 3, origin: 'model' },
        ...{ formula: '1 / (ωX) on the upper band', source: 'parallel resonance' },
      },
    ];
  },
  remarks: () => ['Closed form is free space: inner wires first, then the outer ones, by the Bench.'],
  build: { cuts: 'inner and outer wires', raise: 'Pull it up between the supports; the traps hang free.' },
  needs: ({ innerM, outerM }) => ({
    spanM: 2 * (innerM + outerM) + 2 * endRopeM(innerM),
    heightM: LEAST_HEIGHT_M,
  }),
  wires(d, design) {
    const half = d.innerM + d.outerM;
    const at = d.outerM / (2 * half);
    return {
      wires: [conductor(design, 'dipole', [0, -half, d.heightM], [0, half, d.heightM])],
      ports: fedAt(0, 0.5),
      loads: [at, 1 - at].map((position) => ({ wire: 0, position, ...trap(d) })),
    };
  },
});
