import { wavelengthM } from '../units/wavelength';
import { conductor, countParameter, fedAt, lengthParameter } from './dimensions';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Electrical length in all: a little over a quarter wave, as is usual. Common practice, no source. */
const SHARE = 0.26;
/** Radials lie this high, m. */
const RADIAL_M = 0.05;

export const invertedL = wireKind({
  id: 'inverted-l',
  bandHz: [150e3, 15e6],
  burden: { price: 70, hours: 6, sight: 2, mast: true, stakes: true },
  spots: ['garden', 'trees'],
  atPlace: (d, { freqHz }, room) => {
    const riseM = Math.max(1, Math.min(room.heightM, SHARE * wavelengthM(freqHz)));
    return {
      riseM,
      levelM: Math.max(0.5, Math.min(SHARE * wavelengthM(freqHz) - riseM, room.spanM)),
      radialM: Math.max(1, Math.min(d.radialM, room.spanM / 2)),
    };
  },
  name: 'Inverted L',
  summary: 'a quarter wave, up as far as the support goes and then level: low bands, low angles',
  parameters: [
    lengthParameter('riseM', 'Upright part', (design) => Math.min(9, SHARE * wavelengthM(design.freqHz))),
    lengthParameter('levelM', 'Level part', (design, { riseM }) =>
      Math.max(0.5, SHARE * wavelengthM(design.freqHz) - riseM),
    ),
    countParameter('radials', 'Radials', 4, 2, 8),
    lengthParameter('radialM', 'One radial', (design) => Math.min(20, wavelengthM(design.freqHz) / 4), { least: 0.5 }),
  ],
  trim: { id: 'levelM', name: 'the level part', share: 1 },
  materials: [...USUAL_PARTS, 'rope and pulley at the top', 'staples for the radials'],
  goesWrong: [
    'Few short radials: half of what arrives warms the soil.',
    'The upright part along a house wall or a metal mast: it hears the house.',
  ],
  pieces: ({ riseM, levelM, radials, radialM }) => [
    { name: 'wire', count: 1, finishedM: riseM + levelM, modelNeeds: 1.1 },
    { name: 'radial', count: radials, finishedM: radialM, keep: true },
  ],
  remarks: () => ['Radials act as a counterpoise just above lossy ground: their loss is in the model.'],
  build: {
    cuts: 'the wire and all radials',
    raise: 'Pull the corner up; tie the far end off level; run the radials out along the ground.',
    digs: true,
  },
  needs: ({ riseM, levelM, radialM }) => ({ spanM: Math.max(levelM, 2 * radialM), heightM: riseM }),
  wires({ riseM, levelM, radials, radialM }, design) {
    const top = RADIAL_M + riseM;
    return {
      wires: [
        conductor(design, 'upright part', [0, 0, RADIAL_M], [0, 0, top]),
        conductor(design, 'level part', [0, 0, top], [levelM, 0, top]),
        ...Array.from({ length: radials }, (_, i) => {
          const turn = (2 * Math.PI * (i + 0.5)) / radials;
          return conductor(...([design, `radial ${i + 1}`, [0, 0, RADIAL_M]] as const), [
            radialM * Math.cos(turn),
            radialM * Math.sin(turn),
            RADIAL_M,
          ]);
        }),
      ],
      ports: fedAt(0, 0),
      loads: [],
    };
  },
});
