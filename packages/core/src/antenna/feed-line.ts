import { OutOfRangeError, requireRange } from '../errors';
import { reflectionOf, swrOf } from '../line/reflection';
import { type Complex, magnitude } from '../numeric/complex';
import { segmentCurrents } from '../solver/current-elements';
import { findPeak, gainRatio } from '../solver/far-field';
import { meshOf } from '../solver/mesh';
import { along, distance, type LumpedLoad, type Point, type Wire, type WireModel } from '../solver/model';
import { nearFieldPerRootWatt } from '../solver/near-field';
import { inputImpedance, type Solution, solveAt } from '../solver/solve';
import { powerDb } from '../units/decibel';
import { COPPER_CONDUCTIVITY_S_PER_M } from '../units/constants';
import { wavelengthM } from '../units/wavelength';

/** A choke on the outside of the cable, as it is stated at the frequency. */
export interface Choke {
  /** Way along the cable from the feed, m. */
  readonly atM: number;
  readonly ohm: number;
  readonly reactanceOhm: number;
}

/** The outside of a cable as a wire. */
export interface FeedLine {
  /** Corners after the feed, in the coordinates of the antenna's wires. */
  readonly corners: readonly Point[];
  /** Of the shield, m. */
  readonly diameterM: number;
  readonly chokes: readonly Choke[];
  /** Two wires of 3 m just over the ground at its far end stand for a stake; else the receiver floats. */
  readonly earthed: boolean;
}

const LINE = 'feed line';
const STAKE_WIRE_M = 3;
const STAKE_HEIGHT_M = 0.05;
/** Corners closer than this are one, m. */
const LEAST_LEG_M = 0.05;

/** Where an antenna is fed, and its wires with the feed at the beginning or end of one: what hangs there joins one side of the gap. */
function withOpenFeed(model: WireModel): { readonly model: WireModel; readonly feed: Point } {
  const [port, ...others] = model.ports;
  const { wire: index, position } = port;
  const wire = model.wires[index];
  const feed = along(wire.from, wire.to, position);
  if (position <= 0 || position >= 1) return { model, feed };
  // the second half comes last, so that the numbers of the others stay
  const last = model.wires.length;
  const moved = <T extends { readonly wire: number; readonly position: number }>(place: T): T =>
    place.wire !== index
      ? place
      : place.position < position
        ? { ...place, position: place.position / position }
        : { ...place, wire: last, position: (place.position - position) / (1 - position) };
  const name = wire.name ?? 'wire';
  return {
    feed,
    model: {
      ...model,
      wires: [
        ...model.wires.map((one, i): Wire => (i === index ? { ...one, name: `${name}, one side`, to: feed } : one)),
        { ...wire, name: `${name}, other side`, from: feed },
      ],
      ports: [{ wire: last, position: 0 }, ...others.map(moved)],
      loads: model.loads.map(moved),
    },
  };
}

/** A choke's series parts at a frequency. */
function asLoad({ ohm, reactanceOhm }: Choke, freqHz: number): Omit<LumpedLoad, 'wire' | 'position'> {
  const omega = 2 * Math.PI * freqHz;
  return {
    ohm,
    ...(reactanceOhm > 0 ? { henry: reactanceOhm / omega } : {}),
    ...(reactanceOhm < 0 ? { farad: -1 / (omega * reactanceOhm) } : {}),
  };
}

/**
 * An antenna with the outside of its cable: the shield joins one side of the feed. Its chokes are loads where they sit.
 * @throws OutOfRangeError for a choke beyond the end of the cable, and for a cable without any length.
 */
export function withFeedLine(antenna: WireModel, line: FeedLine, freqHz: number): WireModel {
  const { model, feed } = withOpenFeed(antenna);
  const corners = line.corners.reduce<Point[]>(
    (all, corner) => (distance(all[all.length - 1], corner) < LEAST_LEG_M ? all : [...all, corner]),
    [feed],
  );
  if (corners.length < 2) throw new OutOfRangeError('The cable has no length. Let it hang or run somewhere.');
  const end = corners[corners.length - 1];
  const stakeAt: Point = [end[0], end[1], Math.min(end[2], STAKE_HEIGHT_M)];
  const drop = line.earthed && end[2] - stakeAt[2] >= LEAST_LEG_M ? [stakeAt] : [];
  const way = [...corners, ...drop];
  const foot = way[way.length - 1];
  const wire = (from: Point, to: Point): Wire => ({
    ...{ name: LINE, from, to, radiusM: line.diameterM / 2 },
    conductivitySPerM: COPPER_CONDUCTIVITY_S_PER_M,
  });
  const legs = way.slice(1).map((to, i) => wire(way[i], to));
  const stake = line.earthed
    ? [-1, 1].map((side) => wire(foot, [foot[0] + side * STAKE_WIRE_M * 0.8, foot[1] + STAKE_WIRE_M * 0.6, foot[2]]))
    : [];
  const first = model.wires.length;
  const lengthM = legs.reduce((sum, leg) => sum + distance(leg.from, leg.to), 0);
  const chokes = line.chokes.map((choke): LumpedLoad => {
    requireRange(choke.ohm, 'Resistance of a choke (Ω)', 0, 1e7);
    let before = 0;
    for (const [i, leg] of legs.entries()) {
      const long = distance(leg.from, leg.to);
      if (choke.atM <= before + long + 1e-9)
        return {
          ...asLoad(choke, freqHz),
          ...{ wire: first + i, position: Math.max(0, Math.min(1, (choke.atM - before) / long)) },
        };
      before += long;
    }
    throw new OutOfRangeError(
      `A choke at ${choke.atM.toFixed(1)} m lies beyond the cable's end at ${lengthM.toFixed(1)} m. Put it nearer to the feed.`,
    );
  });
  return { ...model, wires: [...model.wires, ...legs, ...stake], loads: [...model.loads, ...chokes] };
}

