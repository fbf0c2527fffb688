import type { StationData } from '../record';

/*
 * A judge of Guard that shares no line with the one that is tested: it reads the records, walks every way that comes to no port twice, and counts only
 * what was taken on the very state that is asked. Slow, and for tests alone.
 */

type Plan = StationData['guardPlans'][number];
type Input = StationData['guardInputs'][number];
type Part = StationData['guardParts'][number];
/** 0 measured, 1 computed, 2 assumed, 3 not known, 4 danger. */
export type Rank = 0 | 1 | 2 | 3 | 4;
/** A loss or gain with the class of its footing; null: nobody knows it. */
type Figure = { readonly db: number; readonly cls: 0 | 1 | 2 } | null;

/** What a referee says of an input in a state at a frequency. */
export interface Ruling {
  readonly input: number;
  readonly state: string;
  readonly freqHz: number;
  readonly rank: Rank;
  readonly dbm?: number;
}

/** A made-up answer of the wire model by distance and frequency; undefined: not computed yet. */
export const pretendedLoss = (distanceM: number, freqHz: number): number | undefined =>
  Math.floor(distanceM * 10) % 7 === 0 ? undefined : 18 + ((17 * distanceM + (3 * freqHz) / 1e6) % 45);

const CLASS: Readonly<Record<string, 0 | 1 | 2>> = { measured: 0, model: 1, assumed: 2 };
const near = (a: number, b: number): boolean => a >= 0.98 * b && a <= 1.02 * b;

function figure(part: Part, name: 'lossDb' | 'isolationDb' | 'gainDb', hz: number): Figure {
  const cls = CLASS[part.evidence[name] ?? 'assumed'] ?? 2;
  const own = part.points.filter((one) => one.figure === name).map((one) => [one.freqHz, one.db] as const);
  if (own.length > 0) {
    own.sort((a, b) => a[0] - b[0]);
    const [low, high] = [own[0], own[own.length - 1]];
    const sign = name === 'gainDb' ? 0 : 1;
    if (hz < low[0]) return hz >= 0.98 * low[0] ? { db: low[1] - sign, cls } : null;
    if (hz > high[0]) return hz <= 1.02 * high[0] ? { db: high[1] - sign, cls } : null;
    for (let i = 1; i < own.length; i += 1)
      if (hz <= own[i][0]) {
        const share = Math.log(hz / own[i - 1][0]) / Math.log(own[i][0] / own[i - 1][0]);
        return { db: own[i - 1][1] + share * (own[i][1] - own[i - 1][1]), cls };
      }
    return { db: low[1], cls };
  }
  if (part.figures[name] === undefined) return null;
  const at: number | undefined = part.figures[`${name}Hz`];
  if (at === undefined) return { db: part.figures[name], cls: 2 };
  if (!near(hz, at)) return null;
  return { db: Math.max(0, part.figures[name] - (hz === at ? 0 : 1)), cls };
}

interface Stand {
  readonly revision: number;
  readonly runs: readonly (readonly (readonly [number, number])[])[];
  readonly heights: readonly number[];
}
function standOf(data: StationData, node: string, plan: Plan): Stand {
  const id = Number(node.split(':')[1]);
  const laid = data.plotFeatures.filter((one) =>
    node === 'mast'
      ? one.kind === 'transmitter' && one.transmitterId === plan.transmitterId
      : one.kind === 'antenna' && one.antennaId === id && node.startsWith('antenna:'),
  );
  return {
    revision: Math.max(
      0,
      ...data.revisions.filter((one) => node === `antenna:${one.antennaId}`).map(({ number }) => number),
    ),
    runs: laid.map(({ points }) => points),
    heights: laid.flatMap(({ heightM, endHeightM }) => [heightM, endHeightM]),
  };
}
/** Doubt in dB that a change of stand adds; null: it is another stand. */
function moved(now: Stand, then: Stand): number | null {
  if (now.revision !== then.revision || now.runs.length !== then.runs.length) return null;
  let doubt = 0;
  for (const [k, run] of now.runs.entries()) {
    const old = then.runs[k];
    if (run.length !== old.length) return null;
    const steps = run.map(([x, y], i) => Math.hypot(x - old[i][0], y - old[i][1]));
    const rises = [2 * k, 2 * k + 1].map((i) => Math.abs(now.heights[i] - then.heights[i]));
    const most = Math.max(...steps, ...rises);
    const way = (points: typeof run): number =>
      Math.atan2(points[points.length - 1][1] - points[0][1], points[points.length - 1][0] - points[0][0]);
    const turn = run.length < 2 ? 0 : Math.abs(((way(run) - way(old)) * 180) / Math.PI) % 360;
    if (most > 0.3 || (most > 0.01 && Math.min(turn, 360 - turn) > 3)) return null;
    if (most > 0.01) doubt = 1;
  }
  return doubt;
}

