import type { Saved } from '@velvet-reed/contract';
import { type PlanPoint, PLOT_SHAPES } from '@velvet-reed/core/plot';

type Feature = Saved<'plotFeatures'>;

/** What a click on the plan does. */
export type Tool = 'select' | 'draw' | 'measure';

/** Nudge and snap step, m. */
export const GRID_M = 0.5;
/** Height of the drawing where the screen has it; on a low screen it leaves room to scroll past. */
export const HEIGHT_PX = 460;

/** What of the plan is shown: its middle and its scale. */
export interface View {
  readonly centre: PlanPoint;
  readonly pxPerM: number;
}

export const FACE = 'Atkinson Hyperlegible Next Variable, sans-serif';
export const LABEL_PX = 14;
/** Average width of a letter of that size, px. */
const LETTER_PX = 7;

/** Where names stand: beside what they name, and not on one another as far as that can be had. */
export function placedLabels(
  features: readonly Feature[],
  selected: number | undefined,
  toPx: (point: PlanPoint) => readonly [number, number],
): ReadonlyMap<number, { readonly x: number; readonly y: number }> {
  const taken: { x: number; y: number; w: number }[] = [];
  const free = (x: number, y: number, w: number): boolean =>
    taken.every((one) => x + w < one.x || x > one.x + one.w || Math.abs(y - one.y) > LABEL_PX);
  return new Map(
    features.flatMap((feature) => {
      const px = feature.points.map((point) => toPx(point));
      const w = feature.name.length * LETTER_PX;
      const west = Math.min(...px.map(([x]) => x));
      const east = Math.max(...px.map(([x]) => x));
      const north = Math.min(...px.map(([, y]) => y));
      const south = Math.max(...px.map(([, y]) => y));
      const places: readonly (readonly [number, number])[] =
        PLOT_SHAPES[feature.kind] === 'area'
          ? [
              [west + 5, north + 4],
              [west + 5, south - 18],
              [west, north - 18],
            ]
          : PLOT_SHAPES[feature.kind] === 'line'
            ? [
                [(west + east) / 2 - w / 2, (north + south) / 2 - 24],
                [(west + east) / 2 - w / 2, (north + south) / 2 + 10],
                [east + 10, south - 7],
                [west, north - 22],
              ]
            : [
                [east + 10, (north + south) / 2 - 7],
                [west - w - 10, (north + south) / 2 - 7],
                [(west + east) / 2 - w / 2, north - 22],
                [(west + east) / 2 - w / 2, south + 10],
                [east + 10, south + 10],
                [east + 10, north - 22],
              ];
      const found = places.find(([left, top]) => free(left, top, w));
      // a name without room is left to the list below the plan
      if (!found && feature.id !== selected) return [];
      const [x, y] = found ?? places[0];
      taken.push({ x, y, w });
      return [[feature.id, { x, y }] as const];
    }),
  );
}

/** Shows everything with a margin. */
export function fitted(features: readonly Feature[], widthPx: number, heightPx = HEIGHT_PX): View {
  const points = features.filter((one) => one.kind !== 'picture').flatMap((one) => one.points);
  if (points.length === 0) return { centre: [0, 0], pxPerM: widthPx / 60 };
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const pxPerM = Math.min((widthPx - 90) / Math.max(8, east - west), (heightPx - 90) / Math.max(8, north - south));
  return { centre: [(west + east) / 2, (south + north) / 2], pxPerM };
}

/** Scale bar length: 1, 2 or 5 times a power of ten, about a quarter of the width. */
export function barLength(mostM: number): number {
  const power = 10 ** Math.floor(Math.log10(mostM));
  return [5, 2, 1].map((one) => one * power).find((one) => one <= mostM) ?? power;
}