/** Corners of a cable that hangs from the feed and then runs on. @param towardDeg bearing of the run, clockwise from +y. */
export function hangAndRun(
  feed: Point,
  run: { readonly heightM: number; readonly lengthM: number; readonly towardDeg: number },
): readonly Point[] {
  const [x, y, z] = feed;
  const heightM = Math.min(run.heightM, z);
  const turn = (run.towardDeg * Math.PI) / 180;
  const foot: Point = [x, y, heightM];
  const end: Point = [x + run.lengthM * Math.sin(turn), y + run.lengthM * Math.cos(turn), heightM];
  return run.lengthM > 0 ? [foot, end] : [foot];
}

/** What a cable does to an antenna at one frequency. */
export interface FeedLineFigures {
  readonly impedance: Complex;
  readonly swr: number | null;
  readonly peakDbi: number;
  /** Azimuth cut at the elevation asked, dBi, from north clockwise in steps of 5°. */
  readonly azimuthDbi: readonly number[];
  /** Deepest direction of the cut under its strongest, dB. */
  readonly nullDb: number;
  /** Largest current on the cable over that of the feed, dB; −200 without a cable. */
  readonly currentDb: number;
  /** Field at the near source with 1 W at the feed: by reciprocity what it puts into the receiver. dB against 1 V/m per √W. */
  readonly pickUpDb: number;
}

/** An antenna with its cable, a direction of interest and a near source. */
export interface FeedLineQuestion {
  readonly model: WireModel;
  readonly line: FeedLine;
  readonly freqHz: number;
  readonly elevationDeg: number;
  readonly source: Point;
}

/** Everything the room shows. */
export interface FeedLineAnswer {
  readonly alone: FeedLineFigures;
  readonly bare: FeedLineFigures;
  /** With the chokes as stated; absent without any. */
  readonly choked?: FeedLineFigures;
  /** Pick-up with one choke of the stated impedance at each place that was tried, dB against the antenna alone. */
  readonly places: readonly { readonly atM: number; readonly pickUpDb: number; readonly nullDb: number }[];
  readonly best: { readonly atM: number; readonly pickUpDb: number };
  /** Less of the near source comes in with the best choke than without any. */
  readonly helps: boolean;
  /** Least resistance at the best place that brings the pick-up within 1 dB of what the best choke does there, Ω; and what it leaves, dB. */
  readonly neededOhm: number;
  readonly leftDb: number;
}

export const AZIMUTH_STEP_DEG = 5;
const FIFTY_OHM = 50;
const NOTHING_DB = -200;
/** Taken where none is stated, Ω: useful by common practice, no source. */
const USUAL_OHM = 2000;
/** Chokes that are tried, a third of a decade apart. */
const LADDER_OHM = [100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];
/** Places that are tried along the cable: every so many of a wavelength. */
const PLACES_PER_WAVE = 8;
const LEAST_PLACES = 8;
const MOST_PLACES = 16;
const WITHIN_DB = 1;
/** A smaller change is not worth a choke, dB. */
const WORTH_DB = 1;

function solved(model: WireModel, freqHz: number): Solution {
  const mesh = meshOf(model, freqHz, 1);
  return solveAt(model, mesh, freqHz);
}

/** Largest current on the wires of the cable over the current of the feed, dB. */
function currentOnLine(solution: Solution, firstOfLine: number): number {
  const ends = segmentCurrents(solution);
  const { mesh } = solution;
  let most = 0;
  for (let i = 0; i < mesh.segments; i += 1)
    if (mesh.wireOf[i] >= firstOfLine)
      most = Math.max(most, Math.hypot(ends[4 * i], ends[4 * i + 1]), Math.hypot(ends[4 * i + 2], ends[4 * i + 3]));
  // segment currents are those of 1 A into the feed
  return most > 0 ? 2 * powerDb(most) : NOTHING_DB;
}

