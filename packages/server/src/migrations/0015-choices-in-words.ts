import type { Migration, MigrationContext } from '../migrate';
import { addColumn } from './additions';

/** Choices of a stage that were number codes among its figures, and their words. */
const WORDS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  form: { 0: 'hybrid', 1: 'star', 2: 'tee' },
  mixing: { 0: 'above', 1: 'below', 2: 'sum' },
  polarity: { 1: 'plus', '-1': 'minus' },
  passesDc: { 0: 'blocked', 1: 'passes', 2: 'by shape' },
};
type Record_ = Readonly<Record<string, unknown>>;
const isRecord = (value: unknown): value is Record_ =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const parsed = (text: unknown): Record_ => {
  const value: unknown = typeof text === 'string' ? JSON.parse(text) : text;
  return isRecord(value) ? value : {};
};
const quoted = (value: unknown): string => `'${JSON.stringify(value).replaceAll("'", "''")}'`;

/** Numbers stay figures; codes become words. A code that never had a meaning is left out: its kind's first choice holds. */
function apart(figures: Record_): { readonly figures: Record_; readonly choices: Record_ } {
  const entries = Object.entries(figures);
  return {
    figures: Object.fromEntries(entries.filter(([name]) => !(name in WORDS))),
    choices: Object.fromEntries(
      entries.flatMap(([name, code]) => {
        const word = name in WORDS ? (WORDS[name] as Record_)[String(code)] : undefined;
        return word === undefined ? [] : [[name, word]];
      }),
    ),
  };
}
function together(figures: Record_, choices: Record_): Record_ {
  const codes = Object.entries(choices).flatMap(([name, word]) => {
    const found = Object.entries(WORDS[name] ?? {}).find(([, one]) => one === word);
    return found ? [[name, Number(found[0])] as const] : [];
  });
  return { ...figures, ...Object.fromEntries(codes) };
}

/** Changes the values of every stage, and of every side of its edits. */
async function eachStage({ sequelize, rows }: MigrationContext, change: (values: Record_) => Record_): Promise<void> {
  for (const row of await rows('SELECT id, figures, choices FROM pathStages')) {
    const { figures, choices } = change({ figures: parsed(row.figures), choices: parsed(row.choices) });
    await sequelize.query(
      `UPDATE pathStages SET figures = ${quoted(figures)}, choices = ${quoted(choices ?? {})} WHERE id = ${Number(row.id)}`,
    );
  }
  for (const row of await rows(`SELECT id, "before", "after" FROM edits WHERE resource = 'pathStages'`))
    for (const side of ['before', 'after']) {
      if (row[side] === null) continue;
      await sequelize.query(
        `UPDATE edits SET "${side}" = ${quoted(change(parsed(row[side])))} WHERE id = ${Number(row.id)}`,
      );
    }
}

/** Choices of a stage are kept in words. */
export const choicesInWords: Migration = {
  name: '0015-choices-in-words',
  async up({ context }) {
    await addColumn(context, 'pathStages', 'choices', "JSON NOT NULL DEFAULT '{}'");
    await eachStage(context, (values) => ({ ...values, ...apart(parsed(values.figures)) }));
  },
  async down({ context }) {
    await eachStage(context, ({ choices, ...values }) => ({
      ...values,
      figures: together(parsed(values.figures), parsed(choices)),
    }));
    await context.sequelize.query('ALTER TABLE pathStages DROP COLUMN choices');
  },
};
