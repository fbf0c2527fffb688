import { conductor, fedAt, heightParameter, lengthParameter } from './dimensions';
import { LOW_SIDE_M } from './square-loop';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { fullWaveRoundM, loopModelNeeds } from './full-wave';

export const deltaLoop = wireKind({
  id: 'delta-loop',
  bandHz: [150e3, 150e6],
  burden: { price: 80, hours: 7, sight: 3, mast: true },
  atPlace: ({ riseM }, _, room) => ({ heightM: Math.max(LOW_SIDE_M, room.heightM - riseM) }),
  name: 'Full-wave delta loop',
  summary: 'a wavelength of wire from one mast, as a triangle fed below',
  parameters: [
    lengthParameter('baseM', 'Lower side', (design) => fullWaveRoundM(design) / 3),
    lengthParameter('riseM', 'Apex over the lower side', (_, { baseM }) => (baseM * Math.sqrt(3)) / 2),
    heightParameter('Height of the lower side'),
  ],
  trim: { id: 'baseM', name: 'the lower side', share: 1 },
  materials: [...USUAL_PARTS, 'a 2:1 balun or a quarter-wave 75 Ω section', 'one mast'],
  goesWrong: [
    'The lower side within reach of people or animals.',
    'The apex rope saws through the wire: use an insulator.',
  ],
  pieces: ({ baseM, riseM }, design) => [
    {
      ...{ name: 'loop wire', count: 1, finishedM: baseM + 2 * Math.hypot(baseM / 2, riseM) },
      modelNeeds: loopModelNeeds(design),
    },
  ],
  remarks: () => ['Closed form: 1.022 λ around in free space. Low loops resonate lower.'],
  build: { cuts: 'the loop wire', raise: 'Pull the apex up the mast; tie the lower corners out.' },
  needs: ({ baseM, riseM, heightM }) => ({ spanM: baseM + 1, heightM: riseM + Math.min(heightM, 2) }),
  wires({ baseM, riseM, heightM }, design) {
    const b = baseM / 2;
    return {
      wires: [
        conductor(design, 'lower side', [0, -b, heightM], [0, b, heightM]),
        conductor(design, 'right side', [0, b, heightM], [0, 0, heightM + riseM]),
        conductor(design, 'left side', [0, 0, heightM + riseM], [0, -b, heightM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
