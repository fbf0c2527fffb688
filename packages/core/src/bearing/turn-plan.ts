import { requirePositive, requireRange, ShapeError } from '../errors';

/** How far a turntable's cable lets it turn, degrees from its mark, either way. */
export interface CableLimit {
  readonly lowDeg: number;
  readonly highDeg: number;
}

/** What a turn can stay within, degrees: more than ten rounds no cable bears. */
const MOST_TURNED_DEG = 3600;

/** What goes round: the antenna on the table, or the sender about an antenna that stands. */
export type Turned = 'antenna' | 'sender';

/** One direction of a turn: where the table is to stand, not wrapped, and which azimuth of the pattern that shows, ascending. */
export interface TurnTarget {
  readonly tableDeg: number;
  readonly patternDeg: number;
}

/**
 * Directions of a turn in the order in which they are gone to: once round, then back to the first, whose level tells the drift. No direction and no
 * way between two of them lies outside the limit. An antenna that turns clockwise shows its left side next, so its table goes downward: azimuths of
 * the pattern then ascend in time.
 * @throws ShapeError when the cable does not let a whole circle be measured.
 */
export function turnTargets(
  stepDeg: number,
  { lowDeg, highDeg }: CableLimit,
  turned: Turned = 'antenna',
): readonly TurnTarget[] {
  requirePositive(stepDeg, 'Step (degrees)');
  requireRange(stepDeg, 'Step (degrees)', 0.5, 45);
  requireRange(lowDeg, 'Cable limit (degrees)', -MOST_TURNED_DEG, 0);
  requireRange(highDeg, 'Cable limit (degrees)', 0, MOST_TURNED_DEG);
  const count = Math.round(360 / stepDeg);
  if (Math.abs(count * stepDeg - 360) > 1e-6)
    throw new ShapeError(`Steps of ${stepDeg}° do not close a circle. Take 1°, 2°, 5°, 10° or another part of 360°.`);
  const span = (count - 1) * stepDeg;
  if (highDeg - lowDeg < span - 1e-9)
    throw new ShapeError(
      `The cable lets it turn through ${Math.round(highDeg - lowDeg)}°, a circle in steps of ${stepDeg}° needs ${Math.round(span)}°. Give the cable more slack, and enter how far it then goes.`,
    );
  // from the mark when the cable allows, else as far back as it must be
  const low = Math.max(lowDeg, Math.min(0, highDeg - span));
  const upward = Array.from({ length: count }, (_, i) => low + i * stepDeg);
  const table = turned === 'antenna' ? upward.reverse() : upward;
  const pattern = (tableDeg: number): number => (turned === 'antenna' && tableDeg !== 0 ? -tableDeg : tableDeg);
  return [
    ...table.map((tableDeg) => ({ tableDeg, patternDeg: pattern(tableDeg) })),
    { tableDeg: table[0], patternDeg: pattern(table[0]) + 360 },
  ];
}

/**
 * Directions of a turn for a null: half a circle is enough, since both ends of the axis are alike.
 * @throws ShapeError when the cable does not let half a circle be turned.
 */
export function nullTargets(stepDeg: number, { lowDeg, highDeg }: CableLimit): readonly TurnTarget[] {
  requireRange(stepDeg, 'Step (degrees)', 2, 30);
  const count = Math.ceil(180 / stepDeg - 1e-9);
  const span = (count - 1) * stepDeg;
  if (highDeg - lowDeg < span)
    throw new ShapeError(
      `The cable lets it turn through ${Math.round(highDeg - lowDeg)}°, half a circle in steps of ${stepDeg}° needs ${Math.round(span)}°. Give the cable more slack, and enter how far it then goes.`,
    );
  const low = Math.max(lowDeg, Math.min(0, highDeg - span));
  return Array.from({ length: count }, (_, i) => ({ tableDeg: low + i * stepDeg, patternDeg: low + i * stepDeg }));
}

/** Beyond this no meter reads, dB: instruments send 9.91E37 for what they did not get (SCPI-1999 vol. 1, 7.2.1.5). */
const WILDEST_DB = 300;
const isLevel = (reading: number): boolean => Number.isFinite(reading) && Math.abs(reading) < WILDEST_DB;

/** Mean of the readings of one direction, dB, without those that the meter dropped; undefined when all were. */
export function levelOf(readings: readonly number[]): number | undefined {
  const good = readings.filter(isLevel);
  return good.length > 0 ? good.reduce((sum, one) => sum + one, 0) / good.length : undefined;
}
