import type { Migration } from '../migrate';
import { additions, createTable } from './additions';

const columns = additions(
  '0027-spots',
  {},
  {
    antennas: [
      ['spotId', 'INTEGER REFERENCES spots(id)', 'null'],
      ['choke', "TEXT NOT NULL DEFAULT 'not said'", '"not said"'],
    ],
    stations: [
      ['wirePerM', 'REAL NOT NULL DEFAULT 0.8', '0.8'],
      ['tubePerM', 'REAL NOT NULL DEFAULT 4', '4'],
      ['mastPerM', 'REAL NOT NULL DEFAULT 12', '12'],
      ['perPost', 'REAL NOT NULL DEFAULT 15', '15'],
    ],
  },
);

/** Spots at which an antenna may hang, where antennas hang, chokes, and what wire and masts cost. */
export const spots: Migration = {
  name: '0027-spots',
  async up(context) {
    if (!(await context.context.columns('spots')).includes('id'))
      await createTable(
        context.context,
        'spots',
        `name TEXT NOT NULL, kind TEXT NOT NULL, spanM REAL NOT NULL, widthM REAL NOT NULL, heightM REAL NOT NULL, distanceM REAL`,
      );
    await columns.up(context);
  },
  async down(context) {
    await columns.down?.(context);
    await context.context.sequelize.query(`DELETE FROM edits WHERE resource = 'spots'`);
    await context.context.sequelize.query('DROP TABLE spots');
  },
};
