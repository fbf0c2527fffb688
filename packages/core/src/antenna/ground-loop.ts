import { conductor, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';

export const groundLoop = wireKind({
  id: 'ground-loop',
  name: 'Loop on the ground',
  summary: 'a square of wire lying on the lawn: quiet, unseen, for low bands',
  parameters: [
    lengthParameter('sideM', 'One side', 4.5, { least: 0.5, most: 60 }),
    lengthParameter('heightM', 'Height over ground', 0.02, {
      least: 0.005,
      most: 1,
      bareUnit: 'mm',
      hint: 'the wire lies in the grass',
    }),
  ],
  ignores: ['allowance'],
  materials: [
    'isolation transformer at the feed',
    'coax with plug and choke',
    'staples, one each half metre',
    'end caps',
  ],
  goesWrong: [
    'Mower and feet: press the wire into the sward with enough staples.',
    'Without the isolating transformer the coax hears more than the loop.',
  ],
  pieces: ({ sideM }) => [{ name: 'loop wire', count: 1, finishedM: 4 * sideM }],
  figures: ({ sideM }) => [
    {
      label: 'Staples, every 0.5 m',
      value: Math.ceil((4 * sideM) / 0.5),
      dimension: 'plain',
      figures: 3,
      origin: 'model',
      formula: 'wire / 0.5 m; four more for the corners',
      source: 'geometry',
    },
  ],
  remarks: () => ['The velocity on the wire follows from the ground in the model; it is not entered.'],
  build: { cuts: 'the loop wire', raise: 'Lay it square, staple it down, transformer under a cap.' },
  needs: ({ sideM }) => ({ spanM: sideM, heightM: 0.1 }),
  wires({ sideM, heightM }, design) {
    const s = sideM / 2;
    const corners = [
      [-s, -s],
      [s, -s],
      [s, s],
      [-s, s],
    ] as const;
    return {
      wires: corners.map(([x, y], i) => {
        const [u, v] = corners[(i + 1) % 4];
        return conductor(design, `side ${i + 1}`, [x, y, heightM], [u, v, heightM]);
      }),
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
