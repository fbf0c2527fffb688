import { conductor, fedAt, heightParameter, lengthParameter, uprightOnSupport, yesNoParameter } from './dimensions';
import { resonantDipole } from './induced-emf';
import type { Design } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { wireReception } from './wire-reception';

/** Insulation slows the wave on a wire; 0.92 to 0.97 by thickness. Common practice, no source. */
export const INSULATION_FACTOR = 0.96;
/** Rope and insulators between wire and support, each end. Common practice, no source. */
export const END_ROPE_M = 0.5;
/** Below this height a horizontal wire is out of reach of nobody and hears mostly the house. Common practice, no source. */
export const LEAST_HEIGHT_M = 3;

/** Overall length of the finished dipole. */
export const dipoleLengthM = (design: Pick<Design, 'freqHz' | 'diameterM' | 'insulated'>): number =>
  resonantDipole(design.freqHz, design.diameterM).lengthM * (design.insulated ? INSULATION_FACTOR : 1);

/** A rod of a metre holds itself; a long wire hangs on ropes. */
export const endRopeM = (lengthM: number): number => (lengthM > 3 ? END_ROPE_M : 0.02);

const uprightRod = (design: Design, lengthM: number, heightM: number) => {
  const middleM = Math.max(heightM, lengthM / 2 + 0.05);
  return conductor(design, 'dipole', [0, 0, middleM - lengthM / 2], [0, 0, middleM + lengthM / 2]);
};

export const halfWaveDipole = wireKind({
  id: 'half-wave-dipole',
  bandHz: [150e3, 1.3e9],
  burden: { price: 60, hours: 4, sight: 2, mast: true },
  atPlace: uprightOnSupport(({ lengthM }) => lengthM),
  name: 'Half-wave dipole',
  summary: 'a straight wire fed in the middle, between two supports',
  parameters: [
    lengthParameter('lengthM', 'Overall length', dipoleLengthM),
    heightParameter('Height of the wire'),
    yesNoParameter('upright', 'Upright'),
  ],
  trim: { id: 'lengthM', name: 'each arm', share: 0.5 },
  materials: USUAL_PARTS,
  goesWrong: [
    'The feed line picks up the house: choke it at the feed.',
    'Sagging middle or slack ends move the dip down by a per cent or two.',
  ],
  pieces: ({ lengthM }) => [{ name: 'arm', count: 2, finishedM: lengthM / 2 }],
  figures: ({ lengthM }, design) => {
    const resonant = resonantDipole(design.freqHz, design.diameterM);
    return [
      {
        label: 'Overall length',
        value: lengthM,
        dimension: 'length',
        figures: 4,
        origin: 'model',
        formula:
          'length at which the induced-EMF reactance is zero' +
          (design.insulated ? ` × ${INSULATION_FACTOR} for insulation` : ''),
        source: 'Balanis, Antenna Theory, ch. 8 (sinusoidal current, free space)',
      },
      {
        label: 'Shortening against λ/2',
        value: resonant.shortening,
        dimension: 'plain',
        figures: 3,
        origin: 'model',
        formula: 'k = length / (c / 2f)',
        source: 'induced-EMF theory',
      },
      {
        label: 'Feed resistance, free space',
        value: resonant.resistanceOhm,
        dimension: 'resistance',
        figures: 2,
        origin: 'model',
        formula: 'Re Z at X = 0, free space',
        source: 'induced-EMF theory',
      },
    ];
  },
  remarks: (_, design) => [
    'Closed form is free space. Near ground, a house or trees expect the dip 1 to 5 % lower: that is what the allowance and the Bench are for.',
    ...(design.insulated ? ['Insulation factor 0.96 is assumed; measure and trim.'] : []),
  ],
  build: { cuts: 'two arms', raise: 'Pull it up between the supports; feed line away at a right angle.' },
  needs: ({ lengthM, heightM, upright }) =>
    upright
      ? { spanM: 0.1, heightM: Math.max(heightM, lengthM / 2 + 0.05) + lengthM / 2 }
      : { spanM: lengthM + 2 * endRopeM(lengthM), heightM: Math.min(LEAST_HEIGHT_M, Math.max(0.3, lengthM)) },
  wires: ({ lengthM, heightM, upright }, design) => ({
    wires: [
      upright
        ? uprightRod(design, lengthM, heightM)
        : conductor(design, 'dipole', [0, -lengthM / 2, heightM], [0, lengthM / 2, heightM]),
    ],
    ports: fedAt(0, 0.5),
    loads: [],
  }),
  reception(design) {
    const { lengthM } = resonantDipole(design.freqHz, design.diameterM);
    const dipole = { lengthM, diameterM: design.diameterM, resistanceScale: 1, rough: false };
    return (freqHz) => wireReception(dipole, freqHz);
  },
});
