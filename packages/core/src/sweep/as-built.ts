import { wireModel } from '../antenna/kinds';
import type { Design } from '../antenna/kind';
import { OutOfRangeError, ShapeError } from '../errors';
import type { SweepData } from '../formats/touchstone';
import { reflectionOf } from '../line/reflection';
import { solveLinear } from '../numeric/least-squares';
import { studentQuantile } from '../numeric/special';
import { meshOf } from '../solver/mesh';
import type { Ground, Point, WireModel } from '../solver/model';
import { groundOverSpan } from '../solver/ground-span';
import { finish } from '../solver/model-sweep';
import { inputImpedance, solveAt } from '../solver/solve';
import { findResonances, markerAt } from './analyse';
import { throughLine, type FeedLine } from './reference-plane';

/** What may differ between draft and garden. */
type AsBuiltId = 'length' | 'height' | 'velocity' | 'ground';

/** A measured sweep and what was meant to be built. */
export interface AsBuiltQuestion {
  readonly design: Design;
  readonly ground: Ground;
  /** Line between analyser and antenna; absent when it was measured at the feed. */
  readonly line?: FeedLine;
  readonly sweep: SweepData;
}

/** One unknown with its 95 % interval. */
export interface AsBuiltValue {
  readonly id: AsBuiltId;
  /** length, velocity: ratio to the draft; height: metres to add; ground: ratio of conductivity. */
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** Model and measurement brought together by one or two unknowns. */
export interface AsBuiltFit {
  readonly values: readonly AsBuiltValue[];
  /** What is left between model and measurement, root mean square of |ΔΓ| at the analyser. */
  readonly left: number;
}

export interface AsBuilt {
  /** Difference before anything is fitted, as |ΔΓ|. */
  readonly before: number;
  /** Best first. */
  readonly fits: readonly AsBuiltFit[];
  readonly sentence: string;
}

/** Frequencies at which model and measurement are compared. */
const PLACES = 13;
const ROUNDS = 12;
/** First step of each unknown in its own measure (natural logarithm, height as a share of itself). */
const STEP: Readonly<Record<AsBuiltId, number>> = { length: 0.004, height: 0.05, velocity: 0.01, ground: 0.4 };
/** Farther than this from the draft nothing is believed. */
const REACH: Readonly<Record<AsBuiltId, number>> = { length: 0.25, height: 0.7, velocity: 0.25, ground: 4 };
/** Error of a calibrated pocket analyser as |Γ|; a fit that leaves less is no more certain than this. Common practice, no source. */
const READING_ERROR = 0.005;
/** Fits this close in what they leave cannot be told apart by one sweep, ratio. */
const SAME = 1.25;
/** A second unknown must leave less than this share of what the first left. */
const WORTH = 0.7;

/** Places around the dip, where a sweep tells most: ±2.5 half widths of a usual wire, within the sweep. */
function placesOf(sweep: SweepData): readonly number[] {
  const [low, high] = [sweep.freqHz[0], sweep.freqHz[sweep.freqHz.length - 1]];
  const dip = findResonances(sweep)[0];
  const from = dip ? Math.max(low, dip.freqHz * 0.93) : low;
  const to = dip ? Math.min(high, dip.freqHz * 1.07) : high;
  return Array.from({ length: PLACES }, (_, i) => from + ((to - from) * i) / (PLACES - 1));
}

/** The model with its wires scaled about the feed and moved up. */
function altered(model: WireModel, scale: number, raisedM: number): WireModel {
  const port = model.ports[0];
  const wire = model.wires[port.wire];
  const feed = wire.from.map((value, i) => value + port.position * (wire.to[i] - value));
  const move = ([x, y, z]: Point): Point => [
    feed[0] + scale * (x - feed[0]),
    feed[1] + scale * (y - feed[1]),
    z === 0 ? 0 : feed[2] + scale * (z - feed[2]) + raisedM,
  ];
  return { ...model, wires: model.wires.map((one) => ({ ...one, from: move(one.from), to: move(one.to) })) };
}

const lowestM = (model: WireModel): number => Math.min(...model.wires.flatMap((one) => [one.from[2], one.to[2]]));
const feedHeightM = (model: WireModel): number => {
  const port = model.ports[0];
  const { from, to } = model.wires[port.wire];
  return from[2] + port.position * (to[2] - from[2]);
};

type Unknowns = Readonly<Partial<Record<AsBuiltId, number>>>;

/** Reflections at the analyser for a set of unknowns, [re, im, …]. */
function predicted(
  { design, ground, line, sweep }: AsBuiltQuestion,
  places: readonly number[],
  at: Unknowns,
): number[] {
  const wetter: Ground =
    ground.type === 'real' && at.ground
      ? {
          type: 'real',
          relPermittivity: 1 + (ground.relPermittivity - 1) * Math.exp(at.ground / 3),
          conductivitySPerM: ground.conductivitySPerM * Math.exp(at.ground),
        }
      : ground;
  const drafted = wireModel(design, wetter);
  const model = altered(drafted, Math.exp(at.length ?? 0), (at.height ?? 0) * feedHeightM(drafted));
  const mesh = meshOf(model, places[places.length - 1]);
  const tables = finish(groundOverSpan(model, mesh, places[0], places[places.length - 1]));
  const gamma = places.map((f) =>
    reflectionOf(inputImpedance(solveAt(model, mesh, f, { table: () => tables.at(f) })), sweep.referenceOhm),
  );
  const atAntenna: SweepData = {
    freqHz: Float64Array.from(places),
    re: Float64Array.from(gamma, (g) => g.re),
    im: Float64Array.from(gamma, (g) => g.im),
    referenceOhm: sweep.referenceOhm,
  };
  const seen = line
    ? throughLine(atAntenna, { ...line, velocityFactor: Math.min(1, line.velocityFactor * Math.exp(at.velocity ?? 0)) })
    : atAntenna;
  return places.flatMap((_, i) => [seen.re[i], seen.im[i]]);
}

/** Unknowns that mean something for this antenna. */
function unknownsOf({ design, ground, line }: AsBuiltQuestion): readonly AsBuiltId[] {
  const model = wireModel(design, ground);
  const raised = ground.type !== 'free' && lowestM(model) > 0;
  return [
    'length',
    ...(raised ? (['height'] as const) : []),
    ...(line && line.lengthM > 0 ? (['velocity'] as const) : []),
    ...(ground.type === 'real' ? (['ground'] as const) : []),
  ];
}

const sumOfSquares = (values: readonly number[]): number => values.reduce((sum, value) => sum + value * value, 0);

/** Levenberg's damped least squares over a few unknowns; yields after every model. */
function* fitted(
  question: AsBuiltQuestion,
  places: readonly number[],
  measured: readonly number[],
  ids: readonly AsBuiltId[],
): Generator<undefined, AsBuiltFit> {
  const named = (x: readonly number[]): Unknowns => Object.fromEntries(ids.map((id, i) => [id, x[i]]));
  const residual = (x: readonly number[]): number[] =>
    predicted(question, places, named(x)).map((value, i) => measured[i] - value);
  let x = ids.map(() => 0);
  let r = residual(x);
  yield undefined;
  let damping = 1e-3;
  let jacobian: number[][] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    jacobian = [];
    for (let k = 0; k < ids.length; k += 1) {
      const step = STEP[ids[k]] / (round === 0 ? 1 : 4);
      const shifted = residual(x.map((value, i) => (i === k ? value + step : value)));
      jacobian.push(shifted.map((value, i) => (r[i] - value) / step)); // derivative of the model
      yield undefined;
    }
    let moved = 0;
    for (let attempt = 0; attempt < 5; attempt += 1) {
      const normal = ids.map((_, a) =>
        ids.map(
          (__, b) =>
            jacobian[a].reduce((sum, value, i) => sum + value * jacobian[b][i], 0) * (a === b ? 1 + damping : 1),
        ),
      );
      const right = ids.map((_, a) => jacobian[a].reduce((sum, value, i) => sum + value * r[i], 0));
      const step = solveLinear(normal, right);
      const next = x.map((value, i) =>
        Math.max(
          -REACH[ids[i]],
          Math.min(REACH[ids[i]], value + Math.max(-6 * STEP[ids[i]], Math.min(6 * STEP[ids[i]], step[i]))),
        ),
      );
      const left = residual(next);
      yield undefined;
      if (sumOfSquares(left) < sumOfSquares(r)) {
        moved = Math.max(...next.map((value, i) => Math.abs(value - x[i]) / STEP[ids[i]]));
        x = next;
        r = left;
        damping /= 5;
        break;
      }
      damping *= 8;
    }
    if (moved < 0.01) break;
  }
  const free = Math.max(1, r.length - ids.length);
  const variance = Math.max(sumOfSquares(r) / free, READING_ERROR ** 2 / 2);
  const normal = ids.map((_, a) =>
    ids.map((__, b) => jacobian[a].reduce((sum, value, i) => sum + value * jacobian[b][i], 0)),
  );
  const t = studentQuantile(0.975, free);
  const heightM = feedHeightM(wireModel(question.design, question.ground));
  const values = ids.map((id, k): AsBuiltValue => {
    const half =
      t *
      Math.sqrt(
        variance *
          solveLinear(
            normal,
            ids.map((_, i) => (i === k ? 1 : 0)),
          )[k],
      );
    const told = (value: number): number => (id === 'height' ? value * heightM : Math.exp(value));
    return { id, value: told(x[k]), low: told(x[k] - half), high: told(x[k] + half) };
  });
  return { values, left: Math.sqrt(sumOfSquares(r) / places.length) };
}

