import { wavelengthM } from '../units/wavelength';
import {
  conductor,
  countParameter,
  fedAt,
  heightParameter,
  lengthParameter,
  yesNoParameter,
  uprightOnSupport,
} from './dimensions';
import type { Design } from './kind';
import { wireKind } from './wire-kind';

/** Lengths in wavelengths for a conductor of 0.0085 λ. Source: Viezbicke, NBS Technical Note 688 (1976), from memory. */
const REFLECTOR = 0.482;
const DRIVEN = 0.468;
const DIRECTOR = 0.43;
const SPACING = 0.2;
/** Thinner elements must be longer: about 1.2 % for each factor of 3 in diameter; a rough slope of the note's curves. */
const thin = (design: Design): number =>
  1 + 0.011 * (Math.log(0.0085 / Math.max(1e-5, design.diameterM / wavelengthM(design.freqHz))) / Math.log(3));

export const yagi = wireKind({
  id: 'yagi',
  bandHz: [7e6, 1.3e9],
  burden: { price: 120, hours: 10, sight: 3, mast: true },
  atPlace: uprightOnSupport(({ reflectorM }) => reflectorM),
  hearsAlong: true,
  name: 'Yagi',
  summary: 'two to six straight elements on a boom',
  parameters: [
    countParameter('elements', 'Elements', 3, 2, 6),
    lengthParameter('reflectorM', 'Reflector', (design) => REFLECTOR * wavelengthM(design.freqHz) * thin(design)),
    lengthParameter('drivenM', 'Driven element', (design) => DRIVEN * wavelengthM(design.freqHz) * thin(design)),
    lengthParameter('directorM', 'Directors', (design) => DIRECTOR * wavelengthM(design.freqHz) * thin(design)),
    lengthParameter('spacingM', 'Spacing', (design) => SPACING * wavelengthM(design.freqHz)),
    heightParameter('Height of the boom'),
    yesNoParameter('upright', 'Elements upright'),
  ],
  trim: { id: 'drivenM', name: 'the driven element', share: 1 },
  ignores: ['insulated'],
  materials: [
    'boom and mast clamp',
    'element clamps',
    'matching section or hairpin: the feed is low',
    'coax with plug, sleeve and heat-shrink',
    'self-amalgamating tape',
  ],
  goesWrong: [
    'A metal boom through the elements shortens them electrically: lengthen each by about two thirds of the boom’s diameter.',
    'Trimming directors for SWR: trim the driven element, the directors make the pattern.',
  ],
  pieces: ({ elements, reflectorM, drivenM, directorM }) => [
    { name: 'reflector', count: 1, finishedM: reflectorM, keep: true },
    { name: 'half driven element', count: 2, finishedM: drivenM / 2 },
    ...(elements > 2 ? [{ name: 'director', count: elements - 2, finishedM: directorM, keep: true }] : []),
  ],
  figures: ({ elements, spacingM }) => [
    {
      label: 'Boom',
      value: (elements - 1) * spacingM,
      dimension: 'length',
      figures: 3,
      origin: 'model',
      formula: '(elements − 1) · spacing',
      source: 'geometry',
    },
  ],
  remarks: () => [
    'First guess after a published table for thick elements; thinner ones follow a rough slope. Let the model trim it.',
  ],
  build: { cuts: 'all elements', raise: 'Set the boom on its mast; point it with the shortest element forward.' },
  needs: ({ reflectorM, elements, spacingM, heightM, upright }) => ({
    spanM: Math.max(reflectorM, (elements - 1) * spacingM),
    heightM: heightM + (upright ? reflectorM / 2 : 0),
  }),
  stiffM: ({ reflectorM, elements, spacingM }) => Math.max(reflectorM, (elements - 1) * spacingM),
  wires({ elements, reflectorM, drivenM, directorM, spacingM, heightM, upright }, design) {
    const h = upright ? Math.max(heightM, reflectorM / 2 + 0.05) : heightM;
    const lengths = [reflectorM, drivenM, ...Array.from({ length: elements - 2 }, () => directorM)];
    const names = [
      'reflector',
      'driven element',
      ...Array.from({ length: elements - 2 }, (_, i) => `director ${i + 1}`),
    ];
    return {
      wires: lengths.map((length, i) => {
        const x = (i - 1) * spacingM;
        const end = (side: number) =>
          upright ? ([x, 0, h + (side * length) / 2] as const) : ([x, (side * length) / 2, h] as const);
        return conductor(design, names[i], end(-1), end(1));
      }),
      ports: fedAt(1, 0.5),
      loads: [],
    };
  },
});
