import { requirePositive, requireRange } from '../errors';
import { BOLTZMANN_J_PER_K } from '../units/constants';
import { type Environment, expectedNoise } from '../site/external-noise';
import { powerDb, powerRatio, wattsToDbm } from '../units/decibel';
import { activeStage, cascadeNoiseFactor, noiseTemperatureK, passiveStage } from './cascade';

/** A down-converter ahead of the receiver. */
export interface DownConverter {
  readonly rfHz: number;
  readonly oscillatorHz: number;
  /** Deviation of the oscillator, parts per million; positive: it runs high. */
  readonly oscillatorPpm: number;
  /** Sky, antenna and converter together, K. */
  readonly systemK: number;
  readonly gainDb: number;
  readonly bandwidthHz: number;
  readonly cableLossDb: number;
  /** Noise power wanted at the receiver over that bandwidth, dBm. */
  readonly wantedDbm: number;
}

/**
 * Where a converter puts a signal, and how much pad its noise needs ahead of the receiver.
 * An oscillator above the signal mirrors the spectrum; an oscillator that runs high moves the output down when it lies below the signal
 * and up when above. Source: mixing; kTG.
 */
export function downConversion(converter: DownConverter) {
  requirePositive(converter.rfHz, 'Signal (Hz)');
  requirePositive(converter.oscillatorHz, 'Oscillator (Hz)');
  requirePositive(converter.systemK, 'System temperature (K)');
  requirePositive(converter.bandwidthHz, 'Bandwidth (Hz)');
  requireRange(converter.cableLossDb, 'Cable loss (dB)', 0);
  const mirrored = converter.oscillatorHz > converter.rfHz;
  const shiftHz = converter.oscillatorHz * converter.oscillatorPpm * 1e-6;
  const noiseDbmPerHz = wattsToDbm(BOLTZMANN_J_PER_K * converter.systemK) + converter.gainDb;
  const noiseDbm = noiseDbmPerHz + powerDb(converter.bandwidthHz);
  return {
    outputHz: Math.abs(converter.rfHz - converter.oscillatorHz),
    mirrored,
    outputErrorHz: mirrored ? shiftHz : -shiftHz,
    noiseDbmPerHz,
    noiseDbm,
    padDb: Math.max(0, noiseDbm - converter.cableLossDb - converter.wantedDbm),
  };
}

/** A converter on a dish, the pad behind it and the receiver. */
export interface ConverterChain extends Pick<DownConverter, 'rfHz' | 'oscillatorHz' | 'oscillatorPpm' | 'gainDb'> {
  readonly noiseFigureDb: number;
  readonly padDb: number;
  readonly receiverNoiseFigureDb: number;
  /** How high the dish points, degrees. */
  readonly elevationDeg: number;
  /** Class of the place: in a town its noise reaches above 1 GHz. */
  readonly environment: Environment;
}

/** The cable behind the converter, dB; what a receiver likes over a band, dBm in Hz. Common practice, no source. */
export const CONVERTER_ASSUMED = { cableLossDb: 3, wantedDbm: -60, bandwidthHz: 10e6 } as const;

/** Where a converter puts a signal, the noise figure of the whole chain, and the pad that its noise needs, under stated assumptions. Source: Friis 1944; kTG. */
export function converterChain(chain: ConverterChain) {
  const { gainDb, noiseFigureDb, padDb, receiverNoiseFigureDb } = chain;
  const chainNoiseFigureDb = powerDb(
    cascadeNoiseFactor([
      activeStage(gainDb, noiseFigureDb),
      passiveStage(padDb),
      activeStage(0, receiverNoiseFigureDb),
    ]),
  );
  // what Path and Outside noise count for an antenna that looks up
  const view = { seesSky: true, elevationDeg: chain.elevationDeg };
  const { faDb } = expectedNoise(chain.environment, chain.rfHz, 0, view);
  const antennaK = powerRatio(faDb) * REFERENCE_K;
  const converterK = noiseTemperatureK(powerRatio(noiseFigureDb));
  return {
    ...downConversion({ ...chain, ...CONVERTER_ASSUMED, systemK: antennaK + converterK }),
    ...{ antennaK, externalFaDb: faDb },
    snrLossDb: powerDb((antennaK + noiseTemperatureK(powerRatio(chainNoiseFigureDb))) / antennaK),
    chainNoiseFigureDb,
  };
}
const REFERENCE_K = 290;
