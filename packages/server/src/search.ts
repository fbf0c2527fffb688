import { RESOURCE_NAMES, RESOURCES, type Columns, type ResourceName } from '@velvet-reed/contract';
import sqlite3 from 'sqlite3';
import { plainConnection } from './data-file';
import type { Database } from './database';
import { findStation, present } from './records';
import { currentRun, stationRevision } from './station-answer';

/** A record that holds the words, with a few of them about the place. */
export interface Found {
  readonly resource: ResourceName;
  readonly id: number;
  readonly label: string;
  /** Text with « and » about the words that were looked for. */
  readonly snippet: string;
}

const MOST_FOUND = 60;
/** Numbers as people write them: a frequency in each usual unit, the rest with the unit that its column ends in. */
const UNITS: readonly (readonly [RegExp, (value: number) => readonly string[]])[] = [
  [/Hz$/, (hz) => [`${hz / 1e6} MHz`, `${hz / 1e3} kHz`]],
  [/Dbm$/, (value) => [`${value} dBm`]],
  [/Db$/, (value) => [`${value} dB`]],
  [/Ohm$/, (value) => [`${value} Ω`]],
  [/Deg$/, (value) => [`${value}°`]],
  [/M$/, (value) => [`${value} m`]],
  [/W$/, (value) => [`${value} W`]],
  [/V$/, (value) => [`${value} V`]],
];

/** Words of a record: its texts, and its numbers as people write them. */
function wordsOf(resource: ResourceName, values: Readonly<Record<string, unknown>>): string {
  const columns: Columns = RESOURCES[resource].columns;
  return Object.keys(columns)
    .flatMap((name): readonly string[] => {
      const value = values[name];
      if (typeof value === 'string') return [value];
      if (typeof value !== 'number' || columns[name].to !== undefined) return [];
      return UNITS.find(([ending]) => ending.test(name))?.[1](value) ?? [];
    })
    .join(' · ');
}

/** What was typed as a question to the index: every word, the last one perhaps half; signs that the index has a meaning for have none here. */
function questionOf(text: string): string | undefined {
  const words = text.match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.length === 0
    ? undefined
    : words
        .slice(0, 12)
        .map((word, i) => `"${word}"${i === words.length - 1 ? '*' : ''}`)
        .join(' ');
}

type Index = Awaited<ReturnType<typeof plainConnection>>;
/** The index of the station that was asked last, as it was at a revision: it is made from the records, so it is never behind them. */
const kept = new WeakMap<Database, { readonly key: string; readonly index: Promise<Index> }>();

async function indexOf(db: Database, stationId: number): Promise<Index> {
  const key = `${currentRun()} ${stationId} ${await stationRevision(db, stationId)}`;
  const last = kept.get(db);
  if (last?.key === key) return last.index;
  void last?.index.then((old) => old.close());
  const index = build();
  kept.set(db, { key, index });
  return index;
  async function build(): Promise<Index> {
    const made = await plainConnection(':memory:', sqlite3.OPEN_READWRITE | sqlite3.OPEN_CREATE);
    await made.all(
      `CREATE VIRTUAL TABLE words USING fts5(text, resource UNINDEXED, record UNINDEXED, tokenize = "unicode61 remove_diacritics 2")`,
    );
    await made.all('BEGIN');
    for (const resource of RESOURCE_NAMES)
      for (const row of await db.tables[resource].findAll({ where: { stationId } }))
        await made.all('INSERT INTO words VALUES (?, ?, ?)', [
          ...[wordsOf(resource, present(row, resource)), resource, Number(row.get('id'))],
        ]);
    await made.all('COMMIT');
    return made;
  }
}

/** Full-text search over all records of a station: entries, names, notes and numbers. The best first (BM25, SQLite FTS5). */
export async function searchStation(db: Database, stationId: number, text: string): Promise<readonly Found[]> {
  await findStation(db, stationId);
  const question = questionOf(text);
  if (question === undefined) return [];
  const index = await indexOf(db, stationId);
  const rows = await index.all(
    `SELECT resource, record, snippet(words, 0, '«', '»', '…', 12) AS snippet FROM words WHERE words MATCH ? ORDER BY rank LIMIT ${MOST_FOUND}`,
    [question],
  );
  return rows.flatMap((row): Found[] => {
    const resource = RESOURCE_NAMES.find((name) => name === row.resource);
    return resource
      ? [{ resource, id: Number(row.record), label: RESOURCES[resource].label, snippet: String(row.snippet) }]
      : [];
  });
}
