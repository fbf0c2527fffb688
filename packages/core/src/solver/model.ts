import { CoreError } from '../errors';

/** A point in metres: x east, y north, z up; the ground is z = 0. */
export type Point = readonly [x: number, y: number, z: number];

/** Dielectric sleeve of a wire. */
interface Insulation {
  readonly outerRadiusM: number;
  readonly relPermittivity: number;
  readonly lossTangent: number;
}

/** A straight round wire. Wires whose ends meet are joined there. */
export interface Wire {
  /** For sentences about it ("arm 2"); "wire 3" without one. */
  readonly name?: string;
  readonly from: Point;
  readonly to: Point;
  readonly radiusM: number;
  /** Absent: a perfect conductor. */
  readonly conductivitySPerM?: number;
  readonly insulation?: Insulation;
}

/** A place on a wire: 0 at `from`, 1 at `to`. The current through it counts from `from` to `to`. */
export interface PlaceOnWire {
  readonly wire: number;
  readonly position: number;
}

/** A lumped resistor, coil and capacitor in series, or side by side if `parallel`. Absent parts are not there. */
export interface LumpedLoad extends PlaceOnWire {
  readonly ohm?: number;
  readonly henry?: number;
  readonly farad?: number;
  readonly parallel?: boolean;
}

/** What is below z = 0. Wires lie above it; on perfect ground they may end on it. */
export type Ground =
  | { readonly type: 'free' }
  | { readonly type: 'perfect' }
  | { readonly type: 'real'; readonly relPermittivity: number; readonly conductivitySPerM: number };

/** Wires, where they are fed and loaded, and the ground below: all the solver needs. */
export interface WireModel {
  readonly wires: readonly Wire[];
  readonly ports: readonly PlaceOnWire[];
  readonly loads: readonly LumpedLoad[];
  readonly ground: Ground;
}

/** The wires cannot be solved as they stand; the sentence names the wire. */
export class GeometryError extends CoreError {
  readonly code = 'GEOMETRY';
}

export const wireName = (model: WireModel, index: number): string => model.wires[index]?.name ?? `wire ${index + 1}`;

export const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const along = (a: Point, b: Point, share: number): Point => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
  a[2] + share * (b[2] - a[2]),
];
export const distance = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
export const wireLengthM = (wire: Wire): number => distance(wire.from, wire.to);
