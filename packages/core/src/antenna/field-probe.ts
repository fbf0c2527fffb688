import { shortMonopole } from './probes';
import { conductor, fedAt, lengthParameter } from './dimensions';
import type { HeadAmplifier } from './kind';
import { wireKind } from './wire-kind';
import { loopBuildPlan } from './build-plan';

/** An ordinary high-impedance probe amplifier. Assumed figures. */
const PROBE_AMPLIFIER: HeadAmplifier = { gainDb: 0, iip2Dbm: 50, iip3Dbm: 20 };

export const fieldProbeKind = wireKind({
  id: 'field-probe',
  name: 'Short E-field probe',
  summary: 'a rod or plate with a high-impedance amplifier on top of a mast; the mast is its other half',
  parameters: [
    lengthParameter('rodM', 'Rod', 0.3, { least: 0.02, most: 3, bareUnit: 'mm' }),
    lengthParameter('heightM', 'Height of the amplifier', 4, { least: 0.5, most: 30, hint: 'over ground' }),
  ],
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
  build: () => loopBuildPlan('no loop: mount the rod'),
  needs: ({ heightM, rodM }) => ({ spanM: 0.2, heightM: heightM + rodM }),
  wires: ({ rodM, heightM }, design) => ({
    wires: [
      conductor(design, 'rod', [0, 0, heightM], [0, 0, heightM + rodM]),
      conductor(design, 'mast and coax', [0, 0, heightM], [0, 0, 0.05]),
    ],
    ports: fedAt(0, 0),
    loads: [],
  }),
});
