import type { FilterDesign, GoalResult, PassGoal, StopGoal } from './design';
import { OutOfRangeError } from '../errors';
import type { FilterShape } from './response';
import { EDGE_RATIO } from './start';

/** A band that somebody wants to hear, Hz. */
export interface GoalBand {
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
}
/** A carrier at the antenna. */
export interface GoalCarrier {
  readonly name: string;
  readonly freqHz: number;
}

/** What a shape with its edges is to reach, and what it leaves alone or takes away. */
export interface FilterGoals {
  /** The wanted band stands first, whether the shape passes it or not. */
  readonly passes: readonly PassGoal[];
  readonly stops: readonly StopGoal[];
  /** Carriers in the pass band of the shape: this filter does nothing against them. */
  readonly left: readonly GoalCarrier[];
  /** Other wanted bands that the shape stops, wholly or in part. */
  readonly lost: readonly GoalBand[];
}

/** Whether a shape is meant to pass a frequency. */
function meantToPass(shape: FilterShape, edgesHz: readonly number[], freqHz: number): boolean {
  if (shape === 'lowpass') return freqHz <= edgesHz[0];
  if (shape === 'highpass') return freqHz >= edgesHz[0];
  const inside = freqHz >= edgesHz[0] && freqHz <= (edgesHz[1] ?? Infinity);
  return shape === 'bandpass' ? inside : !inside;
}

/** The frequency of a band that a shape takes most from: the deepest in its stop band, or the nearest to it. */
function worstOf(shape: FilterShape, edgesHz: readonly number[], { lowHz, highHz }: GoalBand): number {
  if (shape === 'lowpass') return highHz;
  if (shape === 'highpass') return lowHz;
  const centre = Math.sqrt(edgesHz[0] * (edgesHz[1] ?? edgesHz[0]));
  const far = (freqHz: number): number => Math.abs(Math.log(freqHz / centre));
  if (shape === 'bandpass') return far(lowHz) > far(highHz) ? lowHz : highHz;
  return Math.min(highHz, Math.max(lowHz, centre)); // of a band-stop the middle, as near as the band comes to it
}

const bandPasses = (shape: FilterShape, edgesHz: readonly number[], band: GoalBand): boolean =>
  meantToPass(shape, edgesHz, worstOf(shape, edgesHz, band));

/**
 * The goals of a filter. That the wanted band passes is the first of them and holds for every shape: a filter that stops what one wants to hear
 * misses it. Other wanted bands and carriers are goals where the shape can serve them, and are named where it cannot.
 * @param stopDb least loss asked at carriers, dB; @param passDb most loss allowed over wanted bands, dB.
 */
export function filterGoals({
  shape,
  edgesHz,
  wanted,
  others,
  carriers,
  stopDb,
  passDb,
}: {
  readonly shape: FilterShape;
  readonly edgesHz: readonly number[];
  readonly wanted: GoalBand;
  readonly others: readonly GoalBand[];
  readonly carriers: readonly GoalCarrier[];
  readonly stopDb: number;
  readonly passDb: number;
}): FilterGoals {
  const goal = (band: GoalBand): PassGoal => ({
    name: band.name,
    freqHz: worstOf(shape, edgesHz, band),
    mostDb: passDb,
  });
  const beside = others.filter(
    ({ name, lowHz, highHz }) => !(name === wanted.name && lowHz === wanted.lowHz && highHz === wanted.highHz),
  );
  return {
    passes: [goal(wanted), ...beside.filter((band) => bandPasses(shape, edgesHz, band)).map(goal)],
    stops: carriers
      .filter(({ freqHz }) => !meantToPass(shape, edgesHz, freqHz))
      .map(({ name, freqHz }) => ({ name, freqHz, leastDb: stopDb })),
    left: carriers.filter(({ freqHz }) => meantToPass(shape, edgesHz, freqHz)),
    lost: beside.filter((band) => !bandPasses(shape, edgesHz, band)),
  };
}

/** What a design does for its goals: whether the wanted band passes stands ahead of everything else. */
export interface FilterFinding {
  /** spoils: the wanted band loses more than allowed; missed: it passes, another goal is missed; holds: every goal is met. */
  readonly state: 'spoils' | 'missed' | 'holds';
  readonly wanted: GoalResult;
  /** Carriers stopped as asked, of all that were given. */
  readonly stopped: number;
  readonly carriers: number;
}

/** The finding of a design by its goals. @throws OutOfRangeError for a design without a wanted band. */
export function filterFinding(design: FilterDesign, goals: FilterGoals): FilterFinding {
  const wanted = design.passes.at(0);
  if (!wanted) throw new OutOfRangeError('This filter has no wanted band. Enter what is to pass.', 'passes');
  return {
    state: wanted.met ? (design.met ? 'holds' : 'missed') : 'spoils',
    wanted,
    stopped: design.stops.filter(({ met }) => met).length,
    carriers: goals.stops.length + goals.left.length,
  };
}

/** Least ratio between a wanted band and an edge: with parts of 2 to 5 % a nearer edge falls into the band. Common practice, no source. */
const LEAST_EDGE_RATIO = 1.03;

/** A shape with its edges, Hz. */
export interface FilterStart {
  readonly shape: FilterShape;
  readonly edgesHz: readonly number[];
}

/**
 * The shape and edges to begin with: the wanted band passes, and the carriers beside it decide what is stopped. Carriers above it alone ask for a
 * low-pass, carriers below it alone for a high-pass, both for a band-pass. Other wanted bands that lie between the same two carriers pass with it.
 * An edge stands 15 % outside the bands, or half way (in ratio) to a nearer carrier. A carrier inside the wanted band decides nothing: no filter
 * parts the two.
 * @param carriers those that are to be stopped; none: a low-pass above the wanted band.
 */
export function filterStart(
  wanted: GoalBand,
  others: readonly GoalBand[],
  carriers: readonly GoalCarrier[],
): FilterStart {
  const below = Math.max(...carriers.map(({ freqHz }) => freqHz).filter((freqHz) => freqHz < wanted.lowHz), 0);
  const above = Math.min(...carriers.map(({ freqHz }) => freqHz).filter((freqHz) => freqHz > wanted.highHz), Infinity);
  const together = [wanted, ...others.filter((band) => band.lowHz > below && band.highHz < above)];
  const lowHz = Math.min(...together.map((band) => band.lowHz));
  const highHz = Math.max(...together.map((band) => band.highHz));
  const room = (ratio: number): number => Math.max(LEAST_EDGE_RATIO, Math.min(EDGE_RATIO, Math.sqrt(ratio)));
  const low = Number((lowHz / room(lowHz / below)).toPrecision(4));
  const high = Number((highHz * room(above / highHz)).toPrecision(4));
  if (below > 0 && above < Infinity) return { shape: 'bandpass', edgesHz: [low, high] };
  return below > 0 ? { shape: 'highpass', edgesHz: [low] } : { shape: 'lowpass', edgesHz: [high] };
}