/** How the station was when a figure was taken: the referee remembers it whole. */
export type Memory = ReadonlyMap<string, StationData>;

const middle = (points: readonly (readonly [number, number])[]): readonly [number, number] => [
  points.reduce((sum, [x]) => sum + x, 0) / points.length,
  points.reduce((sum, [, y]) => sum + y, 0) / points.length,
];

function coupling(
  data: StationData,
  plan: Plan,
  [a, b]: readonly [string, string],
  hz: number,
  memory: Memory,
): Figure {
  const typed = data.guardCouplings.filter(
    (one) => one.guardPlanId === plan.id && [one.aNode, one.bNode].includes(a) && [one.aNode, one.bNode].includes(b),
  );
  const held = (origin: 'measured' | 'assumed'): Figure => {
    const all = typed
      .filter((one) => one.origin === origin)
      .flatMap((one) => {
        if (origin === 'measured' && one.freqHz === null) return [];
        if (one.freqHz !== null && !near(hz, one.freqHz)) return [];
        const then = memory.get(`coupling ${one.id}`);
        let doubt = one.freqHz === null || one.freqHz === hz ? 0 : 1;
        if (!then && origin === 'measured') return [];
        let placed = 0;
        for (const node of then ? [a, b] : []) {
          if (node.startsWith('named:')) continue;
          const step = moved(standOf(data, node, plan), standOf(then ?? data, node, plan));
          if (step === null) return [];
          placed = Math.max(placed, step);
        }
        doubt += placed;
        return [Math.max(0, one.lossDb - doubt)];
      });
    return all.length === 0 ? null : { db: Math.min(...all), cls: origin === 'measured' ? 0 : 2 };
  };
  const measured = held('measured');
  if (measured) return measured;
  const [one, other] = [standOf(data, a, plan), standOf(data, b, plan)];
  const drafted = [a, b].every((node) => node === 'mast' || standOf(data, node, plan).revision > 0);
  const pairs = one.runs.flatMap((run) =>
    other.runs.map((far) => {
      const [from, to] = [a === 'mast' ? run[0] : middle(run), b === 'mast' ? far[0] : middle(far)];
      return pretendedLoss(Math.hypot(to[0] - from[0], to[1] - from[1]), hz);
    }),
  );
  const known = pairs.flatMap((db) => (db === undefined ? [] : [db - 2]));
  if (drafted && pairs.length > 0 && known.length === pairs.length)
    return { db: Math.max(0, Math.min(50, ...known)), cls: a === 'mast' || b === 'mast' ? 2 : 1 };
  return held('assumed');
}

interface Drawing {
  readonly links: readonly (readonly [string, string])[];
  readonly inputs: readonly Input[];
  readonly parts: readonly Part[];
  /** Gains ahead of an input by its Path, by the input's number. */
  readonly ahead: ReadonlyMap<number, number>;
  readonly drawn: ReadonlySet<string>;
}
const antennaNode = (data: StationData, input: Input): string => {
  const own =
    data.antennas.find(({ id }) => id === input.antennaId) ??
    data.antennas.find(
      ({ name }) => input.antennaId === null && name.trim().toLowerCase() === input.antennaName.trim().toLowerCase(),
    );
  return own ? `antenna:${own.id}` : `named:${input.antennaName.trim().toLowerCase()}`;
};
function drawing(data: StationData, plan: Plan): Drawing {
  const inputs = data.guardInputs.filter((one) => one.guardPlanId === plan.id);
  const parts = data.guardParts.filter((one) => one.guardPlanId === plan.id);
  const stored = data.guardLinks.filter((one) => one.guardPlanId === plan.id);
  const drawn = new Set(stored.flatMap((one) => [one.fromNode, one.toNode]));
  const links: (readonly [string, string])[] = stored.map(
    (one) => [`${one.fromNode}/${one.fromPort}`, `${one.toNode}/${one.toPort}`] as const,
  );
  if (!drawn.has('tx')) links.push(['tx/a', 'mast/a']);
  for (const input of inputs) {
    if (drawn.has(`input:${input.id}`)) continue;
    const from = antennaNode(data, input);
    if (input.disconnects)
      links.push([`${from}/a`, `implied:${input.id}/1`], [`implied:${input.id}/c`, `input:${input.id}/a`]);
    else links.push([`${from}/a`, `input:${input.id}/a`]);
  }
  const ahead = new Map<number, number>();
  for (const input of inputs) {
    const antenna = antennaNode(data, input);
    const stages = data.paths
      .filter(
        (path) =>
          input.receiverId !== null &&
          path.receiverId === input.receiverId &&
          (path.antennaId === null || antenna.startsWith('named:') || antenna === `antenna:${path.antennaId}`),
      )
      .map((path) => data.pathStages.filter((one) => one.pathId === path.id && one.kind === 'amplifier'))
      .sort((x, y) => y.length - x.length)[0];
    if (stages && stages.length > 0)
      ahead.set(
        input.id,
        stages.reduce((sum, { gainDb }) => sum + Math.max(0, gainDb), 0),
      );
  }
  return { links, inputs, parts, ahead, drawn };
}

