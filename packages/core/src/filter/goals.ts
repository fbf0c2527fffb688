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
  /** Other wanted bands that the shape stops, wholly or in part, where it takes most from them. */
  readonly lost: readonly PassGoal[];
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
    lost: beside.filter((band) => !bandPasses(shape, edgesHz, band)).map(goal),
  };
}

/** What a design does for its goals: whether the wanted band passes stands ahead of everything else. */
export interface FilterFinding {
  /** spoils: the wanted band loses more than allowed; missed: it passes, another goal is missed or cannot be one; holds: everything wanted passes, every carrier is stopped. */
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
    state: !wanted.met ? 'spoils' : design.met && goals.lost.length + goals.left.length === 0 ? 'holds' : 'missed',
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

/** What a shape does not do: bands that it stops of those wanted, carriers that it passes. */
const misses = (
  { shape, edgesHz }: FilterStart,
  bands: readonly GoalBand[],
  carriers: readonly GoalCarrier[],
): number =>
  bands.filter((band) => !bandPasses(shape, edgesHz, band)).length +
  carriers.filter(({ freqHz }) => meantToPass(shape, edgesHz, freqHz)).length;

/**
 * The shape and edges to begin with: the wanted band passes, and of a low-pass, a high-pass, a band-stop and a band-pass that pass it the one that stops
 * fewest other wanted bands and passes fewest carriers, the simplest first. Other wanted bands that lie between the same two carriers pass with it.
 * An edge stands 15 % outside the bands, or half way (in ratio) to a nearer carrier. A carrier inside the wanted band decides nothing: no filter
 * parts the two.
 * @param carriers those that are to be stopped; none: a low-pass above all that is wanted.
 */
export function filterStart(
  wanted: GoalBand,
  others: readonly GoalBand[],
  carriers: readonly GoalCarrier[],
): FilterStart {
  const bands = [wanted, ...others];
  const outside = carriers
    .map(({ freqHz }) => freqHz)
    .filter((freqHz) => freqHz < wanted.lowHz || freqHz > wanted.highHz);
  const below = Math.max(0, ...outside.filter((freqHz) => freqHz < wanted.lowHz));
  const above = Math.min(Infinity, ...outside.filter((freqHz) => freqHz > wanted.highHz));
  const together = [wanted, ...others.filter((band) => band.lowHz > below && band.highHz < above)];
  const room = (ratio: number): number => Math.max(LEAST_EDGE_RATIO, Math.min(EDGE_RATIO, Math.sqrt(ratio)));
  const rounded = (freqHz: number): number => Number(freqHz.toPrecision(4));
  const lowHz = Math.min(...together.map((band) => band.lowHz));
  const highHz = Math.max(...together.map((band) => band.highHz));
  const low = rounded(lowHz / room(lowHz / below));
  const high = rounded(highHz * room(above / highHz));
  // what is wanted beside the carriers on either side bounds a stop
  const least = Math.min(...outside);
  const most = Math.max(...outside);
  const under = Math.max(0, ...bands.map((band) => band.highHz).filter((freqHz) => freqHz < least));
  const over = Math.min(Infinity, ...bands.map((band) => band.lowHz).filter((freqHz) => freqHz > most));
  const stop =
    outside.length > 0 && under > 0 && over < Infinity
      ? [
          {
            shape: 'bandstop' as const,
            edgesHz: [rounded(least / room(least / under)), rounded(most * room(over / most))],
          },
        ]
      : [];
  const [lowpass, highpass]: readonly FilterStart[] = [
    { shape: 'lowpass', edgesHz: [high] },
    { shape: 'highpass', edgesHz: [low] },
  ];
  const starts: readonly FilterStart[] = [
    ...(below > 0 && above === Infinity ? [highpass, lowpass] : [lowpass, highpass]),
    ...stop,
    { shape: 'bandpass', edgesHz: [low, high] },
  ];
  return starts
    .filter(({ shape, edgesHz }) => bandPasses(shape, edgesHz, wanted))
    .reduce((best, one) => (misses(one, bands, carriers) < misses(best, bands, carriers) ? one : best));
}
