import { conductor, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';

/** Gap between the foot of the downpipe and the counterpoise, where it is fed, m. */
const FOOT_M = 0.4;

export const gutter = wireKind({
  id: 'gutter',
  bandHz: [1e6, 40e6],
  burden: { price: 45, hours: 2, sight: 0 },
  spots: ['wall'],
  answersTo: 'electric',
  usefulHz: () => [1.5e6, 20e6],
  conductorM: 0.08,
  atPlace: ({ gutterM }, _, { spanM, heightM }) => ({
    gutterM: Math.max(1, Math.min(gutterM, spanM)),
    heightM: Math.max(2, heightM),
  }),
  name: 'Metal gutter with its downpipe',
  summary:
    'what hangs there already, fed at the foot of the pipe against wires along the wall: unseen, but of the house',
  school:
    'Unseen and free, say some; a part of the house and noisy, say others: measure its floor before you believe either side.',
  parameters: [
    lengthParameter('gutterM', 'Gutter', 8, { least: 1, most: 60 }),
    lengthParameter('heightM', 'Height of the gutter', 5, { least: 1, most: 40, hint: 'over ground' }),
    lengthParameter('counterpoiseM', 'Counterpoise', 8, { least: 0.5, most: 60 }),
  ],
  ignores: ['freqHz', 'allowance', 'insulated'],
  materials: ['clamp for the pipe', '9:1 transformer', 'two common-mode chokes', 'wire along the wall'],
  goesWrong: [
    'Joints with seals do not conduct: bridge them, or only the lowest piece hears.',
    'A pipe that is part of the lightning protection: leave it alone.',
  ],
  pieces: ({ gutterM, heightM, counterpoiseM }) => [
    { name: 'gutter with pipe', count: 1, finishedM: gutterM + heightM, keep: true, bought: true },
    { name: 'counterpoise', count: 1, finishedM: counterpoiseM, keep: true },
  ],
  remarks: () => ['The wall behind is not in the model; rust and seals decide whether it is one conductor.'],
  build: {
    cuts: 'the counterpoise',
    raise: 'Clamp the feed to the clean foot of the pipe; run the counterpoise along the wall.',
  },
  needs: ({ gutterM, heightM }) => ({ spanM: gutterM, heightM }),
  wires: ({ gutterM, heightM, counterpoiseM }, design) => ({
    wires: [
      conductor(design, 'downpipe', [0, 0, FOOT_M], [0, 0, heightM]),
      conductor(design, 'gutter', [0, 0, heightM], [0, gutterM, heightM]),
      conductor(design, 'counterpoise', [0, 0, FOOT_M], [0, counterpoiseM, FOOT_M], 0.001),
    ],
    ports: fedAt(0, 0.1),
    loads: [],
  }),
});
