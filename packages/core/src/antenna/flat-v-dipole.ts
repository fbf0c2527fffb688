import { conductor, fedAt, heightParameter, onSupport } from './dimensions';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { V_PARAMETERS, vFigures } from './v-dipole';
import { RAD } from '../units/constants';

export const flatVDipole = wireKind({
  id: 'flat-v-dipole',
  bandHz: [150e3, 1.3e9],
  burden: { price: 60, hours: 4, sight: 2, mast: true },
  atPlace: onSupport,
  name: 'Horizontal V dipole',
  summary: 'two rods in a level V: round overhead coverage for satellites',
  parameters: [...V_PARAMETERS, heightParameter('Height of the V')],
  trim: { id: 'armM', name: 'each arm', share: 1 },
  materials: [...USUAL_PARTS, 'two rods or tubes', 'a plastic angle bracket'],
  goesWrong: [
    'Metal mast between the arms: keep the V a quarter wave clear of it.',
    'Feed line hanging in the plane of the V.',
  ],
  pieces: ({ armM }) => [{ name: 'arm', count: 2, finishedM: armM }],
  figures: vFigures,
  remarks: () => ['Closed form is free space.'],
  build: { cuts: 'two arms', raise: 'Set the V level on its mast, opening away from it.' },
  needs: ({ armM, heightM }) => ({ spanM: 2 * armM, heightM }),
  wires({ armM, angleDeg, heightM }, design) {
    const half = (angleDeg / 2) * RAD;
    const end = (side: number) => [armM * Math.cos(half), side * armM * Math.sin(half), heightM] as const;
    return {
      wires: [
        conductor(design, 'arm 1', end(-1), [0, 0, heightM]),
        conductor(design, 'arm 2', [0, 0, heightM], end(1)),
      ],
      ports: fedAt(1, 0),
      loads: [],
    };
  },
});
