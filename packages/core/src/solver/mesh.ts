import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { checkGeometry, touchM } from './geometry';
import { along, distance, dot, GeometryError, minus, wireLengthM, wireName, type Point, type WireModel } from './model';

/** Segments per wavelength by rule; a coarser mesh than 20 loses accuracy, a finer one than the radius allows loses the thin wire. */
const SEGMENTS_PER_WAVELENGTH = 40;
/** Shortest segment over its radius: below about 4 the reduced kernel oscillates. */
const LEAST_LENGTH_OVER_RADIUS = 4;
const MAX_SEGMENTS = 1650;

/** Row of a port or load: the unknowns that flow through that place, with sign. */
export interface CurrentRow {
  readonly unknowns: Int32Array;
  readonly signs: Float64Array;
}

/**
 * Straight pieces with half-functions at both ends, and how the unknown node currents are made of halves. Half 2p belongs to the start
 * of segment p, half 2p + 1 to its end; each unknown is one half or the difference of two.
 */
export interface Mesh {
  readonly segments: number;
  /** x, y, z of each segment's start, and its unit direction. */
  readonly start: Float64Array;
  readonly direction: Float64Array;
  readonly lengthM: Float64Array;
  readonly radiusM: Float64Array;
  readonly wireOf: Int32Array;
  readonly unknowns: number;
  /** Unknowns of half h: entries halfStart[h] to halfStart[h + 1] of halfUnknown and halfSign (sign along the segment). */
  readonly halfStart: Int32Array;
  readonly halfUnknown: Int32Array;
  readonly halfSign: Float64Array;
  readonly ports: readonly CurrentRow[];
  readonly loads: readonly CurrentRow[];
  /** What the rule could not keep: sentences for the user. */
  readonly remarks: readonly string[];
}

interface Piece {
  readonly wire: number;
  readonly from: Point;
  readonly to: Point;
  /** Shares of the wire at both ends. */
  readonly shareFrom: number;
  readonly shareTo: number;
}

/** Part of a wire between two nodes that it must have, and into how many pieces it is cut. */
interface Span {
  readonly wire: number;
  readonly shareFrom: number;
  readonly shareTo: number;
  readonly count: number;
}

/** Shares at which a wire must have a node: its ends, its ports and loads, and other wires' ends on it. */
function forcedShares(model: WireModel, index: number): number[] {
  const wire = model.wires[index];
  const lengthM = wireLengthM(wire);
  const shares = [
    0,
    1,
    ...[...model.ports, ...model.loads].filter((place) => place.wire === index).map((p) => p.position),
  ];
  const d = minus(wire.to, wire.from);
  model.wires.forEach((other, i) => {
    if (i === index) return;
    for (const end of [other.from, other.to]) {
      const share = dot(minus(end, wire.from), d) / (lengthM * lengthM);
      if (share <= 0 || share >= 1) continue;
      const near = touchM(wire.radiusM, other.radiusM);
      if (
        distance(end, along(wire.from, wire.to, share)) <= near &&
        share * lengthM > near &&
        (1 - share) * lengthM > near
      )
        shares.push(share);
    }
  });
  shares.sort((a, b) => a - b);
  return shares.filter((share, i) => i === 0 || (share - shares[i - 1]) * lengthM > 1e-9);
}

/**
 * Cuts wires into segments by the rule and finds the junctions.
 * @param highestHz highest frequency that will be asked.
 * @param density factor on the number of segments: 1 by rule, above 1 finer.
 * @throws GeometryError for wires that cannot be solved, and when there would be too many segments.
 */
export function meshOf(model: WireModel, highestHz: number, density = 1): Mesh {
  checkGeometry(model);
  const wavelength = SPEED_OF_LIGHT_M_PER_S / highestHz;
  const longest = wavelength / (SEGMENTS_PER_WAVELENGTH * density);
  const remarks: string[] = [];
  const spans = model.wires.flatMap((wire, index): Span[] => {
    const shares = forcedShares(model, index);
    const lengthM = wireLengthM(wire);
    return shares.slice(1).map((shareTo, i): Span => {
      const spanM = (shareTo - shares[i]) * lengthM;
      const byRule = Math.max(1, Math.ceil(spanM / longest - 1e-6), Math.round(density));
      const byRadius = Math.max(1, Math.floor(spanM / (LEAST_LENGTH_OVER_RADIUS * wire.radiusM)));
      const count = Math.min(byRule, byRadius);
      if (spanM / count > wavelength / 18)
        remarks.push(
          `${wireName(model, index)} is too thick for segments of λ/20 at the highest frequency: results there are rough.`,
        );
      return { wire: index, shareFrom: shares[i], shareTo, count };
    });
  });
  // counted before a single piece is made: a wire of thousands of kilometres is refused at once
  const segments = spans.reduce((sum, { count }) => sum + count, 0);
  if (segments > MAX_SEGMENTS)
    throw new GeometryError(
      `The wires are ${segments} segments long at ${(highestHz / 1e6).toPrecision(4)} MHz; at most ${MAX_SEGMENTS} can be solved. Lower the highest frequency or shorten the wires.`,
    );
  const pieces = spans.flatMap(({ wire, shareFrom, shareTo, count }): Piece[] => {
    const { from, to } = model.wires[wire];
    const shareAt = (k: number): number => shareFrom + ((shareTo - shareFrom) * k) / count;
    return Array.from({ length: count }, (_, k) => ({
      wire,
      from: along(from, to, shareAt(k)),
      to: along(from, to, shareAt(k + 1)),
      shareFrom: shareAt(k),
      shareTo: shareAt(k + 1),
    }));
  });
  return joined(model, pieces, remarks);
}

