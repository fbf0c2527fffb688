import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { keyLine } from './key-line';
import { checkedPad, powerTest, type Rung, testAgainstModel, type TestTerms } from './power-test';
import { sequenceChance, sequenceOf, sequenceRemarks, type SequenceTimes } from './timeline';

const dbmToW = (dbm: number): number => 10 ** (dbm / 10) / 1000;
const dbmOf = (watts: number): number => 10 * Math.log10(1000 * watts);
const TERMS: TestTerms = {
  ...{ fullW: 400, lowestW: 0.5, limitDbm: 0, marginDb: 10, attenuatorDb: 0, backgroundDbm: -110, expectedLossDb: 60 },
};

describe('a ladder of a worked example: −31.0, −20.9, −14.0 dBm at 0.5, 5, 50 W', () => {
  const ladder: readonly Rung[] = [
    { powerW: 0.5, readingDbm: -31 },
    { powerW: 5, readingDbm: -20.9 },
    { powerW: 50, readingDbm: -14 },
  ];
  test('coupling −58.0 dB; −2.0 dBm at 400 W; limit less margin at 62 to 64 W', () => {
    const { loss, atFullDbm, allowedW, allowedMiddleW } = powerTest(TERMS, ladder);
    expect(loss?.rungs).toBe(2);
    expect(Math.abs((loss?.db ?? 0) - 58)).toBeLessThan(0.1);
    expect(Math.abs((atFullDbm ?? 0) + 2)).toBeLessThan(0.1);
    expect(allowedMiddleW).toBeGreaterThan(61);
    expect(allowedMiddleW).toBeLessThan(64.5);
    // what is safe to say goes by the lower end of the loss
    expect(allowedW).toBeCloseTo(dbmToW(-10 + (loss?.lowDb ?? 0)), 6);
    expect(allowedW).toBeLessThan(55);
  });
  test('3 dB of compression at 50 W: stop, and steps over 6 dB are called large', () => {
    const { next, rungs } = powerTest(TERMS, ladder);
    expect(next.state).toBe('stop');
    expect(next.sentence).toContain('rose 3.1 dB less than the power');
    expect(rungs[1].remark).toBe('a step of 10 dB is large: steps of 6 dB at most show trouble earlier');
    expect(rungs[2].remark).toContain('something compresses');
  });
  test('after two steps the next is 6 dB up, and what it should show is said', () => {
    const { next } = powerTest(TERMS, [
      { powerW: 0.5, readingDbm: -31 },
      { powerW: 2, readingDbm: -25 },
    ]);
    expect(next).toMatchObject({ state: 'go' });
    if (next.state !== 'go') throw new Error(next.state);
    // nobody sets 7.96 W: four times 2 W are 8 W
    expect(next.powerW).toBeCloseTo(8, 9);
    expect(next.expectedDbm).toBeCloseTo(-19, 0);
  });
  test('a radio with powers of its own is asked for one of them: 5 W, though 8 W would do, and 25 W where nothing lies nearer', () => {
    const own = { ...TERMS, stepsW: [0.5, 2, 5, 25, 100] };
    const after = (...rungs: readonly Rung[]) => powerTest(own, rungs).next;
    const low = { powerW: 0.5, readingDbm: -33 };
    expect(after(low)).toMatchObject({ state: 'go', powerW: 2 });
    expect(after(low, { powerW: 2, readingDbm: -27 })).toMatchObject({ state: 'go', powerW: 5 });
    expect(after(low, { powerW: 2, readingDbm: -27 }, { powerW: 5, readingDbm: -23 })).toMatchObject({ powerW: 25 });
  });
});

