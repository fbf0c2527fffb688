import { conductor, fedAt, lengthParameter } from './dimensions';
import { resonantDipole } from './induced-emf';
import { wireKind } from './wire-kind';

export const whipOnSurface = wireKind({
  id: 'whip-on-surface',
  bandHz: [20e6, 1.3e9],
  burden: { price: 30, hours: 1, sight: 1 },
  spots: ['deck'],
  answersTo: 'electric',
  name: 'Telescopic whip on a surface',
  summary: 'a quarter wave on a metal roof, case or sheet',
  parameters: [
    lengthParameter('lengthM', 'Whip length', (design) => resonantDipole(design.freqHz, design.diameterM).lengthM / 2, {
      least: 0.01,
      most: 30,
    }),
  ],
  trim: { id: 'lengthM', name: 'the whip', share: 1 },
  ignores: ['insulated', 'allowance'],
  ownGround: {
    ground: { type: 'perfect' },
    why: 'The metal surface is taken as large and perfect; on a small case the dip and the pattern differ.',
  },
  materials: ['whip with its socket', 'a metal surface of at least a quarter wave around', 'coax with plug'],
  goesWrong: [
    'The surface is painted where the socket should touch it.',
    'A surface smaller than a quarter wave: the feed line becomes the other half.',
  ],
  pieces: ({ lengthM }) => [{ name: 'whip', count: 1, finishedM: lengthM }],
  build: { cuts: 'nothing: pull the whip out', raise: 'Set it in the middle of the surface, upright.' },
  needs: ({ lengthM }) => ({ spanM: lengthM, heightM: lengthM }),
  wires: ({ lengthM }, design) => ({
    wires: [conductor(design, 'whip', [0, 0, 0], [0, 0, lengthM])],
    ports: fedAt(0, 0),
    loads: [],
  }),
});
