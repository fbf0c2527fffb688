import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { type Footing, type GuardGraph, type GuardNode, type Known, strongestRoutes, checkGraph } from './graph';
import { type Colour, type GuardBand, type GuardQuestion, guardProof } from './judge';
import { cheapestMending, type Offer } from './mend';
import { guardStates, type GuardState } from './states';

const ALL = { leads: 'no', hangs: 'no' } as const;
const F = 14.1e6;
const measured = (db: number): Known => ({ db, footing: 'measured' });

/** The club's station: 100 W into antenna 1 over a T/R switch that serves receiver A; receiver B on antenna 2 directly. */
function club(
  more: { readonly isolation?: Known; readonly coupling?: Known; readonly rest?: string } = {},
): GuardGraph {
  return {
    nodes: [
      { id: 'tx', name: 'Transmitter', kind: 'transmitter', dbm: 50 },
      { id: 'a1', name: 'Antenna 1', kind: 'antenna' },
      { id: 'a2', name: 'Antenna 2', kind: 'antenna' },
      { id: 'A', name: 'Receiver A', kind: 'receiver', limitDbm: 0 },
      { id: 'B', name: 'Receiver B', kind: 'receiver', limitDbm: 0 },
      {
        ...{ id: 'tr', name: 'T/R switch', kind: 'switch', throws: 2, drive: 'key' },
        ...{ receive: '1', transmit: '2', rest: more.rest ?? '1' },
        ...{ loss: measured(0.2), isolation: more.isolation ?? measured(62) },
      },
    ],
    links: [
      { from: { node: 'a1', port: 'a' }, to: { node: 'tr', port: 'c' } },
      { from: { node: 'tr', port: '1' }, to: { node: 'A', port: 'a' } },
      { from: { node: 'tr', port: '2' }, to: { node: 'tx', port: 'a' } },
    ],
    couplings: [{ a: 'a1', b: 'a2', loss: more.coupling ?? measured(75) }],
  };
}
const linkedB = (graph: GuardGraph): GuardGraph => ({
  ...graph,
  links: [...graph.links, { from: { node: 'a2', port: 'a' }, to: { node: 'B', port: 'a' } }],
});
/** A question at one frequency; neighbours' transmitters have a band of their own. */
const ask = (
  graph: GuardGraph,
  { measured = [], refused = new Map(), ...more }: Partial<GuardQuestion> & Partial<GuardBand> = {},
): GuardQuestion => {
  const without = (drop: (node: GuardNode) => boolean): GuardGraph => {
    const gone = new Set(graph.nodes.flatMap((node) => (drop(node) ? [node.id] : [])));
    return {
      nodes: graph.nodes.filter((node) => !drop(node)),
      links: graph.links.filter(({ from, to }) => !gone.has(from.node) && !gone.has(to.node)),
      couplings: graph.couplings,
    };
  };
  const isNeighbour = (node: GuardNode): boolean => node.kind === 'transmitter' && node.neighbour === true;
  const isOwn = (node: GuardNode): boolean => node.kind === 'transmitter' && node.neighbour !== true;
  const band = { freqHz: F, measured, refused };
  return {
    bands: [
      { ...band, graph: without(isNeighbour) },
      ...(graph.nodes.some(isNeighbour) ? [{ ...band, freqHz: 97e6, measured: [], graph: without(isOwn) }] : []),
    ],
    ...{ sequence: ALL, marginToKeepDb: 10, undrawn: [], loose: new Set<string>(), pulled: new Set<string>() },
    ...more,
  };
};
const colourOf = (question: GuardQuestion, receiver: string, kind: GuardState['kind']): Colour | undefined =>
  guardProof(question).cells.find((cell) => cell.receiver === receiver && cell.state.kind === kind)?.colour;

