import {
  degreesToRadians,
  ecfToLookAngles,
  eciToEcf,
  gstime,
  propagate,
  twoline2satrec,
  type SatRec,
} from 'satellite.js';
import { CoreError, requireRange } from '../errors';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import type { Position } from './place';

/** Two lines that should be orbital elements are not; the sentence says which line and why. */
export class ElementsError extends CoreError {
  readonly code = 'ORBITAL_ELEMENTS';
}

/** Mean elements of an orbit in the two-line form that services publish. */
export interface OrbitalElements {
  readonly name: string;
  readonly line1: string;
  readonly line2: string;
}

/** Sum of the digits, a minus counting 1, modulo 10; the last column holds it. */
function checksum(line: string): number {
  let sum = 0;
  for (const sign of line.slice(0, 68)) sum += /\d/.test(sign) ? Number(sign) : sign === '-' ? 1 : 0;
  return sum % 10;
}

/**
 * Reads what a person pastes: two lines, or three with the name first.
 * @throws ElementsError for a wrong number of lines, a wrong length, a checksum that does not fit, or two different satellites.
 */
export function readElements(text: string): OrbitalElements {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const at = lines.findIndex((line) => /^1 /.test(line));
  if (at < 0 || at > 1 || lines.length !== at + 2 || !/^2 /.test(lines[at + 1]))
    throw new ElementsError(
      'Paste the two lines of the elements, the first beginning with 1 and the second with 2; a line with the name may stand before them.',
    );
  const [line1, line2] = [lines[at], lines[at + 1]];
  [line1, line2].forEach((line, i) => {
    if (line.length !== 69)
      throw new ElementsError(
        `Line ${i + 1} has ${line.length} characters; it must have 69. Copy it again, with all blanks inside.`,
      );
    if (checksum(line) !== Number(line[68]))
      throw new ElementsError(
        `The checksum of line ${i + 1} is ${line[68]}, its digits give ${checksum(line)}. A character was lost or changed: copy it again.`,
      );
  });
  if (line1.slice(2, 7) !== line2.slice(2, 7))
    throw new ElementsError('The two lines belong to different satellites. Copy both lines of one.');
  return { name: at === 1 ? lines[0].replace(/^0 /, '') : `Satellite ${line1.slice(2, 7).trim()}`, line1, line2 };
}

/** Age beyond which a low orbit's elements are doubtful: errors grow to a few kilometres a day. Common practice, no source. */
export const ELEMENTS_OLD_DAYS = 14;
const DAY_MS = 86_400_000;

/** When the elements were valid, ms. */
export function elementsEpochMs(elements: OrbitalElements): number {
  const two = Number(elements.line1.slice(18, 20));
  const day = Number(elements.line1.slice(20, 32));
  return Date.UTC(two < 57 ? 2000 + two : 1900 + two, 0, 1) + (day - 1) * DAY_MS;
}

/** Position and speed in the elements' own frame (TEME), km and km/s. @throws ElementsError for an orbit that has decayed. */
export function satelliteAt(elements: OrbitalElements, atMs: number) {
  const state = propagate(recordOf(elements), new Date(atMs));
  if (!state)
    throw new ElementsError(`These elements give no orbit at that time: they are too old or wrong. Paste new ones.`);
  return { positionKm: state.position, velocityKmPerS: state.velocity };
}

const recordOf = ({ line1, line2 }: OrbitalElements): SatRec => twoline2satrec(line1, line2);

/** One stretch above the horizon. */
export interface Pass {
  /** Under way already when the stretch that was asked for begins, or still when it ends: rise or set is then that moment. */
  readonly cutAtBegin?: boolean;
  readonly cutAtEnd?: boolean;
  readonly riseMs: number;
  readonly setMs: number;
  readonly highestMs: number;
  readonly highestDeg: number;
  readonly riseAzimuthDeg: number;
  readonly setAzimuthDeg: number;
  /** Received over transmitted frequency, less 1, at rise: times the frequency it is the Doppler shift. */
  readonly riseDopplerRatio: number;
}

const STEP_MS = 20_000;
/** Rise and set are found to within this. */
const FINE_MS = 200;

