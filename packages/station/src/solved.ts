import { type Hearing, hearingKey, type HearingQuestion, solveHearing, type Unheard } from '@velvet-reed/core/choose';
import { CoreError } from '@velvet-reed/core/errors';
import { antennaCoupling } from '@velvet-reed/core/guard';
import { groundClass } from '@velvet-reed/core/solver';
import { type CouplingAsk, couplingKey, keepCoupling, knownCoupling } from './guard/couplings';
import { drawnStation } from './guard/drawing';
import type { StationData } from './record';
import { plannedTransmitters } from './transmitters';

function solveCoupling(ask: CouplingAsk): void {
  if (knownCoupling(ask)) return;
  try {
    const coupling = antennaCoupling(ask.sender, ask.other, groundClass(ask.groundId).ground, ask.freqHz);
    keepCoupling(couplingKey(ask), { coupling });
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    keepCoupling(couplingKey(ask), { refusal: error.message });
  }
}

/**
 * A station with the wire model at hand, for who waits until it has answered: what its antennas hear, and the couplings that Guard asks for. Seconds to
 * minutes of computing.
 * @param atMs moment that the waves' angles and the hours are taken for, Unix time
 */
export function solvedStation(data: StationData, atMs: number): StationData {
  for (const plan of plannedTransmitters(data))
    for (const ask of [...drawnStation(data, plan).asks.values()].flat()) solveCoupling(ask);
  const known = new Map<string, Hearing | Unheard>();
  const heard = (question: HearingQuestion): Hearing | Unheard => {
    const key = hearingKey(question);
    const answer = known.get(key) ?? solveHearing(question);
    known.set(key, answer);
    return answer;
  };
  return { ...data, hearing: { atMs, heard } };
}
