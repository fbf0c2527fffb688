import { RESOURCES, type ResourceName } from '@velvet-reed/contract';
import { type AntennaState, antennaState, type LaidRun } from '@velvet-reed/core/evidence';
import type { Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { referencesOf } from './resources';
import { storedJson } from './stored-json';

type Values = Readonly<Record<string, unknown>>;
interface Place {
  readonly db: Database;
  readonly transaction: Transaction;
  readonly stationId: number;
}

const isPair = (value: unknown): value is readonly [number, number] =>
  Array.isArray(value) && value.length === 2 && value.every((one) => typeof one === 'number');

function runOf(row: Row): LaidRun {
  const points = storedJson(row.get('points'));
  return {
    points: Array.isArray(points) ? points.filter(isPair) : [],
    ...{ heightM: Number(row.get('heightM')), endHeightM: Number(row.get('endHeightM')) },
  };
}

/** How the antennas that a record names stand now. */
async function statesOf(
  { db, transaction, stationId }: Place,
  ids: readonly number[],
): Promise<readonly AntennaState[]> {
  const states: AntennaState[] = [];
  for (const id of ids) {
    const antenna = await db.tables.antennas.findOne({ where: { id, stationId }, transaction });
    if (!antenna) continue;
    const where = { stationId, antennaId: id };
    const revisions = await db.tables.revisions.findAll({ where, attributes: ['number'], transaction });
    const laid = await db.tables.plotFeatures.findAll({
      where: { ...where, kind: 'antenna' },
      ...{ order: [['id', 'ASC']], transaction },
    });
    const numbers = revisions.map((row) => Number(row.get('number')));
    states.push(antennaState({ id, name: String(antenna.get('name')) }, numbers, laid.map(runOf)));
  }
  return states;
}

/** Values of a record with what it was taken on, unless that was said: its antennas as they stand now. */
export async function withTakenOn(
  place: Place,
  resource: ResourceName,
  values: Values,
): Promise<Record<string, unknown>> {
  const said = values.takenOn;
  const empty = typeof said === 'object' && said !== null && Object.keys(said).length === 0;
  if (!('takenOn' in RESOURCES[resource].columns) || !empty) return { ...values };
  const ids = referencesOf(resource).flatMap(({ field, to }) => {
    const id = values[field];
    return to === 'antennas' && typeof id === 'number' ? [id] : [];
  });
  return ids.length === 0 ? { ...values } : { ...values, takenOn: { antennas: await statesOf(place, ids) } };
}
