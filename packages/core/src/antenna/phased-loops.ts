import { powerDb } from '../units/decibel';
import { RAD } from '../units/constants';
import { wavelengthM } from '../units/wavelength';
import { amplifiedLoop } from './amplified-loop';
import { dimensionsOf, lengthParameter } from './dimensions';
import type { AntennaKind, Design, Parameter } from './kind';

/** The delay is that of the way between the loops: the null lies straight behind. Two equal loops in one line, the signals of the rear one taken off. */
const PARAMETERS: readonly Parameter[] = [
  ...amplifiedLoop.parameters,
  lengthParameter('spacingM', 'Distance of the loops', 15, { least: 0.5, most: 200 }),
];

/** Power of the pair over one loop toward a direction, ratio: |1 − e^{−jks(1 + cos φ cos θ)}|². Source: array factor of an end-fire pair, Balanis ch. 6. */
const pairPower = (spacingM: number, freqHz: number, azimuthDeg: number, elevationDeg: number): number => {
  const k = (2 * Math.PI) / wavelengthM(freqHz);
  const phase = k * spacingM * (1 + Math.cos(azimuthDeg * RAD) * Math.cos(elevationDeg * RAD));
  return 4 * Math.sin(phase / 2) ** 2;
};

/** The same over the sky as an upright loop sees it, average ratio. */
function averagePower(spacingM: number, freqHz: number): number {
  let [sum, weight] = [0, 0];
  for (let elevation = 2.5; elevation < 90; elevation += 5)
    for (let azimuth = 0; azimuth < 360; azimuth += 10) {
      // a loop upright along x over ground: cos²φ toward the horizon, even overhead; the sky by its solid angle
      const [c, s] = [Math.cos(elevation * RAD), Math.sin(elevation * RAD)];
      const share = (Math.cos(azimuth * RAD) ** 2 + (Math.sin(azimuth * RAD) * s) ** 2) * c;
      sum += share * pairPower(spacingM, freqHz, azimuth, elevation);
      weight += share;
    }
  return Math.max(1e-9, sum / weight);
}

const spacingOf = (design: Design): number => dimensionsOf(PARAMETERS, design).spacingM;

export const phasedLoops: AntennaKind = {
  ...amplifiedLoop,
  id: 'phased-loops',
  bandHz: [150e3, 15e6],
  burden: { price: 380, hours: 12, sight: 2 },
  spots: ['garden', 'trees'],
  turns: false,
  hearsAlong: true,
  school: undefined,
  name: 'Two phased loops',
  summary:
    'two small loops in line with a delay between them: one direction, a null behind, on a third of the ground of a long wire',
  parameters: PARAMETERS,
  materials: [
    'two loop amplifiers alike, with their supply',
    'two cables of the same length, one longer by the way between the loops',
    'combiner that takes one from the other',
    'two short non-metal posts',
  ],
  goesWrong: [
    'Amplifiers or cables unlike by a dB or a few degrees: the null behind is gone.',
    'Too close for the band: the two nearly cancel, and their own noise is what is left.',
  ],
  atPlace: (d, design, room) => ({
    ...amplifiedLoop.atPlace?.(d, design, room),
    spacingM: Math.max(1, Math.min(d.spacingM, room.spanM - 1.5)),
  }),
  fit(design, room) {
    const one = amplifiedLoop.fit(design, room);
    const needsSpanM = one.needsSpanM + spacingOf(design);
    return needsSpanM <= room.spanM
      ? { ...one, needsSpanM }
      : {
          ...{ ...one, needsSpanM, fits: false },
          reason: `it needs ${needsSpanM.toFixed(1)} m in line, and the place offers ${room.spanM.toFixed(1)} m`,
        };
  },
  arrayFactor(design, freqHz) {
    const average = averagePower(spacingOf(design), freqHz);
    return (azimuthDeg, elevationDeg) => pairPower(spacingOf(design), freqHz, azimuthDeg, elevationDeg) / average;
  },
  reception: (design) => (freqHz) => {
    const one = amplifiedLoop.reception?.(design)(freqHz);
    if (!one) throw new Error('a loop has a closed form');
    const average = averagePower(spacingOf(design), freqHz);
    return {
      ...one,
      realisedGainDbi: one.realisedGainDbi + powerDb(average),
      transfer: one.transfer * average,
      // two amplifiers add their noise; what the pair hands on is what the two differ by
      ...(one.ownFaDb === undefined ? {} : { ownFaDb: one.ownFaDb + powerDb(2 / average) }),
    };
  },
};
