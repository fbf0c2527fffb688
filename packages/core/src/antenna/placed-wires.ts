import type { Point, WireModel } from '../solver/model';
import type { Design } from './kind';
import { antennaKind } from './kinds';

/** An antenna as it stands on the plan. */
export interface PlacedAntenna {
  readonly name: string;
  readonly design: Design;
  /** Its middle, m east and north. */
  readonly at: readonly [x: number, y: number];
  /** Compass bearing of its forward direction, degrees. */
  readonly facingDeg: number;
}

/** Wires turned and moved to where the antenna stands. @returns undefined for a kind that has no wires, or that brings its own ground. */
export function placedWires({ design, at, facingDeg }: PlacedAntenna): Omit<WireModel, 'ground'> | undefined {
  const kind = antennaKind(design.kind);
  if (!kind.model || kind.ownGround) return undefined;
  const { wires, ports, loads } = kind.model(design, { type: 'free' });
  const turn = (facingDeg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  // forward is +x and becomes its bearing; what was on the left (+y) stays there
  const placed = ([x, y, z]: Point): Point => [at[0] + x * sin - y * cos, at[1] + x * cos + y * sin, z];
  return { wires: wires.map((wire) => ({ ...wire, from: placed(wire.from), to: placed(wire.to) })), ports, loads };
}
