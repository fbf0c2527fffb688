import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter, yesNoParameter } from './dimensions';
import { wireKind } from './wire-kind';

/** One dipole longer and the other shorter than resonance by this share: their currents then stand 90° apart on one feed. Common practice, no source: 4 to 6 %. */
const SPREAD = 0.055;

export const turnstile = wireKind({
  id: 'turnstile',
  bandHz: [20e6, 500e6],
  burden: { price: 50, hours: 5, sight: 2, mast: true },
  spots: ['attic', 'roof', 'deck', 'balcony', 'garden', 'trees'],
  atPlace: ({ longM, belowM }, _, room) => ({
    heightM: Math.max(belowM + 0.1, room.heightM),
    longM,
  }),
  name: 'Turnstile over a reflector',
  summary: 'two crossed dipoles, one a little long and one a little short, over crossed rods: circular, looks up',
  school:
    'Turnstile or quadrifilar helix: the one is easier to build, the other holds its polarisation down to the horizon.',
  parameters: [
    lengthParameter('longM', 'Longer dipole', (design) => 0.475 * (1 + SPREAD) * wavelengthM(design.freqHz)),
    lengthParameter('shortM', 'Shorter dipole', (design) => 0.475 * (1 - SPREAD) * wavelengthM(design.freqHz)),
    lengthParameter('belowM', 'Reflector below', (design) => 0.3 * wavelengthM(design.freqHz)),
    lengthParameter('reflectorM', 'Reflector rods', (design) => 0.53 * wavelengthM(design.freqHz)),
    heightParameter('Height of the dipoles'),
    yesNoParameter('leftHand', 'Left-hand instead of right-hand'),
  ],
  trim: { id: 'longM', name: 'each arm of the longer dipole', share: 0.5 },
  ignores: ['insulated'],
  materials: ['rods', 'insulating hub', 'coax with plug and choke', 'mast of plastic between dipoles and reflector'],
  goesWrong: [
    'Wound or joined the wrong way round: the passes fade where they should be best.',
    'The reflector too far below: a hole overhead.',
  ],
  pieces: ({ longM, shortM, reflectorM }) => [
    { name: 'long arm', count: 2, finishedM: longM / 2 },
    { name: 'short arm', count: 2, finishedM: shortM / 2 },
    { name: 'reflector rod', count: 2, finishedM: reflectorM, keep: true },
  ],
  remarks: () => [
    'Right-hand for the usual weather satellites. The model counts the polarisation: look at what it hears at 30° and overhead.',
  ],
  build: { cuts: 'all arms and rods', raise: 'Set it level with the sky free above 20°; mark which arm points north.' },
  needs: ({ longM, reflectorM, heightM }) => ({ spanM: Math.max(longM, reflectorM), heightM }),
  wires({ longM, shortM, belowM, reflectorM, heightM, leftHand }, design) {
    const gap = Math.max(4 * design.diameterM, 0.004 * longM);
    const up = Math.max(heightM, 0.1 + 4 * gap);
    const down = up - gap;
    const low = Math.max(0.05 + 2 * gap, up - belowM);
    const [a, b, r] = [longM / 2, (leftHand ? 1 : -1) * (shortM / 2), reflectorM / 2];
    return {
      wires: [
        conductor(design, 'feed', [0, 0, down], [0, 0, up]),
        conductor(design, 'long arm 1', [0, 0, up], [a, 0, up]),
        conductor(design, 'long arm 2', [0, 0, down], [-a, 0, down]),
        conductor(design, 'short arm 1', [0, 0, up], [0, b, up]),
        conductor(design, 'short arm 2', [0, 0, down], [0, -b, down]),
        conductor(design, 'reflector 1', [-r, 0, low], [r, 0, low]),
        conductor(design, 'reflector 2', [0, -r, low - 2 * gap], [0, r, low - 2 * gap]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