const WORDS: Readonly<Record<AsBuiltId, string>> = {
  length: 'the length of the wires',
  height: 'the height',
  velocity: 'the line’s velocity factor',
  ground: 'the ground',
};

/**
 * Which length, height, velocity factor of the line or ground makes the wire model agree with a measured sweep: each alone, then the best with
 * each other one. A generator, so that its caller can show progress and stop; the last value is the answer.
 * @throws ShapeError for a sweep without phase or without enough points; OutOfRangeError for a kind that is no wire.
 */
export function* fitAsBuilt(question: AsBuiltQuestion): Generator<{ readonly done: number }, AsBuilt> {
  const { sweep, design } = question;
  if (sweep.freqHz.length < PLACES)
    throw new ShapeError(
      `A fit needs at least ${PLACES} points; this sweep has ${sweep.freqHz.length}. Sweep with more.`,
    );
  const places = placesOf(sweep);
  const measured = places.flatMap((f) => {
    const point = markerAt(sweep, f);
    return [point?.gamma.re ?? 0, point?.gamma.im ?? 0];
  });
  const ids = unknownsOf(question);
  if (ids.length === 0) throw new OutOfRangeError(`Nothing about a ${design.kind} can be fitted to a sweep.`);
  let done = 0;
  const before = Math.sqrt(
    sumOfSquares(predicted(question, places, {}).map((value, i) => measured[i] - value)) / places.length,
  );
  yield { done };
  const step = function* (names: readonly AsBuiltId[]): Generator<{ readonly done: number }, AsBuiltFit> {
    const steps = fitted(question, places, measured, names);
    for (;;) {
      const one = steps.next();
      if (one.done) return one.value;
      done += 1;
      yield { done };
    }
  };
  const fits: AsBuiltFit[] = [];
  for (const id of ids) fits.push(yield* step([id]));
  fits.sort((a, b) => a.left - b.left);
  const first = fits[0];
  const partners = fits.slice(1, 3);
  for (const partner of partners) {
    const both = yield* step([first.values[0].id, partner.values[0].id]);
    if (both.left < WORTH * first.left) fits.push(both);
  }
  fits.sort((a, b) => a.left - b.left || a.values.length - b.values.length);
  return { before, fits, sentence: sentenceOf(before, fits) };
}

function sentenceOf(before: number, fits: readonly AsBuiltFit[]): string {
  const [best] = fits;
  const rivals = fits.slice(1).filter((fit) => fit.values.length <= best.values.length && fit.left < SAME * best.left);
  const name = (fit: AsBuiltFit): string => fit.values.map(({ id }) => WORDS[id]).join(' and ');
  if (before < 0.02) return 'Model and measurement agree as drafted.';
  return `What explains the measurement best is ${name(best)}: the difference falls from ${before.toFixed(3)} to ${best.left.toFixed(3)}.${
    rivals.length > 0 ? ` One sweep cannot tell it from ${rivals.map(name).join(' or ')}.` : ''
  }${best.left > 0.1 ? ' Much remains unexplained: look for something else, such as a wrong feed or a near conductor.' : ''}`;
}
