import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { receivedDbm } from '../site/field';
import { powerRatio } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { fieldProbe, probeNoiseField, shortMonopole } from './probes';
import { conductor, dimensionsOf, fedAt, lengthParameter } from './dimensions';
import type { Design, HeadAmplifier, Parameter, Reception } from './kind';
import { wireKind } from './wire-kind';
import { loopBuildPlan } from './build-plan';

/** An ordinary high-impedance probe amplifier. Assumed figures. */
const PROBE_AMPLIFIER: HeadAmplifier = { gainDb: 0, iip2Dbm: 50, iip3Dbm: 20 };
/** Its input: shunt capacitance, bias resistor, voltage gain into 50 Ω, noise voltage. Assumed. */
const SHUNT_F = 12e-12;
const BIAS_OHM = 1e6;
const VOLTAGE_GAIN = 0.5;
const NOISE_V_PER_ROOT_HZ = 3e-9;
/** A probe stands on a mast of its own no higher than this, m. Common practice, no source. */
const MOST_MAST_M = 6;
/** Up to here rod and mast are short against the wave and the divider formula holds. */
const SHORT_WAVELENGTHS = 0.1;

const PARAMETERS: readonly Parameter[] = [
  lengthParameter('rodM', 'Rod', 0.3, { least: 0.02, most: 3, bareUnit: 'mm' }),
  lengthParameter('heightM', 'Height of the amplifier', 4, { least: 0.5, most: 200, hint: 'over ground' }),
  lengthParameter('mastM', 'Mast and cable below it, outdoors', (_, { heightM }) => Math.min(30, heightM), {
    least: 0.2,
    most: 30,
    hint: 'its other half',
  }),
];

/**
 * Closed form: the mast is the other half, so the effective height is the rod's height over ground; capacitive divider; noise of the
 * amplifier and its bias resistor as an equivalent field.
 */
function reception(design: Design, freqHz: number): Reception {
  const { rodM, mastM } = dimensionsOf(PARAMETERS, design);
  const probeFarad = shortMonopole(rodM, Math.min(design.diameterM / 2, rodM / 10), freqHz).capacitanceF;
  const effectiveHeightM = mastM + rodM / 2;
  const probe = { effectiveHeightM, probeFarad, shuntFarad: SHUNT_F, biasOhm: BIAS_OHM, voltageGain: VOLTAGE_GAIN };
  const { outputDbm } = fieldProbe(probe, 1, freqHz);
  const own = probeNoiseField(probe, { voltsPerRootHz: NOISE_V_PER_ROOT_HZ, amperesPerRootHz: 0 }, freqHz, 1);
  const gainDbi = outputDbm - receivedDbm(120, freqHz, 0);
  const wavelengths = (mastM + rodM) / wavelengthM(freqHz);
  const validity = wavelengths <= SHORT_WAVELENGTHS ? 'holds' : wavelengths <= 0.3 ? 'rough' : 'outside';
  return {
    realisedGainDbi: gainDbi,
    transfer: powerRatio(gainDbi),
    ownFaDb: own.faDb,
    validity,
    ...(validity === 'holds'
      ? {}
      : {
          remark: `Rod and mast are ${wavelengths.toFixed(2)} λ here: the divider formula holds to 0.1 λ${validity === 'rough' ? ' and is rough to 0.3 λ' : '; above 0.3 λ no margin is given'}.`,
        }),
  };
}

export const fieldProbeKind = wireKind({
  id: 'field-probe',
  bandHz: [10e3, 60e6],
  burden: { price: 120, hours: 4, sight: 1 },
  spots: ['window', 'balcony', 'attic', 'roof', 'deck', 'wall', 'garden', 'trees'],
  answersTo: 'electric',
  cableIsHalf: true,
  // on a mast of its own as far as one reaches, else at the top of what is there
  atPlace({ rodM }, _, { heightM, lowM }) {
    const topM = Math.max(0.5, heightM - rodM);
    if (lowM !== undefined) return { heightM: topM, mastM: Math.max(0.2, topM - lowM - 0.1) };
    const mastM = Math.min(MOST_MAST_M, topM);
    return { heightM: mastM, mastM };
  },
  usefulHz: (_, d) => [1e4, SPEED_OF_LIGHT_M_PER_S / (8 * d.mastM)],
  name: 'Short E-field probe',
  summary: 'a rod or plate with a high-impedance amplifier on top of a mast; the mast is its other half',
  school:
    'Some find it the best small antenna in the open, others never had a quiet one: what decides is how far its mast stands from the house, and its earth.',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  head: PROBE_AMPLIFIER,
  materials: [
    'probe amplifier with its supply',
    'non-metal top of the mast',
    'coax with plug, gland and sleeve',
    'earth connection of the coax outdoors',
  ],
  goesWrong: [
    'Set on a metal mast inside the house field: it hears the house.',
    'The coax screen is the counterpoise: without an outdoor earth connection it ends in the receiver.',
  ],
  pieces: ({ rodM }) => [{ name: 'rod', count: 1, finishedM: rodM, keep: true }],
  figures({ rodM }, design) {
    const { capacitanceF } = shortMonopole(rodM, design.diameterM / 2, design.freqHz);
    return [
      {
        label: 'Capacitance of the rod (pF)',
        value: capacitanceF * 1e12,
        dimension: 'plain',
        figures: 2,
        origin: 'model',
        formula: '2πε₀h / (ln(h/a) − 1)',
        source: 'Schelkunoff & Friis; a moment method gives 2 to 5 % more',
      },
    ];
  },
  remarks: () => [
    'The model holds rod and mast against the ground; the amplifier’s input (some pF) is not in it: read effective length and pattern, not SWR.',
    'Amplifier figures are assumed.',
  ],
  build: () => loopBuildPlan(),
  needs: ({ heightM, rodM }) => ({ spanM: 0.2, heightM: heightM + rodM }),
  wires: ({ rodM, heightM, mastM }, design) => ({
    wires: [
      conductor(design, 'rod', [0, 0, heightM], [0, 0, heightM + rodM]),
      conductor(design, 'mast and coax', [0, 0, heightM], [0, 0, Math.max(0.05, heightM - mastM)]),
    ],
    ports: fedAt(0, 0),
    loads: [],
  }),
  reception: (design) => (freqHz) => reception(design, freqHz),
});
