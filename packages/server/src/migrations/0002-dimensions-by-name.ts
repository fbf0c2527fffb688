import type { Migration } from '../migrate';
import { addColumn } from './additions';

/** Columns that become named dimensions, so that every kind of antenna can have its own. */
const OLD = ['angleDeg', 'radials', 'droopDeg', 'loopDiameterM'];
const named = (value: (name: string) => string): string =>
  `json_object(${OLD.map((name) => `'${name}', ${value(name)}`).join(', ')})`;

/** Only the kind's own dimensions count; the others are ignored wherever they stand. */
export const dimensionsByName: Migration = {
  name: '0002-dimensions-by-name',
  async up({ context }) {
    const { sequelize } = context;
    await addColumn(context, 'stations', 'groundId', "TEXT NOT NULL DEFAULT 'average'");
    await addColumn(context, 'revisions', 'dimensions', "JSON NOT NULL DEFAULT '{}'");
    // an earlier release may have been stopped in between: values move only while all old columns are there, those left are dropped
    const left = await context.columns('revisions').then((names) => OLD.filter((name) => names.includes(name)));
    if (left.length === OLD.length) await sequelize.query(`UPDATE revisions SET dimensions = ${named((name) => name)}`);
    for (const name of left) await sequelize.query(`ALTER TABLE revisions DROP COLUMN ${name}`);
    // predecessors in the history must fit the new table, or undo would lose them
    for (const side of ['"before"', '"after"']) {
      await sequelize.query(
        `UPDATE edits SET ${side} = json_set(json_remove(${side}, ${OLD.map((name) => `'$.${name}'`).join(', ')}),
           '$.dimensions', ${named((name) => `json_extract(${side}, '$.${name}')`)})
         WHERE resource = 'revisions' AND ${side} IS NOT NULL AND json_type(${side}, '$.dimensions') IS NULL`,
      );
      await sequelize.query(
        `UPDATE edits SET ${side} = json_set(${side}, '$.groundId', 'average') WHERE resource = 'stations' AND ${side} IS NOT NULL`,
      );
    }
  },
  async down({ context: { sequelize } }) {
    for (const [name, start] of [
      ['angleDeg', 120],
      ['radials', 4],
      ['droopDeg', 45],
      ['loopDiameterM', 1],
    ] as const) {
      await sequelize.query(`ALTER TABLE revisions ADD COLUMN ${name} REAL NOT NULL DEFAULT ${start}`);
      await sequelize.query(`UPDATE revisions SET ${name} = COALESCE(json_extract(dimensions, '$.${name}'), ${start})`);
    }
    await sequelize.query('ALTER TABLE revisions DROP COLUMN dimensions');
    await sequelize.query('ALTER TABLE stations DROP COLUMN groundId');
  },
};
