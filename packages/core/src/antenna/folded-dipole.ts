import { conductor, fedAt, heightParameter, lengthParameter, onSupport } from './dimensions';
import { dipoleLengthM, endRopeM, LEAST_HEIGHT_M } from './half-wave-dipole';
import { wireKind } from './wire-kind';

export const foldedDipole = wireKind({
  id: 'folded-dipole',
  bandHz: [150e3, 1.3e9],
  burden: { price: 70, hours: 5, sight: 2, mast: true },
  atPlace: onSupport,
  name: 'Folded dipole',
  summary: 'a dipole with a second conductor beside it: four times the resistance, wider',
  parameters: [
    lengthParameter('lengthM', 'Overall length', (design) => 0.985 * dipoleLengthM(design)),
    lengthParameter(
      'spacingM',
      'Spacing of the conductors',
      (design) => Math.max(4 * design.diameterM, 3e6 / design.freqHz),
      {
        least: 0.004,
        most: 3,
        bareUnit: 'mm',
      },
    ),
    heightParameter('Height of the wires'),
  ],
  trim: { id: 'lengthM', name: 'its length', share: 1 },
  materials: [
    'spreaders',
    'a 4:1 balun',
    'coax with plug, sleeve and heat-shrink',
    'rope and insulators',
    'self-amalgamating tape',
  ],
  goesWrong: ['Feeding it with 50 Ω coax without the 4:1 balun.', 'A spreader that lets the conductors touch.'],
  pieces: ({ lengthM, spacingM }) => [{ name: 'loop conductor', count: 1, finishedM: 2 * (lengthM + spacingM) }],
  figures: (_, design) => [
    {
      label: 'Impedance step',
      value: 4,
      dimension: 'plain',
      figures: 1,
      origin: 'model',
      formula: 'equal conductors: (1 + 1)²',
      source: 'Balanis, Antenna Theory, sec. 9.5',
    },
    {
      label: 'Straight dipole of this frequency',
      value: dipoleLengthM(design),
      dimension: 'length',
      figures: 4,
      origin: 'model',
      formula: 'induced-EMF resonance',
      source: 'Balanis ch. 8',
    },
  ],
  build: { cuts: 'the loop conductor', raise: 'Pull it up between the supports, the conductors one above the other.' },
  needs: ({ lengthM }) => ({
    spanM: lengthM + 2 * endRopeM(lengthM),
    heightM: Math.min(LEAST_HEIGHT_M, Math.max(0.3, lengthM)),
  }),
  wires({ lengthM, spacingM, heightM }, design) {
    const [l, top] = [lengthM / 2, heightM + spacingM];
    return {
      wires: [
        conductor(design, 'fed conductor', [0, -l, heightM], [0, l, heightM]),
        conductor(design, 'right end', [0, l, heightM], [0, l, top]),
        conductor(design, 'upper conductor', [0, l, top], [0, -l, top]),
        conductor(design, 'left end', [0, -l, top], [0, -l, heightM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
