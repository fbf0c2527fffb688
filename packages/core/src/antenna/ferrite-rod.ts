import { tunedCoil } from '../resonator/tuned-coil';
import { rodPermeability } from '../resonator/winding';
import { FREE_SPACE_IMPEDANCE_OHM } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { countParameter, dimensionsOf, lengthParameter, plainParameter, yesNoParameter } from './dimensions';
import { TUNED_RATIO } from './tuned-frame';
import { closedForm, figure, step } from './closed-form-kind';
import type { Design, Parameter, Reception } from './kind';

/** Of an ordinary rod with the winding in its middle; assumed until measured. */
const FACTOR = plainParameter(
  'factorNh',
  'Inductance factor, nH per turn²',
  23.7,
  0.1,
  5000,
  'of this rod and winding; measure yours',
);

const PARAMETERS: readonly Parameter[] = [
  FACTOR,
  plainParameter('selfPf', 'Self-capacitance, pF', 33, 0, 1000),
  {
    ...countParameter('turns', 'Turns', 640, 1, 5000),
    // for a capacitor of about 400 pF
    start: (design, { factorNh }) =>
      Math.max(1, Math.round(Math.sqrt(1 / ((2 * Math.PI * design.freqHz) ** 2 * 435e-12 * factorNh * 1e-9)))),
  },
  plainParameter('q', 'Q', 85, 1, 1000),
  lengthParameter('rodM', 'Rod length', 0.2, { least: 0.02, most: 1, bareUnit: 'mm' }),
  lengthParameter('formM', 'Diameter of the winding', 0.012, { least: 0.002, most: 0.2, bareUnit: 'mm' }),
  yesNoParameter('retuned', 'Capacitor switched or turned from signal to signal'),
];

/** Initial permeability of an ordinary long-wave rod; assumed. */
const ROD_PERMEABILITY = 400;

/** Tuned and matched: emf²/4r against what an isotropic antenna takes; its own noise is that of the loss resistance. ±5 dB. */
function reception(design: Design, freqHz: number): Reception {
  const { turns, factorNh, q, rodM, formM, retuned } = dimensionsOf(PARAMETERS, design);
  const lambda = wavelengthM(freqHz);
  const lossOhm = (2 * Math.PI * freqHz * factorNh * 1e-9 * turns ** 2) / q;
  const { permeability } = rodPermeability(Math.max(1.5, rodM / formM), ROD_PERMEABILITY);
  const heightM = (2 * Math.PI * turns * Math.PI * (formM / 2) ** 2 * permeability) / lambda;
  const gain = (heightM ** 2 * FREE_SPACE_IMPEDANCE_OHM * Math.PI) / (lossOhm * lambda ** 2);
  const near = retuned
    ? Math.abs(Math.log(freqHz / design.freqHz)) <= Math.log(TUNED_RATIO)
    : Math.abs(freqHz / design.freqHz - 1) <= 1 / q;
  const tuned = near && turns * Math.PI * formM < MOST_WIRE_WAVELENGTHS * lambda;
  // no antenna takes more than arrives
  const taken = Math.min(SMALL_LOOP_GAIN, gain);
  return {
    realisedGainDbi: powerDb(tuned ? taken : taken / 100),
    transfer: tuned ? taken / SMALL_LOOP_GAIN : 0,
    validity: tuned ? 'rough' : 'outside',
    remark: tuned
      ? 'Closed form with an assumed rod permeability of 400: good to 5 dB.'
      : 'Outside its tuned width, or too much wire for a coil: no margin is given.',
  };
}
/** Directivity of a small loop, ratio. Source: Balanis ch. 5. */
const SMALL_LOOP_GAIN = 1.5;
/** A winding longer than this is no coil any more. */
const MOST_WIRE_WAVELENGTHS = 0.3;

export const ferriteRod = closedForm({
  id: 'ferrite-rod',
  bandHz: [10e3, 2e6],
  burden: { price: 40, hours: 6, sight: 0 },
  spots: ['indoors', 'window', 'balcony', 'attic', 'roof', 'deck', 'wall', 'garden', 'trees'],
  answersTo: 'magnetic',
  turns: true,
  polarised: 'vertical',
  sizes: () => [{ retuned: 1 }],
  conductorM: 0.0002,
  name: 'Ferrite rod loop',
  summary: 'many turns on a ferrite rod, tuned: for time signals and the lowest bands',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: ['ferrite rod', 'enamelled wire', 'tuning capacitor', 'winding form', 'box'],
  goesWrong: ['A rod dropped once is another rod: measure again.', 'Enamel not stripped at a joint: the Q says so.'],
  pieces: ({ turns, formM }) => [{ name: 'winding wire', count: 1, finishedM: turns * Math.PI * formM }],
  figures: ({ turns, factorNh, selfPf, q }, design) => {
    const coil = tunedCoil({
      turns,
      inductanceH: factorNh * 1e-9 * turns ** 2,
      selfCapacitanceF: selfPf * 1e-12,
      q,
      freqHz: design.freqHz,
      lineOhm: 50,
    });
    const source = 'tuned circuit; Terman, Radio Engineers’ Handbook';
    return [
      figure('Inductance (mH)', coil.inductanceH * 1e3, 'plain', 'A_L · N²', source, 4),
      figure('Capacitor to add (pF)', coil.externalF * 1e12, 'plain', '1/(ω²L) − self-capacitance', source, 4),
      figure('Reactance', coil.reactanceOhm, 'resistance', 'ωL', source, 4),
      figure('Resistance across it', coil.parallelOhm, 'resistance', 'Q · ωL', source, 3),
      figure('Coupling turns for 50 Ω', coil.couplingTurns, 'plain', 'N √(50 / R_p)', source, 2),
      figure('Q when matched', coil.loadedQ, 'plain', 'Q / 2', source, 3),
    ];
  },
  remarks: () => [
    'Closed form only: the inductance factor of a rod hangs on where the winding sits. Two resonances with known capacitors give inductance and self-capacitance.',
  ],
  steps: [
    step('wind', 'Wind the coil, ends held by tape only.', { cautions: ['ferrite', 'lathe', 'enamel'] }),
    step('measure', 'Find its resonance with two known capacitors, in three orientations.', {
      gate: {
        id: 'tested',
        question: 'Do three orientations agree within 0.4 %, on the target, measured inside its tube?',
        measured: true,
        otherwise: 'A joint or the rod is loose, or metal is near: find it before anything is glued.',
      },
    }),
    step('tune', 'Fit the capacitor and the coupling turns; solder.', { cautions: ['solder'], waitsFor: ['tested'] }),
    step('seal', 'Fix winding and rod, close the box.', { cautions: ['cement'], waitsFor: ['tested'], final: true }),
  ],
  needsM: ({ rodM }) => rodM,
  reception: (design) => (freqHz) => reception(design, freqHz),
});
