import { RESOURCE_NAMES, RESOURCES } from '@velvet-reed/contract';
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { Database, Row } from './database';
import { noteEdit } from './history';
import { valuesOf } from './records';
import { countText, referencesOf } from './resources';

/**
 * Records that point at something that is not there, as releases before could leave them: what means nothing without it goes to the bin, what merely pointed at
 * it lets go. Told in the diary of the station. Runs at the start, after the migrations; in order it finds nothing.
 * @returns a sentence for each kind of record that was mended.
 */
export function mendReferences(db: Database): Promise<readonly string[]> {
  return db.write(async (transaction) => {
    const told: string[] = [];
    const author = { key: randomUUID(), device: '' };
    const note = (row: Row, resource: (typeof RESOURCE_NAMES)[number], op: 'update' | 'delete', after: object | null) =>
      noteEdit(db, transaction, {
        ...{ ...author, resource, op, stationId: Number(row.get('stationId')), recordId: Number(row.get('id')) },
        ...{ before: valuesOf(row, resource), after: after && { ...valuesOf(row, resource), ...after } },
      });
    const diary = new Map<number, string[]>();
    // what goes may leave others without what they point at
    for (let found = true; found;) {
      found = false;
      for (const resource of RESOURCE_NAMES)
        for (const { field, to, along } of referencesOf(resource)) {
          const rows = await db.tables[resource].findAll({
            where: {
              [field]: {
                [Op.ne]: null,
                [Op.notIn]: db.sequelize.literal(`(SELECT id FROM "${to}" WHERE deletedAt IS NULL)`),
              },
            },
            transaction,
          });
          if (rows.length === 0) continue;
          found = true;
          const counts = new Map<number, number>();
          for (const row of rows) {
            const stationId = Number(row.get('stationId'));
            counts.set(stationId, (counts.get(stationId) ?? 0) + 1);
            await note(row, resource, along ? 'delete' : 'update', along ? null : { [field]: null });
            await row.update(
              { version: Number(row.get('version')) + 1, ...(along ? {} : { [field]: null }) },
              { transaction },
            );
            if (along) await row.destroy({ transaction });
          }
          for (const [stationId, count] of counts) {
            const sentence = `${countText(resource, count)} whose ${RESOURCES[to].label} is not there: ${along ? 'moved to the bin' : 'kept'}.`;
            diary.set(stationId, [...(diary.get(stationId) ?? []), sentence]);
            told.push(sentence);
          }
        }
    }
    for (const [stationId, sentences] of diary) {
      const values = {
        ...RESOURCES.entries.blank,
        ...{ step: 'notebook', text: `Mended at the start: ${sentences.join(' ')}`, atMs: Date.now() },
      };
      const row = await db.tables.entries.create({ ...values, stationId }, { transaction });
      const made = { stationId, resource: 'entries', recordId: Number(row.get('id')), op: 'create' as const };
      await noteEdit(db, transaction, { ...author, ...made, before: null, after: values });
    }
    return told;
  });
}
