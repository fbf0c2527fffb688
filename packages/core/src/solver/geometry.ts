import { along, distance, dot, GeometryError, minus, wireLengthM, wireName, type Point, type WireModel } from './model';

/** A round wire thicker than this share of its length is no thin wire any more. */
const MAX_RADIUS_OVER_LENGTH = 0.25;
const MAX_WIRES = 400;

/** Ends nearer than the thicker wire's radius touch: no one can mount wires closer without contact. */
export const touchM = (radiusA: number, radiusB: number): number => Math.max(radiusA, radiusB, 1e-9);

/** Shares (of a's and of b's length) at which two straight wires come nearest, each clamped to 0..1. */
function nearestShares(a0: Point, a1: Point, b0: Point, b1: Point): readonly [number, number] {
  // Ericson, Real-Time Collision Detection, sec. 5.1.9: closest points of two segments
  const [u, v, w] = [minus(a1, a0), minus(b1, b0), minus(a0, b0)];
  const [uu, vv, uv, uw, vw] = [dot(u, u), dot(v, v), dot(u, v), dot(u, w), dot(v, w)];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  const den = uu * vv - uv * uv;
  let s = den > 1e-12 * uu * vv ? clamp((uv * vw - uw * vv) / den) : 0;
  let t = (uv * s + vw) / vv;
  if (t < 0 || t > 1) {
    t = clamp(t);
    s = clamp((uv * t - uw) / uu);
  }
  return [s, t];
}

const requireNumbers = (values: readonly number[], what: string): void => {
  if (values.every(Number.isFinite)) return;
  throw new GeometryError(`${what} has an end that is not a number. Type all three coordinates.`);
};

/**
 * Refuses wires that cannot be solved: no length, too thick, under or in the ground, crossing without a junction, lying in each other; and
 * ports or loads at no wire, or at a free end.
 * @throws GeometryError naming the wire.
 */
export function checkGeometry(model: WireModel): void {
  const { wires, ports, loads, ground } = model;
  if (wires.length === 0) throw new GeometryError('There is no wire. Add at least one.');
  if (wires.length > MAX_WIRES)
    throw new GeometryError(`There are ${wires.length} wires; at most ${MAX_WIRES} can be solved.`);
  wires.forEach((wire, i) => {
    const name = wireName(model, i);
    requireNumbers([...wire.from, ...wire.to], name);
    const lengthM = wireLengthM(wire);
    if (!(lengthM > 0)) throw new GeometryError(`${name} has no length: both ends are the same point. Move one end.`);
    if (!(wire.radiusM > 0) || !Number.isFinite(wire.radiusM))
      throw new GeometryError(`${name} has no radius. Give it the radius of its conductor.`);
    if (wire.radiusM > MAX_RADIUS_OVER_LENGTH * lengthM)
      throw new GeometryError(
        `${name} is too thick for its length (${(2 * wire.radiusM * 1000).toPrecision(3)} mm across, ${(lengthM * 1000).toPrecision(3)} mm long). Make it thinner or longer.`,
      );
    if (wire.insulation && !(wire.insulation.outerRadiusM > wire.radiusM && wire.insulation.relPermittivity >= 1))
      throw new GeometryError(
        `The insulation of ${name} must be thicker than its conductor and have a relative permittivity of at least 1. Correct it.`,
      );
    if (wire.conductivitySPerM !== undefined && !(wire.conductivitySPerM > 0))
      throw new GeometryError(`The conductivity of ${name} must be above zero. Leave it out for a perfect conductor.`);
    if (ground.type === 'free') return;
    const lowest = Math.min(wire.from[2], wire.to[2]);
    if (lowest < -1e-9)
      throw new GeometryError(`${name} reaches ${(-lowest).toPrecision(3)} m under the ground. Raise it.`);
    if (wire.from[2] < wire.radiusM && wire.to[2] < wire.radiusM)
      throw new GeometryError(`${name} lies in the ground: raise it by at least its radius (${wire.radiusM} m).`);
    if (ground.type === 'real' && lowest < wire.radiusM)
      throw new GeometryError(
        `${name} ends in real ground, which this method does not cover. End it at least its radius above, with radials or an earth resistance, or take perfect ground.`,
      );
  });
  if (ground.type === 'real' && !(ground.relPermittivity >= 1 && ground.conductivitySPerM >= 0))
    throw new GeometryError(
      'Real ground needs a relative permittivity of at least 1 and a conductivity of at least 0 S/m.',
    );
  for (let i = 0; i < wires.length; i += 1) for (let j = i + 1; j < wires.length; j += 1) checkPair(model, i, j);
  if (ports.length === 0) throw new GeometryError('The antenna is fed nowhere. Add a port.');
  [...ports, ...loads].forEach((place) => {
    if (!wires[place.wire])
      throw new GeometryError(`A port or load sits on wire ${place.wire + 1}, which is not there.`);
    if (!(place.position >= 0 && place.position <= 1))
      throw new GeometryError(
        `A port or load on ${wireName(model, place.wire)} lies beyond its ends. Give a share from 0 to 1.`,
      );
  });
}

/** Two wires may meet end to end, or end to side; nothing else. */
function checkPair(model: WireModel, i: number, j: number): void {
  const [a, b] = [model.wires[i], model.wires[j]];
  const near = touchM(a.radiusM, b.radiusM);
  const [s, t] = nearestShares(a.from, a.to, b.from, b.to);
  const [pa, pb] = [along(a.from, a.to, s), along(b.from, b.to, t)];
  if (distance(pa, pb) > a.radiusM + b.radiusM) return;
  const endOf = (wire: typeof a, p: Point): boolean => distance(wire.from, p) <= near || distance(wire.to, p) <= near;
  const [endA, endB] = [endOf(a, pa), endOf(b, pb)];
  const [nameA, nameB] = [wireName(model, i), wireName(model, j)];
  if (!endA && !endB)
    throw new GeometryError(
      `${nameA} and ${nameB} cross without a junction. Split one of them at the crossing, or move it.`,
    );
  // from a common point two wires must leave in different directions
  const [da, db] = [minus(a.to, a.from), minus(b.to, b.from)];
  const cosine = dot(da, db) / Math.sqrt(dot(da, da) * dot(db, db));
  if (Math.abs(cosine) < 1 - 1e-6) return;
  const inside = [a.from, a.to].filter((p) => inBetween(p, b.from, b.to, near)).length;
  const other = [b.from, b.to].filter((p) => inBetween(p, a.from, a.to, near)).length;
  const same = endOf(a, b.from) && endOf(a, b.to);
  if (inside + other > 0 || same)
    throw new GeometryError(`${nameA} and ${nameB} lie in each other. Delete one, or move it aside.`);
}

/** Whether a point of a parallel wire lies on the open stretch between two ends. */
function inBetween(p: Point, from: Point, to: Point, near: number): boolean {
  const d = minus(to, from);
  const share = dot(minus(p, from), d) / dot(d, d);
  const length = Math.sqrt(dot(d, d));
  return share * length > near && (1 - share) * length > near && distance(p, along(from, to, share)) <= near;
}
