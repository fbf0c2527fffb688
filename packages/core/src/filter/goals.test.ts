import { describe, expect, test } from '@jest/globals';
import { designFilter, type FilterQuestion } from './design';
import { filterFinding, filterGoals, filterStart } from './goals';

const AIR = { name: 'air', lowHz: 118e6, highHz: 137e6 };
const FM = [
  { name: 'FM one', freqHz: 89.5e6 },
  { name: 'FM two', freqHz: 104.9e6 },
];
const REST = { family: 'chebyshev', rippleDb: 0.1, lineOhm: 50, coilQ: 100, series: 'E24' } as const;

describe('a filter that stops the wanted band once said "every goal is met"', () => {
  const of = (shape: FilterQuestion['shape'], edgesHz: readonly number[]) => {
    const goals = filterGoals({ shape, edgesHz, wanted: AIR, others: [], carriers: FM, stopDb: 50, passDb: 1 });
    const design = designFilter({ ...REST, shape, edgesHz, first: 'shunt', ...goals });
    return { goals, design, finding: filterFinding(design, goals) };
  };
  // the ladder's own closed form: order n Chebyshev, 0.1 dB, at 137/30 of the edge; Matthaei, Young & Jones, ch. 4
  test('a 30 MHz low-pass spoils 118 to 137 MHz: the first goal is missed by tens of decibels, whatever it stops', () => {
    const { finding, design } = of('lowpass', [30e6]);
    expect(finding.state).toBe('spoils');
    const n = design.spec.order;
    const w = 137 / 30;
    const chebyshev = Math.cosh(n * Math.acosh(w));
    const closedFormDb = 10 * Math.log10(1 + (10 ** 0.01 - 1) * chebyshev ** 2);
    expect(Math.abs(design.idealLossDb(137e6) - closedFormDb)).toBeLessThan(0.05);
    expect(finding.wanted.lossDb).toBeGreaterThan(20);
    expect(n).toBe(3); // of orders that all spoil it, the one that takes least
  });
  test('a band-stop over FM lets the wanted band pass and names no carrier as left alone', () => {
    const { finding, goals } = of('bandstop', [85e6, 112e6]);
    expect(goals.left).toEqual([]);
    expect(finding.wanted.lossDb).toBeLessThan(6);
  });
  test('a band-stop at the wrong place leaves both carriers alone, and says so', () => {
    const { finding, goals } = of('bandstop', [30e6, 35e6]);
    expect(goals.left.map(({ name }) => name)).toEqual(['FM one', 'FM two']);
    expect(finding).toMatchObject({ stopped: 0, carriers: 2 });
  });
  test('another wanted band that the shape stops is named as lost, one that it passes is a goal at its worse end', () => {
    const others = [
      { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6 },
      { name: '2 m', lowHz: 144e6, highHz: 146e6 },
    ];
    const goals = filterGoals({
      ...{ shape: 'highpass' as const, edgesHz: [112e6], wanted: AIR, others, carriers: FM, stopDb: 50, passDb: 1 },
    });
    expect(goals.lost.map(({ name }) => name)).toEqual(['31 m']);
    expect(goals.passes.map(({ name, freqHz }) => [name, freqHz])).toEqual([
      ['air', 118e6],
      ['2 m', 144e6],
    ]);
  });
});

describe('the shape to begin with follows from the wanted band and the carriers beside it', () => {
  test('carriers below alone: a high-pass, half way in ratio to the nearest', () => {
    const { shape, edgesHz } = filterStart(AIR, [], FM);
    expect(shape).toBe('highpass');
    expect(edgesHz[0] / 1e6).toBeCloseTo(Math.sqrt(118 * 104.9), 1);
  });
  test('carriers above alone: a low-pass; with another wanted band on the way, above that band', () => {
    const wanted = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6 };
    const { shape, edgesHz } = filterStart(wanted, [], FM);
    expect(shape).toBe('lowpass');
    expect(edgesHz[0] / 9.9e6).toBeCloseTo(1.15, 2);
    const eleven = { name: '11 m', lowHz: 25.6e6, highHz: 26.1e6 };
    expect(filterStart(wanted, [eleven], FM).edgesHz[0] / 26.1e6).toBeCloseTo(1.15, 2);
  });
  test('carriers on both sides: a band-pass around the band; a carrier in the band decides nothing', () => {
    const { shape, edgesHz } = filterStart(
      AIR,
      [],
      [...FM, { name: 'in it', freqHz: 121e6 }, { name: 'up', freqHz: 160e6 }],
    );
    expect(shape).toBe('bandpass');
    expect(edgesHz[0]).toBeLessThan(118e6);
    expect(edgesHz[1]).toBeGreaterThan(137e6);
    expect(edgesHz[1]).toBeLessThan(160e6);
  });
  test('no edge comes nearer to the band than its parts scatter', () => {
    const { edgesHz } = filterStart(AIR, [], [{ name: 'next door', freqHz: 117.9e6 }]);
    expect(118e6 / edgesHz[0]).toBeGreaterThan(1.029);
  });
});

describe('all that is wanted and all carriers decide the shape', () => {
  const SHORT_WAVE = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6 };
  test('wanted below and above FM: a band-stop over FM, and everything that is wanted passes', () => {
    const { shape, edgesHz } = filterStart(SHORT_WAVE, [AIR], FM);
    expect(shape).toBe('bandstop');
    const goals = filterGoals({
      ...{ shape, edgesHz, wanted: SHORT_WAVE, others: [AIR], carriers: FM, stopDb: 50, passDb: 1 },
    });
    expect([goals.left, goals.lost]).toEqual([[], []]);
  });
  test('a carrier that a shape leaves alone, or a band that it stops, is never "every goal is met"', () => {
    const shape = { shape: 'lowpass' as const, edgesHz: [12e6] };
    const goals = filterGoals({
      ...{ ...shape, wanted: SHORT_WAVE, others: [AIR], carriers: FM, stopDb: 30, passDb: 1 },
    });
    const design = designFilter({ ...REST, ...shape, stopDb: 30, first: 'shunt', ...goals });
    expect(design.met).toBe(true);
    expect(goals.lost.map(({ name }) => name)).toEqual(['air']);
    expect(filterFinding(design, goals).state).toBe('missed');
  });
  test('2,000 random bands and carriers: the wanted band always passes the shape; none is left out of the lists', () => {
    let seed = 32;
    const random = (): number => {
      seed = (seed * 1664525 + 1013904223) % 2 ** 32;
      return seed / 2 ** 32;
    };
    const at = (): number => 1e5 * 10 ** (4 * random());
    for (let i = 0; i < 2000; i += 1) {
      const band = (name: string) => {
        const lowHz = at();
        return { name, lowHz, highHz: lowHz * (1 + 0.2 * random()) };
      };
      const wanted = band('wanted');
      const others = Array.from({ length: Math.floor(4 * random()) }, (_, k) => band(`other ${k}`));
      const carriers = Array.from({ length: Math.floor(5 * random()) }, (_, k) => ({ name: `T${k}`, freqHz: at() }));
      const start = filterStart(wanted, others, carriers);
      const goals = filterGoals({ ...start, wanted, others, carriers, stopDb: 50, passDb: 1 });
      expect(goals.passes[0].name).toBe('wanted');
      expect(goals.passes.length + goals.lost.length).toBe(1 + others.length);
      expect(goals.stops.length + goals.left.length).toBe(carriers.length);
      const edges = [...start.edgesHz];
      expect(edges.every((edge) => edge > 0 && Number.isFinite(edge))).toBe(true);
      expect(edges).toEqual([...edges].sort((a, b) => a - b));
    }
  });
});
