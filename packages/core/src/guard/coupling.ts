import { requirePositive, requireRange } from '../errors';
import { parallelDipoleMutual } from '../antenna/induced-emf';
import { complex, divide, magnitude, multiply, scale, subtract } from '../numeric/complex';
import { DIPOLE_GAIN_DBI } from '../units/constants';
import { dbmToVoltsRms, powerDb, powerRatio, wattsToDbm } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

/** Level at a receiver input behind an isolation, against its limit. */
export function leakLevel(powerW: number, isolationDb: number, limitDbm: number) {
  requirePositive(powerW, 'Transmit power (W)');
  requireRange(isolationDb, 'Isolation (dB)');
  requireRange(limitDbm, 'Limit (dBm)');
  const transmitDbm = wattsToDbm(powerW);
  const leakDbm = transmitDbm - isolationDb;
  const voltsRms = dbmToVoltsRms(leakDbm);
  return {
    transmitDbm,
    leakDbm,
    voltsRms,
    voltsPeak: voltsRms * Math.SQRT2,
    marginDb: limitDbm - leakDbm,
    requiredIsolationDb: transmitDbm - limitDbm,
    safe: leakDbm <= limitDbm,
  };
}

/** How a switch learns of transmission: from the key line, or by sensing RF (which always leaves a gap). */
export interface SwitchTiming {
  readonly mode: 'key_line' | 'rf_sense';
  /** RF appears this long after the key line closes. */
  readonly rfDelayS: number;
  readonly senseDelayS: number;
  readonly switchS: number;
  /** RF lasts this long after the key line opens. */
  readonly rfTailS: number;
  readonly releaseS: number;
}

/** Exposure of the receiver through the unswitched isolation at both ends of a transmission. */
export function switchingExposure(timing: SwitchTiming, powerW: number, unswitchedIsolationDb: number) {
  requirePositive(powerW, 'Transmit power (W)');
  const hotStartS =
    timing.mode === 'key_line' ? Math.max(0, timing.switchS - timing.rfDelayS) : timing.senseDelayS + timing.switchS;
  const hotEndS = Math.max(0, timing.rfTailS - timing.releaseS);
  const levelDbm = wattsToDbm(powerW) - unswitchedIsolationDb;
  return {
    hotStartS,
    hotEndS,
    levelDbm,
    energyJ: (powerRatio(levelDbm) / 1000) * (hotStartS + hotEndS),
    safeSequence: hotStartS === 0 && hotEndS === 0,
  };
}

/** Far-field (Friis) coupling and whether it may be used at this distance. */
export function friisCoupling(input: {
  readonly freqHz: number;
  readonly distanceM: number;
  readonly transmitGainDbi: number;
  readonly receiveGainDbi: number;
  readonly powerW: number;
  /** Largest extent of either antenna. */
  readonly apertureM: number;
}) {
  requirePositive(input.distanceM, 'Distance (m)');
  requireRange(input.apertureM, 'Antenna size (m)', 0);
  const lambda = wavelengthM(input.freqHz);
  const pathLossDb = 20 * Math.log10((4 * Math.PI * input.distanceM) / lambda);
  const farFieldM = (2 * input.apertureM ** 2) / lambda;
  const reactiveM = lambda / (2 * Math.PI);
  return {
    pathLossDb,
    couplingDb: input.transmitGainDbi + input.receiveGainDbi - pathLossDb,
    receivedDbm: wattsToDbm(input.powerW) + input.transmitGainDbi + input.receiveGainDbi - pathLossDb,
    farFieldM,
    reactiveM,
    valid: input.distanceM > farFieldM && input.distanceM > reactiveM,
  };
}

/** Self-resistance of a half-wave dipole in the sinusoidal-current theory, Ω. */
const DIPOLE_OHM = 73.13;

/** Power coupled between two parallel half-wave dipoles, both matched and tuned: |2R Z₂₁/((2R)² − Z₂₁²)|². */
export function parallelDipoleCoupling(freqHz: number, distanceM: number, powerW: number) {
  requirePositive(distanceM, 'Distance (m)');
  const mutual = parallelDipoleMutual(distanceM, freqHz);
  const below = subtract(complex((2 * DIPOLE_OHM) ** 2), multiply(mutual, mutual));
  const couplingDb = 20 * Math.log10(magnitude(divide(scale(mutual, 2 * DIPOLE_OHM), below)));
  const lambda = wavelengthM(freqHz);
  return {
    mutual,
    couplingDb,
    receivedDbm: wattsToDbm(powerW) + couplingDb,
    friisDb: 2 * DIPOLE_GAIN_DBI - 20 * Math.log10((4 * Math.PI * distanceM) / lambda),
    reactiveM: lambda / (2 * Math.PI),
    farFieldM: lambda / 2,
  };
}

/** One band of a stepwise power test. Readings in dBm at the receiver input. */
export interface RampBand {
  readonly name: string;
  readonly readingDbm: number;
  readonly backgroundDbm: number;
}

/** A reading must stand this far above the background to count. */
const RAMP_MIN_RISE_DB = 3;

/** Prediction of the level at full power, dB for dB, from a test at low power; the background is subtracted as power. */
export function rampUp(input: {
  readonly testW: number;
  readonly fullW: number;
  readonly limitDbm: number;
  readonly limiterDbm: number;
  readonly bands: readonly RampBand[];
}) {
  requirePositive(input.testW, 'Test power (W)');
  requirePositive(input.fullW, 'Full power (W)');
  const bands = input.bands.map((band) => {
    const own = powerRatio(band.readingDbm) - powerRatio(band.backgroundDbm);
    return {
      name: band.name,
      predictedDbm: own > 0 ? powerDb(own) + powerDb(input.fullW / input.testW) : null,
      valid: band.readingDbm >= band.backgroundDbm + RAMP_MIN_RISE_DB - 1e-9 && band.readingDbm < input.limiterDbm,
    };
  });
  const worst = bands
    .filter((band): band is typeof band & { predictedDbm: number } => band.predictedDbm !== null)
    .sort((a, b) => b.predictedDbm - a.predictedDbm)[0];
  return {
    bands,
    worstBand: worst?.name ?? null,
    allowedPowerW: worst ? input.fullW * powerRatio(input.limitDbm - worst.predictedDbm) : null,
  };
}

/** What a power meter that shows nothing proves: only its resolution. */
export function meterZeroProves(powerW: number, resolutionW: number) {
  requirePositive(powerW, 'Transmit power (W)');
  requirePositive(resolutionW, 'Meter resolution (W)');
  return {
    isolationAtLeastDb: Math.max(0, powerDb(powerW / resolutionW)),
    receiverCouldSeeDbm: wattsToDbm(Math.min(resolutionW, powerW)),
  };
}

/** Far-field strength near the listener's own transmitting antenna, V/m; national limits decide, not this figure. */
export const exposureFieldVPerM = (powerW: number, gainDbi: number, distanceM: number): number =>
  Math.sqrt(30 * powerW * powerRatio(gainDbi)) / distanceM;

/** Whether a distance lies inside the near field of a small transmitting antenna, λ/2π, where far-field figures do not hold. */
export const insideNearField = (distanceM: number, freqHz: number): boolean =>
  distanceM < wavelengthM(freqHz) / (2 * Math.PI);
