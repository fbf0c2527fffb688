import { requireRange } from '../errors';
import { quantile } from '../numeric/statistics';
import { powerRatio, wattsToDbm } from '../units/decibel';
import { fixed } from '../units/format';

/** A time with its scatter, s. */
interface Timed {
  readonly s: number;
  /** 1 σ. */
  readonly scatterS: number;
}

/** What a sequence takes, by how the switch learns of RF: a time that it does not use is not asked for. */
export const TIMES_NEEDED = {
  'key line': ['rf', 'switch', 'tail', 'hang'],
  sequencer: ['switch', 'tail', 'hang'],
  sensing: ['switch', 'sense', 'hang'],
} as const;

/** How a switch learns that RF comes, and how long all takes. */
export interface SequenceTimes {
  /** From the key line, from sensing RF, or from a sequencer that lets RF out when it has switched. */
  readonly by: 'key line' | 'sensing' | 'sequencer';
  /** From the key to the first RF. */
  readonly rf: Timed;
  /** From its command until the switch is where it should be, bounce included. */
  readonly switch: Timed;
  /** From the first RF until sensing commands; of key line and sequencer not used. */
  readonly sense: Timed;
  /** RF after the key is up. */
  readonly tail: Timed;
  /** From key up (sensing: from the last RF) until the switch goes back. */
  readonly hang: Timed;
}

/** One stretch of the timeline. */
interface TimeBar {
  readonly name: string;
  readonly fromS: number;
  readonly toS: number;
}

export interface Sequence {
  /** Key down is 0; a transmission of the given length. */
  readonly bars: readonly TimeBar[];
  /** RF while the receiver is still, or again, connected, s. */
  readonly beforeS: number;
  readonly afterS: number;
  /** Level at the receiver then, dBm, and the energy of both gaps, J. */
  readonly levelDbm: number;
  readonly energyJ: number;
  /** Lead of the key line over RF that would be enough for all but one in a thousand, s. */
  readonly neededLeadS: number;
}

/** What chance makes of it. */
export interface SequenceChance {
  /** Share of transmissions with RF in a gap. */
  readonly share: number;
  /** Energy that 95 % stay below, and the most of all that were tried, J. */
  readonly usualJ: number;
  readonly mostJ: number;
  readonly tries: number;
}

/** Words are apart by about this, s: a switch that goes back sooner rattles with every syllable. Common practice, no source. */
const SYLLABLE_GAP_S = 0.3;
/** Sigmas of one in a thousand. */
const RARE = 3.09;

const check = (times: SequenceTimes): void => {
  for (const [name, { s, scatterS }] of Object.entries(times).filter(
    (one): one is [string, Timed] => typeof one[1] !== 'string',
  )) {
    requireRange(s, `Time of ${name} (s)`, 0, 60);
    requireRange(scatterS, `Scatter of ${name} (s)`, 0, 10);
  }
};

/** RF before the switch has moved and after it has gone back, s. */
function gapsOf(
  times: SequenceTimes,
  draw: (time: Timed) => number,
): { readonly beforeS: number; readonly afterS: number } {
  const [rf, moved, tail, hang] = [draw(times.rf), draw(times.switch), draw(times.tail), draw(times.hang)];
  const before =
    times.by === 'sensing' ? draw(times.sense) + moved : times.by === 'sequencer' ? 0 : Math.max(0, moved - rf);
  // sensing counts its hang from the last RF: nothing comes after it
  return { beforeS: before, afterS: times.by === 'sensing' ? 0 : Math.max(0, tail - hang) };
}

/**
 * The order of a transmission: key, switch, RF, and back.
 * @param powerW of the transmitter. @param throughDb loss to the receiver while it is still connected.
 */