describe('the states of a station', () => {
  test('100 W behind a switch of 62 dB leave −12 dBm with the key down, and 49.8 dBm when the relay stays (50 dBm less 0.2 dB)', () => {
    const { cells } = guardProof(ask(linkedB(club())));
    const down = cells.find(({ receiver, state }) => receiver === 'A' && state.kind === 'key down');
    expect(down?.route?.dbm).toBeCloseTo(-12, 9);
    expect(down).toMatchObject({ colour: 'proven', thin: false });
    expect(down?.sentence).toBe('−12.0 dBm, 12.0 dB below the limit: T/R switch, 1 to 2.');
  });
  test('an unplugged key line, a stuck relay and a supply that is off turn red what they should', () => {
    const question = ask(linkedB(club()));
    // with the switch left at receive the transmitter reaches the common port by 62 dB, and A by 0.2 dB more
    for (const kind of ['key line unplugged', 'supply off', 'relay moving', 'hang'] as const)
      expect([kind, colourOf(question, 'A', kind)]).toEqual([kind, 'proven']);
    const fast = club({ isolation: measured(40) });
    expect(colourOf(ask(linkedB(fast)), 'A', 'key down')).toBe('danger');
    // a T/R switch in which the transmitter stays on the antenna: the receiver alone is switched in and out
    const joined: GuardGraph = {
      ...linkedB(club()),
      nodes: club().nodes.map((node) =>
        node.id === 'tr' && node.kind === 'switch' ? { ...node, throws: 1, transmit: '', rest: '1' } : node,
      ),
      links: [
        { from: { node: 'a1', port: 'a' }, to: { node: 'tx', port: 'a' } },
        { from: { node: 'a1', port: 'a' }, to: { node: 'tr', port: '1' } },
        { from: { node: 'tr', port: 'c' }, to: { node: 'A', port: 'a' } },
      ],
    };
    expect(colourOf(ask(joined), 'A', 'key down')).toBe('proven');
    for (const kind of ['key line unplugged', 'supply off', 'relay moving', 'hang', 'switch stuck'] as const)
      expect([kind, colourOf(ask(joined), 'A', kind)]).toEqual([kind, 'danger']);
    // a switch that rests open survives the loss of its supply; a proven sequence survives the moving relay
    const open = {
      ...joined,
      nodes: joined.nodes.map((node) => (node.id === 'tr' && node.kind === 'switch' ? { ...node, rest: '' } : node)),
    };
    expect(colourOf(ask(open), 'A', 'supply off')).toBe('proven');
    const known = ask(open, { sequence: { leads: 'measured', hangs: 'assumed' } });
    expect(colourOf(known, 'A', 'relay moving')).toBe('proven');
    // times without a scatter are no proof
    expect(colourOf(known, 'A', 'hang')).toBe('assumed');
  });
  test('a measured level below a limit that nobody gave is assumed; a figure that is left out is told as left out', () => {
    const amplified = (limitAssumed: boolean): GuardGraph => {
      const graph = linkedB(club({ coupling: { db: 50, footing: 'assumed' } }));
      return {
        ...graph,
        nodes: [
          ...graph.nodes,
          {
            ...{ id: 'amp', name: 'Amplifier', kind: 'amplifier', gain: measured(15), reverse: measured(30) },
            ...{ limitDbm: 0, limitAssumed },
          },
        ],
        links: [
          ...graph.links.filter(({ to }) => to.node !== 'A'),
          { from: { node: 'tr', port: '1' }, to: { node: 'amp', port: 'a' } },
          { from: { node: 'amp', port: 'b' }, to: { node: 'A', port: 'a' } },
        ],
      };
    };
    expect(colourOf(ask(amplified(false)), 'amp', 'key down')).toBe('proven');
    expect(colourOf(ask(amplified(true)), 'amp', 'key down')).toBe('assumed');
    // no transmitter, no level: nothing to be below
    expect(colourOf(ask(amplified(true)), 'amp', 'receive')).toBe('proven');
    // receiver B: without the 50 dB of air it would get 49.8 dBm, so they are counted
    const air = guardProof(ask(amplified(false))).cells.find(
      ({ receiver, state }) => receiver === 'B' && state.kind === 'key down',
    );
    expect(air).toMatchObject({ colour: 'assumed' });
    for (const { because } of air?.route?.steps ?? []) expect(because).toBeUndefined();
    // behind a measured pad of 60 dB they are not
    const graph = amplified(false);
    const padded: GuardGraph = {
      ...graph,
      nodes: [...graph.nodes, { id: 'pad', name: 'Pad', kind: 'pad', loss: measured(60) }],
      links: [
        ...graph.links.filter(({ to }) => to.node !== 'B'),
        { from: { node: 'a2', port: 'a' }, to: { node: 'pad', port: 'a' } },
        { from: { node: 'pad', port: 'b' }, to: { node: 'B', port: 'a' } },
      ],
    };
    const behind = guardProof(ask(padded)).cells.find(
      ({ receiver, state }) => receiver === 'B' && state.kind === 'key down',
    );
    expect(behind).toMatchObject({ colour: 'proven' });
    // 50 dBm less 0.2 dB in the switch and 60 dB in the pad
    expect(behind?.route?.dbm).toBeCloseTo(-10.2, 9);
    expect(behind?.route?.steps.map(({ because }) => because)).toContain(
      'its 50.0 dB are not needed here, so they are not counted',
    );
  });
  test('an antenna that is not in the drawing is red by itself, and a coupling without a figure is never green', () => {
    expect(guardProof(ask(linkedB(club()), { undrawn: ['Loop'] }))).toMatchObject({ colour: 'danger' });
    const unknown = guardProof(ask(linkedB(club({ coupling: {} }))));
    const cell = unknown.cells.find(({ receiver, state }) => receiver === 'B' && state.kind === 'key down');
    expect(cell).toMatchObject({ colour: 'unknown', uncovered: ['Antenna 2'] });
    expect(cell?.sentence).toContain('The protection inside the radio does not cover Receiver B');
    expect(unknown.sentence).toBe(
      'Do not transmit yet: Antenna 2 is not disconnected; what Receiver B would get is not known.',
    );
    // a part without a figure that is not needed does no harm: 62 dB of measured switch stand before it
    expect(unknown.cells.find(({ receiver, state }) => receiver === 'A' && state.kind === 'key down')?.colour).toBe(
      'proven',
    );
  });
  test('a receiver to which no antenna leads is not known, and a stronger coupling is danger', () => {
    expect(colourOf(ask(club()), 'B', 'key down')).toBe('unknown');
    expect(guardProof(ask(club())).sentence).toBe(
      'Not known: Receiver B (key down): no antenna leads to Receiver B. Draw in Routes what it is connected to, or say that it hangs on nothing.',
    );
    expect(colourOf(ask(linkedB(club({ coupling: measured(23.4) }))), 'B', 'key down')).toBe('danger');
  });
  test('a way measured as a whole counts with the key down, and only then', () => {
    const question = ask(linkedB(club({ coupling: {} })), {
      measured: [{ receiver: 'B', lossDb: 62, footing: 'measured', name: 'the whole way' }],
    });
    expect(colourOf(question, 'B', 'key down')).toBe('proven');
    const others = (one: GuardQuestion) =>
      guardProof(one).cells.flatMap(({ state, colour }) =>
        state.kind === 'key down' ? [] : [`${state.id} ${colour}`],
      );
    const without = ask(linkedB(club({ coupling: {} })));
    expect(others(question)).toEqual(others(without));
    expect(colourOf(without, 'B', 'key down')).toBe('unknown');
  });
  test('before a storm every antenna hangs on its receiver until a plug is marked', () => {
    expect(colourOf(ask(linkedB(club())), 'B', 'thunderstorm')).toBe('unknown');
    expect(colourOf(ask(linkedB(club()), { pulled: new Set(['a2']) }), 'B', 'thunderstorm')).toBe('assumed');
  });
  test('a neighbour’s transmitter comes in over its antenna, and nothing of one’s own goes round by it', () => {
    const graph: GuardGraph = {
      ...linkedB(club()),
      nodes: [
        ...club().nodes,
        { id: 'nb', name: 'FM mast', kind: 'transmitter', dbm: -9, neighbour: true },
        { id: 'away', name: 'its antenna', kind: 'antenna' },
      ],
      links: [...linkedB(club()).links, { from: { node: 'nb', port: 'a' }, to: { node: 'away', port: 'a' } }],
      couplings: [
        ...club().couplings,
        { a: 'away', b: 'a1', loss: measured(6), oneWay: true },
        { a: 'away', b: 'a2', loss: measured(6), oneWay: true },
      ],
    };
    const cell = (receiver: string, kind: GuardState['kind']) =>
      guardProof(ask(graph)).cells.find((one) => one.receiver === receiver && one.state.kind === kind);
    expect(cell('B', 'neighbour on')?.route?.dbm).toBeCloseTo(-15, 9);
    // 50 dBm less 0.2 dB of the switch and 75 dB over the air, not 12 dB round by the mast
    expect(cell('B', 'key down')?.route?.dbm).toBeCloseTo(-25.2, 9);
  });
  test('a limiter passes what it leaks; beyond what it survives it counts as not there', () => {
    const limited = (dbm: number): GuardGraph => ({
      nodes: [
        { id: 'tx', name: 'T', kind: 'transmitter', dbm },
        { id: 'l', name: 'Limiter', kind: 'limiter', loss: measured(0.5), leakDbm: 10, surviveDbm: 30 },
        { id: 'A', name: 'A', kind: 'receiver', limitDbm: 15 },
      ],
      links: [
        { from: { node: 'tx', port: 'a' }, to: { node: 'l', port: 'a' } },
        { from: { node: 'l', port: 'b' }, to: { node: 'A', port: 'a' } },
      ],
      couplings: [],
    });
    const level = (dbm: number) => strongestRoutes(limited(dbm), new Map(), new Set(['tx'])).get('A');
    expect(level(0)?.dbm).toBeCloseTo(-0.5, 9);
    expect(level(29)?.dbm).toBe(10);
    expect(level(31)?.dbm).toBeCloseTo(30.5, 9);
    expect(level(31)?.broken).toMatchObject({ name: 'Limiter', dbm: 31 });
  });
  test('a link to nowhere and a gain where a loss should stand are refused', () => {
    expect(() =>
      checkGraph({ ...club(), links: [{ from: { node: 'a1', port: 'b' }, to: { node: 'tx', port: 'a' } }] }),
    ).toThrow(/a1 b/);
    expect(() => checkGraph(club({ isolation: { db: -3 } }))).toThrow(/Isolation of T\/R switch/);
  });
});

