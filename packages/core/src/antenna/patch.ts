import { wavelengthM } from '../units/wavelength';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { apertureReception } from './aperture';
import { closedForm, figure, step } from './closed-form-kind';
import { lengthParameter, plainParameter } from './dimensions';
import type { Parameter } from './kind';

/**
 * Rectangular patch: width c/2f·√(2/(ε+1)), effective permittivity and end extension, length c/(2f√ε_eff) − 2ΔL. Source: Balanis ch. 14
 * (transmission-line model).
 */
export function patchSize(freqHz: number, permittivity: number, thickM: number) {
  const half = SPEED_OF_LIGHT_M_PER_S / (2 * freqHz);
  const widthM = half * Math.sqrt(2 / (permittivity + 1));
  const effective = (permittivity + 1) / 2 + (permittivity - 1) / 2 / Math.sqrt(1 + (12 * thickM) / widthM);
  const ratio = widthM / thickM;
  const extensionM = (0.412 * thickM * (effective + 0.3) * (ratio + 0.264)) / ((effective - 0.258) * (ratio + 0.8));
  return { widthM, effective, extensionM, lengthM: half / Math.sqrt(effective) - 2 * extensionM };
}

/** On air or foam a patch has some 9 dBi, on a board of glass fibre 5 to 6. Common practice, no source. */
const gainDbi = (permittivity: number): number =>
  9 - 10 * Math.log10(Math.sqrt(permittivity)) - (permittivity > 3 ? 1 : 0);

const PARAMETERS: readonly Parameter[] = [
  plainParameter('permittivity', 'Permittivity', 1.05, 1, 12, 'air or foam 1.05, glass-fibre board 4.4'),
  lengthParameter('thickM', 'Height over the plate', (design) => 0.02 * wavelengthM(design.freqHz), {
    least: 0.0005,
    most: 2,
    bareUnit: 'mm',
  }),
  lengthParameter('widthM', 'Width', (design, d) => patchSize(design.freqHz, d.permittivity, d.thickM).widthM),
  lengthParameter('lengthM', 'Length', (design, d) =>
    // so thick a patch has no length of its own left
    Math.max(0.001, patchSize(design.freqHz, d.permittivity, d.thickM).lengthM),
  ),
];

export const patch = closedForm({
  id: 'patch',
  bandHz: [300e6, 6e9],
  burden: { price: 30, hours: 4, sight: 1 },
  spots: ['window', 'balcony', 'attic', 'roof', 'wall', 'garden'],
  name: 'Patch',
  summary: 'a plate of half a wave over a larger one: flat, one side only',
  seesSky: true,
  hearsAlong: true,
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: ['sheet for patch and plate', 'spacers or foam', 'socket', 'coax with plug'],
  goesWrong: [
    'A board of unknown permittivity: the dip lies elsewhere.',
    'A plate hardly larger than the patch: it hears behind.',
  ],
  pieces: ({ lengthM, widthM }) => [
    { name: 'patch, long side', count: 1, finishedM: lengthM },
    { name: 'patch, other side', count: 1, finishedM: widthM },
  ],
  figures: (d, design) => {
    const found = patchSize(design.freqHz, d.permittivity, d.thickM);
    const source = 'Balanis ch. 14, transmission-line model';
    return [
      figure('Width by the rule', found.widthM, 'length', 'c/2f · √(2/(ε + 1))', source, 4),
      figure('Effective permittivity', found.effective, 'plain', '(ε+1)/2 + (ε−1)/2 · (1 + 12h/W)^−½', source, 4),
      figure('Length by the rule', found.lengthM, 'length', 'c/(2f√ε_eff) − 2ΔL', source, 4),
    ];
  },
  remarks: () => ['The gain is that of usual patches, good to 2 dB.'],
  steps: [
    step('cut', 'Cut patch and plate; edges rounded off.', { cautions: ['sheetMetal'] }),
    step('feed', 'Fit the socket a third of the length from one end.', { cautions: ['solder'] }),
    step('sweep', 'Sweep it; file the length for the frequency, move the feed for the match.', {
      gate: { id: 'tested', question: 'Is the dip where you want it?', otherwise: 'Trim the length first.' },
    }),
    step('seal', 'Cover it with thin plastic; sweep again.', { waitsFor: ['tested'], final: true }),
  ],
  needsM: ({ lengthM }) => 2 * lengthM,
  reception(design) {
    const permittivity = design.dimensions.permittivity ?? 1.05;
    return (freqHz) => apertureReception(design.freqHz, freqHz, gainDbi(permittivity));
  },
});
