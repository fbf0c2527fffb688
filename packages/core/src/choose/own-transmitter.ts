import { transmitterField } from '../site/field';
import type { ReadyCandidate } from './candidate';
import type { ForecastTransmitter } from './forecast';

/** What the strongest of the listener's own transmitters puts on an antenna. */
export interface OwnTransmission {
  readonly name: string;
  readonly powerW: number;
  readonly distanceM: number;
  /** At the antenna's output, or at the input of its amplifier, dBm. */
  readonly levelDbm: number;
  readonly amplified: boolean;
  /** More than a receiver or an amplifier of unknown make is taken to bear. */
  readonly destroys: boolean;
  /** What it counts in a ranking, dB. */
  readonly countsDb: number;
}

/** What a receiver or an amplifier of unknown make is taken to bear, dBm. Common practice, no source: +10 dBm. */
const BEARS_DBM = 10;
/** What the danger counts: a relay or limiter behind a passive antenna is little, an amplifier at the antenna cannot be disconnected. Assumed, dB. */
const PASSIVE_DB = 2;
const AMPLIFIED_DB = 12;
/** From here an amplifier is no longer at ease, dBm, and what that counts, dB. Assumed. */
const UNEASY_DBM = -20;
const UNEASY_DB = 6;

/** @returns undefined without a transmitter of one's own, or where nothing harmful arrives. Free space; inside λ/2π an order of magnitude. */
export function ownTransmission(
  { head, fromTransmitter }: Pick<ReadyCandidate, 'head' | 'fromTransmitter'>,
  transmitters: readonly ForecastTransmitter[],
): OwnTransmission | undefined {
  const levels = transmitters.map((one): OwnTransmission => {
    const levelDbm = transmitterField(one).isotropicDbm + fromTransmitter(one.freqHz).realisedGainDbi;
    const { name, powerW, distanceM } = one;
    const amplified = head !== undefined;
    const destroys = levelDbm > BEARS_DBM;
    const countsDb = amplified
      ? destroys
        ? AMPLIFIED_DB
        : levelDbm > UNEASY_DBM
          ? UNEASY_DB
          : 0
      : destroys
        ? PASSIVE_DB
        : 0;
    return { name, powerW, distanceM, levelDbm, amplified, destroys, countsDb };
  });
  const [worst] = levels.sort((a, b) => b.levelDbm - a.levelDbm);
  return worst && (worst.destroys || worst.amplified) && worst.levelDbm > UNEASY_DBM ? worst : undefined;
}
