import { RESOURCE_NAMES, type ResourceName } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { referencesOf } from './resources';

/** One record and its kind. */
interface Member {
  readonly resource: ResourceName;
  readonly row: Row;
}
/** A record that stays and loses what it pointed at. */
interface Released extends Member {
  readonly fields: readonly string[];
}

/** What deleting one record means. */
export interface DeletionPlan {
  /** The record itself is the last. */
  readonly goes: readonly Member[];
  readonly released: readonly Released[];
}

/**
 * What goes when a record goes: parts, and everything that means nothing without it; what merely pointed at it stays and lets go. A raw file goes with
 * the last record that it belongs to.
 */
export async function deletionPlan(
  db: Database,
  transaction: Transaction | undefined,
  whole: Member,
): Promise<DeletionPlan> {
  const seen = new Set<string>();
  const keyOf = ({ resource, row }: Member): string => `${resource} ${String(row.get('id'))}`;
  const goes: Member[] = [];
  const released = new Map<string, Released>();

  const visit = async (member: Member): Promise<void> => {
    if (seen.has(keyOf(member))) return;
    seen.add(keyOf(member));
    for (const user of RESOURCE_NAMES)
      for (const { field, to, along } of referencesOf(user)) {
        if (to !== member.resource) continue;
        const rows = await db.tables[user].findAll({ where: { [field]: Number(member.row.get('id')) }, transaction });
        for (const row of rows) {
          const one = { resource: user, row };
          if (along) await visit(one);
          else released.set(keyOf(one), { ...one, fields: [...(released.get(keyOf(one))?.fields ?? []), field] });
        }
      }
    goes.push(member);
    const fileField = referencesOf(member.resource).find(({ own }) => own)?.field;
    const fileId = fileField ? member.row.get(fileField) : null;
    if (typeof fileId !== 'number') return;
    const file = await db.tables.attachments.findByPk(fileId, { transaction, attributes: { exclude: ['bytes'] } });
    if (file && !(await usedElsewhere(db, transaction, fileId, goes))) {
      seen.add(keyOf({ resource: 'attachments', row: file }));
      goes.push({ resource: 'attachments', row: file });
    }
  };
  await visit(whole);
  for (const key of seen) released.delete(key);
  return { goes, released: [...released.values()] };
}

async function usedElsewhere(
  db: Database,
  transaction: Transaction | undefined,
  fileId: number,
  goes: readonly Member[],
): Promise<boolean> {
  for (const user of RESOURCE_NAMES)
    for (const { field, own } of referencesOf(user)) {
      if (!own) continue;
      const rows = await db.tables[user].findAll({ where: { [field]: fileId }, attributes: ['id'], transaction });
      if (rows.some((row) => !goes.some((one) => one.resource === user && one.row.get('id') === row.get('id'))))
        return true;
    }
  return false;
}
