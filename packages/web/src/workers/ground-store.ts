import { freshCells, type Ground, groundClass, groundKey, type KeptCells, takeCells } from '@velvet-reed/core/solver';
import { clear, createStore, getMany, keys, setMany, type UseStore } from 'idb-keyval';

/** Entries kept in the browser at most, one for a ground at a frequency: beyond that all are dropped and computed anew. */
const MOST_KEPT = 300;
/** Of one ground so many are read at once, the latest written last. */
const MOST_READ = 60;

let store: UseStore | undefined;
const kept = (): UseStore => (store ??= createStore('velvet-reed-ground', 'cells-1'));
const asked = new Map<string, Promise<void>>();

const isRows = (value: unknown): value is ReadonlyMap<number, Float64Array> =>
  value instanceof Map && [...value].every(([row, cells]) => typeof row === 'number' && cells instanceof Float64Array);

/** Reads what earlier visits computed of a ground; a browser without storage computes again. */
async function read(prefix: string): Promise<void> {
  try {
    const names = (await keys<string>(kept())).filter((name) => name.startsWith(prefix)).slice(-MOST_READ);
    const found = await getMany<unknown>(names, kept());
    names.forEach((key, i) => {
      const rows = found[i];
      if (isRows(rows)) takeCells({ key, rows });
    });
  } catch {
    // private windows may refuse storage: nothing is lost but time
  }
}

/** The ground that a question is about: in its model, in that of its first part, or by its name. */
function groundOf(question: unknown): Ground | undefined {
  if (Array.isArray(question)) return groundOf(question[0]);
  if (typeof question !== 'object' || question === null) return undefined;
  if ('groundId' in question && typeof question.groundId === 'string') return groundClass(question.groundId).ground;
  if (!('model' in question) || typeof question.model !== 'object' || question.model === null) return undefined;
  const ground: unknown = 'ground' in question.model ? question.model.ground : undefined;
  if (typeof ground !== 'object' || ground === null) return undefined;
  if (!('relPermittivity' in ground && 'conductivitySPerM' in ground)) return undefined;
  const { relPermittivity, conductivitySPerM } = ground;
  return typeof relPermittivity === 'number' && typeof conductivitySPerM === 'number'
    ? { type: 'real', relPermittivity, conductivitySPerM }
    : undefined;
}

/** Has what is known of a question's ground at hand before it is computed; each ground is read once. */
export async function recallGround(question: unknown): Promise<void> {
  const ground = groundOf(question);
  if (ground?.type !== 'real') return;
  const prefix = groundKey(ground);
  const reading = asked.get(prefix) ?? read(prefix);
  asked.set(prefix, reading);
  await reading;
}

const unkept = new Map<string, KeptCells>();

/** What was computed of any ground since the last time, to be told; it is remembered until it is kept. */
export function freshGround(): readonly KeptCells[] {
  const fresh = freshCells();
  for (const cells of fresh) unkept.set(cells.key, cells);
  return fresh;
}

/** Keeps what was computed since the last time. */
export async function keepGround(): Promise<void> {
  if (unkept.size === 0) return;
  const lot = [...unkept.values()];
  unkept.clear();
  try {
    if ((await keys(kept())).length > MOST_KEPT) await clear(kept());
    await setMany(
      lot.map(({ key, rows }) => [key, rows]),
      kept(),
    );
  } catch {
    // see read
  }
}
