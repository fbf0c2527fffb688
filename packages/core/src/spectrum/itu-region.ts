import type { Position } from '../site/place';
import { RAD } from '../units/constants';

export type ItuRegion = 1 | 2 | 3;

/** A corner of a dividing line, degrees. */
type Corner = readonly [latDeg: number, lonDeg: number];

/** Dividing lines of the Radio Regulations, Article 5 (Nos. 5.7 to 5.9), north to south; great circles between the corners. */
const LINE_A: readonly Corner[] = [
  [90, 40],
  [40, 40],
  [23.4394, 60],
  [-90, 60],
];
const LINE_B: readonly Corner[] = [
  [90, -10],
  [72, -10],
  [40, -50],
  [-10, -20],
  [-90, -20],
];
const LINE_C: readonly Corner[] = [
  [90, -170],
  [65.5, -168.98],
  [50, 165],
  [10, -170],
  [9.999, -120],
  [-90, -120],
];

/**
 * No. 5.3 and 5.5 assign whole territories north of line A's continuation to Region 1 (Russia, Mongolia and the states of
 * Central Asia) and Iran to Region 3. Borders are drawn here as coarse corners; near them the listener should check.
 */
const REGION_1_ASIA: readonly Corner[] = [
  [90, 40],
  [41.5, 40],
  [38.8, 44.8],
  [38.4, 48.8],
  [37.3, 54],
  [35.2, 61.2],
  [37.2, 67.5],
  [37, 74.8],
  [40, 74.5],
  [42, 80.2],
  [45, 82.4],
  [49, 87],
  [47, 91],
  [42.6, 96.5],
  [41.6, 105],
  [45, 112],
  [46.7, 119.8],
  [49.6, 117.8],
  [53.5, 121],
  [49.5, 128.5],
  [47.7, 131],
  [45, 131.5],
  [42.4, 130.6],
  [43.5, 140],
  [45.6, 142],
  [43.4, 145.6],
  [43.4, 147],
  [50, 165],
  [65.5, 190.99],
  [90, 190.99],
];
const IRAN: readonly Corner[] = [
  [39.7, 44.5],
  [38.8, 46.5],
  [38.4, 48.8],
  [37.3, 54],
  [37.5, 59],
  [35.2, 61.2],
  [31, 61.7],
  [27, 62.8],
  [25.1, 61.5],
  [26.4, 56.6],
  [27, 51],
  [30, 48.6],
  [33, 46],
  [37, 44.6],
];

const wrap = (lonDeg: number): number => ((((lonDeg + 180) % 360) + 360) % 360) - 180;

/** Longitude at which the great circle between two corners crosses a latitude (meridians and parallels included). */
function crossing([lat1, lon1]: Corner, [lat2, lon2]: Corner, latDeg: number): number {
  const turn = wrap(lon2 - lon1);
  if (Math.abs(turn) < 1e-9 || Math.abs(lat1) === 90) return lon2;
  if (Math.abs(lat2) === 90) return lon1;
  let low = 0;
  let high = 1;
  for (let i = 0; i < 50; i += 1) {
    const t = (low + high) / 2;
    const λ = turn * t * RAD;
    const whole = turn * RAD;
    const tan = (Math.tan(lat1 * RAD) * Math.sin(whole - λ) + Math.tan(lat2 * RAD) * Math.sin(λ)) / Math.sin(whole);
    if (Math.atan(tan) / RAD > latDeg) low = t;
    else high = t;
  }
  return wrap(lon1 + turn * low);
}

function lineLonDeg(line: readonly Corner[], latDeg: number): number {
  for (let i = 1; i < line.length; i += 1) if (latDeg >= line[i][0]) return crossing(line[i - 1], line[i], latDeg);
  return line[line.length - 1][1];
}

function inside(corners: readonly Corner[], { latDeg, lonDeg }: Position): boolean {
  const lon = lonDeg < -168.98 ? lonDeg + 360 : lonDeg; // polygons run east across the date line
  let within = false;
  corners.forEach(([latA, lonA], i) => {
    const [latB, lonB] = corners[(i + 1) % corners.length];
    if (latA > latDeg !== latB > latDeg && lon < ((lonB - lonA) * (latDeg - latA)) / (latB - latA) + lonA)
      within = !within;
  });
  return within;
}

/**
 * ITU Region of a position. Exact on the dividing lines of RR Article 5; territories that the article names are coarse polygons.
 */
export function ituRegionOf(position: Position): ItuRegion {
  const { latDeg, lonDeg } = position;
  if (inside(IRAN, position)) return 3;
  if (inside(REGION_1_ASIA, position)) return 1;
  const eastOf = (line: readonly Corner[]): number => wrap(lonDeg - lineLonDeg(line, latDeg));
  const b = lineLonDeg(LINE_B, latDeg);
  const a = lineLonDeg(LINE_A, latDeg);
  if (eastOf(LINE_B) >= 0 && (lonDeg - b + 360) % 360 < (a - b + 360) % 360) return 1;
  const c = lineLonDeg(LINE_C, latDeg);
  return (lonDeg - c + 360) % 360 < (b - c + 360) % 360 ? 2 : 3;
}