/** Node of every piece end: ends within touching distance are one node. */
function nodesOf(model: WireModel, pieces: readonly Piece[]): { nodeOf: Int32Array; at: Point[] } {
  const nodeOf = new Int32Array(2 * pieces.length);
  const at: Point[] = [];
  const reach: number[] = [];
  pieces.forEach((piece, p) => {
    [piece.from, piece.to].forEach((end, e) => {
      const near = touchM(0, model.wires[piece.wire].radiusM);
      let node = at.findIndex((place, i) => distance(place, end) <= Math.max(near, reach[i]));
      // within one wire only the very same point counts: short segments of thick wire must not collapse
      if (e === 1 && node === nodeOf[2 * p]) node = -1;
      if (node < 0) {
        at.push(end);
        reach.push(near);
        node = at.length - 1;
      }
      nodeOf[2 * p + e] = node;
    });
  });
  return { nodeOf, at };
}

function joined(model: WireModel, pieces: readonly Piece[], remarks: readonly string[]): Mesh {
  const n = pieces.length;
  const { nodeOf, at } = nodesOf(model, pieces);
  const halvesAt: number[][] = at.map(() => []);
  nodeOf.forEach((node, half) => halvesAt[node].push(half));
  const entries: { half: number; unknown: number; sign: number }[] = [];
  let unknowns = 0;
  // current that leaves the node along a half flows with the segment at its start, against it at its end
  const leaving = (half: number): number => (half % 2 === 0 ? 1 : -1);
  halvesAt.forEach((halves, node) => {
    const grounded = model.ground.type === 'perfect' && Math.abs(at[node][2]) < 1e-9;
    if (grounded) {
      for (const half of halves) entries.push({ half, unknown: unknowns++, sign: leaving(half) });
      return;
    }
    // d − 1 functions at a node of d halves, each from the first half into one other: Kirchhoff's law holds by construction
    for (const half of halves.slice(1)) {
      entries.push({ half: halves[0], unknown: unknowns, sign: -leaving(halves[0]) });
      entries.push({ half, unknown: unknowns, sign: leaving(half) });
      unknowns += 1;
    }
  });
  entries.sort((a, b) => a.half - b.half);
  const halfStart = new Int32Array(2 * n + 1);
  for (const entry of entries) halfStart[entry.half + 1] += 1;
  for (let h = 0; h < 2 * n; h += 1) halfStart[h + 1] += halfStart[h];

  const rowAt = (wire: number, position: number, what: string): CurrentRow => {
    // the half of this wire that touches the place; a place between two segments is the end of the first
    const index = pieces.findIndex((piece) => piece.wire === wire && Math.abs(piece.shareTo - position) < 1e-9);
    const half =
      index >= 0
        ? 2 * index + 1
        : 2 * pieces.findIndex((piece) => piece.wire === wire && Math.abs(piece.shareFrom - position) < 1e-9);
    const through = entries.filter((entry) => entry.half === half);
    if (through.length === 0)
      throw new GeometryError(
        `${what} sits at the open end of ${wireName(model, wire)}, where no current can flow. Move it, or join another wire there.`,
      );
    return {
      unknowns: Int32Array.from(through, (entry) => entry.unknown),
      signs: Float64Array.from(through, (entry) => entry.sign),
    };
  };
  const direction = (piece: Piece): number[] => {
    const length = distance(piece.from, piece.to);
    return minus(piece.to, piece.from).map((value) => value / length);
  };
  return {
    segments: n,
    start: Float64Array.from(pieces.flatMap((piece) => [...piece.from])),
    direction: Float64Array.from(pieces.flatMap(direction)),
    lengthM: Float64Array.from(pieces, (piece) => distance(piece.from, piece.to)),
    radiusM: Float64Array.from(pieces, (piece) => model.wires[piece.wire].radiusM),
    wireOf: Int32Array.from(pieces, (piece) => piece.wire),
    unknowns,
    halfStart,
    halfUnknown: Int32Array.from(entries, (entry) => entry.unknown),
    halfSign: Float64Array.from(entries, (entry) => entry.sign),
    ports: model.ports.map((port, i) => rowAt(port.wire, port.position, `Port ${i + 1}`)),
    loads: model.loads.map((load, i) => rowAt(load.wire, load.position, `Load ${i + 1}`)),
    remarks,
  };
}
