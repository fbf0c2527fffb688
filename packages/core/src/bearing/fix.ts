import { NotConvergedError, OutOfRangeError, requirePositive, requireRange, ShapeError } from '../errors';
import { powerDb, powerRatio } from '../units/decibel';
import { RAD } from '../units/constants';

/** Response of a figure-8 antenna beside its null, with what fills it. Levels against the maximum, dB. */
export function figureEightNull(offDeg: number, residualDb: number) {
  const residual = 10 ** (residualDb / 20);
  const sine = Math.abs(Math.sin(offDeg * RAD));
  return {
    /** Residual in quadrature: it fills the null. */
    responseDb: 20 * Math.log10(Math.hypot(sine, residual) / Math.hypot(1, residual)),
    nullDepthDb: 20 * Math.log10(residual / Math.hypot(1, residual)),
    /** Residual in phase: the null stays deep and turns by this much. */
    shiftDeg: Math.asin(Math.min(1, residual)) / RAD,
  };
}

/** One bearing from a known place. */
export interface BearingLine {
  /** East and north of a common origin, km. */
  readonly eastKm: number;
  readonly northKm: number;
  /** Clockwise from true north. */
  readonly bearingDeg: number;
  readonly sigmaDeg: number;
}

/** A position from bearings, with its 1-sigma ellipse. */
export interface BearingFix {
  readonly eastKm: number;
  readonly northKm: number;
  readonly semiMajorKm: number;
  readonly semiMinorKm: number;
  /** Direction of the long axis, clockwise from north, 0 to 180. */
  readonly majorAxisDeg: number;
  readonly chiSquare: number;
}

/** Radius of the 95 % ellipse over that of 1 sigma in two dimensions: √(−2 ln 0.05). */
export const ELLIPSE_95 = Math.sqrt(-2 * Math.log(0.05));

/** Difference of two directions, ±180°, or ±90° for an axis without a sense. */
const turn = (deg: number, axial: boolean): number => {
  const period = axial ? 180 : 360;
  return ((((deg + period / 2) % period) + period) % period) - period / 2;
};

/**
 * Most likely place of a source by nonlinear least squares of bearings; a grid of crossings starts it, Gauss and Newton finish it.
 * @param axial figure-8 bearings: the source may be at either end.
 * @throws ShapeError with fewer than two bearings; OutOfRangeError when they do not cross ahead of the stations.
 * Source: Stansfield, J. IEE 94 IIIA (1947) 762 (ellipse); atan2(east, north).
 */
