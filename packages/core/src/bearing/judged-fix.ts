import { CoreError, OutOfRangeError, ShapeError } from '../errors';
import { RAD } from '../units/constants';
import { type BearingFix, bearingFix, type BearingLine } from './fix';

/** A fix with what was wrong with one of its bearings. */
export interface JudgedFix {
  readonly fix: BearingFix;
  /** The bearing that does not fit, and what makes it fit: the other end of it, or leaving it out. */
  readonly culprit?: { readonly index: number; readonly how: 'back to front' | 'left out' };
  /** Measured less what the fix says, degrees, of the bearings that count; null for one that was left out. */
  readonly residualsDeg: readonly (number | null)[];
  /** The bearings agree within their errors. */
  readonly consistent: boolean;
  /** The bearings that count, as they count. */
  readonly lines: readonly BearingLine[];
  /** Axes that fit as well when they are taken for the plane instead of the null, or the other way round: which they are must be asked. */
  readonly doubtfulAxes: readonly number[];
}

/** 99 % points of chi square by degrees of freedom, from 1. Source: tables of the distribution (Pearson). */
const CHI_99 = [6.63, 9.21, 11.34, 13.28, 15.09, 16.81, 18.48, 20.09, 21.67, 23.21] as const;
const limitOf = (lines: number): number =>
  CHI_99[Math.min(CHI_99.length, Math.max(1, lines - 2)) - 1] *
  (lines - 2 > CHI_99.length ? (lines - 2) / CHI_99.length : 1);

const reversed = (line: BearingLine): BearingLine => ({ ...line, bearingDeg: (line.bearingDeg + 180) % 360 });

function tryFix(lines: readonly BearingLine[], axial: boolean): BearingFix | undefined {
  try {
    const fix = bearingFix(lines, axial);
    // bearings seen in one line leave no ellipse
    return Number.isFinite(fix.semiMajorKm + fix.semiMinorKm + fix.chiSquare) ? fix : undefined;
  } catch (error) {
    if (error instanceof CoreError) return undefined;
    throw error;
  }
}

const offDeg = ({ eastKm, northKm, bearingDeg }: BearingLine, fix: BearingFix, axial: boolean): number => {
  const period = axial ? 180 : 360;
  const off = bearingDeg - Math.atan2(fix.eastKm - eastKm, fix.northKm - northKm) / RAD;
  return ((((off + period / 2) % period) + period) % period) - period / 2;
};

/** Axes of a fix that fit as well a quarter turn on: a plane that was logged as a null, or the other way round, is not told by the directions. */
const quarterTurned = (used: readonly (BearingLine | null)[]): readonly number[] =>
  used.flatMap((line, index) => {
    if (!line) return [];
    const turned = used.flatMap((one, i) =>
      !one ? [] : i === index ? [{ ...one, bearingDeg: (one.bearingDeg + 90) % 360 }] : [one],
    );
    const fix = tryFix(turned, true);
    return fix && fix.chiSquare <= limitOf(turned.length) ? [index] : [];
  });

/**
 * A fix that tolerates one bad bearing: where all together do not agree within their errors, each is tried back to front, and with four or more left out; the
 * one change that makes the rest agree is named. An axis without a sense has both ends already.
 * @throws ShapeError with fewer than two bearings; OutOfRangeError where nothing makes them meet.
 */
