import type { KindId } from './kind';

/** Something that wants looking at again and again. */
interface Duty {
  readonly name: string;
  readonly kind: 'ropes' | 'joints' | 'rods' | 'paint' | 'battery' | 'calibration' | 'storm' | 'other';
  readonly everyDays: number;
}

const YEAR = 365;
/** How often, by what the place does to it; intervals are common practice, no source. */
const BY_THE_SEA = 0.5;

/** Kinds that live under a roof, lie on the ground, or stand as rods and tubes; all others hang on ropes. */
const INDOORS = new Set<KindId>(['ferrite-rod', 'tuned-frame', 'window-loop', 'indoor-wire']);
const ON_GROUND = new Set<KindId>(['ground-laid-wire', 'ground-loop']);
const RODS = new Set<KindId>([
  ...['yagi', 'vertical-over-radials', 'quarter-wave', 'whip-on-surface', 'discone', 'dish', 'horn', 'v-dipole'],
  ...[
    'flat-v-dipole',
    'field-probe',
    'rectangle-beam',
    'amplified-loop',
    'crossed-loops',
    'phased-loops',
    'gutter',
    'turnstile',
  ],
  ...['j-half-wave', 'collinear', 'whip-on-sheet', 'quadrifilar', 'axial-helix', 'patch', 'log-periodic'],
]);

/**
 * What an antenna of a kind wants looked at, and how often. Intervals are common practice, no source: half of it by the sea.
 * @param salty within reach of salt spray
 */
export function dutiesFor(kind: KindId, salty: boolean): readonly Duty[] {
  const share = salty ? BY_THE_SEA : 1;
  const every = (days: number): number => Math.round(days * share);
  const joints: Duty = {
    name: 'Joints, feed point and seals: no corrosion, dry, tight',
    kind: 'joints',
    everyDays: every(YEAR),
  };
  if (INDOORS.has(kind))
    return [{ name: 'Winding, wire and joints: no crack, nothing loose', kind: 'joints', everyDays: every(2 * YEAR) }];
  if (ON_GROUND.has(kind))
    return [
      joints,
      { name: 'Wire along the ground: no damage, clear of the mower', kind: 'other', everyDays: every(YEAR / 2) },
    ];
  if (RODS.has(kind))
    return [
      joints,
      { name: 'Rods, clamps and bolts: no crack, no play', kind: 'rods', everyDays: every(YEAR) },
      { name: 'Paint and galvanising of mast and clamps', kind: 'paint', everyDays: every(3 * YEAR) },
    ];
  return [
    joints,
    { name: 'Ropes, pulleys and insulators: no chafing, no stretch', kind: 'ropes', everyDays: every(YEAR / 2) },
  ];
}

const DAY_MS = 86_400_000;
/** A storm wants a look within so many days. */
export const AFTER_STORM_DAYS = 3;
/** A calibration older than this no longer counts as fresh, days: common practice, no source. */
export const CALIBRATION_DAYS = 365;
/** Told so many days ahead, so that a dry Saturday can be found. */
const AHEAD_DAYS = 14;

/** When a duty is due and how it stands. */
interface DutyState {
  readonly dueMs: number;
  readonly state: 'late' | 'due' | 'later' | 'finished';
}

/** When a duty is due: an interval after it was last done, or after it was begun. The look after a storm is finished once it was done. */
export function dutyState(
  {
    kind,
    everyDays,
    sinceMs,
    doneMs,
  }: { readonly kind: string; readonly everyDays: number; readonly sinceMs: number; readonly doneMs: number | null },
  nowMs: number,
): DutyState {
  if (kind === 'storm' && doneMs !== null) return { dueMs: doneMs, state: 'finished' };
  const dueMs = (doneMs ?? sinceMs) + everyDays * DAY_MS;
  return { dueMs, state: nowMs > dueMs ? 'late' : nowMs > dueMs - AHEAD_DAYS * DAY_MS ? 'due' : 'later' };
}