/** Direction and distance of a satellite from a place. */
function lookAt(record: SatRec, site: Position, atMs: number) {
  const when = new Date(atMs);
  const state = propagate(record, when);
  if (!state) return undefined;
  const observer = {
    latitude: degreesToRadians(site.latDeg),
    longitude: degreesToRadians(site.lonDeg),
    height: 0,
  };
  const look = ecfToLookAngles(observer, eciToEcf(state.position, gstime(when)));
  return {
    elevationDeg: (look.elevation * 180) / Math.PI,
    azimuthDeg: ((((look.azimuth * 180) / Math.PI) % 360) + 360) % 360,
    rangeKm: look.rangeSat,
  };
}

/** Direction and distance of a satellite from a place; undefined where its elements give no position. */
export const lookFrom = (elements: OrbitalElements, site: Position, atMs: number) =>
  lookAt(recordOf(elements), site, atMs);

/**
 * Passes of a satellite above an elevation within a stretch of time, in order; one under way at the beginning starts there. By SGP4 (the
 * satellite.js package; Vallado et al., Revisiting Spacetrack Report #3, 2006), spherical refraction and the real horizon not counted.
 * @throws ElementsError for an orbit that gives no position.
 */
export function satellitePasses(
  elements: OrbitalElements,
  site: Position,
  { fromMs, toMs, leastDeg }: { readonly fromMs: number; readonly toMs: number; readonly leastDeg: number },
): readonly Pass[] {
  requireRange(leastDeg, 'Least elevation (degrees)', 0, 80);
  requireRange(toMs - fromMs, 'Stretch of time (ms)', 0, 15 * DAY_MS);
  const record = recordOf(elements);
  const up = (ms: number): number => (lookAt(record, site, ms)?.elevationDeg ?? -90) - leastDeg;
  if (!lookAt(record, site, fromMs)) satelliteAt(elements, fromMs); // says why there is none
  const edge = (below: number, above: number): number => {
    let [low, high] = [below, above];
    while (Math.abs(high - low) > FINE_MS) {
      const middle = (low + high) / 2;
      if (up(middle) > 0) high = middle;
      else low = middle;
    }
    return high;
  };
  const passes: Pass[] = [];
  let riseMs = up(fromMs) > 0 ? fromMs : undefined;
  for (let ms = fromMs; ms < toMs; ms += STEP_MS) {
    const next = Math.min(toMs, ms + STEP_MS);
    if (riseMs === undefined && up(next) > 0) riseMs = edge(ms, next);
    else if (riseMs !== undefined && up(next) <= 0) {
      passes.push(passBetween(record, site, riseMs, edge(next, ms)));
      riseMs = undefined;
    }
  }
  // one that is still up at the end of the stretch is a pass too, cut there
  if (riseMs !== undefined) passes.push({ ...passBetween(record, site, riseMs, toMs), cutAtEnd: true });
  const [first] = passes;
  return first && first.riseMs === fromMs && up(fromMs) > 0
    ? [{ ...first, cutAtBegin: true }, ...passes.slice(1)]
    : passes;
}

function passBetween(record: SatRec, site: Position, riseMs: number, setMs: number): Pass {
  // an eccentric orbit can climb twice in one pass: the highest of many looks first, golden section around it
  const ratio = (Math.sqrt(5) - 1) / 2;
  const height = (ms: number): number => lookAt(record, site, ms)?.elevationDeg ?? -90;
  const looks = Math.min(2000, Math.max(24, Math.ceil((setMs - riseMs) / STEP_MS)));
  const lookMs = (setMs - riseMs) / looks;
  let best = 0;
  for (let i = 1; i <= looks; i += 1) if (height(riseMs + i * lookMs) > height(riseMs + best * lookMs)) best = i;
  let [a, b] = [Math.max(riseMs, riseMs + (best - 1) * lookMs), Math.min(setMs, riseMs + (best + 1) * lookMs)];
  while (b - a > FINE_MS) {
    const [c, d] = [b - ratio * (b - a), a + ratio * (b - a)];
    if (height(c) > height(d)) b = d;
    else a = c;
  }
  const highestMs = (a + b) / 2;
  const [rise, after, set] = [riseMs, riseMs + 1000, setMs].map((ms) => lookAt(record, site, ms));
  const approachKmPerS = rise && after ? rise.rangeKm - after.rangeKm : 0;
  return {
    riseMs,
    setMs,
    highestMs,
    highestDeg: height(highestMs),
    riseAzimuthDeg: rise?.azimuthDeg ?? 0,
    setAzimuthDeg: set?.azimuthDeg ?? 0,
    riseDopplerRatio: (approachKmPerS * 1000) / SPEED_OF_LIGHT_M_PER_S,
  };
}
