import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { wavelengthM } from '../units/wavelength';
import { closedForm, figure, step } from './closed-form-kind';
import { dimensionsOf, lengthParameter, plainParameter } from './dimensions';
import type { Design, Dimensions, Parameter, Reception } from './kind';

/**
 * Log-periodic dipole array: spacing σ, growth τ, boom (λ_long/4)(1 − 1/B_s)·cot α with cot α = 4σ/(1 − τ), elements 1 + ln B_s/ln(1/τ). Source: Carrel
 * (1961) as given by Balanis ch. 11. Gain by his contours at the best spacing, 6.5 dBi at τ 0.8 to 10 dBi at 0.96, straight between (from memory; ±1 dB).
 */
export function logPeriodic(tau: number, sigma: number, lowHz: number, highHz: number) {
  const cotangent = (4 * sigma) / (1 - tau);
  const active = 1.1 + 7.7 * (1 - tau) ** 2 * cotangent;
  const span = (highHz / lowHz) * active;
  const boomM = (wavelengthM(lowHz) / 4) * (1 - 1 / span) * cotangent;
  return {
    bestSigma: 0.243 * tau - 0.051,
    elements: Math.ceil(1 + Math.log(span) / Math.log(1 / tau)),
    boomM,
    gainDbi: 6.5 + (3.5 * (tau - 0.8)) / 0.16,
  };
}

const PARAMETERS: readonly Parameter[] = [
  {
    id: 'highHz',
    label: 'Highest frequency',
    dimension: 'frequency',
    bareUnit: 'MHz',
    least: 1e6,
    most: 6e9,
    start: (design) => 3 * design.freqHz,
  },
  plainParameter('tau', 'Growth τ', 0.88, 0.8, 0.97),
  plainParameter('sigma', 'Spacing σ', 0.06, 0.03, 0.2, 'short boom 0.05, best gain 0.15'),
  lengthParameter('heightM', 'Height of the boom', 9, { least: 0.3, most: 100, hint: 'over ground' }),
];
const sizes = (d: Dimensions, design: Design) => logPeriodic(d.tau, d.sigma, design.freqHz, d.highHz);
/** A small spacing gives less than the best one. Common practice, no source. */
const SHORT_BOOM_DB = 1;

function reception(design: Design, freqHz: number): Reception {
  const d = dimensionsOf(PARAMETERS, design);
  const { gainDbi, bestSigma } = sizes(d, design);
  const inside = freqHz >= 0.97 * design.freqHz && freqHz <= 1.03 * d.highHz;
  return inside
    ? {
        // turned by nobody: the mean over the bearings is that of no direction
        realisedGainDbi: gainDbi - (d.sigma < 0.7 * bestSigma ? SHORT_BOOM_DB : 0) - BEAM_OVER_MEAN_DB,
        transfer: 1,
        validity: 'rough',
        remark: 'Closed form for free space; turned to the wave’s polarisation, the mean over its bearings.',
      }
    : {
        realisedGainDbi: 0,
        transfer: 0,
        validity: 'outside',
        remark: 'Outside the range it is made for: no margin is given.',
      };
}
/** Beam over the mean of all bearings at its own elevation, dB: some 65° of half-power width. */
const BEAM_OVER_MEAN_DB = 6;

export const logPeriodicKind = closedForm({
  id: 'log-periodic',
  bandHz: [40e6, 3e9],
  burden: { price: 180, hours: 14, sight: 3, mast: true },
  spots: ['attic', 'roof', 'garden'],
  hearsAlong: true,
  atPlace: (_, __, room) => ({ heightM: room.heightM }),
  name: 'Log-periodic beam',
  summary: 'many dipoles on a double boom, each its own band: one beam over a range of two to ten',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: ['two booms side by side', 'rods', 'shorting stub', 'coax along the boom', 'mast clamp'],
  goesWrong: [
    'Neighbouring elements on the same boom: they must alternate, or the beam is gone.',
    'Fed at the long end: the feed belongs to the short one.',
  ],
  pieces: (d) => {
    const count = 12;
    return [{ name: 'rods, about', count, finishedM: SPEED_OF_LIGHT_M_PER_S / (4 * d.highHz) / d.tau ** (count / 2) }];
  },
  figures: (d, design) => {
    const { elements, boomM, gainDbi, bestSigma } = sizes(d, design);
    const source = 'Carrel 1961; Balanis ch. 11';
    return [
      figure('Elements', elements, 'plain', '1 + ln B_s / ln(1/τ)', source, 2),
      figure('Boom', boomM, 'length', '(λ/4)(1 − 1/B_s) cot α', source, 3),
      figure('Longest element', wavelengthM(design.freqHz) / 2, 'length', 'λ/2', source, 3),
      figure('Gain (dBi)', gainDbi, 'plain', 'contours of Carrel, ±1 dB', source, 2),
      figure('Best spacing σ', bestSigma, 'plain', '0.243 τ − 0.051', source, 3),
    ];
  },
  remarks: () => ['Closed form, not wires: no pattern is computed, and a bearing is not counted.'],
  steps: [
    step('cut', 'Cut the rods; mark their places on both booms.', { cautions: ['knife'] }),
    step('fix', 'Fix neighbouring rods on opposite booms.', { cautions: ['drilling'] }),
    step('sweep', 'Sweep it over its range.', {
      gate: {
        id: 'tested',
        question: 'Is the SWR under 2.5 over the range?',
        otherwise: 'Look for a rod on the wrong boom.',
      },
    }),
    step('raise', 'Set it on its mast.', { cautions: ['height', 'wind', 'powerLine'], waitsFor: ['tested'] }),
  ],
  needsM: () => 0.5,
  reception: (design) => (freqHz) => reception(design, freqHz),
});
