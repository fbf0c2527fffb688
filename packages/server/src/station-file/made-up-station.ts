// Stations from a seed, for tests and the bench.
import { randomUUID } from 'node:crypto';
import { BLANK, createOf, readBatch } from '@velvet-reed/contract';
import { startDesign } from '@velvet-reed/core/antenna';
import { chanceOf } from '@velvet-reed/core/recording';
import { applyChanges } from '../changes';
import type { Database } from '../database';
import { createStation } from '../records';
import { HUT } from '../test-server';

const author = () => ({ key: randomUUID(), device: '' });
/** Changes as a page would send them. */
async function change(db: Database, id: number, asked: readonly unknown[]): Promise<void> {
  const { changes } = await readBatch({ changes: JSON.parse(JSON.stringify(asked)) as unknown });
  await applyChanges(db, id, { changes, author: author() });
}

/** Words that break careless files: formulas, quotes, lines, signs of other scripts, markup. */
const WORDS = [
  '=SUM(A1)',
  'say "9.65 MHz"',
  'two\nlines',
  'Ω λ/4 ± 3°',
  '<b>bold</b>',
  '日本 ракета',
  'a,b;c\td',
  '@x',
  '-1+2',
];

/** A made-up station: antennas with revisions and targets, a guard plan whose links name them, trials, turns, words of every sort. */
export async function madeUpStation(db: Database, seed: number): Promise<number> {
  const chance = chanceOf(seed);
  const many = (most: number): number => Math.floor((most + 1) * chance.uniform());
  const word = (): string => WORDS[Math.floor(WORDS.length * chance.uniform())];
  const made = await createStation(
    db,
    { ...HUT, name: `Hut ${seed} ${word()}`, latDeg: 60 * chance.uniform() },
    author(),
  );
  const id = Number(made.id);
  const targets = Array.from({ length: 1 + many(3) }, (_, i) =>
    createOf(
      'targets',
      { name: `${word()} ${i}`, lowHz: 1e6 * (i + 1), highHz: 1e6 * (i + 2), bandwidthHz: 3000, weight: 1 + many(4) },
      `t${i}`,
    ),
  );
  const antennas = Array.from({ length: 1 + many(3) }, (_, i) => [
    createOf('antennas', { name: `${word()} ${i}`, targetId: many(1) ? { new: 't0' } : null }, `a${i}`),
    createOf('revisions', {
      ...startDesign('half-wave-dipole', 5e6 + 1e6 * i),
      ...{ antennaId: { new: `a${i}` }, number: 1, gates: [], done: many(1) ? ['cut'] : [] },
    }),
  ]).flat();
  const entries = Array.from({ length: many(8) }, () =>
    createOf('entries', {
      step: 'notebook',
      text: `${word()} ${chance.uniform()}`,
      atMs: Math.round(1e12 * chance.uniform()),
    }),
  );
  await change(db, id, [
    ...targets,
    ...antennas,
    ...entries,
    createOf(
      'transmitters',
      { name: word(), freqHz: 7.1e6, powerW: 100, powerKind: 'output', distanceM: 22, own: true },
      'tx',
    ),
    createOf(
      'guardPlans',
      {
        ...BLANK.guardPlans,
        name: 'Plan',
        transmitterId: { new: 'tx' },
        freqHz: 7e6,
        marginToKeepDb: 10,
        meterResolutionW: 0.1,
      },
      'plan',
    ),
    createOf('nullLogs', {
      ...{ name: word(), atMs: 1, xM: chance.uniform(), yM: -3, declinationDeg: 0, meaning: 'null', sigmaDeg: 2 },
      ...{
        ...BLANK.nullLogs,
        readings: [
          [0, -60.5],
          [15, -70],
        ],
      },
    }),
  ]);
  const plan = await db.tables.guardPlans.findOne({ where: { stationId: id } });
  const antenna = await db.tables.antennas.findOne({ where: { stationId: id }, order: [['id', 'DESC']] });
  await change(db, id, [
    createOf('guardLinks', {
      ...{ guardPlanId: Number(plan?.get('id')), fromNode: `antenna:${String(antenna?.get('id'))}`, fromPort: 'a' },
      ...{ toNode: 'named:old mast', toPort: 'a' },
    }),
  ]);
  return id;
}
