import { requireRange } from '../errors';
import { wavelengthM } from '../units/wavelength';
import { angleParameter, conductor, countParameter, fedAt, heightParameter, lengthParameter } from './dimensions';
import { INSULATION_FACTOR } from './half-wave-dipole';
import { dipoleResonanceHz, resonantDipole } from './induced-emf';
import type { Design, Dimensions, Parameter } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { wireReception } from './wire-reception';
import { RAD } from '../units/constants';

/** Radials over a quarter wave; conventions run from 1.02 to 1.12. */
const RADIAL_FACTOR = 1.12;
/** Nominal element over λ, before the shortening that trimming finds: cut long. */
const ELEMENT_FRACTION = 0.95 / 4;
/** Foot of an elevated vertical: radials and people need room below it. */
const FOOT_HEIGHT_M = 2.2;

/** Starting lengths by the usual rule: element 0.95·λ/4, radials 1.12·λ/4. */
export function quarterWaveLengths(freqHz: number): { elementM: number; radialM: number } {
  const lambda = wavelengthM(freqHz);
  return { elementM: ELEMENT_FRACTION * lambda, radialM: (RADIAL_FACTOR * 0.95 * lambda) / 4 };
}

/**
 * Forecast of the resonance of a vertical over drooping radials: element and one radial together act as a half-wave dipole. Closed
 * form; ±5 %. The radials' number is not seen by it.
 */
/** From here on an element is a rod that stands by itself. Common practice, no source. */
const RODS_FROM_HZ = 30e6;

export const quarterWaveResonanceHz = (elementM: number, radialM: number, diameterM: number): number =>
  dipoleResonanceHz(elementM + radialM, diameterM);

/** Feed resistance against the straight dipole's: half over flat radials, about 50 of 73 Ω at 45° droop (from memory). */
function droopResistanceFactor(droopDeg: number): number {
  requireRange(droopDeg, 'Droop of the radials (degrees)', 0, 90);
  return 0.5 + (50 / 73 - 0.5) * Math.min(1.3, droopDeg / 45);
}

const insulation = (design: Design): number => (design.insulated ? INSULATION_FACTOR : 1);

export const RADIALS: readonly Parameter[] = [
  countParameter('radials', 'Radials', 4, 2, 8),
  lengthParameter('radialM', 'One radial', (design) => quarterWaveLengths(design.freqHz).radialM * insulation(design)),
];
/** The element that resonates at the wanted frequency with radials of the given length. */
export const ELEMENT = lengthParameter('elementM', 'Element', (design, { radialM }) =>
  Math.max(0.2 * radialM, resonantDipole(design.freqHz, design.diameterM).lengthM * insulation(design) - radialM),
);

/** Wires of an element over evenly spread radials; the feed is the foot of the element. */
export function overRadials(
  { radials, radialM, elementM }: Dimensions,
  droopDeg: number,
  footM: number,
  design: Design,
) {
  const [out, down] = [radialM * Math.cos(droopDeg * RAD), radialM * Math.sin(droopDeg * RAD)];
  return {
    wires: [
      conductor(design, 'element', [0, 0, footM], [0, 0, footM + elementM]),
      ...Array.from({ length: radials }, (_, i) => {
        const turn = (2 * Math.PI * i) / radials;
        return conductor(
          design,
          `radial ${i + 1}`,
          [0, 0, footM],
          [out * Math.cos(turn), out * Math.sin(turn), footM - down],
        );
      }),
    ],
    ports: fedAt(0, 0),
    loads: [],
  };
}

export const quarterWave = wireKind({
  id: 'quarter-wave',
  bandHz: [150e3, 1.3e9],
  burden: { price: 50, hours: 4, sight: 3, mast: true },
  // of rods it stands on its support, of wire it hangs from it
  atPlace: ({ elementM }, { freqHz }, room) => ({
    heightM: Math.max(0.05, room.heightM - (freqHz > RODS_FROM_HZ ? 0 : elementM)),
  }),
  name: 'Quarter wave with radials',
  summary: 'a vertical over two to eight drooping radials',
  parameters: [
    ...RADIALS,
    angleParameter('droopDeg', 'Radials droop', 45, 0, 80, '45° gives about 50 Ω'),
    ELEMENT,
    heightParameter('Height of the feed'),
  ],
  trim: { id: 'elementM', name: 'the element', share: 1 },
  materials: [...USUAL_PARTS, 'chassis socket or feed plate'],
  goesWrong: ['Trimming the radials instead of the element.', 'A radial shorted to the element by solder or spray.'],
  pieces: ({ elementM, radials, radialM }, design) => [
    {
      ...{ name: 'element', count: 1, finishedM: elementM, modelNeeds: 1.07 },
      ruleM: quarterWaveLengths(design.freqHz).elementM * insulation(design),
    },
    { name: 'radial', count: radials, finishedM: radialM, keep: true },
  ],
  figures({ elementM, radialM, droopDeg }, design) {
    const rule = quarterWaveLengths(design.freqHz);
    const whole = resonantDipole(design.freqHz, design.diameterM);
    return [
      {
        label: 'Element',
        value: elementM,
        dimension: 'length',
        figures: 3,
        origin: 'model',
        formula: 'resonant half wave − one radial',
        source: 'closed form, ±5 %: element and radial together act as a dipole',
      },
      {
        label: 'Element by the usual rule',
        value: rule.elementM,
        dimension: 'length',
        figures: 3,
        origin: 'catalogue',
        formula: '0.95 · λ/4',
        source: 'common practice, no source',
      },
      {
        label: 'Radial by the usual rule',
        value: rule.radialM,
        dimension: 'length',
        figures: 3,
        origin: 'catalogue',
        formula: '1.12 · 0.95 · λ/4',
        source: 'common practice (1.02 to 1.12), no source',
      },
      {
        label: 'Resonance of an element by the rule',
        value: quarterWaveResonanceHz(rule.elementM, radialM, design.diameterM),
        dimension: 'frequency',
        figures: 3,
        origin: 'model',
        formula: 'dipole of element + radial',
        source: 'closed form, ±5 %',
      },
      {
        label: 'Feed resistance, free space',
        value: whole.resistanceOhm * droopResistanceFactor(droopDeg),
        dimension: 'resistance',
        figures: 2,
        origin: 'assumed',
        formula: '36 Ω flat to about 50 Ω at 45° droop',
        source: 'common practice, from memory',
      },
    ];
  },
  remarks: () => ['Cut the element long: it can be shortened, not lengthened. Trim the element only.'],
  build: {
    cuts: 'the element and all radials',
    raise: 'Set it on its support, radials spread evenly and drooping alike.',
  },
  needs: ({ elementM, radialM, droopDeg }) => ({
    spanM: 2 * radialM * Math.cos(droopDeg * RAD),
    heightM: elementM + radialM * Math.sin(droopDeg * RAD) + FOOT_HEIGHT_M,
  }),
  wires: (d, design) =>
    overRadials(d, d.droopDeg, Math.max(d.heightM, d.radialM * Math.sin(d.droopDeg * RAD) + 0.05), design),
  reception(design) {
    const { lengthM } = resonantDipole(design.freqHz, design.diameterM);
    const dipole = {
      lengthM,
      diameterM: design.diameterM,
      resistanceScale: droopResistanceFactor(design.dimensions.droopDeg ?? 45),
      rough: true,
    };
    return (freqHz) => wireReception(dipole, freqHz);
  },
});