describe('before and between the steps', () => {
  test('without any expectation the first step needs a pad that is enough for no loss at all', () => {
    const { expectedLossDb: _unknown, ...terms } = TERMS;
    // 0.5 W are 27 dBm; −10 dBm is the most: 37 dB
    expect(powerTest(terms, []).next).toMatchObject({ state: 'pad', neededDb: 37 });
    expect(powerTest({ ...terms, attenuatorDb: 40 }, []).next).toMatchObject({ state: 'go', powerW: 0.5 });
  });
  test('a reading a thousand times too large is asked back, with what would fit', () => {
    const { next } = powerTest(TERMS, [
      { powerW: 0.5, readingDbm: -31 },
      { powerW: 2, readingDbm: 5 },
    ]);
    expect(next).toMatchObject({ state: 'ask', meantDbm: -25 });
    expect(next.sentence).toContain('typed as W');
  });
  test('a rise that is too fast stops the test; a reading in the background goes on', () => {
    expect(
      powerTest(TERMS, [
        { powerW: 0.5, readingDbm: -40 },
        { powerW: 2, readingDbm: -30 },
      ]).next.sentence,
    ).toContain('more than the power');
    const quiet = powerTest(TERMS, [{ powerW: 0.5, readingDbm: -110 }]);
    expect(quiet.rungs[0].remark).toBe('not above the background');
    expect(quiet.next.state).toBe('go');
    expect(quiet.loss).toBeUndefined();
  });
  test('a pad that is not what it says is told by a steady signal with and without it', () => {
    expect(checkedPad(20, -60, -80.4).agrees).toBe(true);
    expect(checkedPad(20, -60, -70.2)).toMatchObject({
      agrees: false,
      sentence: 'This pad takes 10.2 dB, not 20: use the right one, or enter what it is.',
    });
  });
  test('measured against the model: agreement, and what explains a difference', () => {
    expect(testAgainstModel(58, 60)).toMatchObject({ agrees: true });
    expect(testAgainstModel(48, 60).sentence).toContain('the outside of a feed line');
    expect(testAgainstModel(70, 60).sentence).toContain('lost on the way');
  });
});

test('1,000 hidden worlds: never past the limit, the coupling within 0.5 dB where two steps lay on the line', () => {
  let [told, wrong, asked, compressed] = [0, 0, 0, 0];
  for (let seed = 1; seed <= 1000; seed += 1) {
    const { uniform, normal } = chanceOf(seed);
    const trueLossDb = 15 + 75 * uniform();
    const known = uniform() < 0.5;
    const compressesAtDbm = uniform() < 0.4 ? -35 + 30 * uniform() : Infinity;
    const limitDbm = -10 + 20 * uniform();
    const lowestW = 0.1 + uniform();
    const fullW = 10 + 390 * uniform();
    let padDb = 0;
    let truePadDb = 0;
    const backgroundDbm = -120 + 20 * uniform();
    const base = {
      ...{ fullW, lowestW, limitDbm, marginDb: 10, backgroundDbm },
      ...(known ? { expectedLossDb: Math.max(0, trueLossDb + 4 * normal()) } : {}),
    };
    let rungs: Rung[] = [];
    for (let turn = 0; turn < 40; turn += 1) {
      const test = powerTest({ ...base, attenuatorDb: padDb }, rungs);
      const { next } = test;
      if (next.state === 'pad') {
        // a pad of the drawer, one in ten labelled wrongly: the check with a steady signal tells
        const labelled = 10 * Math.ceil(next.neededDb / 10);
        truePadDb = uniform() < 0.1 ? labelled - 10 : labelled;
        const checked = checkedPad(labelled, -60, -60 - truePadDb + 0.2 * normal());
        if (!checked.agrees) wrong += 1;
        expect(checked.agrees).toBe(truePadDb === labelled);
        if (!checked.agrees) truePadDb = labelled;
        padDb = labelled;
        rungs = [];
        continue;
      }
      if (next.state === 'ask') {
        asked += 1;
        rungs = [...rungs.slice(0, -1), { ...rungs[rungs.length - 1], readingDbm: next.meantDbm }];
        continue;
      }
      if (next.state === 'stop' || next.state === 'done') {
        if (next.state === 'stop' && next.sentence.includes('compresses')) compressed += 1;
        if (test.loss && test.loss.rungs >= 2) {
          told += 1;
          expect(Math.abs(test.loss.db - trueLossDb)).toBeLessThan(0.5);
        }
        break;
      }
      const atInputDbm = dbmOf(next.powerW) - trueLossDb - truePadDb;
      // what is never allowed, whatever the receiver shows
      expect([seed, turn, atInputDbm <= limitDbm]).toEqual([seed, turn, true]);
      const linear = 10 * Math.log10(10 ** (atInputDbm / 10) + 10 ** (backgroundDbm / 10));
      const shown = linear > compressesAtDbm ? compressesAtDbm + (linear - compressesAtDbm) / 3 : linear;
      const slip = rungs.length > 0 && uniform() < 0.03 ? 30 : 0;
      rungs = [...rungs, { powerW: next.powerW, readingDbm: shown + 0.1 * normal() + slip }];
    }
  }
  // every sort of trouble was met
  expect(told).toBeGreaterThan(400);
  expect(wrong).toBeGreaterThan(20);
  expect(asked).toBeGreaterThan(20);
  expect(compressed).toBeGreaterThan(20);
});

