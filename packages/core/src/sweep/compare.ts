import { frequencyText } from '../units/format';
import { findResonances, type Resonance } from './analyse';
import type { SweepData } from '../formats/touchstone';

/** A dip before and what became of it. */
export interface DipChange {
  readonly before: Resonance;
  readonly after?: Resonance;
  /** After minus before, Hz; absent when it vanished. */
  readonly shiftHz?: number;
}

/** A mechanical cause with why it is thought of. */
export interface Cause {
  readonly id: 'open-feed' | 'short-feed' | 'wire-down' | 'broken' | 'water' | 'moved' | 'together' | 'longer' | 'none';
  readonly name: string;
  readonly reason: string;
  /** Likelihood among those named, 0 to 1; a ranking, no measurement. */
  readonly weight: number;
}

export interface FaultFinding {
  readonly dips: readonly DipChange[];
  readonly causes: readonly Cause[];
  /** Whether cutting or lengthening can cure it. */
  readonly tuningJob: boolean;
  readonly sentence: string;
}

/** A dip that moved less than this is where it was: weather and reading, ratio. Common practice, no source. */
const STILL = 0.004;
/** Beyond this no trimming explains a move: something broke, ratio. Common practice, no source. */
const BROKEN = 0.04;
/** A dip is looked for within this ratio of where it was. */
const REACH = 0.25;

/** Pairs dips of two states, nearest first, each used once. */
export function matchDips(before: readonly Resonance[], after: readonly Resonance[]): readonly DipChange[] {
  const pairs = before
    .flatMap((a, i) => after.map((b, j) => ({ i, j, off: Math.abs(Math.log(b.freqHz / a.freqHz)) })))
    .filter(({ off }) => off < Math.log(1 + REACH))
    .sort((a, b) => a.off - b.off);
  const partner = new Map<number, number>();
  const used = new Set<number>();
  for (const { i, j } of pairs)
    if (!partner.has(i) && !used.has(j)) {
      partner.set(i, j);
      used.add(j);
    }
  return before.map((one, i): DipChange => {
    const j = partner.get(i);
    return j === undefined ? { before: one } : { before: one, after: after[j], shiftHz: after[j].freqHz - one.freqHz };
  });
}

/** Mean share of the power that comes back over a sweep: near 1 all of it, lower the more is lost on the way. */
const meanReturn = (sweep: SweepData): number => {
  let sum = 0;
  for (let i = 0; i < sweep.freqHz.length; i += 1) sum += sweep.re[i] ** 2 + sweep.im[i] ** 2;
  return sum / sweep.freqHz.length;
};

/** Reflection far from any dip: what a line returns when nothing takes power at its end; the 90th percentile of |Γ|². */
const shoulder = (sweep: SweepData): number => {
  const all = Array.from(sweep.freqHz, (_, i) => sweep.re[i] ** 2 + sweep.im[i] ** 2).sort((a, b) => a - b);
  return all[Math.floor(0.9 * (all.length - 1))];
};

/** Circle that the reading turns on where nothing radiates: at an open end or a short the phase starts at 0° or 180°. */
const lowEndReal = (sweep: SweepData): number => sweep.re[0];

/**
 * What happened between two measurements of one antenna: dips matched, and causes ranked with their reasons. Several sweeps of each
 * state may be given, one a band.
 */
export function findFault(before: readonly SweepData[], after: readonly SweepData[]): FaultFinding {
  const dipsBefore = before.flatMap(dipsOf);
  const dipsAfter = after.flatMap(dipsOf);
  const dips = matchDips(dipsBefore, dipsAfter);
  const causes = causesOf(dips, before, after)
    .sort((a, b) => b.weight - a.weight)
    .slice(0, 4);
  const top = causes[0];
  const tuningJob = top.id === 'moved' || top.id === 'longer';
  return {
    dips,
    causes,
    tuningJob,
    sentence: `${sentenceOf(dips)} ${top.name}: ${top.reason}${tuningJob || top.id === 'none' ? '' : ' This is not a tuning job.'}`,
  };
}

function sentenceOf(dips: readonly DipChange[]): string {
  if (dips.length === 0) return 'There was no dip before to compare with.';
  return dips
    .map(({ before, after, shiftHz }) =>
      after && shiftHz !== undefined
        ? Math.abs(shiftHz) <= STILL * before.freqHz
          ? `The dip at ${frequencyText(before.freqHz)} stayed.`
          : `The dip at ${frequencyText(before.freqHz)} moved by ${frequencyText(Math.abs(shiftHz), 3)} ${shiftHz > 0 ? 'up' : 'down'}, to ${frequencyText(after.freqHz)}.`
        : `The dip at ${frequencyText(before.freqHz)} is gone.`,
    )
    .join(' ');
}