/** A made-up station of up to twelve nodes. */
function made(seed: number): GuardGraph {
  const { uniform } = chanceOf(seed);
  const upTo = (n: number): number => Math.floor(uniform() * n);
  const known = (most: number): Known => {
    const draw = uniform();
    const footing: Footing = draw < 0.35 ? 'measured' : draw < 0.65 ? 'model' : 'assumed';
    return draw > 0.88 ? {} : { db: uniform() * most, footing };
  };
  const nodes: GuardNode[] = [
    { id: 'tx', name: 'tx', kind: 'transmitter', dbm: 20 + 40 * uniform() },
    ...(uniform() < 0.3
      ? [{ id: 'nb', name: 'nb', kind: 'transmitter', dbm: 10 * uniform(), neighbour: true } as const]
      : []),
  ];
  const room = 12 - nodes.length;
  const parts = 2 + upTo(room - 2);
  for (let i = 0; i < parts; i += 1) {
    const [id, name] = [`n${i}`, `n${i}`];
    const kind = i === 0 ? 0 : i === 1 ? 1 : upTo(seed % 3 === 0 ? 8 : 7);
    if (kind === 0) nodes.push({ id, name, kind: 'receiver', limitDbm: -20 + 40 * uniform() });
    else if (kind === 1 || kind === 2) nodes.push({ id, name, kind: 'antenna' });
    else if (kind === 3) nodes.push({ id, name, kind: 'pad', loss: known(20) });
    else if (kind === 4)
      nodes.push({
        id,
        name,
        kind: 'limiter',
        loss: known(1),
        leakDbm: 20 * uniform(),
        surviveDbm: 20 + 20 * uniform(),
      });
    else if (kind === 7)
      nodes.push({
        ...{ id, name, kind: 'amplifier', gain: known(25), reverse: known(40) },
        ...(uniform() < 0.5 ? { mostDbm: 10 + 10 * uniform() } : {}),
        limitDbm: -10 + 20 * uniform(),
      });
    else if (kind === 5) nodes.push({ id, name, kind: 'splitter', outputs: 2, loss: known(4), isolation: known(30) });
    else {
      const throws = 1 + upTo(2);
      const where = (): string => String(upTo(throws + 1) || '');
      nodes.push({
        ...{ id, name, kind: 'switch', throws, drive: (['key', 'supply', 'hand'] as const)[upTo(3)] },
        ...{ receive: where(), transmit: where(), rest: where(), loss: known(1), isolation: known(70) },
      });
    }
  }
  const ports = nodes.flatMap((node) => portNames(node).map((port) => ({ node: node.id, port })));
  const links = Array.from({ length: 2 + upTo(ports.length) }, () => ({
    from: ports[upTo(ports.length)],
    to: ports[upTo(ports.length)],
  }));
  const antennas = nodes.filter(({ kind }) => kind === 'antenna');
  const couplings = antennas.flatMap((a, i) =>
    antennas.slice(i + 1).flatMap((b) => (uniform() < 0.8 ? [{ a: a.id, b: b.id, loss: known(80) }] : [])),
  );
  return { nodes, links, couplings };
}
const portNames = (node: GuardNode): readonly string[] =>
  node.kind === 'splitter'
    ? ['c', '1', '2']
    : node.kind === 'switch'
      ? ['c', '1', '2'].slice(0, node.throws + 1)
      : node.kind === 'transmitter' || node.kind === 'receiver' || node.kind === 'antenna'
        ? ['a']
        : ['a', 'b'];

