import { groundPermittivity, type TableRange } from './ground-table';
import type { Mesh } from './mesh';
import type { Ground } from './model';
import type { Fineness, Placed } from './pair';

// named once: hot loops must not look them up on a global
const { abs, hypot, max, min } = Math;

/** The mesh mirrored in z = 0: places and directions; currents get their signs where they are used. */
export function mirrored(mesh: Placed): Placed {
  const flip = (values: Float64Array): Float64Array => values.map((value, i) => (i % 3 === 2 ? -value : value));
  return { start: flip(mesh.start), direction: flip(mesh.direction) };
}

/** Distances and height sums of all images, for the ground table. */
export function imageRange(mesh: Mesh): TableRange {
  const { segments: n, start, direction, lengthM } = mesh;
  let lowest = Infinity;
  let highest = 0;
  const ends: number[][] = [];
  for (let i = 0; i < n; i += 1)
    for (const s of [0, lengthM[i]]) {
      const end = [0, 1, 2].map((axis) => start[3 * i + axis] + s * direction[3 * i + axis]);
      ends.push(end);
      lowest = min(lowest, end[2]);
      highest = max(highest, end[2]);
    }
  const minX = min(...ends.map((e) => e[0]));
  const maxX = max(...ends.map((e) => e[0]));
  const minY = min(...ends.map((e) => e[1]));
  const maxY = max(...ends.map((e) => e[1]));
  const widest = hypot(maxX - minX, maxY - minY);
  const h = 2 * max(lowest, 1e-6);
  return {
    leastM: h,
    mostM: max(hypot(widest, 2 * highest), 1.2 * h),
    leastHeightM: h,
    mostHeightM: max(2 * highest, h),
  };
}

/** x, y, z of the middle of each segment, or of its image. */
export function middlesOf(placed: Placed, lengthM: Float64Array): Float64Array {
  return placed.start.map((value, i) => value + 0.5 * lengthM[Math.floor(i / 3)] * placed.direction[i]);
}

/** Beyond this many segment lengths two points a side are enough. */
const FAR_LENGTHS = 6;
/** Evenly cut wires have pairs that lie just on a limit: rounding must not decide there. */
const JUST = 1 - 1e-9;

/** Squares of the distances between middles below which a pair of segments is near, and middling. */
export interface Limits {
  readonly near: number;
  readonly middle: number;
}

/** Limits for two segments. */
export function limitsOf(lengthP: number, lengthQ: number): Limits {
  const longest = max(lengthP, lengthQ);
  return { near: (JUST * (2 * longest + 0.5 * (lengthP + lengthQ))) ** 2, middle: (JUST * FAR_LENGTHS * longest) ** 2 };
}

/** Limits for the ground's own terms, which are smoother and change with the distance of the image alone. @param upright whether either does not lie level */
export function groundLimitsOf(lengthP: number, lengthQ: number, upright: boolean): Limits {
  const longest = max(lengthP, lengthQ);
  return { near: (JUST * (upright ? 4 : 1.5) * longest) ** 2, middle: (JUST * FAR_LENGTHS * longest) ** 2 };
}

export const isLevel = (directionZ: number): boolean => abs(directionZ) < 1e-9;

/** How finely segment p is integrated with segment q, whose middles may be those of an image. */
export function finenessOf(
  middlesP: Float64Array,
  p: number,
  middlesQ: Float64Array,
  q: number,
  { near, middle }: Limits,
): Fineness {
  const x = middlesP[3 * p] - middlesQ[3 * q];
  const y = middlesP[3 * p + 1] - middlesQ[3 * q + 1];
  const z = middlesP[3 * p + 2] - middlesQ[3 * q + 2];
  const apart = x * x + y * y + z * z;
  if (apart < near) return 'near';
  return apart < middle ? 'middle' : 'far';
}

/** (ε−1)/(ε+1), the strength of the quasi-static image, re and im: 1 on perfect ground. */
export function imageFactor(ground: Ground, freqHz: number): readonly [number, number] {
  if (ground.type !== 'real') return [1, 0];
  const e = groundPermittivity(ground, freqHz);
  const den = (e.re + 1) ** 2 + e.im ** 2;
  return [((e.re - 1) * (e.re + 1) + e.im ** 2) / den, (2 * e.im) / den];
}
