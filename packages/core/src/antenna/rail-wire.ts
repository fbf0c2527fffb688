import { conductor, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';

/** Wire and counterpoise hang this far apart, m. */
const APART_M = 0.9;

export const railWire = wireKind({
  id: 'rail-wire',
  bandHz: [1.5e6, 60e6],
  burden: { price: 45, hours: 2, sight: 1 },
  spots: ['balcony', 'window'],
  answersTo: 'electric',
  usefulHz: () => [3e6, 20e6],
  atPlace: (d, _, { spanM, heightM, lowM = 0 }) => ({
    wireM: Math.max(0.5, Math.min(d.wireM, spanM - 0.1)),
    footM: lowM + 0.1,
    riseM: Math.max(0.3, Math.min(APART_M, heightM - lowM - 0.2)),
  }),
  name: 'Wire along the rail',
  summary: 'a thin wire along the balcony rail through a 9:1 transformer, another at its foot as the other half',
  parameters: [
    lengthParameter('wireM', 'Wire', 4, { least: 0.3, most: 30 }),
    lengthParameter('riseM', 'Wire over its counterpoise', APART_M, { least: 0.1, most: 5 }),
    lengthParameter('footM', 'Height of the counterpoise', 3, { least: 0.05, most: 200, hint: 'over ground' }),
  ],
  ignores: ['freqHz', 'allowance'],
  materials: ['thin insulated wire', '9:1 transformer', 'two common-mode chokes', 'cable ties'],
  goesWrong: [
    'A metal rail beside the wire: it is the antenna then; connect to it on purpose or keep a hand away.',
    'Without a choke the cable is the longer half and brings the flat in.',
  ],
  pieces: ({ wireM, riseM }) => [
    { name: 'wire', count: 1, finishedM: wireM + riseM, keep: true },
    { name: 'counterpoise', count: 1, finishedM: wireM, keep: true },
  ],
  remarks: () => ['The building is not in the model: concrete and rail change the figures by some dB.'],
  build: {
    cuts: 'wire and counterpoise',
    raise: 'Tie the wire along the rail and the counterpoise at its foot; nothing may fall.',
  },
  needs: ({ wireM, riseM, footM }) => ({ spanM: wireM, heightM: footM + riseM }),
  wires: ({ wireM, riseM, footM }, design) => ({
    wires: [
      conductor(design, 'rise', [0, 0, footM], [0, 0, footM + riseM]),
      conductor(design, 'wire', [0, 0, footM + riseM], [0, wireM, footM + riseM]),
      conductor(design, 'counterpoise', [0, 0, footM], [0, wireM, footM]),
    ],
    ports: fedAt(0, 0.3),
    loads: [],
  }),
});
