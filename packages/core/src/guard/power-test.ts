import { requirePositive, requireRange } from '../errors';
import { studentQuantile } from '../numeric/special';
import { powerDb, powerRatio, wattsToDbm } from '../units/decibel';
import { fixed } from '../units/format';

/** What a stepwise power test knows before its first step. */
export interface TestTerms {
  /** Power that is to be used in the end, W, and the least that the transmitter can be set to. */
  readonly fullW: number;
  readonly lowestW: number;
  readonly limitDbm: number;
  readonly marginDb: number;
  /** Pad in front of the receiver or meter, as checked, dB. */
  readonly attenuatorDb: number;
  /** Reading with the transmitter into its dummy load, or off, dBm. */
  readonly backgroundDbm: number;
  /** Loss that the model expects from the transmitter to the receiver input, dB; absent: nothing is expected. */
  readonly expectedLossDb?: number;
  /** Powers that the radio can be set to, W; empty or absent: any. */
  readonly stepsW?: readonly number[];
}

/** One step: power, and what the receiver or meter behind the pad showed. */
export interface Rung {
  readonly powerW: number;
  readonly readingDbm: number;
}

/** A step judged. */
interface JudgedRung extends Rung {
  /** Loss from the transmitter to the receiver input without the pad, dB; absent when the reading is not above the background. */
  readonly lossDb?: number;
  /** Level that the receiver would get without the pad, dBm; of what is not above the background the most that it can be. */
  readonly inputDbm: number;
  /** Rise over the step before less what the power rose, dB. */
  readonly offLineDb?: number;
  readonly remark?: string;
}

/** What comes next, or why nothing does. */
type NextRung =
  | {
      readonly state: 'go';
      readonly powerW: number;
      readonly expectedDbm: number;
      readonly mostDbm: number;
      readonly sentence: string;
    }
  | { readonly state: 'pad'; readonly neededDb: number; readonly sentence: string }
  | { readonly state: 'ask'; readonly sentence: string; readonly meantDbm: number }
  | { readonly state: 'stop'; readonly sentence: string }
  | { readonly state: 'done'; readonly sentence: string };

/** A test so far. */
export interface PowerTest {
  readonly rungs: readonly JudgedRung[];
  readonly next: NextRung;
  /** Loss by the steps that lie on the line, dB, with its 95 % interval. */
  readonly loss?: {
    readonly db: number;
    readonly lowDb: number;
    readonly highDb: number;
    readonly rungs: number;
    /** Highest power among those steps, W. */
    readonly upToW: number;
  };
  /** Level at full power without the pad, dBm, and the most that it may be. */
  readonly atFullDbm?: number;
  readonly atFullMostDbm?: number;
  /** Power at which limit less margin is surely kept, by the lower end of the loss, W. */
  readonly allowedW?: number;
  /** The same by the middle of the loss, W: more, and not sure. */
  readonly allowedMiddleW?: number;
}

/** Largest step of the power, dB: what may go wrong shows before it harms. Common practice, no source. */
const STEP_DB = 6;
/** A reading off the line by more is no reading of the coupling any more. */
const OFF_LINE_DB = 1;
/** A reading counts from so much over the background. */
const ABOVE_DB = 3;
/** A model may be off by so much at the first step. */
const DISTRUST_DB = 15;
/** Readings are right to about this, 1 σ. */
const READING_DB = 0.5;
/** A thousand times too much or too little is a unit mistaken. */
const SLIP_DB = 30;
const SLIP_ROOM_DB = 6;
const ROUNDING_DB = 1e-6;

const wattsOf = (dbm: number): number => powerRatio(dbm) / 1000;
const dbm = (value: number): string => `${fixed(value, 1)} dBm`;
const watts = (w: number): string =>
  w >= 1 ? `${Number(w.toPrecision(3))} W` : `${Number((1000 * w).toPrecision(3))} mW`;

