import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { groundTable, tableGrid, type GroundTable, type TableRange } from './ground-table';
import { groundPermittivity, imageRange } from './images';
import type { Mesh } from './mesh';
import type { WireModel } from './model';

/** Distances of a shared table begin and end on this ladder, m: from 16 mm to 64 m is what the antennas of a garden need, and one table serves them all. */
const RUNG_M = 64;
const STEP = 4096;
/** Above, the table of all (in wavelengths it grows) would cost more than each antenna's own. */
export const SHARED_GROUND_UP_TO_HZ = 33e6;
/** Tables kept; one is 60 to 100 kB. */
const MOST_KEPT = 60;
const kept = new Map<string, GroundTable>();

/** The step of the ladder that holds a range, with all angles and for wires of every direction. */
const ladder = ({ leastM, mostM }: TableRange): TableRange => ({
  leastM: RUNG_M * STEP ** Math.floor(Math.log(leastM / RUNG_M) / Math.log(STEP)),
  mostM: RUNG_M * STEP ** Math.ceil(Math.log(mostM / RUNG_M) / Math.log(STEP)),
  ...{ lowestRad: 0, highestRad: Math.PI / 2, level: false },
});

/**
 * Ground integrals for a mesh at one frequency, from a table that many meshes over the same ground share: a ranking asks for dozens of antennas at each
 * frequency, and their tables would take most of its time. Which table serves a mesh depends on the mesh alone, so the same question gives the same
 * numbers, in whatever order questions come.
 * @returns undefined in free space and over perfect ground, where none is needed.
 */
export function sharedGroundTable(model: WireModel, mesh: Mesh, freqHz: number): GroundTable | undefined {
  if (model.ground.type !== 'real') return undefined;
  const range = ladder(imageRange(mesh));
  const ground = groundPermittivity(model.ground, freqHz);
  const waveNumber = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  if (freqHz > SHARED_GROUND_UP_TO_HZ || range.mostM > RUNG_M)
    return groundTable(ground, waveNumber, tableGrid(imageRange(mesh)));
  const key = JSON.stringify([ground, freqHz, range]);
  const known = kept.get(key);
  if (known) return known;
  const table = groundTable(ground, waveNumber, tableGrid(range));
  const [oldest] = kept.keys();
  if (kept.size >= MOST_KEPT && oldest !== undefined) kept.delete(oldest);
  kept.set(key, table);
  return table;
}
