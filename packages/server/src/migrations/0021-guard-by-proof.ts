import type { Migration } from '../migrate';
import { addColumn, createTable, rewriteEdits } from './additions';

/** New columns of the plans: SQL type with default, and the same default as JSON. */
const ADDED: readonly (readonly [name: string, sql: string, json: string])[] = [
  ['bands', `TEXT NOT NULL DEFAULT ''`, '""'],
  ['sequenceBy', `TEXT NOT NULL DEFAULT 'not said'`, '"not said"'],
  ['times', `TEXT NOT NULL DEFAULT '{}'`, '{}'],
  ['throughDb', 'REAL', 'null'],
  ['energyJ', 'REAL', 'null'],
  ['modeShare', 'REAL', 'null'],
  ['dutyShare', 'REAL', 'null'],
  ['limitVPerM', 'REAL', 'null'],
  ['limitAPerM', 'REAL', 'null'],
  ['limitSource', `TEXT NOT NULL DEFAULT ''`, '""'],
  ['hangingOnNothing', `TEXT NOT NULL DEFAULT ''`, '""'],
];

const TABLES: Readonly<Record<string, string>> = {
  guardParts: `guardPlanId INTEGER NOT NULL REFERENCES guardPlans(id), name TEXT NOT NULL, kind TEXT NOT NULL, x REAL NOT NULL, y REAL NOT NULL,
    figures TEXT NOT NULL, choices TEXT NOT NULL, evidence TEXT NOT NULL, pulled INTEGER NOT NULL`,
  guardLinks: `guardPlanId INTEGER NOT NULL REFERENCES guardPlans(id), fromNode TEXT NOT NULL, fromPort TEXT NOT NULL, toNode TEXT NOT NULL,
    toPort TEXT NOT NULL`,
  guardCouplings: `guardPlanId INTEGER NOT NULL REFERENCES guardPlans(id), aNode TEXT NOT NULL, bNode TEXT NOT NULL, freqHz REAL,
    lossDb REAL NOT NULL, origin TEXT NOT NULL`,
  powerTests: `guardPlanId INTEGER NOT NULL REFERENCES guardPlans(id), guardInputId INTEGER NOT NULL REFERENCES guardInputs(id),
    freqHz REAL NOT NULL, lowestW REAL NOT NULL, attenuatorDb REAL NOT NULL, backgroundDbm REAL NOT NULL, expectedLossDb REAL, atMs REAL NOT NULL,
    conditions TEXT NOT NULL DEFAULT ''`,
  powerRungs: `powerTestId INTEGER NOT NULL REFERENCES powerTests(id), round INTEGER NOT NULL, powerW REAL NOT NULL, readingDbm REAL NOT NULL`,
};

/** The station as a graph, couplings, stepwise tests, and what a plan of Guard knows of times and people. */
export const guardByProof: Migration = {
  name: '0021-guard-by-proof',
  async up({ context }) {
    for (const [table, own] of Object.entries(TABLES)) await createTable(context, table, own);
    for (const [column, sql] of ADDED) await addColumn(context, 'guardPlans', `"${column}"`, sql);
    const values = ADDED.map(([column, , json]) => `'$.${column}', json('${json}')`).join(', ');
    await rewriteEdits(context, 'guardPlans', (side) => `json_set(${side}, ${values})`);
  },
  async down({ context }) {
    for (const [column] of ADDED) await context.sequelize.query(`ALTER TABLE guardPlans DROP COLUMN "${column}"`);
    const gone = ADDED.map(([column]) => `'$.${column}'`).join(', ');
    await rewriteEdits(context, 'guardPlans', (side) => `json_remove(${side}, ${gone})`);
    for (const table of Object.keys(TABLES).reverse()) {
      await context.sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await context.sequelize.query(`DROP TABLE ${table}`);
    }
  },
};