/** What a pad is by a steady signal read with and without it. */
export function checkedPad(statedDb: number, withoutDbm: number, withDbm: number) {
  requireRange(statedDb, 'Pad as stated (dB)', 0, 120);
  const foundDb = withoutDbm - withDbm;
  const agrees = Math.abs(foundDb - statedDb) <= 2 * OFF_LINE_DB;
  return {
    foundDb,
    agrees,
    sentence: agrees
      ? `The pad takes ${fixed(foundDb, 1)} dB: as stated.`
      : `This pad takes ${fixed(foundDb, 1)} dB, not ${fixed(statedDb, 0)}: use the right one, or enter what it is.`,
  };
}

/** The reading without the background's power; undefined when it is not above it. */
function above(readingDbm: number, backgroundDbm: number): number | undefined {
  if (readingDbm < backgroundDbm + ABOVE_DB) return undefined;
  return powerDb(powerRatio(readingDbm) - powerRatio(backgroundDbm));
}

function judged(terms: TestTerms, rungs: readonly Rung[]): readonly JudgedRung[] {
  return rungs.map((rung, i): JudgedRung => {
    requirePositive(rung.powerW, 'Power of the step (W)');
    requireRange(rung.readingDbm, 'Reading (dBm)', -200, 60);
    const own = above(rung.readingDbm, terms.backgroundDbm);
    const before = i > 0 ? above(rungs[i - 1].readingDbm, terms.backgroundDbm) : undefined;
    const stepDb = i > 0 ? powerDb(rung.powerW / rungs[i - 1].powerW) : 0;
    const inputDbm = (own ?? terms.backgroundDbm + ABOVE_DB) + terms.attenuatorDb;
    const offLineDb = own !== undefined && before !== undefined ? own - before - stepDb : undefined;
    const remark =
      own === undefined
        ? 'not above the background'
        : offLineDb !== undefined && offLineDb < -OFF_LINE_DB
          ? `${fixed(-offLineDb, 1)} dB too little: something compresses`
          : offLineDb !== undefined && offLineDb > OFF_LINE_DB
            ? `${fixed(offLineDb, 1)} dB too much: something changed`
            : stepDb > STEP_DB + ROUNDING_DB
              ? `a step of ${fixed(stepDb, 0)} dB is large: steps of ${STEP_DB} dB at most show trouble earlier`
              : undefined;
    return {
      ...{ ...rung, inputDbm },
      ...(own === undefined ? {} : { lossDb: wattsToDbm(rung.powerW) - inputDbm }),
      ...(offLineDb === undefined ? {} : { offLineDb }),
      ...(remark === undefined ? {} : { remark }),
    };
  });
}

const offLine = ({ offLineDb }: JudgedRung): boolean => offLineDb !== undefined && Math.abs(offLineDb) > OFF_LINE_DB;

/** A step that rises by so much too little begins to compress, though it may still be a reading. */
const BENDS_DB = 0.3;

/** Losses of the steps before the first that leaves the line; those that bend toward it are left out. */
function onLine(rungs: readonly JudgedRung[]): readonly (JudgedRung & { readonly lossDb: number })[] {
  const first = rungs.findIndex(offLine);
  const straight = (first < 0 ? rungs : rungs.slice(0, first)).filter(({ lossDb }) => lossDb !== undefined);
  let to = straight.length;
  while (to > 1 && (straight[to - 1].offLineDb ?? 0) < -BENDS_DB) to -= 1;
  return straight.slice(0, to).flatMap((rung) => (rung.lossDb === undefined ? [] : [{ ...rung, lossDb: rung.lossDb }]));
}

function lossOf(steps: readonly { readonly powerW: number; readonly lossDb: number }[]): PowerTest['loss'] {
  const losses = steps.map(({ lossDb }) => lossDb);
  const n = losses.length;
  if (n === 0) return undefined;
  const db = losses.reduce((sum, one) => sum + one, 0) / n;
  const scatter = n < 2 ? 0 : Math.sqrt(losses.reduce((sum, one) => sum + (one - db) ** 2, 0) / (n - 1) / n);
  // a scale that is off is off in every step: it does not shrink with their number
  const half = Math.hypot(n < 2 ? 2 * READING_DB : studentQuantile(0.975, n - 1) * scatter, 2 * READING_DB);
  return { db, lowDb: db - half, highDb: db + half, rungs: n, upToW: Math.max(...steps.map(({ powerW }) => powerW)) };
}