/** Level at a receiver by walking every way that never comes to a port twice: slow, and written on its own. */
function byEveryWay(
  graph: GuardGraph,
  state: GuardState,
  receiver: string,
  figureOf: (known: Known) => number | 'unknown' | undefined,
): number {
  // undefined: not passed; unknown: the worst that can be
  const lossOf = (known: Known): number => {
    const figure = figureOf(known);
    return figure === undefined ? Infinity : figure === 'unknown' ? 0 : figure;
  };
  const gainOf = (known: Known): number => {
    const figure = figureOf(known);
    return figure === undefined ? -Infinity : figure === 'unknown' ? Infinity : figure;
  };
  let best = -Infinity;
  const nodeOf = (port: string): GuardNode => {
    const node = graph.nodes.find(({ id }) => id === port.split('/')[0]);
    if (!node) throw new Error(port);
    return node;
  };
  const go = (port: string, dbm: number, seen: ReadonlySet<string>): void => {
    if (dbm === -Infinity) return;
    const node = nodeOf(port);
    if (port === `${receiver}/a`) {
      best = Math.max(best, dbm);
      return;
    }
    if (node.kind === 'receiver' || (node.kind === 'transmitter' && seen.size > 1)) return;
    const step = (to: string, level: number): void => {
      if (!seen.has(to)) go(to, level, new Set([...seen, to]));
    };
    const own = port.split('/')[1];
    for (const { from, to } of graph.links) {
      const [f, t] = [`${from.node}/${from.port}`, `${to.node}/${to.port}`];
      if (f === port) step(t, dbm);
      if (t === port) step(f, dbm);
    }
    for (const other of portNames(node)) {
      if (other === own) continue;
      const to = `${node.id}/${other}`;
      if (node.kind === 'switch') {
        const chosen = state.positions.get(node.id);
        const through = (own === 'c' && other === chosen) || (other === 'c' && own === chosen);
        step(to, dbm - lossOf(through ? node.loss : node.isolation));
      } else if (node.kind === 'splitter')
        step(to, dbm - lossOf(own === 'c' || other === 'c' ? node.loss : node.isolation));
      else if (node.kind === 'limiter') {
        const passed = dbm - lossOf(node.loss);
        step(to, dbm > node.surviveDbm ? passed : Math.min(passed, node.leakDbm));
      } else if (node.kind === 'amplifier')
        step(
          to,
          own === 'a'
            ? Math.min(
                dbm + gainOf(node.gain),
                Math.max(dbm, node.mostDbm ?? (Number.isFinite(gainOf(node.gain)) ? 40 : Infinity)),
              )
            : dbm - lossOf(node.reverse),
        );
      else if ('loss' in node) step(to, dbm - lossOf(node.loss));
    }
    for (const { a, b, loss } of graph.couplings) {
      if (node.id === a) step(`${b}/a`, dbm - lossOf(loss));
      if (node.id === b) step(`${a}/a`, dbm - lossOf(loss));
    }
  };
  for (const source of graph.nodes)
    if (source.kind === 'transmitter' && state.on.has(source.id))
      go(`${source.id}/a`, source.dbm, new Set([`${source.id}/a`]));
  return best;
}

