import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@velvet-reed/contract';
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { Database, Row } from './database';
import { noteEdit, requireParents, takeBack } from './history';
import { findStation } from './records';
import { NotFoundError } from './refusals';
import { countText } from './resources';

/** What was deleted at once: a record, and what went along with it. */
export interface Binned {
  readonly batch: string;
  readonly atMs: number;
  /** "trial Loop against dipole", and "8 readings" that went along. */
  readonly what: string;
  readonly along: readonly string[];
}

const resourceOf = (edit: Row): ResourceName | undefined =>
  RESOURCE_NAMES.find((name) => name === edit.get('resource'));
const beforeOf = (edit: Row): Record<string, unknown> => {
  const before = edit.get('before');
  return typeof before === 'object' && before !== null ? { ...before } : {};
};

async function deletions(db: Database, stationId: number): Promise<ReadonlyMap<string, readonly Row[]>> {
  const edits = await db.edits.findAll({
    ...{ where: { stationId, op: 'delete', undoneAt: null }, order: [['id', 'ASC']] },
  });
  const batches = new Map<string, Row[]>();
  for (const edit of edits) {
    if (!resourceOf(edit)) continue;
    const batch = String(edit.get('batch'));
    batches.set(batch, [...(batches.get(batch) ?? []), edit]);
  }
  return batches;
}

/** Everything of a station that was deleted and can come back, latest first. */
export async function binOf(db: Database, stationId: number): Promise<readonly Binned[]> {
  await findStation(db, stationId);
  return [...(await deletions(db, stationId))]
    .map(([batch, edits]): Binned => {
      // the record itself is deleted last, after what hangs on it
      const main = edits[edits.length - 1];
      const resource = resourceOf(main);
      const { name, text } = beforeOf(main);
      const called = typeof name === 'string' ? name : typeof text === 'string' ? text : '';
      const counts = new Map<ResourceName, number>();
      for (const edit of edits.slice(0, -1)) {
        const one = resourceOf(edit);
        if (one) counts.set(one, (counts.get(one) ?? 0) + 1);
      }
      return {
        ...{ batch, atMs: new Date(String(main.get('createdAt'))).getTime() },
        what: `${resource ? RESOURCES[resource].label : 'record'} ${called.slice(0, 120)}`.trim(),
        along: [...counts].map(([one, count]) => countText(one, count)),
      };
    })
    .reverse();
}

/**
 * Brings back what was deleted at once, whoever deleted it, with its parts and what had let go of it.
 * @throws UndoRefusedError when it belongs to something that is in the bin itself.
 */
export function bringBack(db: Database, stationId: number, batch: string, device: string): Promise<number> {
  return db.write(async (transaction) => {
    const edits = await db.edits.findAll({
      ...{
        where: { stationId, batch, undoneAt: null, op: { [Op.in]: ['delete', 'update'] } },
        order: [['id', 'DESC']],
      },
      transaction,
    });
    const deleted = edits.filter((edit) => edit.get('op') === 'delete');
    if (deleted.length === 0) throw new NotFoundError('record');
    for (const edit of edits) {
      const resource = resourceOf(edit);
      if (!resource) continue;
      const recordId = Number(edit.get('recordId'));
      if (edit.get('op') === 'update') {
        // what let go of it takes hold again, unless it went on its own way since
        const later = await db.edits.count({
          ...{ where: { resource, recordId, id: { [Op.gt]: edit.get('id') }, undoneAt: null }, transaction },
        });
        if (later > 0) continue;
      }
      await takeBack(db, transaction, edit);
      await edit.update({ undoneAt: new Date() }, { transaction });
      await noteEdit(db, transaction, {
        ...{ key: randomUUID(), device, stationId, resource, recordId },
        ...{ op: 'update', before: null, after: null, final: true },
      });
    }
    await requireParents(db, transaction, edits);
    return deleted.length;
  });
}

/** Takes what is in the bin away for good. @returns how many records went. */
export function emptyBin(db: Database, stationId: number): Promise<number> {
  return db.write(async (transaction) => {
    await findStation(db, stationId, transaction);
    let gone = 0;
    // what points at others goes before them
    for (const resource of [...RESOURCE_NAMES].reverse()) {
      const rows = await db.tables[resource].findAll({
        ...{ where: { stationId, deletedAt: { [Op.ne]: null } }, attributes: ['id'], paranoid: false, transaction },
      });
      const ids = rows.map((row) => Number(row.get('id')));
      if (ids.length === 0) continue;
      // their past cannot be undone any more, and what stood in them is gone from there, too
      const theirs = { stationId, resource, recordId: { [Op.in]: ids } };
      await db.edits.update({ before: null, after: null }, { where: theirs, transaction });
      await db.edits.update({ undoneAt: new Date() }, { where: { ...theirs, undoneAt: null }, transaction });
      await db.sequelize.query('PRAGMA defer_foreign_keys = ON', { transaction });
      gone += await db.tables[resource].destroy({ where: { id: { [Op.in]: ids } }, force: true, transaction });
    }
    return gone;
  });
}
