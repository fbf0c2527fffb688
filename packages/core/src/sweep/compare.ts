import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { frequencyText } from '../units/format';
import { median, quantile } from '../numeric/statistics';
import { absorptionDips, lossesDb, type AbsorptionDip } from './absorption';
import { markerAt } from './analyse';
import type { SweepData } from '../formats/touchstone';

/** A dip before and what became of it. */
interface DipChange {
  readonly before: AbsorptionDip;
  readonly after?: AbsorptionDip;
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
const REACH = 0.28;
/** Dips moved together when the least moved at least this share of what the most did. */
const ALIKE = 0.4;
/** Loss there and back that grew by this much, dB at the sweep's middle, is no drift of the analyser. Common practice, no source. */
const MORE_LOSS_DB = 0.12;

/** Pairs dips of two states, nearest first, each used once. */
function matchDips(before: readonly AbsorptionDip[], after: readonly AbsorptionDip[]): readonly DipChange[] {
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

/** Growth of the loss over what two states of one span share. */
interface LossGrowth {
  /** Median growth there and back, dB at the middle of the span. */
  readonly db: number;
  /** Whether it grew everywhere alike, as in a line, and not here and there, as where a dip went. */
  readonly everywhere: boolean;
}

function lossGrowth(before: readonly SweepData[], after: readonly SweepData[]): LossGrowth | undefined {
  const growth: number[] = [];
  for (const now of after)
    for (const then of before) {
      const losses = lossesDb(now);
      now.freqHz.forEach((freq, i) => {
        const old = markerAt(then, freq);
        if (!old) return;
        const was = -10 * Math.log10(Math.max(1e-9, old.gamma.re ** 2 + old.gamma.im ** 2));
        growth.push((losses[i] - was) / Math.sqrt(freq));
      });
    }
  if (growth.length < 10) return undefined;
  const first = after[0].freqHz;
  const middle = Math.sqrt((first[0] + first[first.length - 1]) / 2);
  const typical = median(growth);
  return { db: typical * middle, everywhere: typical > 0 && quantile(growth, 0.2) > 0.4 * typical };
}

/** How a far end reflects that takes nothing: phase at 0 Hz, continued through the line along a straight line. */
function endPhaseDeg(sweep: SweepData): number {
  const n = sweep.freqHz.length;
  let turned = 0;
  let last = Math.atan2(sweep.im[0], sweep.re[0]);
  const phase = Float64Array.from({ length: n }, (_, i) => {
    const now = Math.atan2(sweep.im[i], sweep.re[i]);
    if (now - last > Math.PI) turned -= 2 * Math.PI;
    else if (now - last < -Math.PI) turned += 2 * Math.PI;
    last = now;
    return now + turned;
  });
  const meanF = sweep.freqHz.reduce((sum, f) => sum + f, 0) / n;
  const meanP = phase.reduce((sum, p) => sum + p, 0) / n;
  let above = 0;
  let below = 0;
  sweep.freqHz.forEach((f, i) => {
    above += (f - meanF) * (phase[i] - meanP);
    below += (f - meanF) ** 2;
  });
  const slope = below === 0 ? 0 : above / below;
  const atZero = ((meanP - slope * meanF) * 180) / Math.PI;
  return ((((atZero + 180) % 360) + 360) % 360) - 180;
}

/** Electrical length of a line that ends in a total reflection, m of free space, by the turn of its phase. */
function endDistanceM(sweep: SweepData): number {
  let turn = 0;
  for (let i = 1; i < sweep.freqHz.length; i += 1) {
    const re = sweep.re[i] * sweep.re[i - 1] + sweep.im[i] * sweep.im[i - 1];
    const im = sweep.im[i] * sweep.re[i - 1] - sweep.re[i] * sweep.im[i - 1];
    turn += Math.atan2(im, re);
  }
  const span = sweep.freqHz[sweep.freqHz.length - 1] - sweep.freqHz[0];
  return (-turn * SPEED_OF_LIGHT_M_PER_S) / (4 * Math.PI * span);
}

/**
 * What happened between two measurements of one antenna: dips matched, and causes ranked with their reasons. Several sweeps of each
 * state may be given, one a band.
 */
export function findFault(before: readonly SweepData[], after: readonly SweepData[]): FaultFinding {
  const dips = matchDips(before.flatMap(absorptionDips), after.flatMap(absorptionDips));
  const causes = causesOf(dips, before, after)
    .sort((a, b) => b.weight - a.weight)
    .slice(0, 4);
  const top = causes[0];
  // what hangs on the wire is taken off, not cut away
  const tuningJob = top.id === 'moved';
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

const ratio = (dip: DipChange): number => (dip.shiftHz ?? 0) / dip.before.freqHz;

function causesOf(dips: readonly DipChange[], before: readonly SweepData[], after: readonly SweepData[]): Cause[] {
  const gone = dips.filter((dip) => dip.shiftHz === undefined);
  const moved = dips.filter((dip) => dip.shiftHz !== undefined && Math.abs(ratio(dip)) > STILL);
  const growth = lossGrowth(before, after);
  const found = [...lineCauses(growth), ...feedCauses(dips, gone, after), ...wireCauses(dips, gone, moved)];
  // beside a dip that moved nobody is told that every dip is where it was
  if (gone.length + moved.length === 0)
    return [
      ...found,
      {
        id: 'none',
        name: 'Nothing changed that a sweep shows',
        reason: 'every dip is where it was and as deep.',
        weight: 0.5,
      },
    ];
  return found.length > 0
    ? found
    : [
        {
          id: 'none',
          name: 'No cause that is known here fits',
          reason:
            'the dips changed, but not as an open, a short, water or a wire would change them. Sweep again before you act.',
          weight: 0.02,
        },
      ];
}

function lineCauses(growth: LossGrowth | undefined): Cause[] {
  if (!growth?.everywhere || growth.db < MORE_LOSS_DB) return [];
  return [
    {
      id: 'water',
      name: 'Loss in the line grew, as by water in the cable or a bad plug',
      weight: 0.8 + Math.min(0.15, growth.db / 20),
      reason: `all over the sweep the line takes ${(growth.db / 2).toFixed(1)} dB more than before, each way, so every SWR looks better than it is.`,
    },
  ];
}

function feedCauses(dips: readonly DipChange[], gone: readonly DipChange[], after: readonly SweepData[]): Cause[] {
  if (dips.length === 0 || gone.length < dips.length || after.some((sweep) => absorptionDips(sweep).length > 0))
    return [];
  // a whole turn between open and short: each sweep votes with how near its end is to one of them
  const votes = after.reduce((sum, sweep) => sum + Math.cos((endPhaseDeg(sweep) * Math.PI) / 180), 0);
  const where = `the end of the line, ${Math.max(0, endDistanceM(after[0])).toFixed(0)} m of free space away`;
  return votes > 0
    ? [
        {
          id: 'open-feed',
          name: 'The feed is open',
          weight: 0.9,
          reason: `everything comes back from ${where}, as from an open end: a plug, a solder joint or the wire at the feed has parted.`,
        },
        {
          id: 'short-feed',
          name: 'The feed is shorted',
          weight: 0.2,
          reason: 'the phase of what comes back speaks against it.',
        },
      ]
    : [
        {
          id: 'short-feed',
          name: 'The feed is shorted',
          weight: 0.9,
          reason: `everything comes back from ${where}, as from a short: a whisker of shield, water or a pinched cable.`,
        },
        {
          id: 'open-feed',
          name: 'The feed is open',
          weight: 0.2,
          reason: 'the phase of what comes back speaks against it.',
        },
      ];
}

function wireCauses(dips: readonly DipChange[], gone: readonly DipChange[], moved: readonly DipChange[]): Cause[] {
  const causes: Cause[] = [];
  const add = (id: Cause['id'], name: string, weight: number, reason: string): void => {
    causes.push({ id, name, weight, reason });
  };
  const sizes = moved.map((dip) => Math.abs(ratio(dip)));
  const alike =
    moved.length >= 2 &&
    moved.length === dips.length &&
    moved.every((dip) => Math.sign(ratio(dip)) === Math.sign(ratio(moved[0]))) &&
    Math.min(...sizes) > ALIKE * Math.max(...sizes);
  if (alike)
    add(
      'together',
      'All dips shifted together',
      0.85,
      ratio(moved[0]) > 0
        ? 'what all wires share changed: the feed point, the mast, the radials or a wire that all hang on became shorter or came off.'
        : 'what all wires share changed: ice or water on the wires, a lower height, or longer common leads.',
    );
  if (gone.length > 0 && gone.length < dips.length)
    add(
      'wire-down',
      'A wire is down or open',
      0.8,
      `only the dip at ${frequencyText(gone[0].before.freqHz)} is gone while others remain.`,
    );
  const worst = [...moved].sort((a, b) => Math.abs(ratio(b)) - Math.abs(ratio(a)))[0];
  if (!worst) return causes;
  if (ratio(worst) > BROKEN)
    add(
      'broken',
      'The wire is too short or open',
      0.75,
      `its dip rose by ${(100 * ratio(worst)).toFixed(0)} %, more than weather or trimming does: a piece is off, or a joint inside it is open.`,
    );
  else if (ratio(worst) < -BROKEN)
    add(
      'longer',
      'Something was added to the wire, or it touches something',
      0.7,
      `its dip fell by ${(-100 * ratio(worst)).toFixed(0)} %: a longer end, a branch or wet leaves on it, or a lower height.`,
    );
  else
    add(
      'moved',
      'The wire was stretched, sags or stands otherwise',
      0.55,
      `its dip moved by ${(100 * Math.abs(ratio(worst))).toFixed(1)} %, within what sag, weather and trimming do.`,
    );
  return causes;
}