test('2,000 made-up stations: the same worst level and the same colour as by walking every way; with amplifiers never a better one', () => {
  const RANK: readonly Footing[] = ['measured', 'model', 'assumed'];
  const NAME = { measured: 'proven', model: 'computed', assumed: 'assumed' } as const;
  const ORDER: readonly Colour[] = ['proven', 'computed', 'assumed', 'unknown', 'danger'];
  const seen = new Map<Colour, number>();
  let amplified = 0;
  for (let seed = 1; seed <= 2000; seed += 1) {
    const graph = made(seed);
    const states = guardStates(graph, ALL);
    // every way of a large station takes long: two states of each are walked, other ones for other seeds
    const picked = [states[seed % states.length], states.find(({ kind }) => kind === 'key down')];
    const { cells } = guardProof(ask(graph));
    const amplifiers = graph.nodes.some(({ kind }) => kind === 'amplifier');
    for (const state of picked) {
      if (!state || state.kind === 'thunderstorm') continue;
      for (const victim of graph.nodes) {
        if (victim.kind !== 'receiver' && victim.kind !== 'amplifier') continue;
        if (!leadsSomewhere(graph, victim.id, state.kind === 'neighbour on')) continue;
        const levels = RANK.map((_, i) =>
          byEveryWay(graph, state, victim.id, ({ db, footing = 'assumed' }) =>
            db !== undefined && RANK.indexOf(footing) <= i ? db : 'unknown',
          ),
        );
        const knownOnly = byEveryWay(graph, state, victim.id, ({ db }) => db);
        const founded = RANK.find((_, i) => levels[i] <= victim.limitDbm);
        const expected: Colour = founded ? NAME[founded] : knownOnly > victim.limitDbm ? 'danger' : 'unknown';
        const cell = cells.find((one) => one.receiver === victim.id && one.state.id === state.id);
        if (!cell) throw new Error(`${seed} ${state.id} ${victim.id}`);
        seen.set(expected, (seen.get(expected) ?? 0) + 1);
        if (amplifiers) {
          amplified += 1;
          expect([seed, state.id, ORDER.indexOf(cell.colour) >= ORDER.indexOf(expected)]).toEqual([
            seed,
            state.id,
            true,
          ]);
          if (cell.colour === expected && expected === 'danger')
            expect(cell.route?.dbm ?? -Infinity).toBeGreaterThanOrEqual(knownOnly - 1e-6);
          continue;
        }
        expect([seed, state.id, cell.colour]).toEqual([seed, state.id, expected]);
        const level = expected === 'danger' ? knownOnly : founded && levels[RANK.indexOf(founded)];
        if (level === undefined) expect(cell.route).toBeUndefined();
        else if (Number.isFinite(level)) expect(cell.route?.dbm).toBeCloseTo(level, 6);
      }
    }
  }
  // every colour was met often enough to mean something
  for (const colour of ORDER) expect(seen.get(colour) ?? 0).toBeGreaterThan(20);
  expect(amplified).toBeGreaterThan(300);
}, 120_000);