function figuresOf(model: WireModel, firstOfLine: number, question: FeedLineQuestion): FeedLineFigures {
  const solution = solved(model, question.freqHz);
  const impedance = inputImpedance(solution);
  const gain = gainRatio(solution);
  // bearings: the wires stand with north along +y, the solver counts from +x toward +y
  const azimuthDbi = Array.from({ length: 360 / AZIMUTH_STEP_DEG }, (_, i) =>
    Math.max(-99, powerDb(Math.max(1e-12, gain(90 - i * AZIMUTH_STEP_DEG, question.elevationDeg)))),
  );
  return {
    ...{ impedance, azimuthDbi },
    swr: swrOf(magnitude(reflectionOf(impedance, FIFTY_OHM))),
    peakDbi: findPeak(solution).gainDbi,
    nullDb: Math.max(...azimuthDbi) - Math.min(...azimuthDbi),
    currentDb: firstOfLine < model.wires.length ? currentOnLine(solution, firstOfLine) : NOTHING_DB,
    pickUpDb: 2 * powerDb(nearFieldPerRootWatt(solution, question.source).e),
  };
}

/**
 * What a cable does to pattern, null, impedance and pick-up of its antenna, alone, bare and with its chokes; where one choke of the stated impedance
 * helps most against the near source, and how good it must be there. Each step tells all that is known so far.
 * Range: the outside of one cable as a bare wire joined to one side of the feed; no house wiring, no dielectric of its jacket.
 * @throws OutOfRangeError, GeometryError with a sentence.
 */
export function* feedLineStudy(question: FeedLineQuestion): Generator<Partial<FeedLineAnswer>, FeedLineAnswer> {
  const { model, line, freqHz } = question;
  const first = withOpenFeed(model).model.wires.length;
  const figures = (chokes: readonly Choke[]): FeedLineFigures =>
    figuresOf(withFeedLine(model, { ...line, chokes }, freqHz), first, question);
  const alone = figuresOf(model, model.wires.length, question);
  yield { alone };
  const bare = figures([]);
  yield { alone, bare };
  const shown = { alone, bare, ...(line.chokes.length > 0 ? { choked: figures(line.chokes) } : {}) };
  yield shown;
  const more = (chokes: readonly Choke[]) => {
    const { pickUpDb, nullDb } = figures(chokes);
    return { pickUpDb: pickUpDb - alone.pickUpDb, nullDb };
  };
  const [stated] = line.chokes;
  const { ohm, reactanceOhm } = stated ?? { ohm: USUAL_OHM, reactanceOhm: 0 };
  const lengthM = lineLengthM(model, line);
  const count = Math.max(
    LEAST_PLACES,
    Math.min(MOST_PLACES, Math.floor((PLACES_PER_WAVE * lengthM) / wavelengthM(freqHz))),
  );
  const places: FeedLineAnswer['places'][number][] = [];
  for (let i = 0; i <= count; i += 1) {
    // the last one sits before the receiver's plug
    const atM = Math.min((lengthM * i) / count, lengthM * 0.98);
    places.push({ atM, ...more([{ atM, ohm, reactanceOhm }]) });
    yield { ...shown, places: [...places] };
  }
  const best = places.reduce((a, b) => (b.pickUpDb < a.pickUpDb - 0.05 ? b : a));
  const atBest = (tried: number): number => more([{ atM: best.atM, ohm: tried, reactanceOhm: 0 }]).pickUpDb;
  const tried: { ohm: number; pickUpDb: number }[] = [];
  for (const one of LADDER_OHM) {
    yield { ...shown, places };
    tried.push({ ohm: one, pickUpDb: atBest(one) });
  }
  // more is not always better: what is left of the cable may resonate
  const least = Math.min(...tried.map(({ pickUpDb }) => pickUpDb));
  const needed = tried.find(({ pickUpDb }) => pickUpDb <= least + WITHIN_DB) ?? tried[0];
  const helps = needed.pickUpDb < bare.pickUpDb - alone.pickUpDb - WORTH_DB;
  return { ...shown, places, best, helps, neededOhm: needed.ohm, leftDb: needed.pickUpDb };
}

/** Way along a cable from the feed to its last corner, m. */
function lineLengthM(model: WireModel, { corners }: FeedLine): number {
  const way = [withOpenFeed(model).feed, ...corners];
  return way.slice(1).reduce((sum, to, i) => sum + distance(way[i], to), 0);
}

/** Where an antenna is fed, m. */
export const feedPoint = (model: WireModel): Point => withOpenFeed(model).feed;
