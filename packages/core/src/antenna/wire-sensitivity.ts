import { OutOfRangeError } from '../errors';
import type { Matrix } from '../numeric/least-squares';
import { meshOf } from '../solver/mesh';
import type { Ground } from '../solver/model';
import { findResonance } from '../solver/resonance';
import { inputImpedance, solveAt } from '../solver/solve';
import { dimensionsOf } from './dimensions';
import type { Design, TrimmedWires } from './kind';
import { antennaKind, wireModel } from './kinds';

/** The wires of a kind with several dips; undefined for a kind that has one. */
export function trimmedWires(design: Design): TrimmedWires | undefined {
  const kind = antennaKind(design.kind);
  return kind.trimmedWires?.(design, dimensionsOf(kind.parameters, design));
}

/** Share of a wire's length that is taken off in the model. */
const TRIAL = 0.005;

/**
 * How every dip moves per metre of every wire, by the wire model: one small cut of each. A generator, so that it can be stopped; it yields after
 * every wire.
 * @returns dips of the draft (Hz) and [dip][wire] in Hz per m (a longer wire lowers its dip: negative).
 * @throws OutOfRangeError for a kind with one dip; NotConvergedError when the model has no dip near a band.
 */
export function* wireSensitivities(
  design: Design,
  ground: Ground,
): Generator<{ readonly done: number }, { readonly dipsHz: readonly number[]; readonly jacobian: Matrix }> {
  const wires = trimmedWires(design);
  if (!wires) throw new OutOfRangeError(`A ${design.kind} has one dip: its sensitivity follows from its length.`);
  const d = dimensionsOf(antennaKind(design.kind).parameters, design);
  const dipsOf = (own: Design, near: readonly number[]): readonly number[] => {
    const model = wireModel(own, ground);
    const mesh = meshOf(model, Math.max(...near) * 1.1);
    return near.map((guess) => findResonance((f) => inputImpedance(solveAt(model, mesh, f)), guess).freqHz);
  };
  const dipsHz = dipsOf(design, wires.bandsHz);
  yield { done: 1 };
  const columns: number[][] = [];
  for (const id of wires.ids) {
    const cutM = TRIAL * d[id];
    const cut = { ...design, dimensions: { ...design.dimensions, [id]: d[id] - cutM } };
    const moved = dipsOf(cut, dipsHz);
    columns.push(moved.map((freq, i) => (freq - dipsHz[i]) / -cutM));
    yield { done: columns.length + 1 };
  }
  return { dipsHz, jacobian: dipsHz.map((_, dip) => columns.map((column) => column[dip])) };
}
