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

export const connectorText = ({ family, gender }: Connector): string => `${family}-${gender}`;
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
