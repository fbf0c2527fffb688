import { conductor, fedAt, heightParameter, lengthParameter } from './dimensions';
import { dipoleLengthM, endRopeM } from './half-wave-dipole';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Ends hang no lower than this: out of reach. Common practice, no source. */
const END_M = 1.5;

export const bentDipole = wireKind({
  id: 'bent-dipole',
  bandHz: [1.8e6, 60e6],
  burden: { price: 60, hours: 5, sight: 2, mast: true },
  // as much of it level as the run allows, the rest hangs down at the ends
  atPlace: ({ lengthM }, _, room) => ({
    heightM: room.heightM,
    levelM: Math.max(1, Math.min(0.95 * lengthM, room.spanM - 2 * endRopeM(room.spanM))),
  }),
  name: 'Dipole with bent ends',
  summary: 'a half wave where the run is too short: the middle level, the ends hanging down',
  parameters: [
    lengthParameter('lengthM', 'Wire in all', (design) => 1.01 * dipoleLengthM(design)),
    lengthParameter('levelM', 'Level part', (_, { lengthM }) => 0.6 * lengthM),
    heightParameter('Height of the level part'),
  ],
  trim: { id: 'lengthM', name: 'each arm', share: 0.5 },
  materials: [...USUAL_PARTS, 'light weights or cords for the hanging ends'],
  goesWrong: [
    'Hanging ends that swing in the wind: the dip swings with them.',
    'An end within reach: it is where the voltage is, should anyone transmit on it.',
  ],
  pieces: ({ lengthM }) => [{ name: 'arm', count: 2, finishedM: lengthM / 2, modelNeeds: 1.04 }],
  remarks: ({ lengthM, levelM }) =>
    levelM < lengthM / 2
      ? ['Less than half of it is level: much of it hears upward and the dip is narrow.']
      : ['Bent ends are worth less than level wire: leave the allowance on until the Bench has spoken.'],
  build: { cuts: 'two arms', raise: 'Pull the level part up; let the ends hang, tied so that they cannot swing.' },
  needs: ({ lengthM, levelM }) => ({
    spanM: levelM + 2 * endRopeM(levelM),
    heightM: Math.max(0, (lengthM - levelM) / 2) + END_M,
  }),
  wires({ lengthM, levelM, heightM }, design) {
    const half = Math.min(levelM, lengthM) / 2;
    const hang = Math.max(0, lengthM / 2 - half);
    const down = Math.max(0.05, heightM - hang);
    const ends = hang > 0.02;
    return {
      wires: [
        conductor(design, 'level part', [0, -half, heightM], [0, half, heightM]),
        ...(ends
          ? [-1, 1].map((side) =>
              conductor(design, side < 0 ? 'left end' : 'right end', [0, side * half, heightM], [0, side * half, down]),
            )
          : []),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
