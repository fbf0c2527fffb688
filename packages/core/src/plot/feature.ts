/** A point of the plan in metres: x east, y north of the station's own position. */
export type PlanPoint = readonly [x: number, y: number];

export const PLOT_KINDS = [
  'boundary',
  'house',
  'support',
  'keepout',
  'feed',
  'earth',
  'noise',
  'transmitter',
  'antenna',
  'cable',
  'picture',
] as const;
export type PlotKind = (typeof PLOT_KINDS)[number];

/** What stands or lies on the plan. */
export interface PlotFeature {
  readonly id: string;
  readonly kind: PlotKind;
  readonly name: string;
  readonly points: readonly PlanPoint[];
  /** Top of it; of an antenna or cable: height at its first point. */
  readonly heightM: number;
  /** Height at the last point of an antenna or cable. */
  readonly endHeightM: number;
  /** To be kept free around a keep-out. */
  readonly clearanceM: number;
}

/** How each kind is drawn: one point, an open line, or a closed area (first point not repeated). */
export const PLOT_SHAPES: Readonly<Record<PlotKind, 'point' | 'line' | 'area'>> = {
  boundary: 'area',
  house: 'area',
  support: 'point',
  keepout: 'line',
  feed: 'point',
  earth: 'point',
  noise: 'point',
  transmitter: 'point',
  antenna: 'line',
  cable: 'line',
  picture: 'point',
};

export const PLOT_NAMES: Readonly<Record<PlotKind, string>> = {
  boundary: 'Boundary',
  house: 'House',
  support: 'Support',
  keepout: 'Keep-out (power line, path)',
  feed: 'Feed entry',
  earth: 'RF earth',
  noise: 'Noise source',
  transmitter: 'Transmit antenna',
  antenna: 'Antenna',
  cable: 'Cable run',
  picture: 'Picture underneath',
};

/** Fewest points that make one. */
export const leastPoints = (kind: PlotKind): number => ({ point: 1, line: 2, area: 3 })[PLOT_SHAPES[kind]];

export const planDistance = (a: PlanPoint, b: PlanPoint): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Stretches between neighbouring points; an area closes on its first point. */
export function stretchesOf(
  feature: Pick<PlotFeature, 'kind' | 'points'>,
): readonly (readonly [PlanPoint, PlanPoint])[] {
  const { points } = feature;
  const open = points.slice(1).map((point, i) => [points[i], point] as const);
  return PLOT_SHAPES[feature.kind] === 'area' && points.length > 2
    ? [...open, [points[points.length - 1], points[0]] as const]
    : open;
}

/** Bearing from one point to another, degrees clockwise from north. */
export const planBearingDeg = (from: PlanPoint, to: PlanPoint): number =>
  ((Math.atan2(to[0] - from[0], to[1] - from[1]) * 180) / Math.PI + 360) % 360;

/** Distance from a point to a stretch. */
function distanceToStretch(p: PlanPoint, [a, b]: readonly [PlanPoint, PlanPoint]): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const lengthSquared = dx * dx + dy * dy;
  const t =
    lengthSquared === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / lengthSquared));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

const side = (a: PlanPoint, b: PlanPoint, c: PlanPoint): number =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

function cross(s: readonly [PlanPoint, PlanPoint], t: readonly [PlanPoint, PlanPoint]): boolean {
  return side(s[0], s[1], t[0]) * side(s[0], s[1], t[1]) < 0 && side(t[0], t[1], s[0]) * side(t[0], t[1], s[1]) < 0;
}

/** Whether an area holds a point (even-odd rule). */
export function insideArea(points: readonly PlanPoint[], [x, y]: PlanPoint): boolean {
  let inside = false;
  points.forEach(([x1, y1], i) => {
    const [x2, y2] = points[(i + 1) % points.length];
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) inside = !inside;
  });
  return inside;
}

/** Shortest plan distance between two features; 0 where they cross or one lies inside the other's area. */
export function featureDistance(
  a: Pick<PlotFeature, 'kind' | 'points'>,
  b: Pick<PlotFeature, 'kind' | 'points'>,
): number {
  const parts = (feature: Pick<PlotFeature, 'kind' | 'points'>): readonly (readonly [PlanPoint, PlanPoint])[] =>
    feature.points.length === 1 ? [[feature.points[0], feature.points[0]]] : stretchesOf(feature);
  const holds = (area: Pick<PlotFeature, 'kind' | 'points'>, p: PlanPoint): boolean =>
    PLOT_SHAPES[area.kind] === 'area' && insideArea(area.points, p);
  if (holds(a, b.points[0]) || holds(b, a.points[0])) return 0;
  let least = Infinity;
  for (const s of parts(a))
    for (const t of parts(b)) {
      if (cross(s, t)) return 0;
      least = Math.min(
        least,
        distanceToStretch(s[0], t),
        distanceToStretch(s[1], t),
        distanceToStretch(t[0], s),
        distanceToStretch(t[1], s),
      );
    }
  return least;
}

/** A value on a grid, for snapping. */
export const snapped = ([x, y]: PlanPoint, stepM: number): PlanPoint =>
  stepM > 0 ? [Math.round(x / stepM) * stepM, Math.round(y / stepM) * stepM] : [x, y];
