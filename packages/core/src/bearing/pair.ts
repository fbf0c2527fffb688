import { requirePositive, requireRange, ShapeError } from '../errors';
import { powerRatio } from '../units/decibel';
import { RAD } from '../units/constants';
import { wavelengthM } from '../units/wavelength';

/** A bearing by the null: the signal vanishes in the noise over a sector, and its middle counts. */
export interface NullSector {
  readonly sectorDeg: number;
  /** Scatter of the middle of two edges, 1 sigma. */
  readonly bearingSigmaDeg: number;
}

/**
 * Width of the sector in which a figure of eight hears nothing: 2·asin(10^(−SNR/20)).
 * @param peakSnrDb SNR broadside, dB, 0 upward. @param edgeSigmaDeg how well one edge is read.
 */
export function nullSector(peakSnrDb: number, edgeSigmaDeg: number): NullSector {
  requireRange(peakSnrDb, 'SNR broadside (dB)', 0, 200);
  requirePositive(edgeSigmaDeg, 'Reading of an edge (degrees)');
  return {
    sectorDeg: (2 * Math.asin(10 ** (-peakSnrDb / 20))) / RAD,
    bearingSigmaDeg: edgeSigmaDeg / Math.SQRT2,
  };
}

interface BearingFrom {
  readonly eastKm: number;
  readonly northKm: number;
  readonly bearingDeg: number;
}

/** Where two bearings cross, and at what angle. */
export type Crossing =
  | { readonly intersects: false; readonly crossingDeg: number }
  | {
      readonly intersects: true;
      /** 0 to 90. */
      readonly crossingDeg: number;
      readonly eastKm: number;
      readonly northKm: number;
      readonly aheadOfBoth: boolean;
    };

/** Bearings that cross at less than this count as parallel, degrees. */
const PARALLEL_DEG = 1;

/** Crossing of two exact bearings, clockwise from north. */
export function crossingOf(a: BearingFrom, b: BearingFrom): Crossing {
  const [ea, na] = [Math.sin(a.bearingDeg * RAD), Math.cos(a.bearingDeg * RAD)];
  const [eb, nb] = [Math.sin(b.bearingDeg * RAD), Math.cos(b.bearingDeg * RAD)];
  const cross = ea * nb - na * eb;
  const crossingDeg = Math.asin(Math.min(1, Math.abs(cross))) / RAD;
  if (crossingDeg < PARALLEL_DEG) return { intersects: false, crossingDeg };
  const [de, dn] = [b.eastKm - a.eastKm, b.northKm - a.northKm];
  const alongA = (de * nb - dn * eb) / cross;
  const alongB = (de * na - dn * ea) / cross;
  return {
    ...{ intersects: true, crossingDeg },
    eastKm: a.eastKm + alongA * ea,
    northKm: a.northKm + alongA * na,
    aheadOfBoth: alongA > 0 && alongB > 0,
  };
}

/**
 * Two like antennas that hear all round, on a line: the phase to add to the second so that a plane wave from one azimuth cancels, and what
 * they hear from another.
 * @param axisDeg azimuth of the second antenna seen from the first.
 * @returns phase in −180 to 180 degrees; response against one antenna, dB, −200 at least.
 */
export function nullSteering(input: {
  readonly spacingM: number;
  readonly freqHz: number;
  readonly axisDeg: number;
  readonly nullDeg: number;
  readonly wantedDeg: number;
}) {
  requirePositive(input.spacingM, 'Spacing (m)');
  const turn = (360 * input.spacingM) / wavelengthM(input.freqHz);
  // a wave reaches the antenna on its side earlier by so many degrees
  const lead = (azimuthDeg: number): number => turn * Math.cos((azimuthDeg - input.axisDeg) * RAD);
  const raw = 180 - lead(input.nullDeg);
  const phaseDeg = ((((raw + 180) % 360) + 360) % 360) - 180;
  const response = Math.abs(2 * Math.cos(((phaseDeg + lead(input.wantedDeg)) / 2) * RAD));
  return { phaseDeg, wantedResponseDb: Math.max(-200, 20 * Math.log10(response)) };
}

/** How one source arrives on the second antenna against the first, and what to set there so that it cancels. */
export interface PairArrival {
  readonly levelDb: number;
  /** −180 to 180. */
  readonly phaseDeg: number;
  readonly setDb: number;
  readonly setDeg: number;
  /** How far the four levels are from what one steady source gives: 0 exact; above 0.2 something else is heard, too, or it changed. */
  readonly misfit: number;
}

const turned = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;
/** Levels may be this far apart at most: beyond, the weaker one does not show in the sum, dB. */
const MOST_APART_DB = 30;

/**
 * Level and phase of a source on two antennas from four levels: each alone, both added, and both added with the second turned by 90°.
 * P(θ) = P1 + P2 + 2·√(P1·P2)·cos(φ + θ), so θ = 0 and 90° give cosine and sine.
 * @throws ShapeError when the levels cannot come of one source, or one antenna hardly hears it.
 */
export function pairArrival(levelsDbm: {
  readonly first: number;
  readonly second: number;
  readonly both: number;
  readonly bothTurned: number;
}): PairArrival {
  const levelDb = levelsDbm.second - levelsDbm.first;
  if (!(Math.abs(levelDb) <= MOST_APART_DB))
    throw new ShapeError(
      `The antennas hear it ${Math.round(Math.abs(levelDb))} dB apart: that cannot be cancelled this way. Bring the levels nearer with a pad first.`,
    );
  const [one, two] = [1, powerRatio(levelDb)];
  const cosine = (dbm: number): number => (powerRatio(dbm - levelsDbm.first) - one - two) / (2 * Math.sqrt(one * two));
  const [c, s] = [cosine(levelsDbm.both), -cosine(levelsDbm.bothTurned)];
  const size = Math.hypot(c, s);
  if (!(size > 0.5 && size < 1.5))
    throw new ShapeError(
      'These four levels do not come of one steady source. Read them again, quickly one after the other, at the same gain.',
    );
  const phaseDeg = Math.atan2(s, c) / RAD;
  return { levelDb, phaseDeg, setDb: -levelDb, setDeg: turned(180 - phaseDeg), misfit: Math.abs(size - 1) };
}