function causesOf(dips: readonly DipChange[], before: readonly SweepData[], after: readonly SweepData[]): Cause[] {
  const causes: Cause[] = [];
  const add = (id: Cause['id'], name: string, weight: number, reason: string): void => {
    causes.push({ id, name, weight, reason });
  };
  const gone = dips.filter((dip) => dip.shiftHz === undefined);
  const moved = dips.filter((dip) => dip.shiftHz !== undefined && Math.abs(dip.shiftHz) > STILL * dip.before.freqHz);
  const ratio = (dip: DipChange): number => (dip.shiftHz ?? 0) / dip.before.freqHz;
  const up = moved.filter((dip) => ratio(dip) > 0);
  const mean = (list: readonly SweepData[]): number =>
    list.reduce((sum, one) => sum + meanReturn(one), 0) / list.length;
  const edge = (list: readonly SweepData[]): number => Math.min(...list.map(shoulder));
  const [shoulderBefore, shoulderAfter] = [edge(before), edge(after)];
  const lossDb = 5 * Math.log10(shoulderBefore / Math.max(1e-9, shoulderAfter));
  if (lossDb > 0.4)
    add(
      'water',
      'Loss in the line grew, as by water in the cable or a bad plug',
      0.5 + Math.min(0.45, lossDb / 3),
      `away from the dips ${lossDb.toFixed(1)} dB more is lost on the way there and back than before, so every SWR looks better than it is.`,
    );
  if (gone.length === dips.length && dips.length > 0 && shoulderAfter > 0.5) {
    const flat = mean(after) > 0.8 && dipsVanished(after);
    if (flat) {
      const real = after.reduce((sum, one) => sum + lowEndReal(one), 0) / after.length;
      if (real > 0)
        add(
          'open-feed',
          'The feed is open',
          0.9,
          'everything comes back and the low end of the sweep stands at an open circuit: a plug, a solder joint or the wire at the feed has parted.',
        );
      else
        add(
          'short-feed',
          'The feed is shorted',
          0.9,
          'everything comes back and the low end of the sweep stands at a short circuit: a whisker of shield, water or a pinched cable.',
        );
    }
  }
  if (moved.length >= 2 && moved.length === dips.length) {
    const spread = Math.max(...moved.map(ratio)) - Math.min(...moved.map(ratio));
    const same = moved.every((dip) => Math.sign(ratio(dip)) === Math.sign(ratio(moved[0])));
    if (same && spread < 0.06)
      add(
        'together',
        'All dips shifted together',
        0.85,
        up.length > 0
          ? 'what all wires share changed: the feed point, the mast, the radials or a wire that all hang on became shorter or came off.'
          : 'what all wires share changed: ice or water on the wires, a lower height, or longer common leads.',
      );
  }
  const worst = [...moved].sort((a, b) => Math.abs(ratio(b)) - Math.abs(ratio(a)))[0];
  if (gone.length > 0 && gone.length < dips.length)
    add(
      'wire-down',
      'A wire is down or open',
      0.8,
      `only the dip at ${frequencyText(gone[0].before.freqHz)} is gone while others remain.`,
    );
  if (worst && ratio(worst) > BROKEN)
    add(
      'broken',
      'The wire is too short or open',
      0.75,
      `its dip rose by ${(100 * ratio(worst)).toFixed(0)} %, more than weather or trimming does: a piece is off, or a joint inside it is open.`,
    );
  if (worst && ratio(worst) < -BROKEN)
    add(
      'longer',
      'Something was added to the wire, or it touches something',
      0.6,
      `its dip fell by ${(-100 * ratio(worst)).toFixed(0)} %: a longer end, a branch or wet leaves on it, or a lower height.`,
    );
  if (worst && Math.abs(ratio(worst)) <= BROKEN)
    add(
      'moved',
      'The wire was stretched, sags or stands otherwise',
      0.55,
      `its dip moved by ${(100 * Math.abs(ratio(worst))).toFixed(1)} %, within what sag, weather and trimming do.`,
    );
  if (causes.length === 0)
    add('none', 'Nothing changed that a sweep shows', 0.5, 'every dip is where it was and as deep.');
  return causes;
}

const dipsVanished = (after: readonly SweepData[]): boolean => after.every((sweep) => dipsOf(sweep).length === 0);

/** A dip that never comes under this SWR is no antenna taking power. Common practice, no source. */
const DIP_SWR = 15;
const dipsOf = (sweep: SweepData): readonly Resonance[] =>
  findResonances(sweep).filter(({ swr }) => swr !== null && swr < DIP_SWR);
