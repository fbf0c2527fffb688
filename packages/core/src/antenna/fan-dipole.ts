import { countParameter, conductor, fedAt, heightParameter, lengthParameter, onSupport } from './dimensions';
import { dipoleLengthM, END_ROPE_M, LEAST_HEIGHT_M } from './half-wave-dipole';
import type { Design, Dimensions, Parameter } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';

/** Both halves of the feed block, so that arms leave from one point each. */
const FEED_M = 0.1;
const MOST_BANDS = 5;
/** First guesses for further bands, as multiples of the first: harmonically related bands need no wire of their own. */
const NEXT_BAND = [1, 2, 3, 4, 6];
/** A wire beside a longer one resonates a little low: first guess 2 % shorter. Common practice, no source. */
const COMPANION = 0.98;

const bandHz = (band: number, design: Design, d: Dimensions): number =>
  band === 0 ? design.freqHz : (d[`band${band + 1}Hz`] ?? NEXT_BAND[band] * design.freqHz);

const bandParameters = Array.from({ length: MOST_BANDS - 1 }, (_, i): Parameter => ({
  id: `band${i + 2}Hz`,
  label: `Band ${i + 2}`,
  dimension: 'frequency',
  bareUnit: 'MHz',
  least: 1e5,
  most: 1e9,
  start: (design) => NEXT_BAND[i + 1] * design.freqHz,
  counts: ({ bands }) => i + 2 <= bands,
}));
const armParameters = Array.from({ length: MOST_BANDS }, (_, i): Parameter => ({
  ...lengthParameter(
    `arm${i + 1}M`,
    `Arm ${i + 1}`,
    (design, d) => (dipoleLengthM({ ...design, freqHz: bandHz(i, design, d) }) / 2) * (i === 0 ? 1 : COMPANION),
    i === 0 ? {} : { hint: `for band ${i + 1}` },
  ),
  counts: ({ bands }) => i + 1 <= bands,
}));

export const fanDipole = wireKind({
  id: 'fan-dipole',
  bandHz: [1e6, 300e6],
  burden: { price: 90, hours: 7, sight: 2, mast: true },
  atPlace: onSupport,
  trimmedWires: ({ freqHz }, d) => {
    const pairs = Array.from({ length: d.bands }, (_, i) => i + 1);
    return {
      ids: pairs.map((i) => `arm${i}M`),
      bandsHz: pairs.map((i) => (i === 1 ? freqHz : d[`band${i}Hz`])),
    };
  },
  name: 'Fan dipole',
  summary: 'two to five pairs of arms on one feed, one pair for each band',
  school: 'Traps or a fan of wires: the traps are tidy and lose a little, the fan is wide and loses nothing.',
  parameters: [
    countParameter('bands', 'Pairs of arms', 2, 2, MOST_BANDS),
    ...bandParameters,
    ...armParameters,
    lengthParameter('dropM', 'Spacing of neighbouring ends', 0.5, { least: 0.05, most: 5 }),
    heightParameter('Height of the feed'),
  ],
  trim: { id: 'arm1M', name: 'each long arm', share: 1 },
  materials: [...USUAL_PARTS, 'spreaders or separate ropes for the shorter arms'],
  goesWrong: [
    'Arms that touch or swing together: the shorter pair vanishes from the sweep.',
    'Trimming one pair moves the others: start with the longest.',
  ],
  pieces: (d) =>
    Array.from({ length: d.bands }, (_, i) => ({ name: `arm ${i + 1}`, count: 2, finishedM: d[`arm${i + 1}M`] })),
  remarks: () => [
    'Closed form takes every pair as a dipole of its own; the wires pull at each other, which only the model and the Bench know.',
  ],
  build: {
    cuts: 'all pairs of arms',
    raise: 'Pull it up; tie the shorter pairs out below and aside, so that no two arms come near.',
  },
  needs: ({ arm1M, bands, dropM }) => ({
    spanM: 2 * arm1M + 2 * END_ROPE_M,
    heightM: LEAST_HEIGHT_M + (bands - 1) * dropM,
  }),
  wires(d, design) {
    const h = d.heightM;
    const arms = Array.from({ length: d.bands }, (_, i) => {
      // longest level, the others fanned down and a little to the sides
      const fall = i * d.dropM;
      const aside = (i % 2 === 0 ? 1 : -1) * Math.ceil(i / 2) * d.dropM * 0.5;
      const reach = Math.sqrt(Math.max(0.01, d[`arm${i + 1}M`] ** 2 - fall ** 2 - aside ** 2));
      return [-1, 1].map((side) =>
        conductor(
          design,
          `arm ${i + 1}${side < 0 ? ' left' : ' right'}`,
          [0, (side * FEED_M) / 2, h],
          [aside, side * (FEED_M / 2 + reach), h - fall],
        ),
      );
    });
    return {
      wires: [conductor(design, 'feed', [0, -FEED_M / 2, h], [0, FEED_M / 2, h]), ...arms.flat()],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
