import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { conductor, fedAt, lengthParameter } from './dimensions';
import { TERMINATION } from './terminated-wire';
import { wireKind } from './wire-kind';

/** Its lower side hangs no lower than this, m: above heads and wet grass. Common practice, no source. */
const LOWEST_M = 1.5;
const LEAST_SIDE_M = 1;

export const terminatedLoop = wireKind({
  id: 'terminated-loop',
  bandHz: [150e3, 12e6],
  burden: { price: 70, hours: 5, sight: 2 },
  spots: ['garden', 'trees'],
  answersTo: 'magnetic',
  hearsAlong: true,
  usefulHz: (_, d) => [
    (0.02 * SPEED_OF_LIGHT_M_PER_S) / (d.widthM + d.sideM),
    (0.3 * SPEED_OF_LIGHT_M_PER_S) / (d.widthM + d.sideM),
  ],
  atPlace: ({ widthM, sideM }, _, room) => ({
    widthM: Math.max(2, Math.min(widthM, room.spanM - 0.5)),
    sideM: Math.max(LEAST_SIDE_M, Math.min(sideM, room.heightM - LOWEST_M)),
  }),
  name: 'Terminated loop',
  summary: 'an upright rectangle of wire, fed at one end and terminated at the other: one null behind, no earth needed',
  parameters: [
    lengthParameter('widthM', 'Width', 9, { least: 1, most: 60 }),
    lengthParameter('sideM', 'Height of the sides', 4.3, { least: 0.5, most: 30 }),
    lengthParameter('heightM', 'Height of the lower side', LOWEST_M, { least: 0.1, most: 30, hint: 'over ground' }),
    { ...TERMINATION, label: 'Termination of the far side', start: () => 900 },
  ],
  ignores: ['freqHz', 'allowance'],
  materials: [
    'transformer of 16:1, separate windings',
    'non-inductive resistor',
    'two posts with insulators',
    'coax with common-mode chokes',
    'preamplifier of 10 to 20 dB',
  ],
  goesWrong: [
    'The cable as part of the loop: without separate windings and a choke the null is gone.',
    'Metal fence, gutter or another antenna within its own width: the null fills.',
  ],
  pieces: ({ widthM, sideM }) => [{ name: 'loop wire', count: 1, finishedM: 2 * (widthM + sideM), keep: true }],
  remarks: () => [
    'Little signal, little noise: it wants a preamplifier, and what counts is the null, not the level.',
    'The best resistance hangs on the ground: turn a 1 kΩ trimmer for the deepest null on a far station behind, then fit that value.',
  ],
  build: {
    cuts: 'the loop wire',
    raise: 'Hang it on two posts, the fed side toward what you want, the resistor toward what you do not.',
    digs: true,
  },
  needs: ({ widthM, sideM, heightM }) => ({ spanM: widthM + 0.5, heightM: sideM + Math.min(heightM, LOWEST_M) }),
  wires({ widthM, sideM, heightM, terminationOhm }, design) {
    const [front, back, top] = [widthM / 2, -widthM / 2, heightM + sideM];
    return {
      wires: [
        conductor(design, 'fed side', [front, 0, heightM], [front, 0, top]),
        conductor(design, 'upper side', [front, 0, top], [back, 0, top]),
        conductor(design, 'terminated side', [back, 0, top], [back, 0, heightM]),
        conductor(design, 'lower side', [back, 0, heightM], [front, 0, heightM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [{ wire: 2, position: 0.5, ohm: terminationOhm }],
    };
  },
});
