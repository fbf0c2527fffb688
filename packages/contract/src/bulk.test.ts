import { describe, expect, test } from '@jest/globals';
import type { LogRows } from '@velvet-reed/core/formats';
import fc from 'fast-check';
import { logPage, packLog, unpackLog } from './bulk';

const decodes = fc
  .array(
    fc.record({
      ...{ atMs: fc.integer({ min: 0, max: 2e12 }), freqHz: fc.double({ min: 1, max: 1e11, noNaN: true }) },
      snrDb: fc.oneof(fc.constant(NaN), fc.integer({ min: -40, max: 60 })),
      ...{ sender: fc.string(), locator: fc.constantFrom('', 'JO22', 'IN11ab'), mode: fc.constantFrom('a', 'Ω µ') },
    }),
    { minLength: 1, maxLength: 40 },
  )
  .map((rows): LogRows => ({
    kind: 'decodes',
    numbers: {
      atMs: Float64Array.from(rows, (row) => row.atMs),
      freqHz: Float64Array.from(rows, (row) => row.freqHz),
      snrDb: Float64Array.from(rows, (row) => row.snrDb),
    },
    words: {
      sender: rows.map((row) => row.sender),
      locator: rows.map((row) => row.locator),
      mode: rows.map((row) => row.mode),
    },
  }));

describe('rows of a log as bytes', () => {
  test('come back as they went, whole or a page of them, words and gaps included', () => {
    fc.assert(
      fc.property(decodes, fc.nat({ max: 45 }), fc.nat({ max: 10 }), (log, from, count) => {
        const bytes = packLog(log);
        expect(unpackLog('decodes', bytes)).toEqual(log);
        const page = logPage(unpackLog('decodes', bytes, from, count), from);
        expect(page.rows).toEqual(logPage(log, 0).rows.slice(from, from + count));
      }),
      { seed: 12, numRuns: 200 },
    );
  });
  test('bytes that are cut, or of another kind, are refused with a sentence', () => {
    const bytes = packLog({
      kind: 'pattern',
      numbers: { angleDeg: Float64Array.of(1), levelDb: Float64Array.of(2) },
      words: {},
    });
    for (const broken of [bytes.subarray(0, 2), bytes.subarray(0, bytes.length - 1), new Uint8Array(40).fill(255)])
      expect(() => unpackLog('pattern', broken)).toThrow(/incomplete. Import its file again/);
    expect(() => unpackLog('decodes', bytes)).toThrow(/incomplete/);
  });
});
