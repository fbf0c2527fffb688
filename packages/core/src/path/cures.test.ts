import { describe, expect, test } from '@jest/globals';
import { cureFor, judgedAt, type Patient } from './cures';
import { searchOrder, type SearchResult } from './order-search';
import { orderState } from './order-state';
import { analysePath } from './plan';
import { pathVerdict } from './verdict';
import { atWorkingGains, RECEIVER_KINDS } from './receiver-kinds';
import type { PathReceiver, PathSignal } from './question';
import type { PathStage } from './stages';
import { atWorkingGain } from './working-gain';

const receiver = (id: string): PathReceiver => {
  const kind = RECEIVER_KINDS.find((one) => one.id === id);
  if (!kind) throw new Error(id);
  return { name: kind.name, ...kind.figures };
};
const AMPLIFIER: PathStage = {
  ...{ kind: 'amplifier', name: 'mast preamplifier' },
  ...{ gainDb: 20, noiseFigureDb: 1, iip2Dbm: 35, iip3Dbm: 10 },
};
const AIR = { lowHz: 118e6, highHz: 137e6, bandwidthHz: 8000, externalFaDb: 3 };
const finish = (search: ReturnType<typeof searchOrder>): SearchResult => {
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
  }
};

describe('what a practitioner does first', () => {
  test('a dongle beside an FM mast: the gain is turned down, then an FM notch, never a pad', () => {
    const patient: Patient = {
      ...{ stages: [], receiver: receiver('dongle') },
      question: { ...AIR, signals: [{ name: 'FM mast', freqHz: 97.4e6, levelDbm: -18 }] },
    };
    // 14 dB over the full scale of −32 dBm even at the lowest gain (subtraction)
    expect(judgedAt(patient).state.state).toBe('overload');
    const cure = cureFor(patient);
    expect(cure?.does).toMatch(/^put an FM notch ahead of 8-bit wide-range dongle/);
    expect(cure?.state.state).toBe('fine');
  });
  test('a needless amplifier before a direct-sampling receiver is left out, not padded', () => {
    const signals: readonly PathSignal[] = [{ name: 'medium wave', freqHz: 1e6, levelDbm: -14 }];
    const amplifier: PathStage = { ...AMPLIFIER, gainDb: 20, name: 'needless amplifier', iip3Dbm: 25, iip2Dbm: 60 };
    const cure = cureFor({
      ...{ stages: [amplifier], receiver: receiver('direct-14') },
      question: { lowHz: 6e6, highHz: 6.2e6, bandwidthHz: 5000, externalFaDb: 45, signals },
    });
    expect(cure?.does).toBe('leave needless amplifier out');
    expect(cure?.state.state).toBe('fine');
  });
  test('the gain of a dongle follows the carriers: high without them, lower beside them', () => {
    const at = (levelDbm: number): string =>
      atWorkingGain([], receiver('dongle'), { ...AIR, signals: [{ name: 'FM', freqHz: 97.4e6, levelDbm }] }).receiver
        .name;
    expect([at(-90), at(-55), at(-35)]).toEqual([
      '8-bit wide-range dongle at high gain',
      '8-bit wide-range dongle at middle gain',
      '8-bit wide-range dongle',
    ]);
  });
  test('a mast preamplifier and a pager: the pager is stopped by name before anything is taken out that is needed', () => {
    const signals: readonly PathSignal[] = [{ name: 'pager', freqHz: 153.4e6, levelDbm: -8 }];
    const patient: Patient = {
      ...{ stages: [AMPLIFIER, { kind: 'pad', name: 'splitter', lossDb: 7 }], receiver: receiver('wideband') },
      question: { ...AIR, signals },
    };
    const cure = cureFor(patient);
    expect(cure?.does).toMatch(/a notch for pager at 153\.4 MHz ahead of mast preamplifier/);
    expect(cure?.state.state).toBe('fine');
  });
});

test('what feeds an active antenna over the coax is never cut off: no high-pass, no pad between the two', () => {
  const head: PathStage = { ...AMPLIFIER, name: 'its own amplifier', iip2Dbm: 80, iip3Dbm: 40 };
  const feed: PathStage = { kind: 'bias feed', name: 'feed', henry: 100e-6, farad: 100e-9 };
  const question = {
    ...{ lowHz: 6e6, highHz: 6.2e6, bandwidthHz: 5000, externalFaDb: 45 },
    signals: [{ name: 'medium wave', freqHz: 1e6, levelDbm: -22 }],
  };
  const second: PathStage = { ...AMPLIFIER, name: 'second amplifier', gainDb: 14, iip2Dbm: 80, iip3Dbm: 40 };
  const fed = cureFor({ stages: [head, second, feed], receiver: receiver('direct-14'), question, headName: head.name });
  const own = cureFor({ stages: [head, second], receiver: receiver('direct-14'), question, headName: head.name });
  // 8 dB over full scale even without the second one (subtraction): a filter it must be
  expect(own?.does).toMatch(/high-pass ahead of second amplifier/);
  expect(fed?.does).toMatch(/high-pass ahead of 14-bit direct-sampling HF receiver/);
  expect(fed?.stages.map(({ name }) => name).slice(0, 3)).toEqual([head.name, second.name, feed.name]);
});

