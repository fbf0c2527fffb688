import { conductor, countParameter, fedAt, lengthParameter } from './dimensions';
import { quarterWaveLengths } from './quarter-wave';
import type { Parameter } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Ratio of neighbouring bands: 40, 20 and 10 m. */
const RATIO = 2;
const LOW_M = 0.1;
/** Short piece below the wires in which it is fed, m. */
const FEED_M = 0.1;
/** Each shorter wire leans away from the longest, as a share of its length. */
const LEAN = 0.12;

const WIRES = [1, 2, 3] as const;
const wireParameters = WIRES.map((i): Parameter => ({
  ...lengthParameter(
    `wire${i}M`,
    `Wire ${i}`,
    (design) => quarterWaveLengths(design.freqHz * RATIO ** (i - 1)).elementM,
    i === 1 ? {} : { hint: `for ${RATIO ** (i - 1)} times the frequency` },
  ),
  counts: ({ bands }) => i <= bands,
}));

export const multibandVertical = wireKind({
  id: 'multiband-vertical',
  bandHz: [1.8e6, 60e6],
  burden: { price: 90, hours: 8, sight: 3, mast: true, stakes: true },
  spots: ['garden', 'trees', 'roof'],
  name: 'Multiband vertical',
  summary: 'two or three upright wires on one foot over radials, one for each band',
  parameters: [
    countParameter('bands', 'Wires', 2, 2, 3),
    ...wireParameters,
    countParameter('radials', 'Radials', 4, 2, 8),
    lengthParameter('radialM', 'One radial', (design) => quarterWaveLengths(design.freqHz).radialM),
  ],
  atPlace: ({ radialM }, _, room) => ({ radialM: Math.max(0.5, Math.min(radialM, room.spanM / 2)) }),
  trim: { id: 'wire1M', name: 'the longest wire', share: 1 },
  usefulHz: ({ freqHz }, { bands }) => [0.97 * freqHz, 1.03 * freqHz * RATIO ** (bands - 1)],
  materials: [...USUAL_PARTS, 'a fibreglass pole', 'spreaders for the shorter wires', 'stakes for the radials'],
  goesWrong: [
    'Wires wound tight around the pole: they couple, and the upper bands vanish.',
    'Trimming the shortest first: begin with the longest.',
  ],
  pieces: (d) => [
    ...WIRES.filter((i) => i <= d.bands).map((i) => ({
      ...{ name: `wire ${i}`, count: 1, finishedM: d[`wire${i}M`], modelNeeds: 1.15 },
    })),
    { name: 'radial', count: d.radials, finishedM: d.radialM, keep: true },
  ],
  remarks: () => [
    'Closed form takes every wire alone; they pull at each other, which only the model and the Bench know.',
  ],
  build: {
    cuts: 'all wires and radials',
    raise: 'Set the pole up with guys; run the radials straight out.',
    digs: true,
  },
  needs: ({ wire1M, radialM }) => ({ spanM: 2 * radialM, heightM: wire1M + LOW_M }),
  wires(d, design) {
    const knot = [0, 0, LOW_M + FEED_M] as const;
    return {
      wires: [
        conductor(design, 'foot', [0, 0, LOW_M], knot),
        ...WIRES.filter((i) => i <= d.bands).map((i) => {
          const long = Math.max(0.2, d[`wire${i}M`] - FEED_M);
          const aside = i === 1 ? 0 : (i === 2 ? 1 : -1) * LEAN * d.wire1M;
          const up = Math.sqrt(Math.max(0.01, long ** 2 - Math.min(aside ** 2, long ** 2 / 2)));
          return conductor(...([design, `wire ${i}`, knot] as const), [
            Math.sign(aside) * Math.min(Math.abs(aside), long / Math.SQRT2),
            0,
            knot[2] + up,
          ]);
        }),
        ...Array.from({ length: d.radials }, (_, i) => {
          const turn = (2 * Math.PI * (i + 0.25)) / d.radials;
          return conductor(...([design, `radial ${i + 1}`, [0, 0, LOW_M]] as const), [
            d.radialM * Math.cos(turn),
            d.radialM * Math.sin(turn),
            LOW_M,
          ]);
        }),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
