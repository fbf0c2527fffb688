import { OutOfRangeError } from '../errors';

/** A connector: family and gender, as "N-m" or "SMA-f". */
export interface Connector {
  readonly family: string;
  readonly gender: 'm' | 'f';
}

/** A thing with two ends. */
export interface Adapter {
  readonly name: string;
  readonly a: Connector;
  readonly b: Connector;
}

/** Reads "SMA-f". @throws OutOfRangeError that says how it is written. */
export function readConnector(text: string): Connector {
  const match = /^\s*([A-Za-z0-9.]+)\s*-\s*([mf])\s*$/.exec(text);
  if (!match)
    throw new OutOfRangeError(`"${text.trim()}" names no connector. Write family and gender, such as N-m or SMA-f.`);
  return { family: match[1].toUpperCase(), gender: match[2] === 'm' ? 'm' : 'f' };
}

/** Reads adapters, one a line, each "SMA-m to N-f". @throws OutOfRangeError that says how a line is written. */
export const readAdapters = (text: string): readonly Adapter[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line): Adapter => {
      const [a = '', b = '', ...rest] = line.split(/\s+to\s+/);
      if (b === '' || rest.length > 0)
        throw new OutOfRangeError(`"${line}" is no adapter. Write its two ends, such as SMA-m to N-f.`);
      return { name: line, a: readConnector(a), b: readConnector(b) };
    });

const connectorText = ({ family, gender }: Connector): string => `${family}-${gender}`;
const mates = (a: Connector, b: Connector): boolean => a.family === b.family && a.gender !== b.gender;
const other = ({ family, gender }: Connector): Connector => ({ family, gender: gender === 'm' ? 'f' : 'm' });

/** How one end gets onto another. */
export interface Joining {
  readonly fits: boolean;
  /** Adapters in order; empty when the ends mate by themselves. */
  readonly adapters: readonly string[];
  /** What to buy when nothing at hand does it. */
  readonly missing?: string;
}

/** Fewest adapters between two ends, each adapter at hand used once; breadth first, so that the first way found is the shortest. */
export function joinConnectors(from: Connector, to: Connector, atHand: readonly Adapter[]): Joining {
  if (mates(from, to)) return { fits: true, adapters: [] };
  const queue: { readonly end: Connector; readonly used: readonly number[] }[] = [{ end: from, used: [] }];
  const seen = new Set<string>();
  for (let head = 0; head < queue.length; head += 1) {
    const { end, used } = queue[head];
    for (let i = 0; i < atHand.length; i += 1) {
      if (used.includes(i)) continue;
      const { a, b } = atHand[i];
      for (const [near, far] of [
        [a, b],
        [b, a],
      ]) {
        if (!mates(end, near)) continue;
        const next = [...used, i];
        if (mates(far, to)) return { fits: true, adapters: next.map((k) => atHand[k].name) };
        const key = `${connectorText(far)} ${next.sort((x, y) => x - y).join()}`;
        if (seen.has(key)) continue;
        seen.add(key);
        queue.push({ end: far, used: next });
      }
    }
  }
  return {
    fits: false,
    adapters: [],
    missing: `an adapter ${connectorText(other(from))} to ${connectorText(other(to))}`,
  };
}

/** A thing in a row, with the connectors at its two ends; a text that is empty is not known. */
export interface Plugged {
  readonly name: string;
  readonly antennaSide: string;
  readonly receiverSide: string;
}

/** How the things of a row join, in order, and what must be bought. */
export interface PlugRow {
  readonly joints: readonly (Joining & { readonly from: string; readonly to: string; readonly known: boolean })[];
  readonly missing: readonly string[];
}

/** Joins a row from the antenna to the receiver; an adapter at hand serves one joint only. @throws OutOfRangeError for a connector that cannot be read. */
export function joinRow(row: readonly Plugged[], atHand: readonly Adapter[]): PlugRow {
  let left = [...atHand];
  const joints = row.slice(1).map((to, i) => {
    const from = row[i];
    const names = { from: from.name, to: to.name };
    if (from.receiverSide.trim() === '' || to.antennaSide.trim() === '')
      return { ...names, known: false, fits: false, adapters: [] };
    const joining = joinConnectors(readConnector(from.receiverSide), readConnector(to.antennaSide), left);
    for (const name of joining.adapters) {
      const used = left.findIndex((one) => one.name === name);
      left = left.filter((_, k) => k !== used);
    }
    return { ...names, known: true, ...joining };
  });
  return { joints, missing: joints.flatMap(({ missing }) => (missing ? [missing] : [])) };
}
