import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { receivedDbm } from '../site/field';
import { wattsToDbm } from '../units/decibel';
import { lengthText } from '../units/format';
import { wavelengthM } from '../units/wavelength';
import { loopBuildPlan } from './build-plan';
import { conductor, dimensionsOf, fedAt, lengthParameter } from './dimensions';
import type { AntennaKind, Design, Parameter, Reception } from './kind';
import {
  loopAmplifierFaDb,
  loopInductanceH,
  smallLoop,
  SMALL_LOOP_MAX_WAVELENGTHS,
  type LoopAmplifier,
  type LoopShape,
} from './probes';

/** An ordinary low-impedance loop amplifier. Assumed figures; replace them by those of yours when known. */
const LOOP_AMPLIFIER: LoopAmplifier = {
  inputOhm: 10,
  noiseVoltPerRootHz: 0.6e-9,
  noiseAmpPerRootHz: 2e-12,
  gainDb: 24,
  iip2Dbm: 40,
  iip3Dbm: 5,
};

/** The small-loop formulas err by some dB up to this circumference, and mean nothing above it. */
const ROUGH_MAX_WAVELENGTHS = 0.3;

/** Where a loop stands clear of wet ground and hedge. */
const FOOT_HEIGHT_M = 1;
/** Sides of the polygon that stands for the circle in the wire model; its area is made the circle's. */
const SIDES = 16;
const PARAMETERS: readonly Parameter[] = [
  lengthParameter('loopDiameterM', 'Loop diameter', 1, { least: 0.1, most: 10 }),
  lengthParameter('footM', 'Height of its lowest point', FOOT_HEIGHT_M, { least: 0.05, most: 50, hint: 'over ground' }),
];
const loopDiameterM = (design: Design): number => dimensionsOf(PARAMETERS, design).loopDiameterM;
const shape = (design: Design): LoopShape => ({
  radiusM: loopDiameterM(design) / 2,
  wireRadiusM: design.diameterM / 2,
});

/** Level into the amplifier over the isotropic level of the same field, dB. */
function gainIntoAmplifierDbi(design: Design, freqHz: number): number {
  const { currentA } = smallLoop(shape(design), freqHz, 1, LOOP_AMPLIFIER.inputOhm);
  return wattsToDbm(currentA ** 2 * LOOP_AMPLIFIER.inputOhm) - receivedDbm(120, freqHz, 0);
}

function reception(design: Design, freqHz: number): Reception {
  const around = (Math.PI * loopDiameterM(design)) / wavelengthM(freqHz);
  const validity =
    around <= SMALL_LOOP_MAX_WAVELENGTHS ? 'holds' : around <= ROUGH_MAX_WAVELENGTHS ? 'rough' : 'outside';
  const gain = gainIntoAmplifierDbi(design, freqHz);
  return {
    realisedGainDbi: gain,
    transfer: 10 ** (gain / 10),
    ownFaDb: loopAmplifierFaDb(shape(design), LOOP_AMPLIFIER, freqHz, 0.1),
    validity,
    ...(validity === 'holds'
      ? {}
      : {
          remark: `Circumference ${around.toFixed(2)} λ here: the small-loop formula holds to 0.1 λ${validity === 'rough' ? ' and is rough to 0.3 λ' : '; above 0.3 λ no margin is given'}.`,
        }),
  };
}