/** Whether a plug leads from it to an antenna or a transmitter of this band; walked by its own means. */
function leadsSomewhere(graph: GuardGraph, id: string, neighbours: boolean): boolean {
  const drawn = new Set(
    graph.nodes.flatMap((node) =>
      node.kind === 'transmitter' && (node.neighbour === true) !== neighbours ? [] : [node.id],
    ),
  );
  const kindOf = (node: string): string | undefined => graph.nodes.find((one) => one.id === node)?.kind;
  const seen: string[] = [];
  const go = (at: string): boolean => {
    if (seen.includes(at) || !drawn.has(at)) return false;
    seen.push(at);
    if (kindOf(at) === 'antenna' || kindOf(at) === 'transmitter') return true;
    return graph.links.some(({ from, to }) => (from.node === at && go(to.node)) || (to.node === at && go(from.node)));
  };
  return go(id);
}

describe('the cheapest change', () => {
  const OFFERS: readonly Offer[] = [
    { kind: 'switch', name: 'a relay that rests open', price: 40, lossDb: 0.2, isolationDb: 60 },
    { kind: 'limiter', name: 'a limiter', price: 15, lossDb: 0.5, leakDbm: -12, surviveDbm: 33 },
  ];
  const STRONG: Offer = { kind: 'limiter', name: 'a limiter', price: 15, lossDb: 0.5, leakDbm: -12, surviveDbm: 51 };
  test('receiver B directly on antenna 2 with 23.4 dB over the air: a limiter is enough, and cheaper than a relay', () => {
    const question = ask(linkedB(club({ coupling: measured(23.4) })));
    const mending = cheapestMending(question, OFFERS, (_, lossDb) => lossDb);
    expect(mending?.changes.map(({ sentence }) => sentence)).toEqual(['a limiter at the input of Receiver B']);
    expect(mending).toMatchObject({ price: 15, snrCostDb: 0.5 });
    // more than it survives: the relay that rests open, and the limiter for the moment in which it is stuck
    const near = ask(linkedB(club({ coupling: measured(10) })));
    const both = cheapestMending(near, OFFERS, (_, lossDb) => lossDb);
    expect(both).toBeUndefined();
    expect(cheapestMending(ask(linkedB(club())), OFFERS, () => 0)).toMatchObject({ changes: [], price: 0 });
  });
  test('a relay that rests at receive is turned round for nothing', () => {
    const { nodes, ...rest } = club({ isolation: measured(70) });
    const graph: GuardGraph = {
      ...rest,
      nodes: nodes
        .filter(({ id }) => id !== 'B')
        .map((node) =>
          node.id === 'tr' && node.kind === 'switch'
            ? { ...node, drive: 'supply', throws: 1, transmit: '', rest: '1' }
            : node,
        ),
      links: [
        { from: { node: 'a1', port: 'a' }, to: { node: 'tx', port: 'a' } },
        { from: { node: 'a1', port: 'a' }, to: { node: 'tr', port: '1' } },
        { from: { node: 'tr', port: 'c' }, to: { node: 'A', port: 'a' } },
      ],
    };
    expect(colourOf(ask(graph), 'A', 'supply off')).toBe('danger');
    const mending = cheapestMending(ask(graph), [], () => 0);
    // a switch that is stuck stays a danger: turning it round is not enough there
    expect(mending).toBeUndefined();
    const limited = cheapestMending(ask(graph), [STRONG], () => 0);
    expect(limited?.changes).toHaveLength(1);
  });
});