export function judgedFix(lines: readonly BearingLine[], axial = false): JudgedFix {
  const told = (fix: BearingFix, used: readonly (BearingLine | null)[], culprit?: JudgedFix['culprit']): JudgedFix => ({
    fix,
    ...(culprit ? { culprit } : {}),
    residualsDeg: used.map((line) => (line ? offDeg(line, fix, axial) : null)),
    consistent: fix.chiSquare <= limitOf(used.filter(Boolean).length) || used.length === 2,
    lines: used.flatMap((line) => line ?? []),
    doubtfulAxes: axial && used.length > 2 ? quarterTurned(used) : [],
  });
  const base = tryFix(lines, axial);
  if (lines.length === 2) return base ? told(base, lines) : told(bearingFix(lines, axial), lines);
  if (lines.length < 2) throw new ShapeError('A fix needs bearings from two places. Take another bearing.');
  if (base && base.chiSquare <= limitOf(lines.length)) return told(base, lines);
  const changed = lines.flatMap((_, index): JudgedFix[] => {
    const turned = lines.map((line, i) => (i === index ? reversed(line) : line));
    const fixed = axial ? undefined : tryFix(turned, false);
    const without = lines.filter((__, i) => i !== index);
    const left = lines.length >= 4 ? tryFix(without, axial) : undefined;
    return [
      ...(fixed ? [told(fixed, turned, { index, how: 'back to front' })] : []),
      ...(left
        ? [
            told(
              left,
              lines.map((line, i) => (i === index ? null : line)),
              { index, how: 'left out' },
            ),
          ]
        : []),
    ];
  });
  const best = changed
    .filter(({ consistent }) => consistent)
    .sort(
      (a, b) =>
        // turning one round keeps it; leaving one out is the last resort
        Number(a.culprit?.how === 'left out') - Number(b.culprit?.how === 'left out') ||
        a.fix.chiSquare - b.fix.chiSquare,
    )
    .at(0);
  if (best) return best;
  if (base) return told(base, lines);
  const [exchanged] = axial ? quarterTurned(lines) : [];
  if (exchanged !== undefined)
    throw new OutOfRangeError(
      `These axes do not meet. Number ${exchanged + 1} would fit if its directions are of the plane of the loop and not of its null: look which was written down, and correct it.`,
    );
  throw new OutOfRangeError(
    'These bearings do not meet, and no single one turned round makes them. Check the places, and take the one again that you trust least.',
  );
}

/** Where the next bearing would help most. */
export interface NextPlace {
  readonly eastKm: number;
  readonly northKm: number;
  /** Long half axis of the ellipse (1 sigma) with that bearing, km. */
  readonly semiMajorKm: number;
}

/**
 * Of places that can be walked to, the one from which another bearing shrinks the ellipse most.
 * @param leastKm places nearer to the source than this are left out: a bearing there says little of what it is.
 */
export function nextPlace(
  lines: readonly BearingLine[],
  fix: BearingFix,
  places: readonly { readonly eastKm: number; readonly northKm: number }[],
  leastKm: number,
): NextPlace | undefined {
  const sigmaDeg = Math.max(...lines.map((line) => line.sigmaDeg));
  const information = (
    line: Pick<BearingLine, 'eastKm' | 'northKm' | 'sigmaDeg'>,
  ): readonly [number, number, number] => {
    const [de, dn] = [fix.eastKm - line.eastKm, fix.northKm - line.northKm];
    const square = Math.max(1e-12, de * de + dn * dn);
    const [east, north] = [dn / square / RAD / line.sigmaDeg, -de / square / RAD / line.sigmaDeg];
    return [east * east, east * north, north * north];
  };
  const known = lines.map(information).reduce(([a, b, c], [d, e, f]) => [a + d, b + e, c + f], [0, 0, 0]);
  return places
    .filter(({ eastKm, northKm }) => Math.hypot(eastKm - fix.eastKm, northKm - fix.northKm) >= leastKm)
    .map((place): NextPlace => {
      const [ee, en, nn] = information({ ...place, sigmaDeg });
      const [a, b, c] = [known[0] + ee, known[1] + en, known[2] + nn];
      const det = Math.max(1e-300, a * c - b * b);
      const [vee, ven, vnn] = [c / det, -b / det, a / det];
      return { ...place, semiMajorKm: Math.sqrt((vee + vnn) / 2 + Math.hypot((vee - vnn) / 2, ven)) };
    })
    .sort((one, other) => one.semiMajorKm - other.semiMajorKm)
    .at(0);
}
