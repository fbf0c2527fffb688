import { wavelengthM } from '../units/wavelength';
import { conductor, countParameter, fedAt, lengthParameter } from './dimensions';
import { resonantDipole } from './induced-emf';
import { wireKind } from './wire-kind';

export const whipOnSheet = wireKind({
  id: 'whip-on-sheet',
  bandHz: [60e6, 1.3e9],
  burden: { price: 25, hours: 1, sight: 1 },
  spots: ['indoors', 'window', 'balcony', 'attic', 'roof', 'wall', 'garden'],
  atPlace: ({ lengthM, sheetM }, _, { heightM, lowM, spanM }) => ({
    heightM: Math.max((lowM ?? 0) + 0.05, heightM - lengthM),
    sheetM: Math.max(0.1, Math.min(sheetM, spanM)),
  }),
  name: 'Whip on a metal sheet',
  summary: 'a quarter wave in the middle of a tray or sheet of half a wave, as large as it really is',
  parameters: [
    lengthParameter('lengthM', 'Whip', (design) => resonantDipole(design.freqHz, design.diameterM).lengthM / 2, {
      least: 0.01,
      most: 30,
    }),
    lengthParameter('sheetM', 'Sheet across', (design) => Math.min(1.5, 0.55 * wavelengthM(design.freqHz)), {
      least: 0.05,
      most: 10,
    }),
    countParameter('spokes', 'Spokes that stand for the sheet', 12, 6, 24),
    lengthParameter('heightM', 'Height of the sheet', 2, { least: 0.02, most: 200, hint: 'over ground' }),
  ],
  trim: { id: 'lengthM', name: 'the whip', share: 1 },
  ignores: ['insulated', 'allowance'],
  materials: ['whip with its socket', 'metal sheet or tray', 'coax with plug and choke'],
  goesWrong: [
    'The sheet is painted where the socket should touch it.',
    'A sheet smaller than a quarter wave around: the cable becomes the other half.',
  ],
  pieces: ({ lengthM }) => [{ name: 'whip', count: 1, finishedM: lengthM, modelNeeds: 1.1 }],
  remarks: () => [
    'Spokes stand for the sheet in the model; its beam tilts up over the horizon, as that of a real sheet does.',
  ],
  build: { cuts: 'the whip', raise: 'Set it in the middle of the sheet, upright, as high as may be.' },
  needs: ({ sheetM, lengthM, heightM }) => ({ spanM: sheetM, heightM: heightM + lengthM }),
  wires: ({ lengthM, sheetM, spokes, heightM }, design) => ({
    wires: [
      conductor(design, 'whip', [0, 0, heightM], [0, 0, heightM + lengthM]),
      ...Array.from({ length: spokes }, (_, i) => {
        const turn = (2 * Math.PI * i) / spokes;
        return conductor(...([design, `spoke ${i + 1}`, [0, 0, heightM]] as const), [
          (sheetM / 2) * Math.cos(turn),
          (sheetM / 2) * Math.sin(turn),
          heightM,
        ]);
      }),
    ],
    ports: fedAt(0, 0),
    loads: [],
  }),
});
