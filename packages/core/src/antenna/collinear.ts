import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter } from './dimensions';
import { resonantDipole } from './induced-emf';
import { wireKind } from './wire-kind';

export const collinear = wireKind({
  id: 'collinear',
  bandHz: [60e6, 1.3e9],
  burden: { price: 60, hours: 6, sight: 2, mast: true },
  spots: ['roof', 'deck', 'wall', 'garden', 'trees', 'attic'],
  atPlace: (d, _, room) => ({
    heightM: Math.max(1.6 * d.halfM, room.heightM - 1.5 * d.halfM),
  }),
  name: 'Collinear of three half waves',
  summary:
    'three upright half waves one above the other, joined by folded quarter waves: some 3 dB more toward the horizon',
  parameters: [
    lengthParameter('halfM', 'One half wave', (design) => resonantDipole(design.freqHz, design.diameterM).lengthM),
    lengthParameter('stubM', 'Depth of a stub', (design) => 0.24 * wavelengthM(design.freqHz)),
    lengthParameter(
      'gapM',
      'Width of a stub',
      (design) => Math.max(3 * design.diameterM, 0.02 * wavelengthM(design.freqHz)),
      {
        least: 0.003,
        most: 0.5,
        bareUnit: 'mm',
      },
    ),
    heightParameter('Height of the middle'),
  ],
  trim: { id: 'halfM', name: 'each half wave', share: 1 },
  ignores: ['insulated'],
  materials: [
    'stiff wire or rod',
    'a tube that hides and holds it',
    'coax with plug',
    'common-mode choke',
    '4:1 balun',
  ],
  goesWrong: [
    'A stub shorted by water in its tube: the outer half waves turn against the middle one.',
    'On a hill with stations far below: its flat beam passes over them.',
  ],
  pieces: ({ halfM, stubM }) => [
    { name: 'half of the middle', count: 2, finishedM: halfM / 2 },
    { name: 'outer half wave with stub', count: 2, finishedM: halfM + 2 * stubM },
  ],
  remarks: () => ['First guess for free space: let the model trim the half waves, then the Bench.'],
  build: { cuts: 'all half waves and stubs', raise: 'Set the tube on its support, clear of metal all along.' },
  needs: ({ halfM, heightM }) => ({ spanM: 0.5, heightM: Math.max(heightM, 1.5 * halfM + 0.05) + 1.5 * halfM }),
  wires({ halfM, stubM, gapM, heightM }, design) {
    const h = Math.max(heightM, 1.5 * halfM + gapM + 0.05);
    const side = (sign: 1 | -1) => {
      const name = sign > 0 ? 'upper' : 'lower';
      const [near, far] = [h + (sign * halfM) / 2, h + sign * (halfM / 2 + gapM)];
      return [
        conductor(design, `${name} stub, in`, [0, 0, near], [stubM, 0, near]),
        conductor(design, `${name} stub, end`, [stubM, 0, near], [stubM, 0, far]),
        conductor(design, `${name} stub, out`, [stubM, 0, far], [0, 0, far]),
        conductor(design, `${name} half wave`, [0, 0, far], [0, 0, far + sign * (halfM - gapM)]),
      ];
    };
    return {
      wires: [conductor(design, 'middle', [0, 0, h - halfM / 2], [0, 0, h + halfM / 2]), ...side(1), ...side(-1)],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