export function sequenceOf(times: SequenceTimes, powerW: number, throughDb: number, lengthS = 0.1): Sequence {
  check(times);
  requireRange(throughDb, 'Loss while connected (dB)', 0, 200);
  const { beforeS, afterS } = gapsOf(times, ({ s }) => s);
  // a sequencer lets RF out once the switch has moved
  const rfFrom = times.by === 'sequencer' ? Math.max(times.rf.s, times.switch.s) : times.rf.s;
  const rfTo = lengthS + times.tail.s;
  const moved = times.by === 'sensing' ? rfFrom + times.sense.s + times.switch.s : times.switch.s;
  const back = (times.by === 'sensing' ? rfTo : lengthS) + times.hang.s;
  const levelDbm = wattsToDbm(powerW) - throughDb;
  return {
    bars: [
      { name: 'key', fromS: 0, toS: lengthS },
      { name: 'RF', fromS: rfFrom, toS: rfTo },
      { name: 'receiver off', fromS: moved, toS: back },
    ],
    ...{ beforeS, afterS, levelDbm },
    energyJ: (powerRatio(levelDbm) / 1000) * (beforeS + afterS),
    neededLeadS: times.switch.s + RARE * Math.hypot(times.switch.scatterS, times.rf.scatterS),
  };
}

/**
 * The same with every time scattering about its mean: which share of transmissions meets a receiver that is connected, and with how much energy.
 * @param normal numbers of scatter 1 about 0. Range: times that scatter independently.
 */
export function sequenceChance(
  times: SequenceTimes,
  powerW: number,
  throughDb: number,
  normal: () => number,
  tries = 5000,
): SequenceChance {
  check(times);
  const watts = powerRatio(wattsToDbm(powerW) - throughDb) / 1000;
  const energies = Array.from({ length: tries }, () => {
    const { beforeS, afterS } = gapsOf(times, ({ s, scatterS }) => Math.max(0, s + scatterS * normal()));
    return watts * (beforeS + afterS);
  });
  return {
    share: energies.filter((one) => one > 0).length / tries,
    usualJ: quantile(energies, 0.95),
    mostJ: Math.max(...energies),
    tries,
  };
}

/** What is to be said of a sequence, worst first. @param limitJ energy that the receiver or its limiter survives; null: nobody knows. */
export function sequenceRemarks(
  times: SequenceTimes,
  sequence: Sequence,
  chance: SequenceChance,
  limitJ: number | null,
): { readonly leads: boolean; readonly hangs: boolean; readonly remarks: readonly string[] } {
  const leads = times.by === 'sequencer' || (times.by === 'key line' && times.rf.s >= sequence.neededLeadS);
  const hangs =
    times.by === 'sensing' || times.hang.s - RARE * times.hang.scatterS >= times.tail.s + RARE * times.tail.scatterS;
  const ms = (s: number): string => `${fixed(1000 * s, 1)} ms`;
  const remarks = [
    ...(times.by === 'sensing'
      ? [
          `Sensing always lets RF in first: ${fixed(sequence.levelDbm, 1)} dBm for ${ms(sequence.beforeS)}, ${sequence.energyJ.toPrecision(2)} J. It needs a power limit and a limiter; where the radio has a key line, use that.`,
        ]
      : []),
    ...(times.by === 'key line' && !leads
      ? [
          sequence.beforeS > 0
            ? `RF comes ${ms(sequence.beforeS)} before the switch is there: lead with ${ms(sequence.neededLeadS)}, or use a sequencer.`
            : `The lead of ${ms(times.rf.s)} is enough on the average and not always: ${ms(sequence.neededLeadS)} would be.`,
        ]
      : []),
    ...(!hangs
      ? [
          `The switch goes back before RF has gone: hang for more than ${ms(times.tail.s + RARE * (times.tail.scatterS + times.hang.scatterS))}.`,
        ]
      : []),
    ...(times.hang.s < SYLLABLE_GAP_S
      ? [
          `A hang of ${ms(times.hang.s)} is shorter than the gap between syllables, about ${ms(SYLLABLE_GAP_S)}: the switch rattles with every word, and each time is a chance to be late.`,
        ]
      : []),
    ...(limitJ !== null && chance.mostJ > limitJ
      ? [
          `Of ${chance.tries} made-up transmissions some brought ${chance.mostJ.toPrecision(2)} J; ${limitJ.toPrecision(2)} J is the limit.`,
        ]
      : []),
  ];
  return { leads, hangs, remarks };
}
