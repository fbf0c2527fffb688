import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';

export const jHalfWave = wireKind({
  id: 'j-half-wave',
  bandHz: [20e6, 500e6],
  burden: { price: 40, hours: 3, sight: 2, mast: true },
  spots: ['attic', 'roof', 'deck', 'balcony', 'wall', 'garden', 'trees'],
  atPlace: ({ radiatorM, stubM }, _, room) => ({ heightM: Math.max(0.1, room.heightM - radiatorM - stubM) }),
  name: 'J half wave',
  summary: 'an upright half wave over a quarter-wave stub that matches it: no radials',
  parameters: [
    lengthParameter('radiatorM', 'Half wave', (design) => 0.475 * wavelengthM(design.freqHz)),
    lengthParameter('stubM', 'Stub', (design) => 0.235 * wavelengthM(design.freqHz)),
    lengthParameter(
      'spacingM',
      'Spacing of the stub',
      (design) => Math.max(3 * design.diameterM, 0.01 * wavelengthM(design.freqHz)),
      {
        least: 0.003,
        most: 1,
        bareUnit: 'mm',
      },
    ),
    lengthParameter('tapM', 'Tap over the foot', (design) => 0.02 * wavelengthM(design.freqHz), {
      least: 0.001,
      most: 2,
      bareUnit: 'mm',
    }),
    heightParameter('Height of the foot'),
  ],
  trim: { id: 'radiatorM', name: 'the half wave', share: 1 },
  ignores: ['insulated'],
  materials: ['tube or flat cable', 'insulating mast clamp', 'coax with plug', 'common-mode choke at the foot'],
  goesWrong: [
    'Clamped to a metal mast by the radiator: only the foot of the stub may touch it.',
    'No choke: the cable hears, and the match moves when it is touched.',
  ],
  pieces: ({ radiatorM, stubM }) => [
    { name: 'long leg', count: 1, finishedM: radiatorM + stubM },
    { name: 'short leg', count: 1, finishedM: stubM, keep: true },
  ],
  remarks: () => ['Move the tap for the match, then the length for the frequency: each moves the other a little.'],
  build: { cuts: 'both legs', raise: 'Clamp the foot of the stub to its support; the half wave stands clear.' },
  needs: ({ radiatorM, stubM, heightM }) => ({ spanM: 0.2, heightM: Math.min(heightM, 0.1) + radiatorM + stubM }),
  wires({ radiatorM, stubM, spacingM, tapM, heightM }, design) {
    const [tap, stub] = [heightM + Math.min(tapM, stubM / 2), heightM + stubM];
    const s = spacingM;
    return {
      wires: [
        conductor(design, 'foot', [0, 0, heightM], [0, s, heightM]),
        conductor(design, 'long leg, foot', [0, 0, heightM], [0, 0, tap]),
        conductor(design, 'tap', [0, 0, tap], [0, s, tap]),
        conductor(design, 'short leg, foot', [0, s, heightM], [0, s, tap]),
        conductor(design, 'short leg', [0, s, tap], [0, s, stub]),
        conductor(design, 'long leg', [0, 0, tap], [0, 0, stub + radiatorM]),
      ],
      ports: fedAt(2, 0.5),
      loads: [],
    };
  },
});