describe('timing', () => {
  const at = (s: number, scatterS = 0) => ({ s, scatterS });
  const times: SequenceTimes = {
    ...{ by: 'sensing', rf: at(0.002), switch: at(0.01), sense: at(0.002), tail: at(0.001), hang: at(0.5) },
  };
  test('sensing 12 ms late with 3.5 dB: 46.5 dBm, 0.54 J (100 W, by hand)', () => {
    const found = sequenceOf(times, 100, 3.5);
    expect(found.beforeS).toBeCloseTo(0.012, 9);
    expect(found.levelDbm).toBeCloseTo(46.5, 9);
    expect(found.energyJ).toBeCloseTo(0.536, 3);
    const { leads, remarks } = sequenceRemarks(
      times,
      found,
      sequenceChance(times, 100, 3.5, () => 0, 10),
      null,
    );
    expect(leads).toBe(false);
    expect(remarks[0]).toContain('46.5 dBm for 12.0 ms, 0.54 J');
  });
  test('a key line that leads by 15 ms passes; by 8 ms it does not; a sequencer always does', () => {
    const keyed = (rfS: number): SequenceTimes => ({
      ...times,
      by: 'key line',
      rf: at(rfS, 0.001),
      switch: at(0.01, 0.001),
    });
    const judged = (one: SequenceTimes) =>
      sequenceRemarks(one, sequenceOf(one, 100, 3.5), sequenceChance(one, 100, 3.5, chanceOf(1).normal), null);
    expect(judged(keyed(0.015)).leads).toBe(true);
    expect(judged(keyed(0.008))).toMatchObject({ leads: false });
    expect(judged(keyed(0.008)).remarks[0]).toContain('RF comes 2.0 ms before the switch is there');
    // 11 ms: enough on the average, late once in a while; needed 10 + 3.09·√2 ms
    expect(judged(keyed(0.011)).remarks[0]).toContain('14.4 ms would be');
    expect(judged({ ...times, by: 'sequencer' }).leads).toBe(true);
  });
  test('a hang shorter than a syllable, or than the tail of RF, is flagged', () => {
    const short: SequenceTimes = { ...times, by: 'key line', rf: at(0.02), hang: at(0.0005), tail: at(0.003) };
    const { hangs, remarks } = sequenceRemarks(
      short,
      sequenceOf(short, 100, 3.5),
      sequenceChance(short, 100, 3.5, () => 0, 10),
      null,
    );
    expect(hangs).toBe(false);
    expect(remarks.join(' ')).toMatch(/goes back before RF has gone.*syllables, about 300\.0 ms/);
  });
  test('late by chance: the share agrees with the normal law within its error', () => {
    // RF after 10 ± 2 ms, switch after 12 ± 1 ms: late where the difference, −2 ± √5, is below 0: Φ(2/√5) = 0.8144
    const late: SequenceTimes = { ...times, by: 'key line', rf: at(0.01, 0.002), switch: at(0.012, 0.001) };
    const { share, mostJ } = sequenceChance(late, 100, 3.5, chanceOf(7).normal, 20_000);
    expect(Math.abs(share - 0.8144)).toBeLessThan(0.01);
    expect(mostJ).toBeGreaterThan(0);
    expect(() => sequenceOf({ ...late, rf: at(-1) }, 100, 3.5)).toThrow(/Time of rf/);
  });
});

// 2 coils of 270 ohm at 13.8 V draw 2 · 13.8 / 270 = 102 mA (Ohm)
test('a key line that may switch 100 mA does not switch 102; 150 mA does, with a diode', () => {
  const line = { supplyV: 13.8, coilOhm: 270, coils: 2, mostV: 16, mostA: 0.1 };
  expect(keyLine(line).currentA).toBeCloseTo(0.1022, 4);
  expect(keyLine(line)).toMatchObject({ fits: false });
  expect(keyLine({ ...line, mostA: 0.15 })).toMatchObject({ fits: true });
  expect(keyLine({ ...line, mostA: 0.15 }).sentence).toContain('A diode across each coil');
  expect(keyLine({ ...line, mostA: 0.15, mostV: 12 }).fits).toBe(false);
});
