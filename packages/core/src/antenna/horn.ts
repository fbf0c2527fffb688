import { wavelengthM } from '../units/wavelength';
import { apertureReception, hornGainDbi, optimumHorn, waveguide } from './aperture';
import { dimensionsOf, lengthParameter } from './dimensions';
import { closedForm, figure, step } from './closed-form-kind';
import type { Parameter } from './kind';

const PARAMETERS: readonly Parameter[] = [
  lengthParameter('guideWidthM', 'Guide, wide side', (design) => 0.78 * wavelengthM(design.freqHz), {
    least: 0.005,
    most: 3,
  }),
  lengthParameter('apertureWidthM', 'Mouth, wide side', (design) => 3.2 * wavelengthM(design.freqHz), {
    least: 0.01,
    most: 20,
  }),
  lengthParameter('apertureHeightM', 'Mouth, narrow side', (design) => 2.5 * wavelengthM(design.freqHz), {
    least: 0.01,
    most: 20,
  }),
];

export const horn = closedForm({
  id: 'horn',
  bandHz: [900e6, 300e9],
  burden: { price: 60, hours: 10, sight: 2 },
  spots: ['balcony', 'roof', 'wall', 'garden'],
  seesSky: true,
  hearsAlong: true,
  name: 'Pyramidal horn with waveguide and probe',
  summary: 'a sheet-metal horn on a guide, fed by a probe: for the hydrogen line and above',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: [
    'sheet metal or foil on board',
    'chassis socket with probe wire',
    'conducting tape',
    'low-noise amplifier at the socket',
  ],
  goesWrong: [
    'Seams that do not conduct.',
    'Probe at the wrong distance from the closed end: guide wavelength, not free-space.',
  ],
  pieces: ({ apertureWidthM, apertureHeightM }) => [
    { name: 'wide panel', count: 2, finishedM: apertureWidthM },
    { name: 'narrow panel', count: 2, finishedM: apertureHeightM },
  ],
  figures: ({ guideWidthM, apertureWidthM, apertureHeightM }, design) => {
    const guide = waveguide(guideWidthM, design.freqHz);
    const flare = optimumHorn(apertureWidthM, apertureHeightM, design.freqHz);
    return [
      figure(
        'Gain (dBi)',
        hornGainDbi(apertureWidthM, apertureHeightM, design.freqHz),
        'plain',
        '0.51 · 4πab/λ²',
        'Balanis ch. 13, optimum flare',
      ),
      figure('Slant to the apex, wide side', flare.slantHM, 'length', 'a² / 3λ', 'Balanis ch. 13, optimum flare', 3),
      figure('Slant to the apex, narrow side', flare.slantEM, 'length', 'b² / 2λ', 'Balanis ch. 13, optimum flare', 3),
      figure('Beam width, along the wide side (degrees)', flare.beamHDeg, 'plain', '78 λ / a', 'Balanis ch. 13', 3),
      figure('Beam width, along the narrow side (degrees)', flare.beamEDeg, 'plain', '54 λ / b', 'Balanis ch. 13', 3),
      figure('Guide cut-off', guide.cutoffHz, 'frequency', 'c / 2a', 'Pozar sec. 3.3', 4),
      figure('Wavelength in the guide', guide.guideWavelengthM, 'length', 'λ / √(1 − (f_c/f)²)', 'Pozar sec. 3.3', 4),
      figure('Probe from the closed end', guide.probeFromEndM, 'length', 'λ_g / 4', 'common practice, no source'),
      figure('Probe length', guide.probeLengthM, 'length', '0.22 λ, trimmed by SWR', 'common practice, no source'),
    ];
  },
  remarks: () => ['The gain holds for a flare near its optimum length; a short horn loses some dB.'],
  steps: [
    step('cut', 'Cut and bend the panels; gloves for the edges.', { cautions: ['sheetMetal'] }),
    step('probe', 'Fit the socket with a probe a little long.', { cautions: ['solder'] }),
    step('sweep', 'Sweep and trim the probe on the Bench.', {
      gate: {
        id: 'tested',
        question: 'Is the dip where you want it?',
        otherwise: 'Move the closed end or trim the probe.',
      },
    }),
    step('seal', 'Tape every seam; weatherproof the mouth with thin foil.', {
      cautions: ['spray'],
      waitsFor: ['tested'],
      final: true,
    }),
  ],
  needsM: ({ apertureWidthM }) => apertureWidthM,
  reception(design) {
    const { apertureWidthM, apertureHeightM } = dimensionsOf(PARAMETERS, design);
    return (freqHz) => apertureReception(design.freqHz, freqHz, hornGainDbi(apertureWidthM, apertureHeightM, freqHz));
  },
});
