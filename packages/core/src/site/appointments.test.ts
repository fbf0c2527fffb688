import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Appointment, type BusyReceiver, clashes, heardAtOnceHz, occurrencesOf, slotStarts } from './appointments';
import { REPEATS } from './repeats';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const at = (text: string): number => Date.parse(`${text}:00Z`);
const net = (more: Partial<Appointment> = {}): Appointment => ({
  ...{ id: '1', name: 'Net', atMs: at('2026-03-10T18:00'), minutes: 60, repeats: 'once' },
  ...more,
});
const dongle: BusyReceiver = { id: 'd', name: 'Dongle', sampleRateHz: 2.4e6, complexSamples: true };
const direct: BusyReceiver = { id: 'h', name: 'HF', sampleRateHz: 64e6, complexSamples: false };

describe('when an appointment comes', () => {
  test('once: inside, begun before, and not at all', () => {
    const times = (from: string, to: string): number => occurrencesOf(net(), at(from), at(to)).length;
    expect(times('2026-03-10T00:00', '2026-03-11T00:00')).toBe(1);
    expect(times('2026-03-10T18:30', '2026-03-11T00:00')).toBe(1);
    expect(times('2026-03-10T19:00', '2026-03-11T00:00')).toBe(0);
    expect(times('2026-03-09T00:00', '2026-03-10T18:00')).toBe(0);
  });
  test('daily and weekly: as many as the calendar has, none before the first', () => {
    const week = [at('2026-03-09T00:00'), at('2026-03-23T00:00')] as const;
    expect(occurrencesOf(net({ repeats: 'daily' }), ...week)).toHaveLength(13);
    const weekly = occurrencesOf(net({ repeats: 'weekly' }), ...week).map(({ fromMs }) =>
      new Date(fromMs).toISOString(),
    );
    expect(weekly).toEqual(['2026-03-10T18:00:00.000Z', '2026-03-17T18:00:00.000Z']);
    // one that runs past midnight is still on at its end
    const late = net({ repeats: 'daily', atMs: at('2026-03-01T23:00'), minutes: 180 });
    expect(occurrencesOf(late, at('2026-03-10T01:00'), at('2026-03-10T03:00'))).toHaveLength(1);
  });
  test('a length that is none is refused', () => {
    expect(() => occurrencesOf(net({ minutes: 0 }), 0, 1)).toThrow('Give its minutes');
  });
  test('any stretch cut in two has the occurrences of both halves (seeded)', () => {
    const noon = at('2026-03-10T12:00');
    const days = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(
        fc.record({ begin: days, minutes: fc.integer({ min: 1, max: 3000 }), repeats: fc.constantFrom(...REPEATS) }),
        fc.tuple(days, days, days),
        ({ begin, minutes, repeats }, cuts) => {
          const one = net({ atMs: noon + begin * DAY, minutes, repeats });
          const [a, b, c] = [...cuts].sort((x, y) => x - y).map((day) => noon + day * DAY);
          const begun = (from: number, to: number): number[] =>
            occurrencesOf(one, from, to)
              .map(({ fromMs }) => fromMs)
              .filter((ms) => ms >= from);
          expect([...begun(a, b), ...begun(b, c)]).toEqual(begun(a, c));
        },
      ),
      { seed: 11, numRuns: 300 },
    );
  });
});

describe('slots of a timed mode', () => {
  const slots = (...stretch: Parameters<typeof slotStarts>): number => slotStarts(...stretch).length;
  test('six hours hold twelve of half an hour', () =>
    expect(slots(at('2026-03-10T18:00'), at('2026-03-11T00:00'), 30)).toBe(12));
  test('one that has begun, or does not end in time, does not count', () => {
    expect(slots(at('2026-03-10T18:01'), at('2026-03-10T18:59'), 15)).toBe(2);
    expect(slots(at('2026-03-10T18:01'), at('2026-03-10T18:14'), 15)).toBe(0);
    // over midnight the count goes on where the length divides the day
    expect(slots(at('2026-03-10T23:58'), at('2026-03-11T00:02'), 2)).toBe(2);
  });
});

describe('clashes', () => {
  const two = (a: Partial<Appointment>, b: Partial<Appointment>) =>
    [net({ id: 'a', ...a }), net({ id: 'b', atMs: at('2026-03-10T18:30'), ...b })].flatMap((one) =>
      occurrencesOf(one, at('2026-03-10T00:00'), at('2026-03-11T00:00')),
    );
  test('what one receiver hears at once: 0.8 of a complex band, 0.8 of half a real one', () => {
    expect(heardAtOnceHz(dongle)).toBeCloseTo(1.92e6, 0);
    expect(heardAtOnceHz(direct)).toBeCloseTo(25.6e6, 0);
  });
  test('the only receiver cannot hear what lies farther apart; it can hear what lies near', () => {
    const [found] = clashes(two({ freqHz: 137.5e6 }, { freqHz: 156.8e6 }), [dongle]);
    expect(found).toMatchObject({ apartHz: 19.3e6, receiver: { name: 'Dongle' } });
    expect([found.fromMs, found.toMs]).toEqual([at('2026-03-10T18:30'), at('2026-03-10T19:00')]);
    expect(clashes(two({ freqHz: 156.8e6 }, { freqHz: 157.5e6 }), [dongle])).toEqual([]);
    expect(clashes(two({ freqHz: 518e3 }, { freqHz: 12e6 }), [direct])).toEqual([]);
  });
  test('an unknown frequency may clash; another receiver, or another hour, does not', () => {
    expect(clashes(two({}, { freqHz: 5e6 }), [dongle])).toHaveLength(1);
    expect(clashes(two({ receiverId: 'd' }, { receiverId: 'h' }), [dongle, direct])).toEqual([]);
    expect(clashes(two({ receiverId: 'd', freqHz: 1e6 }, { freqHz: 9e6 }), [dongle, direct])).toEqual([]);
    expect(clashes(two({}, { atMs: at('2026-03-10T19:00') }), [dongle])).toEqual([]);
  });
});