const nodeOf = (port: string): string => port.slice(0, port.lastIndexOf('/'));
/** Nodes that hang together by plugs, those that are gone included. */
function together({ links }: Drawing, start: string): ReadonlySet<string> {
  const seen = new Set<string>();
  const go = (node: string): void => {
    if (seen.has(node)) return;
    seen.add(node);
    for (const [a, b] of links) {
      if (nodeOf(a) === node) go(nodeOf(b));
      if (nodeOf(b) === node) go(nodeOf(a));
    }
  };
  go(start);
  return seen;
}

/** What a test of an input depends on, as text: the same text, the same station as far as that test goes. */
function fingerprint(data: StationData, plan: Plan, input: number): string {
  const all = drawing(data, plan);
  const near = new Set([...together(all, 'tx'), ...together(all, `input:${input}`)]);
  const settings = ({ id, kind, figures, choices }: Part) => [
    ...[id, kind, figures.throws, figures.outputs, figures.leakDbm, figures.surviveDbm, figures.mostDbm],
    ...[choices.drive, choices.receive, choices.transmit, choices.rest],
  ];
  return JSON.stringify([
    all.parts.filter((part) => near.has(`part:${part.id}`)).map(settings),
    all.links
      .filter(([a, b]) => near.has(nodeOf(a)) || near.has(nodeOf(b)))
      .map((one) => [...one].sort().join('-'))
      .sort(),
    // an amplifier that is drawn stands for the Path's
    [...all.ahead].filter(
      ([id]) =>
        near.has(`input:${id}`) &&
        !all.parts.some((part) => part.kind === 'amplifier' && together(all, `input:${id}`).has(`part:${part.id}`)),
    ),
  ]);
}

/** What an amplifier makes of a level: what it can give, ten watts where only the gain is known, and nothing known where neither is. */
const driven = (dbm: number, gain: number, most?: number): number =>
  Math.min(dbm + gain, Math.max(dbm, most ?? (Number.isFinite(gain) ? 40 : Infinity)));

interface State {
  readonly name: string;
  readonly on: boolean;
  /** Throw of each switch by its node. */
  readonly at: Readonly<Record<string, string>>;
}
interface Relay {
  readonly node: string;
  readonly throws: number;
  readonly drive: string;
  readonly receive: string;
  readonly transmit: string;
  readonly rest: string;
}
function states(relays: readonly Relay[]): readonly State[] {
  const set = (where: (one: Relay) => string): State['at'] =>
    Object.fromEntries(relays.map((one) => [one.node, where(one)]));
  const sending = set(({ transmit }) => transmit);
  const idle = set((one) => (one.drive === 'key' ? one.receive : one.transmit));
  const keyed = relays.some(({ drive }) => drive === 'key');
  const each = (one: Relay): readonly string[] => Array.from({ length: one.throws }, (_, i) => String(i + 1));
  return [
    { name: 'key down', on: true, at: sending },
    ...(keyed ? ['relay moving', 'hang', 'key line unplugged'].map((name) => ({ name, on: true, at: idle })) : []),
    ...(relays.some(({ drive }) => drive !== 'hand')
      ? [{ name: 'supply off', on: true, at: set((one) => (one.drive === 'hand' ? one.transmit : one.rest)) }]
      : []),
    ...relays.flatMap((one) =>
      (one.drive === 'hand' ? each(one) : [...each(one), ''])
        .filter((where) => where !== one.transmit)
        .map((where) => ({
          name: `${one.drive === 'hand' ? 'wrong antenna' : 'switch stuck'} ${one.node} ${where}`,
          ...{ on: true, at: { ...sending, [one.node]: where } },
        })),
    ),
  ];
}

