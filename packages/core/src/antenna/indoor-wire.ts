import { conductor, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';

export const indoorWire = wireKind({
  id: 'indoor-wire',
  bandHz: [1.5e6, 60e6],
  burden: { price: 40, hours: 1, sight: 0 },
  spots: ['indoors', 'attic'],
  answersTo: 'electric',
  usefulHz: () => [2e6, 20e6],
  atPlace: (d, _, { spanM, heightM, lowM = 0 }) => ({
    wireM: Math.max(1, Math.min(d.wireM, spanM - 0.2)),
    heightM: Math.max(lowM + 0.5, heightM - 0.1),
    dropM: Math.max(0.3, heightM - lowM - 0.3),
  }),
  name: 'Wire along the ceiling',
  summary: 'a wire under the ceiling or the ridge through a 9:1 transformer, a counterpoise along the floor',
  parameters: [
    lengthParameter('wireM', 'Wire', 8, { least: 0.5, most: 40 }),
    lengthParameter('dropM', 'Wire over its counterpoise', 2, { least: 0.2, most: 10 }),
    lengthParameter('heightM', 'Height of the wire', 3, { least: 0.3, most: 200, hint: 'over ground' }),
  ],
  ignores: ['freqHz', 'allowance'],
  materials: ['thin insulated wire', '9:1 transformer', 'two common-mode chokes', 'hooks'],
  goesWrong: [
    'Beside mains wiring or lamps: a metre of distance is worth more than two metres of wire.',
    'Foil under the roof or concrete with steel: hardly anything comes in.',
  ],
  pieces: ({ wireM, dropM }) => [
    { name: 'wire', count: 1, finishedM: wireM + dropM, keep: true },
    { name: 'counterpoise', count: 1, finishedM: wireM, keep: true },
  ],
  remarks: () => ['The building is not in the model: walls and wiring change the figures by several dB.'],
  build: { cuts: 'wire and counterpoise', raise: 'Fix the wire along the ceiling, away from mains wiring.' },
  needs: ({ wireM, heightM }) => ({ spanM: wireM, heightM }),
  wires({ wireM, dropM, heightM }, design) {
    const low = Math.max(0.05, heightM - dropM);
    return {
      wires: [
        conductor(design, 'rise', [0, 0, low], [0, 0, heightM]),
        conductor(design, 'wire', [0, 0, heightM], [wireM, 0, heightM]),
        conductor(design, 'counterpoise', [0, 0, low], [wireM, 0, low]),
      ],
      ports: fedAt(0, 0.2),
      loads: [],
    };
  },
});
