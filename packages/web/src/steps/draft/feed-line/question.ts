import type { Saved } from '@velvet-reed/contract';
import { type Design, type FeedLineQuestion, feedPoint, hangAndRun, placedWires } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { groundClass, type Point } from '@velvet-reed/core/solver';
import { placedAntenna } from '@velvet-reed/station/guard/drawing';
import type { StationData } from '@velvet-reed/station/record';

/** How the cable goes and what hangs on it, as it was typed. */
export interface FeedLineAsked {
  /** A cable of the plan by its number; null: it hangs and runs on. */
  readonly cableId: number | null;
  readonly heightM: number;
  readonly runM: number;
  readonly towardDeg: number;
  readonly diameterM: number;
  readonly earthed: boolean;
  readonly chokes: FeedLineQuestion['line']['chokes'];
  /** A source of noise of the plan by its number; null: one beside the cable's end. */
  readonly sourceId: number | null;
  readonly elevationDeg: number;
}

/** Height of what makes noise nearby, and how far beside the cable's end it is taken to be, m. */
const SOURCE_HEIGHT_M = 1;
const BESIDE_M = 2;
/** What runs on the ground lies on it, m. */
const ON_GROUND_M = 0.03;
/** The plan's cable begins at the feed when it begins within this, m. */
const AT_FEED_M = 2;

const above = ([x, y, z]: Point): Point => [x, y, Math.max(ON_GROUND_M, z)];

/** Corners of a cable of the plan: its height falls evenly from its beginning to its end. */
function alongPlan(feature: Saved<'plotFeatures'>, feed: Point): readonly Point[] {
  const { points, heightM, endHeightM } = feature;
  const way = points.map((point, i) =>
    i === 0 ? 0 : Math.hypot(point[0] - points[i - 1][0], point[1] - points[i - 1][1]),
  );
  const total = way.reduce((sum, one) => sum + one, 0) || 1;
  let gone = 0;
  const corners = points.map(([x, y], i): Point => {
    gone += way[i];
    return above([x, y, heightM + ((endHeightM - heightM) * gone) / total]);
  });
  const [first] = corners;
  return Math.hypot(first[0] - feed[0], first[1] - feed[1]) <= AT_FEED_M ? corners.slice(1) : corners;
}

/** The study's question; undefined for a kind without wires of its own. @throws CoreError with a sentence. */
export function feedLineQuestion(
  data: StationData,
  { antennaId, design, groundId }: { readonly antennaId: number; readonly design: Design; readonly groundId: string },
  asked: FeedLineAsked,
): FeedLineQuestion | undefined {
  const laid = placedAntenna(data, antennaId);
  const wires = placedWires({ ...(laid ?? { name: '', at: [0, 0] as const, facingDeg: 0 }), design });
  if (!wires) return undefined;
  const model = { ...wires, ground: groundClass(groundId).ground };
  const feed = feedPoint(model);
  const cable = data.plotFeatures.find(({ id }) => id === asked.cableId);
  const corners = cable
    ? alongPlan(cable, feed)
    : hangAndRun(feed, {
        ...{ heightM: Math.max(ON_GROUND_M, asked.heightM), lengthM: asked.runM, towardDeg: asked.towardDeg },
      });
  const end = corners.at(-1) ?? feed;
  const source = data.plotFeatures.find(({ id, kind }) => id === asked.sourceId && kind === 'noise')?.points[0];
  return {
    ...{ model, freqHz: design.freqHz, elevationDeg: asked.elevationDeg },
    line: { corners, diameterM: asked.diameterM, chokes: asked.chokes, earthed: asked.earthed },
    source: source ? [source[0], source[1], SOURCE_HEIGHT_M] : [end[0] + BESIDE_M, end[1], SOURCE_HEIGHT_M],
  };
}

/** The same, with the sentence of what cannot be. */
export function tryFeedLine(...args: Parameters<typeof feedLineQuestion>): {
  readonly question?: FeedLineQuestion | undefined;
  readonly fault?: string;
} {
  try {
    return { question: feedLineQuestion(...args) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}