export const amplifiedLoop: AntennaKind = {
  id: 'amplified-loop',
  bandHz: [10e3, 60e6],
  burden: { price: 180, hours: 4, sight: 1 },
  spots: ['indoors', 'window', 'balcony', 'attic', 'roof', 'deck', 'wall', 'garden', 'trees'],
  answersTo: 'magnetic',
  turns: true,
  // where nothing reaches the ground it stands on the floor there
  atPlace({ loopDiameterM, footM }, _, { lowM, heightM, spanM }) {
    const acrossM = Math.max(0.3, Math.min(loopDiameterM, heightM - (lowM ?? 0) - 0.2, spanM));
    return {
      loopDiameterM: acrossM,
      footM: lowM === undefined ? Math.max(0.05, Math.min(footM, heightM - acrossM)) : lowM + 0.1,
    };
  },
  conductorM: 0.015,
  usefulHz: (_, d) => [1e5, (SMALL_LOOP_MAX_WAVELENGTHS * SPEED_OF_LIGHT_M_PER_S) / (Math.PI * d.loopDiameterM)],
  name: 'Small amplified loop',
  summary: 'one turn with an amplifier at its foot, turned by hand to null a noise',
  school:
    'Some take it wideband, some with a low-pass ahead of its amplifier: near strong FM stations the low-pass wins, elsewhere it only costs VHF.',
  parameters: PARAMETERS,
  ignores: ['insulated', 'allowance'],
  materials: ['loop amplifier with its supply', 'coax with plug, gland and sleeve', 'a short non-metal post'],
  goesWrong: [
    'A loop joint of some tenths of an ohm: nothing seems wrong, the noise is.',
    'The feed line feeds house noise in: choke it at the amplifier and at the house.',
  ],
  head: LOOP_AMPLIFIER,
  draft(design) {
    const circumferenceM = Math.PI * loopDiameterM(design);
    const inductanceH = loopInductanceH(shape(design));
    const cornerHz = LOOP_AMPLIFIER.inputOhm / (2 * Math.PI * inductanceH);
    return {
      pieces: [{ name: 'loop conductor', count: 1, finishedM: circumferenceM, cutM: circumferenceM + 0.1 }],
      figures: [
        {
          label: 'Circumference',
          value: circumferenceM,
          dimension: 'length',
          figures: 3,
          origin: 'model',
          formula: 'π · diameter',
          source: 'geometry',
        },
        {
          label: 'Inductance (µH)',
          value: inductanceH * 1e6,
          dimension: 'plain',
          figures: 3,
          origin: 'model',
          formula: 'µ₀R(ln(8R/a) − 2)',
          source: 'circular loop, ±2 %',
        },
        {
          label: 'Flat above',
          value: cornerHz,
          dimension: 'frequency',
          figures: 2,
          origin: 'model',
          formula: 'R_in / (2πL)',
          source: `amplifier input ${LOOP_AMPLIFIER.inputOhm} Ω (assumed)`,
        },
        {
          label: 'Small-loop formula holds to',
          value: (SMALL_LOOP_MAX_WAVELENGTHS * 299_792_458) / circumferenceM,
          dimension: 'frequency',
          figures: 2,
          origin: 'model',
          formula: 'circumference < λ/10',
          source: 'small-loop theory',
        },
      ],
      remarks: [
        'Amplifier figures are assumed: 10 Ω input, 0.6 nV/√Hz, 24 dB, second-order input intercept +40 dBm.',
        'A thick conductor lowers the inductance and with it the noise; 10 to 25 mm tube is usual.',
      ],
      steps: loopBuildPlan(lengthText(circumferenceM)),
      trimLengthM: circumferenceM,
      trimName: 'the circumference',
    };
  },
  fit(design, room) {
    const { loopDiameterM: across, footM } = dimensionsOf(PARAMETERS, design);
    const needsHeightM = across + footM;
    const fits = needsHeightM <= room.heightM && across <= room.spanM;
    return {
      fits,
      needsSpanM: across,
      needsHeightM,
      reason: fits
        ? `it fits, ${lengthText(across)} across on a short post`
        : across > room.spanM
          ? `it is ${lengthText(across)} across, and the place offers ${lengthText(room.spanM)}`
          : `its top stands at ${lengthText(needsHeightM)}, and the place offers ${lengthText(room.heightM)}`,
    };
  },
  model(design, ground) {
    const { loopDiameterM: across, footM } = dimensionsOf(PARAMETERS, design);
    // equal area: ½·n·R² sin(2π/n) = πr²
    const r = (across / 2) * Math.sqrt((2 * Math.PI) / (SIDES * Math.sin((2 * Math.PI) / SIDES)));
    // plane along x (the loop's maximum), feed at the foot
    const corner = (i: number) => {
      const turn = ((i - 0.5) * 2 * Math.PI) / SIDES - Math.PI / 2;
      return [r * Math.cos(turn), 0, footM + r + r * Math.sin(turn)] as const;
    };
    return {
      wires: Array.from({ length: SIDES }, (_, i) => conductor(design, `side ${i + 1}`, corner(i), corner(i + 1))),
      ports: fedAt(0, 0.5),
      loads: [],
      ground,
    };
  },
  reception: (design) => (freqHz) => reception(design, freqHz),
};
