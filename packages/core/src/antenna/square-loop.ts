import { conductor, fedAt, heightParameter, lengthParameter } from './dimensions';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { fullWaveRoundM, loopModelNeeds } from './full-wave';

/** A lower side is hung no lower, m. Common practice, no source. */
export const LOW_SIDE_M = 0.6;

export const squareLoop = wireKind({
  id: 'square-loop',
  bandHz: [150e3, 500e6],
  burden: { price: 90, hours: 8, sight: 3, mast: true },
  atPlace: ({ sideM }, _, room) => ({ heightM: Math.max(LOW_SIDE_M, room.heightM - sideM) }),
  name: 'Full-wave square loop',
  summary: 'a wavelength of wire as an upright square, fed below',
  parameters: [
    lengthParameter('sideM', 'One side', (design) => fullWaveRoundM(design) / 4),
    heightParameter('Height of the lower side'),
  ],
  trim: { id: 'sideM', name: 'the whole loop', share: 4 },
  materials: [...USUAL_PARTS, 'a 2:1 balun or a quarter-wave 75 Ω section', 'four insulators for the corners'],
  goesWrong: ['Fed in a side instead of below: the polarisation turns.', 'Corners that slip along their ropes.'],
  pieces: ({ sideM }, design) => [
    { name: 'loop wire', count: 1, finishedM: 4 * sideM, modelNeeds: loopModelNeeds(design) },
  ],
  remarks: () => ['Closed form: 1.022 λ around in free space. Low loops resonate lower.'],
  build: { cuts: 'the loop wire', raise: 'Pull the upper corners up; tie the lower ones down, the square upright.' },
  needs: ({ sideM, heightM }) => ({ spanM: sideM + 1, heightM: sideM + Math.min(heightM, 2) }),
  wires({ sideM, heightM }, design) {
    const [s, low, high] = [sideM / 2, heightM, heightM + sideM];
    return {
      wires: [
        conductor(design, 'lower side', [0, -s, low], [0, s, low]),
        conductor(design, 'right side', [0, s, low], [0, s, high]),
        conductor(design, 'upper side', [0, s, high], [0, -s, high]),
        conductor(design, 'left side', [0, -s, high], [0, -s, low]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