/**
 * A stepwise test of what a transmitter sends into a receiver, from the lowest power up: steps of 6 dB at most, each only if the receiver stays below
 * limit less margin behind its pad by the strongest coupling that the steps before allow. It ends when a reading leaves the line by more than 1 dB.
 * @throws OutOfRangeError. Range: one frequency, these positions, this state of the switches.
 */
export function powerTest(terms: TestTerms, rungs: readonly Rung[]): PowerTest {
  requirePositive(terms.fullW, 'Full power (W)');
  requirePositive(terms.lowestW, 'Lowest power (W)');
  requireRange(terms.attenuatorDb, 'Pad (dB)', 0, 120);
  requireRange(terms.marginDb, 'Margin (dB)', 0, 60);
  requireRange(terms.limitDbm, 'Limit (dBm)', -100, 60);
  const steps = judged(terms, rungs);
  const straight = onLine(steps);
  const loss = lossOf(straight);
  const fullDbm = wattsToDbm(terms.fullW);
  const allowedDbm = terms.limitDbm - terms.marginDb;
  return {
    rungs: steps,
    next: nextOf(
      terms,
      steps,
      straight.map(({ lossDb }) => lossDb),
    ),
    ...(loss
      ? {
          loss,
          atFullDbm: fullDbm - loss.db,
          atFullMostDbm: fullDbm - loss.lowDb,
          allowedW: wattsOf(allowedDbm + loss.lowDb),
          allowedMiddleW: wattsOf(allowedDbm + loss.db),
        }
      : {}),
  };
}

function nextOf(terms: TestTerms, steps: readonly JudgedRung[], losses: readonly number[]): NextRung {
  const { limitDbm, marginDb, attenuatorDb, fullW, lowestW } = terms;
  const allowedDbm = limitDbm - marginDb;
  const last = steps.at(-1);
  // before any reading a loss is only what must be: none, or far less than the model says
  const leastLossDb = Math.max(0, (terms.expectedLossDb ?? 0) - DISTRUST_DB);
  if (!last) {
    const mostDbm = wattsToDbm(lowestW) - leastLossDb - attenuatorDb;
    if (mostDbm > allowedDbm + ROUNDING_DB)
      return {
        ...{ state: 'pad', neededDb: Math.ceil(attenuatorDb + mostDbm - allowedDbm) },
        sentence: `Put a pad of at least ${Math.ceil(attenuatorDb + mostDbm - allowedDbm)} dB in front of the receiver first: with ${watts(lowestW)} it might get ${dbm(mostDbm)}.`,
      };
    const expectedDbm = wattsToDbm(lowestW) - (terms.expectedLossDb ?? leastLossDb) - attenuatorDb;
    return {
      ...{ state: 'go', powerW: lowestW, expectedDbm, mostDbm },
      sentence: `Transmit ${watts(lowestW)} for a second or two; ${terms.expectedLossDb === undefined ? `at most ${dbm(mostDbm)}` : `about ${dbm(expectedDbm)}`} should show.`,
    };
  }
  const before = steps.at(-2);
  const expected =
    before?.lossDb !== undefined
      ? before.readingDbm + powerDb(last.powerW / before.powerW)
      : terms.expectedLossDb === undefined
        ? undefined
        : wattsToDbm(last.powerW) - terms.expectedLossDb - attenuatorDb;
  if (expected !== undefined) {
    const off = last.readingDbm - expected;
    if (Math.abs(Math.abs(off) - SLIP_DB) < SLIP_ROOM_DB)
      return {
        ...{ state: 'ask', meantDbm: last.readingDbm - Math.sign(off) * SLIP_DB },
        sentence: `${dbm(last.readingDbm)} is a thousand times ${off > 0 ? 'more' : 'less'} than the ${dbm(expected)} that the step before lets expect. Was it read in ${off > 0 ? 'mW and typed as W' : 'W and typed as mW'}? ${dbm(last.readingDbm - Math.sign(off) * SLIP_DB)} would fit.`,
      };
  }
  if (last.readingDbm > allowedDbm + ROUNDING_DB)
    return {
      state: 'stop',
      sentence: `Stop: the receiver gets ${dbm(last.readingDbm)} behind its pad, ${dbm(allowedDbm)} is the most.`,
    };
  if (offLine(last))
    return {
      state: 'stop',
      sentence:
        (last.offLineDb ?? 0) < 0
          ? `Stop: the reading rose ${fixed(-(last.offLineDb ?? 0), 1)} dB less than the power. The receiver, or an amplifier before it, compresses: what it shows is no longer what arrives. Put in more pad and begin again.`
          : `Stop: the reading rose ${fixed(last.offLineDb ?? 0, 1)} dB more than the power. A contact, an arc or a relay changed: look for it before the next watt.`,
    };
  if (last.powerW >= fullW * (1 - 1e-9))
    return { state: 'done', sentence: 'Full power is reached, and every step lay on the line.' };
  const strongest = Math.min(
    ...losses,
    ...(last.lossDb === undefined ? [wattsToDbm(last.powerW) - last.inputDbm] : [last.lossDb]),
  );
  const nextW = nextPowerW(terms, last.powerW);
  const nextDbm = wattsToDbm(nextW);
  const mostDbm = nextDbm - strongest - attenuatorDb + 2 * READING_DB;
  if (mostDbm > allowedDbm) {
    const room = Math.ceil(mostDbm - allowedDbm);
    return losses.length >= 2
      ? {
          state: 'done',
          sentence: `The next step could bring ${dbm(mostDbm)} behind the pad. ${losses.length} steps on the line are enough to tell the rest.`,
        }
      : {
          state: 'pad',
          neededDb: attenuatorDb + room,
          sentence: `Put in ${room} dB more pad before the next step, and begin again.`,
        };
  }
  return {
    ...{ state: 'go', powerW: nextW, expectedDbm: nextDbm - strongest - attenuatorDb, mostDbm },
    sentence: `Next ${watts(nextW)}: about ${dbm(nextDbm - strongest - attenuatorDb)} should show.`,
  };
}

