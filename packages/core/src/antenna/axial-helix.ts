import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { apertureReception } from './aperture';
import { closedForm, figure, step } from './closed-form-kind';
import { countParameter, dimensionsOf, lengthParameter, plainParameter } from './dimensions';
import type { Parameter } from './kind';

/**
 * Gain of a helix in axial mode, dBi: 8.3 (πD/λ)^(√(N+2) − 1) (NS/λ)^0.8 (tan 12.5°/tan α)^(√N/2). Measured, better than Kraus's formula, which is some 3 dB
 * high. Source: King and Wong (1980), from memory; beam width by Kraus, 52°/(C √(NS)).
 */
export function axialHelix(acrossM: number, turns: number, pitchM: number, freqHz: number) {
  const lambda = wavelengthM(freqHz);
  const around = (Math.PI * acrossM) / lambda;
  const climb = pitchM / (Math.PI * acrossM);
  const gain =
    8.3 *
    around ** (Math.sqrt(turns + 2) - 1) *
    ((turns * pitchM) / lambda) ** 0.8 *
    (Math.tan((12.5 * Math.PI) / 180) / climb) ** (Math.sqrt(turns) / 2);
  return { gainDbi: powerDb(gain), around, beamDeg: 52 / (around * Math.sqrt((turns * pitchM) / lambda)) };
}

const PARAMETERS: readonly Parameter[] = [
  countParameter('windings', 'Turns', 8, 3, 40),
  lengthParameter('acrossM', 'Diameter', (design) => wavelengthM(design.freqHz) / Math.PI, { least: 0.005, most: 20 }),
  lengthParameter(
    'pitchM',
    'Rise of a turn',
    (_, { acrossM }) => Math.PI * acrossM * Math.tan((12.5 * Math.PI) / 180),
    {
      least: 0.001,
      most: 20,
    },
  ),
  plainParameter('leftHand', 'Wound left-hand (1) or right-hand (0)', 0, 0, 1),
];

export const axialHelixKind = closedForm({
  id: 'axial-helix',
  bandHz: [300e6, 6e9],
  burden: { price: 60, hours: 6, sight: 2 },
  spots: ['balcony', 'roof', 'wall', 'garden'],
  seesSky: true,
  polarised: 'circular',
  hearsAlong: true,
  conductorM: 0.003,
  name: 'Axial helix',
  summary: 'a corkscrew of a wave around on a plate: circular, a beam along its axis, kind to rough work',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: [
    'stiff wire or tube',
    'plate of nearly a wave across',
    'plastic or wooden spine',
    'quarter-turn strip for the match to 50 Ω',
  ],
  goesWrong: [
    'The first quarter turn carelessly bent: it is the match from 140 to 50 Ω.',
    'Two helices of opposite hand facing one another hear next to nothing.',
  ],
  pieces: ({ windings, acrossM, pitchM }) => [
    { name: 'helix wire', count: 1, finishedM: windings * Math.hypot(Math.PI * acrossM, pitchM) },
  ],
  figures: ({ windings, acrossM, pitchM }, design) => {
    const found = axialHelix(acrossM, windings, pitchM, design.freqHz);
    return [
      figure(
        'Gain (dBi)',
        found.gainDbi,
        'plain',
        '8.3 C^(√(N+2)−1) (NS)^0.8 (tan 12.5°/tan α)^(√N/2)',
        'King and Wong 1980',
        3,
      ),
      figure('Beam width', found.beamDeg, 'angle', '52° / (C √(NS))', 'Kraus, Antennas, ch. 7', 2),
      figure('Around, in wavelengths', found.around, 'plain', 'πD/λ', 'axial mode from 0.75 to 1.3', 3),
    ];
  },
  remarks: ({ acrossM }, design) => {
    const around = (Math.PI * acrossM) / wavelengthM(design.freqHz);
    return around < 0.75 || around > 1.3
      ? ['Outside 0.75 to 1.3 wavelengths around it has no beam along its axis.']
      : [];
  },
  steps: [
    step('wind', 'Wind the helix on a form of its diameter and stretch it to its rise.', { cautions: ['knife'] }),
    step('plate', 'Fix it on the plate; solder the strip and the socket.', { cautions: ['solder', 'sheetMetal'] }),
    step('sweep', 'Sweep it, and bend the strip until it matches.', {
      gate: {
        id: 'tested',
        question: 'Is the SWR under 2 over what is wanted?',
        otherwise: 'Bend the first quarter turn.',
      },
    }),
    step('seal', 'Seal the socket.', { cautions: ['spray'], waitsFor: ['tested'], final: true }),
  ],
  needsM: ({ windings, pitchM }) => windings * pitchM,
  reception(design) {
    const { windings, acrossM, pitchM } = dimensionsOf(PARAMETERS, design);
    return (freqHz) => apertureReception(design.freqHz, freqHz, axialHelix(acrossM, windings, pitchM, freqHz).gainDbi);
  },
});
