import { frequencyText, lengthText } from '../units/format';
import type { Resonance } from './analyse';
import type { NextCut } from './trim';

/** The dip that belongs to a target: the nearest, by ratio; without a target the deepest. Dips come deepest first. */
export function dipOf(dips: readonly Resonance[], targetHz: number | undefined): Resonance | undefined {
  if (targetHz === undefined) return dips[0];
  const off = ({ freqHz }: Resonance): number => Math.abs(Math.log(freqHz / targetHz));
  return dips.reduce<Resonance | undefined>((near, dip) => (!near || off(dip) < off(near) ? dip : near), undefined);
}

/** How an antenna stands to its target, and what to do. */
type BenchState =
  | 'nothing measured'
  | 'stale'
  | 'fault'
  | 'flat'
  | 'no target'
  | 'on target'
  | 'cut'
  | 'too short'
  | 'stop'
  | 'length wanted';

/** The Bench's verdict as data: page, mast page, report and rail read this. */
export interface BenchVerdict {
  readonly state: BenchState;
  /** The dip that counts, Hz. */
  readonly dipHz?: number;
  /** Target less dip, Hz; positive: too low. */
  readonly offHz?: number;
  /** Only in the state `cut`. */
  readonly cutM?: number;
  readonly sentence: string;
  readonly next: string;
}

/** Within this share of the target it is on it. */
const ON_TARGET_RATIO = 0.0005;

/** What a state of cutting asks for; the one place for these sentences. */
export const CUT_WORDS: Readonly<Record<NextCut['state'], string>> = {
  cut: 'Cut it, then sweep again.',
  done: 'On target: do not cut any more; seal the feed and compare it on the air.',
  'too short': 'It is already too short for its target: do not cut. Lengthen it by a new piece, or accept the band.',
  'too far':
    'So far off is no trimming job: do not cut. Make sure that this dip belongs to this antenna, and compare its length with the draft.',
  'getting worse': 'It went the wrong way: do not cut. Look for another wire or a loose joint.',
};

/**
 * @param dips of the latest sweep, deepest first; undefined: no sweep. @param cut advice from the trim diary; undefined: no length written down.
 * @param lastReadingHz the dip of the diary's last row. @param fault the comparison's sentence when it names no tuning job.
 */
export function benchVerdict({
  dips,
  targetHz,
  cut,
  trimName,
  lastReadingHz,
  fault,
  stale,
}: {
  readonly dips?: readonly Resonance[];
  readonly targetHz?: number;
  readonly cut?: NextCut;
  readonly trimName: string;
  readonly lastReadingHz?: number;
  readonly fault?: string;
  /** Why the latest sweep does not speak for the antenna as it stands. */
  readonly stale?: string;
}): BenchVerdict {
  if (fault !== undefined)
    return { state: 'fault', sentence: fault, next: 'Find the cause first; cutting does not cure it.' };
  if (stale !== undefined)
    return {
      state: 'stale',
      sentence: `The latest sweep is of another state. ${stale}`,
      next: 'Sweep it again before any cut.',
    };
  if (!dips && lastReadingHz === undefined)
    return { state: 'nothing measured', sentence: 'Nothing measured yet.', next: 'Import a sweep of the antenna.' };
  const dip = dips && dipOf(dips, targetHz);
  if (dips && !dip)
    return {
      state: 'flat',
      sentence: 'There is no dip inside this sweep.',
      next: 'Sweep a wider span; if it stays flat, look for an open or shorted feed.',
    };
  const dipHz = dip?.freqHz ?? lastReadingHz ?? 0;
  if (targetHz === undefined)
    return {
      state: 'no target',
      dipHz,
      sentence: `The dip sits at ${frequencyText(dipHz, 4)}.`,
      next: 'Choose the antenna it belongs to, so that it has a target.',
    };
  const offHz = targetHz - dipHz;
  const close = Math.abs(offHz) < targetHz * ON_TARGET_RATIO;
  const others =
    dips && dips.length > 1 && dip !== dips[0]
      ? ` Another dip, at ${frequencyText(dips[0].freqHz, 4)}, is deeper and not meant.`
      : '';
  const where = `The dip sits at ${frequencyText(dipHz, 4)}, ${close ? 'on target' : `${frequencyText(Math.abs(offHz), 3)} too ${offHz > 0 ? 'low' : 'high'}`}.${others}`;
  const common = { dipHz, offHz, sentence: where };
  if (!cut)
    return close
      ? { ...common, state: 'on target', next: CUT_WORDS.done }
      : {
          ...common,
          state: 'length wanted',
          next: 'Enter the present length in the trim diary; the first cut follows from it.',
        };
  switch (cut.state) {
    case 'cut':
      // the diary may lag behind the sweep: what the sweep shows on target is not cut
      return close
        ? { ...common, state: 'on target', next: CUT_WORDS.done }
        : offHz < 0
          ? { ...common, state: 'too short', next: CUT_WORDS['too short'] }
          : {
              ...common,
              state: 'cut',
              cutM: cut.cutM,
              next: `Cut ${lengthText(cut.cutM, 2)} off ${trimName}, then sweep again.`,
            };
    case 'done':
      return close
        ? { ...common, state: 'on target', next: CUT_WORDS.done }
        : {
            ...common,
            state: 'length wanted',
            next: 'The diary’s last reading was on target, this sweep is not: write its length and dip down before any cut.',
          };
    case 'too short':
      return { ...common, state: 'too short', next: CUT_WORDS['too short'] };
    case 'too far':
    case 'getting worse':
      return { ...common, state: 'stop', next: CUT_WORDS[cut.state] };
  }
}

