import { requireRange } from '../errors';
import { angleParameter, conductor, fedAt, heightParameter, lengthParameter, onSupport } from './dimensions';
import { dipoleLengthM, END_ROPE_M, INSULATION_FACTOR } from './half-wave-dipole';
import { resonantDipole } from './induced-emf';
import type { Design, Dimensions, DraftFigure, Parameter } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { wireReception } from './wire-reception';
import { RAD } from '../units/constants';

/** Ends of a V stay above reach. */
const END_HEIGHT_M = 2.2;

/**
 * How much longer a V must be than a straight dipole of the same resonance. Quadratic in 1 − sin(angle/2) through the resonances of
 * two 0.49 m arms of 4 mm wire in free space: 145.7 / 147.7 / 150.7 MHz at 180 / 120 / 90° (moment-method values, ±1.5 %).
 */
export function vLengthFactor(angleDeg: number): number {
  requireRange(angleDeg, 'Angle between the arms (degrees)', 90, 180);
  const x = 1 - Math.sin((angleDeg / 2) * RAD);
  return 1 + 0.0897 * x + 0.0935 * x * x;
}

/** Feed resistance against the straight dipole: 0.79 at 120° (57.6 of 73 Ω by moment method), 0.56 at 90°. Rough. */
const vResistanceFactor = (angleDeg: number): number => Math.sin((angleDeg / 2) * RAD) ** 1.65;

export const V_PARAMETERS: readonly Parameter[] = [
  angleParameter('angleDeg', 'Angle between the arms', 120, 90, 180, '90° to 180°'),
  lengthParameter('armM', 'One arm', (design, { angleDeg }) => (dipoleLengthM(design) / 2) * vLengthFactor(angleDeg)),
];

export const vFigures = ({ armM, angleDeg }: Dimensions, design: Design): readonly DraftFigure[] => [
  {
    label: 'One arm',
    value: armM,
    dimension: 'length',
    figures: 4,
    origin: 'model',
    formula:
      'half of the straight dipole × V factor' + (design.insulated ? ` × ${INSULATION_FACTOR} for insulation` : ''),
    source: 'induced-EMF theory; V factor from a thin-wire model of one VHF case, 90 to 180°',
  },
  {
    label: 'V factor',
    value: vLengthFactor(angleDeg),
    dimension: 'plain',
    figures: 4,
    origin: 'model',
    formula: '1 + 0.0897 x + 0.0935 x², x = 1 − sin(angle/2)',
    source: 'fit to moment-method resonances at 180, 120 and 90°',
  },
  {
    label: 'Feed resistance, free space',
    value: resonantDipole(design.freqHz, design.diameterM).resistanceOhm * vResistanceFactor(angleDeg),
    dimension: 'resistance',
    figures: 2,
    origin: 'model',
    formula: 'straight dipole × sin(angle/2)^1.65',
    source: 'rough fit to moment-method values',
  },
];

const vReception = (design: Design) => {
  const { lengthM } = resonantDipole(design.freqHz, design.diameterM);
  const angleDeg = design.dimensions.angleDeg ?? 120;
  const dipole = { lengthM, diameterM: design.diameterM, resistanceScale: vResistanceFactor(angleDeg), rough: true };
  return (freqHz: number) => wireReception(dipole, freqHz);
};

export const vDipole = wireKind({
  id: 'v-dipole',
  bandHz: [150e3, 1.3e9],
  burden: { price: 60, hours: 4, sight: 2, mast: true },
  atPlace: onSupport,
  name: 'V dipole',
  summary: 'two arms sloping down from one mast',
  parameters: [...V_PARAMETERS, heightParameter('Height of the apex')],
  trim: { id: 'armM', name: 'each arm', share: 1 },
  materials: [...USUAL_PARTS, 'one mast or tree branch'],
  goesWrong: [
    'Ends too near the ground or a fence lower and widen the dip.',
    'Unequal slopes: the noise of the nearer side comes in.',
  ],
  pieces: ({ armM }) => [{ name: 'arm', count: 2, finishedM: armM }],
  figures: (d, design) => [
    ...vFigures(d, design),
    {
      label: 'Ends below the apex',
      value: d.armM * Math.cos((d.angleDeg / 2) * RAD),
      dimension: 'length',
      figures: 3,
      origin: 'model',
      formula: 'arm · cos(angle/2)',
      source: 'geometry',
    },
  ],
  remarks: (_, design) => [
    'Closed form is free space. Low ends lower the dip by a few per cent: leave the allowance on until the Bench has spoken.',
    ...(design.insulated ? ['Insulation factor 0.96 is assumed; measure and trim.'] : []),
  ],
  build: { cuts: 'two arms', raise: 'Pull the apex up the mast; tie the ends out evenly.' },
  needs: ({ armM, angleDeg }) => ({
    spanM: 2 * armM * Math.sin((angleDeg / 2) * RAD) + 2 * END_ROPE_M,
    heightM: armM * Math.cos((angleDeg / 2) * RAD) + END_HEIGHT_M,
  }),
  wires({ armM, angleDeg, heightM }, design) {
    const half = (angleDeg / 2) * RAD;
    const end = (side: number) => [0, side * armM * Math.sin(half), heightM - armM * Math.cos(half)] as const;
    return {
      wires: [
        conductor(design, 'arm 1', end(-1), [0, 0, heightM]),
        conductor(design, 'arm 2', [0, 0, heightM], end(1)),
      ],
      ports: fedAt(1, 0),
      loads: [],
    };
  },
  reception: vReception,
});