/** Everything that a referee says of a plan. */
export function referee(
  data: StationData,
  plan: Plan,
  powerW: number,
  freqsHz: readonly number[],
  memory: Memory,
): readonly Ruling[] {
  const all = drawing(data, plan);
  const exists = new Set([
    'tx',
    ...(!all.drawn.has('tx') || all.drawn.has('mast') ? ['mast'] : []),
    ...all.parts.map(({ id }) => `part:${id}`),
    ...all.inputs.flatMap(({ id }) => [`input:${id}`, `implied:${id}`]),
    ...data.antennas.map(({ id }) => `antenna:${id}`),
  ]);
  const isThere = (port: string): boolean => exists.has(nodeOf(port)) || port.startsWith('named:');
  const whole = all.links.filter(([a, b]) => isThere(a) && isThere(b));
  const loose = new Set(
    all.links.filter((one) => !whole.includes(one)).flatMap((one) => one.filter(isThere).map(nodeOf)),
  );
  const wired: Drawing = { ...all, links: whole };
  const feeds = together(wired, 'tx');
  const antennas = [...new Set(whole.flat().map(nodeOf))].filter((node) => /^(antenna:|named:|mast)/.test(node));
  const relays: readonly Relay[] = [
    ...all.parts
      .filter(({ kind }) => kind === 'switch')
      .map(({ id, figures, choices }) => ({
        ...{ node: `part:${id}`, throws: figures.throws ?? 1, drive: choices.drive ?? 'key' },
        ...{ receive: choices.receive ?? '1', transmit: choices.transmit ?? '', rest: choices.rest ?? '' },
      })),
    ...all.inputs
      .filter(({ id, disconnects }) => disconnects && !all.drawn.has(`input:${id}`))
      .map(({ id }) => ({
        ...{ node: `implied:${id}`, throws: 1, drive: 'key', receive: '1', transmit: '', rest: '1' },
      })),
  ];
  const sentDbm = 10 * Math.log10(powerW * 1000);
  const rulings: Ruling[] = [];
  const found = new Map<string, Figure>();
  const once = (key: string, ask: () => Figure): Figure => {
    const known = found.get(key);
    if (known !== undefined) return known;
    const answer = ask();
    found.set(key, answer);
    return answer;
  };
  for (const hz of freqsHz)
    for (const state of states(relays))
      for (const input of all.inputs) {
        const node = `input:${input.id}`;
        const around = together(wired, node);
        const undecided =
          [...around, ...feeds].some((one) => loose.has(one)) ||
          ![...around].some((one) => /^(antenna:|named:|mast|tx)/.test(one));
        const walk = (cls: 0 | 1 | 2 | 'known'): number => {
          let best = -Infinity;
          const lost = (one: Figure): number =>
            cls === 'known' ? (one ? one.db : Infinity) : one && one.cls <= cls ? one.db : 0;
          const won = (one: Figure): number =>
            cls === 'known' ? (one ? one.db : -Infinity) : one && one.cls <= cls ? one.db : Infinity;
          const go = (port: string, dbm: number, seen: readonly string[]): void => {
            if (dbm === -Infinity) return;
            const here = nodeOf(port);
            if (here === node) {
              // the Path's amplifiers stand right before the receiver; their gain is a guess
              const gain = all.ahead.get(input.id);
              const amplified = all.parts.some(({ id, kind }) => kind === 'amplifier' && around.has(`part:${id}`));
              best = Math.max(best, gain === undefined || amplified ? dbm : driven(dbm, won({ db: gain, cls: 2 })));
              return;
            }
            if (here.startsWith('input:') || (here === 'tx' && seen.length > 0)) return;
            const step = (to: string, level: number): void => {
              if (!seen.includes(to)) go(to, level, [...seen, port]);
            };
            for (const [a, b] of whole) {
              if (a === port) step(b, dbm);
              if (b === port) step(a, dbm);
            }
            const own = port.slice(port.lastIndexOf('/') + 1);
            const relay = relays.find((one) => one.node === here);
            const part = all.parts.find(({ id }) => `part:${id}` === here);
            if (relay) {
              const isolation = part
                ? once(`${part.id} isolationDb ${hz}`, () => figure(part, 'isolationDb', hz))
                : null;
              const through = part
                ? once(`${part.id} lossDb ${hz}`, () => figure(part, 'lossDb', hz))
                : ({ db: 0, cls: 2 } as const);
              for (const other of ['c', ...Array.from({ length: relay.throws }, (_, i) => String(i + 1))]) {
                if (other === own) continue;
                const closed = [own, other].includes('c') && [own, other].includes(state.at[here]);
                step(`${here}/${other}`, dbm - lost(closed ? through : isolation));
              }
            } else if (part?.kind === 'limiter') {
              const other = own === 'a' ? 'b' : 'a';
              const passed = dbm - lost(once(`${part.id} lossDb ${hz}`, () => figure(part, 'lossDb', hz)));
              const holds = dbm <= (part.figures.surviveDbm ?? -Infinity);
              step(`${here}/${other}`, holds ? Math.min(passed, part.figures.leakDbm ?? Infinity) : passed);
            } else if (part?.kind === 'amplifier') {
              if (own === 'a')
                step(
                  `${here}/b`,
                  driven(
                    dbm,
                    won(once(`${part.id} gainDb ${hz}`, () => figure(part, 'gainDb', hz))),
                    part.figures.mostDbm,
                  ),
                );
              else
                step(
                  `${here}/a`,
                  dbm - lost(once(`${part.id} isolationDb ${hz}`, () => figure(part, 'isolationDb', hz))),
                );
            } else if (part)
              step(
                `${here}/${own === 'a' ? 'b' : 'a'}`,
                dbm - lost(once(`${part.id} lossDb ${hz}`, () => figure(part, 'lossDb', hz))),
              );
            if (antennas.includes(here))
              for (const far of antennas) {
                if (far === here || (!feeds.has(here) && !feeds.has(far))) continue;
                const [a, b] = feeds.has(here) ? [here, far] : [far, here];
                step(`${far}/a`, dbm - lost(once(`${a} ${b} ${hz}`, () => coupling(data, plan, [a, b], hz, memory))));
              }
          };
          go('tx/a', sentDbm, []);
          return best;
        };
        const common = { input: input.id, state: state.name, freqHz: hz };
        if (undecided) {
          rulings.push({ ...common, rank: 3 });
          continue;
        }
        // a test of the whole way, wherever every switch on it stands as with the key down
        const down = states(relays)[0].at;
        const same = [...around, ...feeds].every((one) => state.at[one] === down[one]);
        const losses = data.powerTests
          .filter((one) => one.guardPlanId === plan.id && one.guardInputId === input.id)
          .flatMap((test) => {
            const then = memory.get(`test ${test.id}`);
            const rungs = data.powerRungs.filter((one) => one.powerTestId === test.id);
            if (!then || rungs.length < 2 || !near(hz, test.freqHz)) return [];
            if (fingerprint(data, plan, input.id) !== fingerprint(then, plan, input.id)) return [];
            const most = Math.max(...rungs.map((one) => one.powerW));
            if (powerW > 4 * most * (1 + 1e-9)) return [];
            let doubt = (hz === test.freqHz ? 0 : 1) + (powerW > most * (1 + 1e-9) ? 1 : 0);
            let placed = 0;
            for (const one of antennas.filter((each) => around.has(each) || feeds.has(each))) {
              if (one.startsWith('named:')) continue;
              const step = moved(standOf(data, one, plan), standOf(then, one, plan));
              if (step === null) return [];
              placed = Math.max(placed, step);
            }
            doubt += placed;
            // readings that lie on one line: the scale's own 1 dB is what is left
            const mean =
              rungs.reduce(
                (sum, one) =>
                  sum +
                  10 * Math.log10(one.powerW * 1000) -
                  // what was there without the transmitter is no part of the reading
                  10 * Math.log10(10 ** (one.readingDbm / 10) - 10 ** (test.backgroundDbm / 10)) -
                  test.attenuatorDb,
                0,
              ) / rungs.length;
            return [{ loss: Math.max(0, mean - 1 - doubt), doubt, atMs: test.atMs }];
          })
          .sort((x, y) => Number(x.doubt > 0) - Number(y.doubt > 0) || y.atMs - x.atMs);
        if (same && losses.length > 0) {
          const dbm = sentDbm - losses[0].loss;
          rulings.push({ ...common, dbm, rank: dbm > input.limitDbm ? 4 : 0 });
          continue;
        }
        const levels = ([0, 1, 2] as const).map(walk);
        const founded = levels.findIndex((dbm) => dbm <= input.limitDbm);
        if (founded >= 0) {
          rulings.push({ ...common, dbm: levels[founded], rank: founded === 0 ? 0 : founded === 1 ? 1 : 2 });
          continue;
        }
        const known = walk('known');
        if (known > input.limitDbm) rulings.push({ ...common, dbm: known, rank: 4 });
        else if (same && input.isolationDb !== null && !all.drawn.has(node)) {
          const dbm = sentDbm - input.isolationDb;
          rulings.push({ ...common, dbm, rank: dbm > input.limitDbm ? 4 : 2 });
        } else rulings.push({ ...common, rank: 3 });
      }
  return rulings;
}