/** How a coil that noise was recorded through stands to its target. */
interface CoilVerdict {
  readonly state: 'not measured' | 'half measured' | 'unclear' | 'no target' | 'on target' | 'above' | 'below';
  readonly sentence: string;
  readonly next: string;
}

/**
 * The verdict of a coil by noise.
 * @param recorded which recordings there are. @param peak resonance between the two; undefined while it is computed. @param fault why none was found.
 */
export function coilVerdict({
  recorded,
  peak,
  fault,
  targetHz,
}: {
  readonly recorded: { readonly on: boolean; readonly off: boolean };
  readonly peak?: { readonly centreHz: number; readonly q: number };
  readonly fault?: string;
  readonly targetHz?: number;
}): CoilVerdict {
  if (!recorded.on || !recorded.off)
    return recorded.on || recorded.off
      ? {
          state: 'half measured',
          sentence: `Only the recording with the noise source ${recorded.on ? 'on' : 'off'} is there.`,
          next: `Record it with the source ${recorded.on ? 'off' : 'on'}, too: the resonance is the difference of the two.`,
        }
      : {
          state: 'not measured',
          sentence: 'The resonance of this coil is not measured yet. Noise shows it, and its Q, without an analyser.',
          next: 'Record a spectrum with the noise source on, and one with it off.',
        };
  if (!peak)
    return {
      state: 'unclear',
      sentence: fault ?? 'The resonance between the two recordings is being computed.',
      next: fault === undefined ? 'Wait a moment.' : 'Record both again, closer to the coil.',
    };
  const where = `It resonates at ${frequencyText(peak.centreHz, 4)} with a Q of ${peak.q.toFixed(0)}`;
  if (targetHz === undefined)
    return { state: 'no target', sentence: `${where}.`, next: 'Enter the target; what to add or take off follows.' };
  const offHz = peak.centreHz - targetHz;
  if (Math.abs(offHz) <= SEAL_RATIO * targetHz)
    return {
      state: 'on target',
      sentence: `${where}: on its target of ${frequencyText(targetHz, 4)}.`,
      next: 'Measure it in three positions; if they agree, it may be sealed.',
    };
  const off = `${where}: ${frequencyText(Math.abs(offHz), 3)} ${offHz > 0 ? 'above' : 'below'} its target of ${frequencyText(targetHz, 4)}.`;
  return offHz > 0
    ? { state: 'above', sentence: off, next: 'Add capacitance; how much follows from the capacitor that is in it.' }
    : { state: 'below', sentence: off, next: 'Take capacitance off, or turns.' };
}

/** Whether a coil may be sealed for good. */
export interface SealingVerdict {
  readonly mayBeSealed: boolean;
  readonly sentence: string;
}

/** A coil tuned to within this share of its target is on it. */
const SEAL_RATIO = 0.004;

/** Sealing cannot be undone: it waits for three positions that agree, on the target, measured inside the tube that it will be sealed in. */
export function sealingVerdict(
  readingsHz: readonly number[],
  targetHz: number,
  { insideTube }: { readonly insideTube: boolean },
): SealingVerdict {
  const no = (sentence: string): SealingVerdict => ({ mayBeSealed: false, sentence });
  if (readingsHz.length < 3)
    return no(
      readingsHz.length === 0
        ? 'Three positions are wanted; none is measured yet.'
        : `Three positions are wanted; ${readingsHz.length} ${readingsHz.length === 1 ? 'is' : 'are'} measured.`,
    );
  const spreadHz = Math.max(...readingsHz) - Math.min(...readingsHz);
  const meanHz = readingsHz.reduce((sum, value) => sum + value, 0) / readingsHz.length;
  const limitHz = SEAL_RATIO * meanHz;
  if (spreadHz > limitHz)
    return no(
      `Spread ${frequencyText(spreadHz, 3)} is above ${frequencyText(limitHz, 3)}: do not seal. A joint or the rod is loose, or it was dropped: find it first.`,
    );
  const offHz = meanHz - targetHz;
  if (Math.abs(offHz) > SEAL_RATIO * targetHz)
    return no(
      `The positions agree, but on ${frequencyText(meanHz, 4)}: ${frequencyText(Math.abs(offHz), 3)} ${offHz > 0 ? 'above' : 'below'} the target. ${offHz > 0 ? 'Add capacitance' : 'Take capacitance off'} before it is sealed.`,
    );
  if (!insideTube)
    return no(
      'The positions agree on the target. Measure them once more inside the tube that it will be sealed in, then tick it.',
    );
  return {
    mayBeSealed: true,
    sentence: `Spread ${frequencyText(spreadHz, 3)} is within ${frequencyText(limitHz, 3)}, on the target, measured in its tube: what waits for this test in the build plan may follow.`,
  };
}
