import { fixed } from '../units/format';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import type { GuardResult, GuardState } from './coverage';

/** How a transmitter stands to all receiver inputs; `unknown` while anything is not entered. */
type GuardVerdictState = 'nothing entered' | 'unknown' | GuardState;

/** Guard's verdict as data: page, report and rail read this. Nothing that is not known is called safe. */
export interface GuardVerdict {
  readonly state: GuardVerdictState;
  /** The input that decides. */
  readonly worst?: GuardResult;
  /** Antennas of the station that no input names. */
  readonly missing: readonly string[];
  readonly sentence: string;
  readonly next: string;
}

/** The state of one input in a word; nothing that rests on typed isolations is called safe. */
export const GUARD_WORDS: Readonly<Record<GuardState, string>> = {
  safe: 'below',
  thin: 'thin',
  danger: 'danger',
  uncovered: 'uncovered',
};

const SEVERITY: Readonly<Record<GuardState, number>> = { safe: 0, thin: 1, danger: 2, uncovered: 3 };
const list = (names: readonly string[]): string =>
  names.length <= 3 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;

/** An antenna of the station. */
interface Known {
  readonly id: number;
  readonly name: string;
}
const asTyped = (name: string): string => name.trim().toLowerCase();

/** @param antennas those of the station; an input must point at each, or name it, or its way to a receiver is unknown. */
export function guardVerdict(results: readonly GuardResult[], antennas: readonly Known[]): GuardVerdict {
  const inputs = results.map(({ input }) => input);
  const pointed = new Set(inputs.map(({ antennaId }) => antennaId));
  const named = new Set(inputs.flatMap((one) => (one.antennaId == null ? [asTyped(one.antennaName)] : [])));
  const missing = antennas
    .filter(({ id, name }) => !pointed.has(id) && !named.has(asTyped(name)))
    .map(({ name }) => name);
  const [worst] = [...results].sort((a, b) => SEVERITY[b.state] - SEVERITY[a.state] || a.marginDb - b.marginDb);
  if (!worst)
    return {
      state: 'nothing entered',
      missing,
      sentence: 'No receiver input is entered, so nothing is known.',
      next: 'Enter every one of them.',
    };
  const level = `${fixed(worst.levelDbm, 1).replace('-', '−')} dBm`;
  const common = { worst, missing };
  if (worst.state === 'uncovered')
    return {
      ...common,
      state: 'uncovered',
      sentence: `Do not transmit yet: ${worst.input.antennaName} is not disconnected; ${worst.input.name} would see ${level}.`,
      next: 'Put a switch on the key line into that antenna.',
    };
  const needed = `${worst.requiredIsolationDb.toFixed(0)} dB`;
  if (worst.state === 'danger')
    return {
      ...common,
      state: 'danger',
      sentence: `Do not transmit: ${worst.input.name} would be overdriven with ${level}.`,
      next: `Raise its isolation to ${needed}.`,
    };
  if (missing.length > 0)
    return {
      ...common,
      state: 'unknown',
      sentence: `Unknown: ${list(missing)} of this station ${missing.length === 1 ? 'is' : 'are'} named by no receiver input.`,
      next: 'Enter the inputs that they reach, or delete what no longer stands.',
    };
  if (worst.state === 'thin')
    return {
      ...common,
      state: 'thin',
      sentence: `${worst.input.name} has little room with ${level}.`,
      next: `Raise its isolation to ${needed}.`,
    };
  return {
    ...common,
    state: 'safe',
    sentence: `Every receiver input that is entered stays below its limit, by isolations that were typed, not measured; the closest one sees ${level}.`,
    next: 'Measure the isolation at low power, receivers disconnected, before relying on it.',
  };
}

/** Whether a distance lies inside the near field of a small transmitting antenna, λ/2π, where far-field figures do not hold. */
export const insideNearField = (distanceM: number, freqHz: number): boolean =>
  distanceM < SPEED_OF_LIGHT_M_PER_S / (2 * Math.PI * freqHz);
