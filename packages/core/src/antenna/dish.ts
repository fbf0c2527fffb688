import { wavelengthM } from '../units/wavelength';
import { apertureReception, dish } from './aperture';
import { dimensionsOf, lengthParameter, plainParameter } from './dimensions';
import { closedForm, figure, step } from './closed-form-kind';
import type { Parameter } from './kind';

const PARAMETERS: readonly Parameter[] = [
  lengthParameter('dishM', 'Diameter', 0.45, { least: 0.1, most: 30 }),
  plainParameter('efficiency', 'Aperture efficiency', 0.6, 0.1, 0.9, '0.5 to 0.7'),
  {
    id: 'oscillatorHz',
    label: 'Converter oscillator',
    dimension: 'frequency',
    bareUnit: 'GHz',
    least: 1e6,
    most: 1e11,
    start: (design) => Math.max(1e6, design.freqHz - 1.25e9),
  },
];

export const dishWithConverter = closedForm({
  id: 'dish',
  bandHz: [900e6, 300e9],
  burden: { price: 150, hours: 8, sight: 3 },
  spots: ['balcony', 'roof', 'wall', 'garden'],
  seesSky: true,
  hearsAlong: true,
  name: 'Dish with converter',
  summary: 'a parabolic dish with a converter at its focus',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: ['dish with mount', 'converter', 'coax', 'supply with bias feed'],
  goesWrong: ['Pointing by eye: step at most half the beamwidth.', 'A pad in the DC path of the converter.'],
  pieces: ({ dishM }) => [{ name: 'dish', count: 1, finishedM: dishM, bought: true }],
  figures: ({ dishM, efficiency, oscillatorHz }, design) => {
    const d = dish(dishM, design.freqHz, efficiency);
    return [
      figure('Gain (dBi)', d.gainDbi, 'plain', 'η (πD/λ)²', 'Balanis ch. 15', 3),
      figure('Beamwidth', d.beamwidthDeg, 'angle', '70° λ/D', 'Balanis ch. 15', 2),
      figure(
        'Pointing step at most',
        d.beamwidthDeg / 2,
        'angle',
        'half the beamwidth',
        'common practice, no source',
        2,
      ),
      figure('Far field from', d.farFieldM, 'length', '2D²/λ', 'Balanis ch. 2', 2),
      figure('Out of the converter', Math.abs(design.freqHz - oscillatorHz), 'frequency', '|f − f_LO|', 'mixing', 5),
    ];
  },
  remarks: (d, design) => [
    ...(d.dishM < 8 * wavelengthM(design.freqHz)
      ? ['Under 8 wavelengths across: the formula overstates the gain here, by a dB or more.']
      : []),
  ],
  steps: [
    step('mount', 'Mount the dish; tighten once it can still be turned.', { cautions: ['height', 'wind'] }),
    step('dc', 'Measure the supply at the converter’s plug.', {
      cautions: ['coaxDc'],
      gate: {
        id: 'dc-right',
        question: 'Right voltage, right polarity, no short?',
        otherwise: 'Find the fault with the supply off.',
      },
    }),
    step('point', 'Point it by steps of half the beamwidth until the noise peaks.', {
      cautions: ['sun'],
      waitsFor: ['dc-right'],
    }),
    step('seal', 'Seal the plug.', { waitsFor: ['dc-right'], final: true }),
  ],
  needsM: ({ dishM }) => dishM,
  reception(design) {
    const { dishM, efficiency } = dimensionsOf(PARAMETERS, design);
    return (freqHz) => apertureReception(design.freqHz, freqHz, dish(dishM, freqHz, efficiency).gainDbi);
  },
});
