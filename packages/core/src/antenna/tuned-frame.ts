import { FREE_SPACE_IMPEDANCE_OHM, VACUUM_PERMEABILITY_H_PER_M } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { countParameter, dimensionsOf, lengthParameter, plainParameter } from './dimensions';
import { closedForm, figure, step } from './closed-form-kind';
import type { Design, Dimensions, Parameter, Reception } from './kind';

/** Capacitor that is usual in the middle of the range, F. */
const MIDDLE_F = 250e-12;
/** A variable capacitor of ten to one tunes over this ratio to either side of the middle. */
export const TUNED_RATIO = 1.8;

/** Inductance of a flat square winding: one turn (2µ₀s/π)(ln(s/a) − 0.774), times N², with half the winding's width for the radius. Source: Grover, Inductance Calculations, ch. 8 (from memory). */
const squareTurnH = (sideM: number, widthM: number): number =>
  ((2 * VACUUM_PERMEABILITY_H_PER_M * sideM) / Math.PI) * (Math.log((2 * sideM) / widthM) - 0.774);

const PARAMETERS: readonly Parameter[] = [
  lengthParameter('sideM', 'One side', 0.8, { least: 0.2, most: 3 }),
  lengthParameter('windingM', 'Width of the winding', 0.05, { least: 0.002, most: 0.5, bareUnit: 'mm' }),
  {
    ...countParameter('turns', 'Turns', 10, 1, 300),
    start: (design, { sideM, windingM }) => {
      const henry = 1 / ((2 * Math.PI * design.freqHz) ** 2 * MIDDLE_F);
      return Math.min(300, Math.max(1, Math.round(Math.sqrt(henry / squareTurnH(sideM, windingM)))));
    },
  },
  plainParameter('q', 'Q', 120, 5, 1000, 'assumed: 80 to 200'),
];

const inductanceH = ({ sideM, windingM, turns }: Dimensions): number => turns ** 2 * squareTurnH(sideM, windingM);

/** Retuned by hand wherever the capacitor reaches; matched, its own noise is that of the loss resistance. ±5 dB. */
function reception(design: Design, freqHz: number): Reception {
  const d = dimensionsOf(PARAMETERS, design);
  const lambda = wavelengthM(freqHz);
  const lossOhm = (2 * Math.PI * freqHz * inductanceH(d)) / d.q;
  const heightM = (2 * Math.PI * d.turns * d.sideM ** 2) / lambda;
  const gain = (heightM ** 2 * FREE_SPACE_IMPEDANCE_OHM * Math.PI) / (lossOhm * lambda ** 2);
  const off = Math.abs(Math.log(freqHz / design.freqHz));
  const reached = off <= Math.log(TUNED_RATIO) && 4 * d.turns * d.sideM < 0.3 * lambda;
  return {
    realisedGainDbi: powerDb(reached ? Math.min(1.5, gain) : gain / 1e4),
    transfer: reached ? Math.min(1, gain / 1.5) : 0, // a small loop's directivity
    validity: reached ? 'rough' : 'outside',
    remark: reached
      ? 'Closed form with an assumed Q: good to 5 dB.'
      : 'Beyond the reach of its capacitor, or too much wire for a frame: no margin is given.',
  };
}

export const tunedFrame = closedForm({
  id: 'tuned-frame',
  bandHz: [10e3, 4e6],
  burden: { price: 45, hours: 6, sight: 0 },
  spots: ['indoors', 'window', 'balcony', 'attic', 'deck', 'wall', 'garden'],
  answersTo: 'magnetic',
  turns: true,
  polarised: 'vertical',
  conductorM: 0.0008,
  name: 'Tuned frame',
  summary: 'a frame of half a metre to a metre with many turns and a variable capacitor, turned by hand',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: [
    'wooden cross',
    'stranded or enamelled wire',
    'variable capacitor',
    'high-impedance amplifier or a coupling turn',
  ],
  goesWrong: [
    'Turns that touch or a damp frame: the Q halves and with it the signal.',
    'Left on last week’s setting: it is deaf a few kilohertz off.',
  ],
  pieces: ({ turns, sideM }) => [{ name: 'winding wire', count: 1, finishedM: 4 * turns * sideM }],
  figures: (d, design) => [
    figure('Inductance (µH)', inductanceH(d) * 1e6, 'plain', 'N² (2µ₀s/π)(ln(2s/w) − 0.774)', 'Grover, ch. 8', 3),
    figure(
      ...(['Capacitor (pF)', 1e12 / ((2 * Math.PI * design.freqHz) ** 2 * inductanceH(d)), 'plain'] as const),
      ...(['1/(ω²L)', 'tuned circuit', 3] as const),
    ),
  ],
  remarks: () => [
    'Indoors it hears less of the house than a rod or wire; turn it for the least noise, not for the most signal.',
  ],
  steps: [
    step('wind', 'Wind the turns on the frame, evenly spaced, ends fixed.', { cautions: ['knife'] }),
    step('measure', 'Find the resonance with the capacitor half in.', {
      gate: {
        id: 'tested',
        question: 'Does the capacitor reach all that is wanted?',
        otherwise: 'Take a turn off or put one on.',
        measured: true,
      },
    }),
    step('couple', 'Fit the amplifier or the coupling turn; solder.', { cautions: ['solder'], waitsFor: ['tested'] }),
    step('place', 'Stand it away from supplies and screens, and turn it for the least noise.'),
  ],
  needsM: ({ sideM }) => sideM,
  reception: (design) => (freqHz) => reception(design, freqHz),
});
