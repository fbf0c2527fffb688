import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { frequencyText } from '../units/format';
import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, lengthParameter, plainParameter } from './dimensions';
import { lawnBuildPlan } from './build-plan';
import type { DraftFigure } from './kind';
import { wireKind } from './wire-kind';

/** Bands whose electrical lengths are listed, Hz. */
const LISTED_HZ = [1.85e6, 3.6e6, 7.1e6, 10.1e6, 14.1e6];

export const groundLoop = wireKind({
  id: 'ground-loop',
  bandHz: [100e3, 15e6],
  burden: { price: 60, hours: 3, sight: 0, onLawn: true, stakes: true },
  spots: ['garden', 'trees'],
  answersTo: 'magnetic',
  // a quarter of the room on each side at most: a lawn is for more than one thing
  atPlace: ({ sideM }, _, room) => ({ sideM: Math.max(1, Math.min(sideM, room.spanM / 2)) }),
  usefulHz: (_, d) => [(0.05 * SPEED_OF_LIGHT_M_PER_S) / (4 * d.sideM), (0.9 * SPEED_OF_LIGHT_M_PER_S) / (4 * d.sideM)],
  name: 'Loop on the ground',
  summary: 'a square of wire lying on the lawn: quiet, unseen, for low bands',
  school:
    'It gives little level and little noise. Some judge by the meter and reject it, others by what they can copy and keep it.',
  parameters: [
    lengthParameter('sideM', 'One side', 4.5, { least: 0.5, most: 60 }),
    lengthParameter('heightM', 'Height over ground', 0.02, {
      least: 0.005,
      most: 1,
      bareUnit: 'mm',
      hint: 'the wire lies in the grass',
    }),
    plainParameter(
      'speedFactor',
      'Speed on the wire, closed form',
      0.62,
      0.3,
      1,
      'against light; assumed, 0.55 to 0.7 on soil; the model finds its own',
    ),
  ],
  ignores: ['freqHz', 'allowance'],
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
  figures: ({ sideM, speedFactor }) => [
    {
      label: 'One electrical wavelength at',
      value: (speedFactor * SPEED_OF_LIGHT_M_PER_S) / (4 * sideM),
      dimension: 'frequency',
      figures: 4,
      origin: 'assumed',
      formula: `speed factor ${speedFactor} × c / wire`,
      source: 'closed form with an assumed speed; the model above replaces it',
    },
    ...LISTED_HZ.map((freqHz): DraftFigure => ({
      label: `Length at ${frequencyText(freqHz, 3)} (λ)`,
      value: (4 * sideM) / (speedFactor * wavelengthM(freqHz)),
      dimension: 'plain',
      figures: 3,
      origin: 'assumed',
      formula: `wire / (speed factor ${speedFactor} × λ)`,
      source: 'closed form with an assumed speed; the model above replaces it',
    })),
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
  remarks: () => [
    'The speed on the wire follows from the ground in the model; the speed factor serves the closed form alone.',
  ],
  build: () => lawnBuildPlan('the loop wire', 'Lay it square, staple it down, transformer under a cap.'),
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
