import { requirePositive, requireRange } from '../errors';
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
