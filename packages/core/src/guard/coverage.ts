import { leakLevel } from './coupling';

/** One receiver input as the transmitter can reach it. */
export interface GuardInput {
  readonly id: string;
  readonly name: string;
  /** Antenna that feeds it: its name, and its number where it is one of the station's. */
  readonly antennaName: string;
  readonly antennaId?: number | null;
  /** A switch or relay opens this path while transmitting. */
  readonly disconnects: boolean;
  /** From the transmitter's output to this input while transmitting, dB. */
  readonly isolationDb: number;
  readonly limitDbm: number;
}

export type GuardState = 'safe' | 'thin' | 'danger' | 'uncovered';

export interface GuardResult {
  readonly input: GuardInput;
  readonly levelDbm: number;
  readonly marginDb: number;
  readonly requiredIsolationDb: number;
  readonly state: GuardState;
  readonly sentence: string;
}

/**
 * Level at every receiver input while transmitting. An antenna without a disconnect is uncovered whatever its level: the radio's own
 * protection does not reach a second receiver.
 * @param marginToKeepDb room to keep below the limit; 10 dB by convention.
 */
export function guardInputs(
  powerW: number,
  inputs: readonly GuardInput[],
  marginToKeepDb: number,
): readonly GuardResult[] {
  return inputs.map((input) => {
    const { leakDbm, marginDb } = leakLevel(powerW, input.isolationDb, input.limitDbm);
    const state: GuardState = !input.disconnects
      ? 'uncovered'
      : marginDb < 0
        ? 'danger'
        : marginDb < marginToKeepDb
          ? 'thin'
          : 'safe';
    return {
      input,
      levelDbm: leakDbm,
      marginDb,
      requiredIsolationDb: input.isolationDb + marginToKeepDb - marginDb,
      state,
      sentence: guardSentence(state, input, marginDb, marginToKeepDb),
    };
  });
}

function guardSentence(state: GuardState, input: GuardInput, marginDb: number, worthDb: number): string {
  const size = Math.abs(marginDb).toFixed(1);
  switch (state) {
    case 'uncovered':
      return `${input.antennaName} is not disconnected while transmitting. The protection inside the radio does not cover ${input.name}: put a switch on the key line.`;
    case 'danger':
      return `${size} dB above the limit of ${input.name}: do not transmit with it connected.`;
    case 'thin':
      return `${size} dB below the limit, less than the ${worthDb} dB asked for: add isolation or lower the power.`;
    case 'safe':
      return `${size} dB below the limit of ${input.name}.`;
  }
}