/**
 * The power after this one: the largest that the radio can be set to within a step of 6 dB; where its own next one lies farther, that one.
 * Without powers of its own four times as much, in two figures. Never more than the full power.
 */
function nextPowerW({ fullW, stepsW = [] }: TestTerms, nowW: number): number {
  const mostW = nowW * powerRatio(STEP_DB);
  const own = [...stepsW, fullW].filter((one) => one > nowW * (1 + 1e-9) && one <= fullW).sort((a, b) => a - b);
  if (stepsW.length > 0) return own.filter((one) => one <= mostW * (1 + STEP_ROOM)).at(-1) ?? own[0] ?? fullW;
  if (fullW <= mostW * (1 + STEP_ROOM)) return fullW;
  const roomyW = mostW * (1 + STEP_ROOM);
  const scale = 10 ** (Math.floor(Math.log10(roomyW)) - 1);
  return (Math.floor(roomyW / scale + 1e-9) || 1) * scale;
}
/** Four times the power is called 6 dB. */
const STEP_ROOM = 0.005;

/** A measured loss against the one that the model gives, and what usually explains a difference. */
export function testAgainstModel(
  measuredDb: number,
  modelDb: number,
): { readonly agrees: boolean; readonly sentence: string } {
  const off = measuredDb - modelDb;
  if (Math.abs(off) <= AGREES_DB)
    return { agrees: true, sentence: `The model says ${fixed(modelDb, 1)} dB: they agree within ${AGREES_DB} dB.` };
  return off < 0
    ? {
        agrees: false,
        sentence: `The model says ${fixed(modelDb, 1)} dB, ${fixed(-off, 1)} dB more than measured: something else leads there. Usually the outside of a feed line without a choke, a common supply, or a switch that leaks.`,
      }
    : {
        agrees: false,
        sentence: `The model says ${fixed(modelDb, 1)} dB, ${fixed(off, 1)} dB less than measured: some of it is lost on the way. Usually lines, a mismatch, a filter, or an antenna that is not connected.`,
      };
}
/** Models of antennas over a garden are right to about this. Common practice, no source. */
const AGREES_DB = 3;