describe('2,000 random paths', () => {
  let seed = 3232;
  const random = (): number => {
    seed = (seed * 1664525 + 1013904223) % 2 ** 32;
    return seed / 2 ** 32;
  };
  const between = (low: number, high: number): number => low + (high - low) * random();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const randomStage = (i: number, lowHz: number): PathStage =>
    pick<() => PathStage>([
      () => ({
        ...{ kind: 'amplifier', name: `amplifier ${i}` },
        ...{ gainDb: between(8, 25), noiseFigureDb: between(1, 6), iip2Dbm: between(25, 70), iip3Dbm: between(0, 35) },
      }),
      () => ({ kind: 'pad', name: `pad ${i}`, lossDb: between(0, 12) }),
      () => ({
        ...{ kind: 'filter', name: `filter ${i}` },
        filter: {
          ...{ shape: pick(['lowpass', 'highpass'] as const), family: 'chebyshev', order: 5, rippleDb: 0.1 },
          ...{ edgeLowHz: lowHz * between(0.3, 0.95), edgeHighHz: lowHz * between(1.1, 3), insertionLossDb: 0.5 },
        },
      }),
    ])();
  const paths: readonly Patient[] = Array.from({ length: 2000 }, () => {
    const kind = pick(RECEIVER_KINDS.filter(({ id }) => id !== 'sound-card'));
    const lowHz = Math.min(kind.figures.maxHz / 1.3, Math.max(kind.figures.minHz * 1.1, 10 ** between(5.5, 8.9)));
    return {
      receiver: { name: kind.name, ...kind.figures },
      stages: Array.from({ length: Math.floor(between(0, 4)) }, (_, i) => randomStage(i, lowHz)),
      question: {
        ...{ lowHz, highHz: lowHz * between(1.001, 1.05), bandwidthHz: 5000 },
        externalFaDb: Math.max(0, 60 - 28 * Math.log10(lowHz / 1e6)) + between(-5, 15),
        signals: Array.from({ length: Math.floor(between(0, 5)) }, (_, i) => ({
          ...{ name: `T${i}`, freqHz: pick([1e6, 95e6, 102e6, 190e6, 153e6, 446e6]) * between(0.99, 1.01) },
          levelDbm: between(-60, 5),
        })),
      },
    };
  });
  test('the advice, applied, removes what it was given for, and asking again asks for nothing more of it; no cheaper one would do', () => {
    let advised = 0;
    const kinds = new Set<string>();
    for (const patient of paths) {
      const { state } = judgedAt(patient);
      const cure = cureFor(patient);
      if (!cure) continue;
      advised += 1;
      cure.kinds.forEach((kind) => kinds.add(kind));
      // computed anew from its stages alone, by the analysis that the pages use, at the gain that it names
      const again = analysePath(cure.stages, cure.after.receiver, patient.question);
      const then = orderState({ stages: cure.stages, analysis: again }, cure.after.receiver.name);
      expect(['fine', 'noise']).toContain(then.state);
      if (state.state === 'noise') expect(then.snrLossDb).toBeLessThan(state.snrLossDb);
      if (then.state === 'fine') expect(cureFor({ ...patient, stages: cure.stages })).toBeUndefined();
      // leaving one stage out is the cheapest of all: where that alone serves, nothing else is said
      if (cure.kinds[0] !== 'leave out' && state.state !== 'noise' && state.state !== 'blocked')
        patient.stages.forEach((stage, i) => {
          if (stage.kind !== 'amplifier') return;
          const without = patient.stages.filter((_, at) => at !== i);
          expect(judgedAt({ ...patient, stages: without }).state.state).not.toBe('fine');
        });
      // a pad only where no filter and no stage left out serves
      if (cure.kinds.includes('pad')) expect(cure.kinds).toEqual(['pad']);
    }
    expect(advised).toBeGreaterThan(400);
    for (const kind of ['leave out', 'stop', 'amplify']) expect(kinds.has(kind)).toBe(true);
  });
  test('Chain and Best order have one headroom: what Chain calls no overload the search finds, and nothing worse', () => {
    for (const { stages, receiver: rx, question } of paths.slice(0, 500)) {
      const { state } = judgedAt({ stages, receiver: rx, question });
      const { signals, ...goal } = question;
      const shelf = stages.map((stage) => ({ stage, needed: false, cost: 1 }));
      const { best } = finish(searchOrder(shelf, rx, [{ ...goal, name: 'wanted' }], signals));
      if (['overload', 'out of reach', 'alias'].includes(state.state)) continue;
      expect(best).toBeDefined();
      expect(best?.lossesDb[0]).toBeLessThan(state.snrLossDb + 0.15);
    }
  });
  test('the sentence of the verdict has the figure of the cure, and names the gain', () => {
    for (const { stages, receiver: rx, question } of paths.slice(0, 300)) {
      const working = atWorkingGain(stages, rx, question);
      const verdict = pathVerdict([{ order: 1, stages, ...working }], {
        ...{ targetName: 'wanted', receiver: rx, question, transmits: false },
      });
      expect(`${verdict.sentence} ${verdict.next}`).not.toMatch(/NaN|undefined|Infinity/);
      const cure = cureFor({ stages, receiver: rx, question });
      if (cure) expect(verdict.next.toLowerCase()).toContain(cure.does.toLowerCase());
      expect(atWorkingGains(rx).map(({ name }) => name)).toContain(working.receiver.name);
    }
  });
});