export function bearingFix(lines: readonly BearingLine[], axial = false): BearingFix {
  if (lines.length < 2) throw new ShapeError('A fix needs bearings from two places. Take another bearing.');
  lines.forEach((line) => {
    requirePositive(line.sigmaDeg, 'Bearing error (degrees)');
    requireRange(line.bearingDeg, 'Bearing (degrees)', -360, 720);
    requireRange(line.eastKm, 'East (km)', -20_000, 20_000);
    requireRange(line.northKm, 'North (km)', -20_000, 20_000);
  });
  const misfits = (east: number, north: number): number[] =>
    lines.map(
      (line) =>
        turn(line.bearingDeg - Math.atan2(east - line.eastKm, north - line.northKm) / RAD, axial) / line.sigmaDeg,
    );
  const cost = (east: number, north: number): number => misfits(east, north).reduce((sum, one) => sum + one * one, 0);
  const starts = crossings(lines, axial);
  if (starts.length === 0)
    throw new OutOfRangeError(
      'The bearings do not cross ahead of the stations. Check them, or take them from farther apart.',
    );
  let [east, north] = starts.reduce((best, one) => (cost(...one) < cost(...best) ? one : best));
  let settled = false;
  for (let round = 0; round < 100; round += 1) {
    const { normal, right } = equations(lines, east, north, misfits(east, north));
    const det = normal[0] * normal[2] - normal[1] ** 2;
    if (!(Math.abs(det) > 1e-300)) break; // all seen in one line: there is no place along it
    let [de, dn] = [
      (normal[2] * right[0] - normal[1] * right[1]) / det,
      (normal[0] * right[1] - normal[1] * right[0]) / det,
    ];
    const before = cost(east, north);
    for (let halving = 0; halving < 30 && cost(east + de, north + dn) > before; halving += 1)
      [de, dn] = [de / 2, dn / 2];
    east += de;
    north += dn;
    const size = Math.hypot(east, north);
    if (Math.hypot(de, dn) < 1e-10 * Math.max(1, size)) {
      settled = true;
      break;
    }
  }
  const final = cost(east, north);
  if (!settled || !Number.isFinite(final) || Math.hypot(east, north) > FARTHEST_KM)
    throw new NotConvergedError(
      'The fix: one bearing may point the wrong way, or they are nearly parallel; it',
      Number.isFinite(final) ? final : 1,
    );
  if (!axial && lines.some((line) => aheadKm(line, east, north) < 0))
    throw new OutOfRangeError(
      'The most likely place lies behind one of the stations: that bearing is back to front. Turn it round, or take it again.',
    );
  const { normal } = equations(lines, east, north, misfits(east, north));
  const det = normal[0] * normal[2] - normal[1] ** 2;
  const [vee, ven, vnn] = [normal[2] / det, -normal[1] / det, normal[0] / det];
  const middle = (vee + vnn) / 2;
  const spread = Math.hypot((vee - vnn) / 2, ven);
  return {
    eastKm: east,
    northKm: north,
    semiMajorKm: Math.sqrt(middle + spread),
    semiMinorKm: Math.sqrt(Math.max(0, middle - spread)),
    majorAxisDeg: ((((0.5 * Math.atan2(2 * ven, vnn - vee)) / RAD) % 180) + 180) % 180,
    chiSquare: cost(east, north),
  };
}

/** 95 % of chi square with two degrees of freedom. */
const REGION_95 = ELLIPSE_95 ** 2;
/** How far a place lies from fitting bearings, as chi square. */
function misfit(lines: readonly BearingLine[], axial: boolean, east: number, north: number): number {
  return lines.reduce((sum, { eastKm, northKm, bearingDeg, sigmaDeg }) => {
    const off = turn(bearingDeg - Math.atan2(east - eastKm, north - northKm) / RAD, axial);
    return sum + (off / sigmaDeg) ** 2;
  }, 0);
}

/**
 * Whether a place lies in the 95 % region of a fix by the ratio of likelihoods: right near a station and at a shallow cut, too, where an ellipse is not.
 * Source: Wilks, Ann. Math. Stat. 9 (1938) 60.
 */
export const insideRegion95 = (
  lines: readonly BearingLine[],
  axial: boolean,
  fix: BearingFix,
  [eastKm, northKm]: readonly [number, number],
): boolean => misfit(lines, axial, eastKm, northKm) - fix.chiSquare <= REGION_95;

/** Corners of the 95 % region round a fix, km; farther than so many long half axes it is cut off. */
export function region95(lines: readonly BearingLine[], axial: boolean, fix: BearingFix, corners = 72) {
  const mostKm = FAR_AXES * fix.semiMajorKm;
  return Array.from({ length: corners }, (_, i): readonly [number, number] => {
    const [sine, cosine] = [Math.sin((2 * Math.PI * i) / corners), Math.cos((2 * Math.PI * i) / corners)];
    const at = (r: number): readonly [number, number] => [fix.eastKm + r * sine, fix.northKm + r * cosine];
    // outward in small steps to the first place outside, then halved: behind it another lobe may begin
    let inner = 0;
    let outer = mostKm;
    for (let r = mostKm / REGION_STEPS; r <= mostKm; r += mostKm / REGION_STEPS) {
      if (!insideRegion95(lines, axial, fix, at(r))) {
        outer = r;
        break;
      }
      inner = r;
    }
    for (let round = 0; round < 20 && inner < mostKm; round += 1) {
      const middle = (inner + outer) / 2;
      if (insideRegion95(lines, axial, fix, at(middle))) inner = middle;
      else outer = middle;
    }
    return at(inner);
  });
}
const FAR_AXES = 12;
const REGION_STEPS = 200;

