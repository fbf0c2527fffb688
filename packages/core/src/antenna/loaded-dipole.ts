import { conductor, fedAt, heightParameter, lengthParameter, plainParameter } from './dimensions';
import { dipoleLengthM, endRopeM, LEAST_HEIGHT_M } from './half-wave-dipole';
import type { Design, Dimensions } from './kind';
import { loadingOhm } from './loaded-wire';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Shorter than this share of a half wave the coils eat most of what arrives. Common practice, no source. */
const LEAST_SHARE = 0.2;
const USUAL_SHARE = 0.6;

/** Coil in the middle of each arm, H, and its loss, Ω. */
const coil = ({ lengthM, q }: Dimensions, { freqHz, diameterM }: Design) => {
  const ohm = Math.max(0, loadingOhm(freqHz, lengthM / 4, lengthM / 4, diameterM));
  return { henry: ohm / (2 * Math.PI * freqHz), ohm: ohm / q };
};

export const loadedDipole = wireKind({
  id: 'loaded-dipole',
  bandHz: [150e3, 150e6],
  burden: { price: 80, hours: 6, sight: 2, mast: true },
  spots: ['attic', 'roof', 'deck', 'balcony', 'wall', 'garden', 'trees'],
  atPlace: ({ lengthM }, design, room) => ({
    heightM: room.heightM,
    lengthM: Math.min(
      Math.max(lengthM, USUAL_SHARE * dipoleLengthM(design)),
      Math.max(LEAST_SHARE * dipoleLengthM(design), room.spanM - 2 * endRopeM(room.spanM)),
    ),
  }),
  name: 'Shortened dipole with coils',
  summary: 'a dipole of half the length or less, a coil in each arm: for a short run, narrow on its band',
  parameters: [
    lengthParameter('lengthM', 'Overall length', (design) => USUAL_SHARE * dipoleLengthM(design)),
    plainParameter('q', 'Q of the coils', 200, 10, 1000, 'assumed: 100 to 300 wound with care'),
    heightParameter('Height of the wire'),
  ],
  trim: { id: 'lengthM', name: 'the outer part of each arm', share: 0.25 },
  materials: [...USUAL_PARTS, 'two coils on weatherproof forms'],
  goesWrong: [
    'Water in a coil moves the dip by more than its width.',
    'A narrow antenna sounds dead a few dozen kilohertz off: look at the dip before blaming the band.',
  ],
  pieces: ({ lengthM }) => [
    { name: 'inner wire', count: 2, finishedM: lengthM / 4, keep: true },
    { name: 'outer wire', count: 2, finishedM: lengthM / 4, modelNeeds: 1.05 },
  ],
  figures(d, design) {
    const { henry, ohm } = coil(d, design);
    const source = 'arm as an open line; Terman, Radio Engineers’ Handbook';
    return [
      {
        ...{ label: 'Each coil (µH)', value: henry * 1e6, dimension: 'plain', figures: 3, origin: 'model' },
        ...{ formula: 'Z₀ (cot kl₂ − tan kl₁) / ω', source },
      },
      {
        ...{ label: 'Loss of each coil', value: ohm, dimension: 'resistance', figures: 2, origin: 'model' },
        ...{ formula: 'ωL / Q', source },
      },
    ];
  },
  remarks: (d, design) =>
    d.lengthM > dipoleLengthM(design)
      ? ['It is as long as a dipole: the coils would have nothing to do.']
      : ['Closed form is free space: trim the outer ends by the Bench.'],
  build: { cuts: 'inner and outer wires', raise: 'Pull it up between the supports; the coils hang straight.' },
  needs: ({ lengthM }) => ({
    spanM: lengthM + 2 * endRopeM(lengthM),
    heightM: Math.min(LEAST_HEIGHT_M, Math.max(0.3, lengthM)),
  }),
  wires(d, design) {
    const { lengthM, heightM } = d;
    const { henry, ohm } = coil(d, design);
    return {
      wires: [conductor(design, 'dipole', [0, -lengthM / 2, heightM], [0, lengthM / 2, heightM])],
      ports: fedAt(0, 0.5),
      loads: [0.25, 0.75].map((position) => ({ wire: 0, position, henry, ohm })),
    };
  },
  usefulHz: ({ freqHz }) => [0.99 * freqHz, 1.01 * freqHz],
});