/** Farther than half the earth round there is no source. */
const FARTHEST_KM = 20_000;
/** How far a place lies ahead of a station along its bearing, km. */
const aheadKm = ({ eastKm, northKm, bearingDeg }: BearingLine, east: number, north: number): number =>
  (east - eastKm) * Math.sin(bearingDeg * RAD) + (north - northKm) * Math.cos(bearingDeg * RAD);

/** Normal equations of the linearised bearings: [ee, en, nn] and the right-hand side. */
function equations(lines: readonly BearingLine[], east: number, north: number, misfit: readonly number[]) {
  const normal = [0, 0, 0];
  const right = [0, 0];
  lines.forEach((line, i) => {
    const [de, dn] = [east - line.eastKm, north - line.northKm];
    const square = de * de + dn * dn;
    const slopeE = dn / square / RAD / line.sigmaDeg;
    const slopeN = -de / square / RAD / line.sigmaDeg;
    normal[0] += slopeE * slopeE;
    normal[1] += slopeE * slopeN;
    normal[2] += slopeN * slopeN;
    right[0] += slopeE * misfit[i];
    right[1] += slopeN * misfit[i];
  });
  return { normal, right };
}

/** Crossings of every pair of bearings that lie ahead of both stations (anywhere on the lines of axial ones). */
function crossings(lines: readonly BearingLine[], axial: boolean): (readonly [number, number])[] {
  return lines.flatMap((a, i) =>
    lines.slice(i + 1).flatMap((b): (readonly [number, number])[] => {
      const [ea, na] = [Math.sin(a.bearingDeg * RAD), Math.cos(a.bearingDeg * RAD)];
      const [eb, nb] = [Math.sin(b.bearingDeg * RAD), Math.cos(b.bearingDeg * RAD)];
      const det = ea * nb - na * eb;
      if (Math.abs(det) < Math.sin(1 * RAD)) return [];
      const [de, dn] = [b.eastKm - a.eastKm, b.northKm - a.northKm];
      const alongA = (de * nb - dn * eb) / det;
      const alongB = (de * na - dn * ea) / det;
      return axial || (alongA > 0 && alongB > 0) ? [[a.eastKm + alongA * ea, a.northKm + alongA * na] as const] : [];
    }),
  );
}

/** What is left of a noise when two branches are set against each other, and how exact one must be for a wanted depth. */
export function cancellation(amplitudeErrorDb: number, phaseErrorDeg: number, wantedDepthDb: number) {
  requirePositive(wantedDepthDb, 'Wanted depth (dB)');
  requireRange(amplitudeErrorDb, 'Amplitude error (dB)', -200, 200);
  requireRange(phaseErrorDeg, 'Phase error (degrees)', -3600, 3600);
  const g = 10 ** (amplitudeErrorDb / 20);
  const left = Math.hypot(1 - g * Math.cos(phaseErrorDeg * RAD), g * Math.sin(phaseErrorDeg * RAD));
  const wanted = 10 ** (-wantedDepthDb / 20);
  return {
    /** null: nothing is left. */
    depthDb: left > 0 ? -20 * Math.log10(left) : null,
    phaseNeededDeg: (2 * Math.asin(Math.min(1, wanted / 2))) / RAD,
    amplitudeNeededDb: 20 * Math.log10(1 + wanted),
  };
}

/** SNR of branches with independent noise, combined in three ways, dB. Source: Brennan, Proc. IRE 47 (1959) 1075. */
export function combining(snrDb: readonly number[]) {
  requireRange(snrDb.length, 'Branches', 1, 100);
  const ratios = snrDb.map(powerRatio);
  const sum = ratios.reduce((total, one) => total + one, 0);
  const amplitudes = ratios.reduce((total, one) => total + Math.sqrt(one), 0);
  return {
    maximumRatioDb: powerDb(sum),
    selectionDb: Math.max(...snrDb),
    equalGainDb: powerDb(amplitudes ** 2 / ratios.length),
  };
}
