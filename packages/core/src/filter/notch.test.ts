import { describe, expect, test } from '@jest/globals';
import { OutOfRangeError } from '../errors';
import { coaxStub, notchTrap } from './notch';

describe('notches', () => {
  const trap = { notchHz: 1e6, farad: 1e-9, q: 100, lineOhm: 50 };
  // Thomson's formula; r = ωL/Q across a matched line loses 20 log(1 + Z₀/2r) (divider of Z₀/2 and r). Source: Pozar, sec. 4.3.
  test('a trap has the coil of its resonance, the depth of its resistance and 3 dB where it says', () => {
    const { henry, depthDb, widthHz, lossDb } = notchTrap(trap);
    expect(henry * 1e6).toBeCloseTo(25.33, 2);
    const ohm = (2 * Math.PI * 1e6 * henry) / 100;
    expect(depthDb).toBeCloseTo(20 * Math.log10(1 + 25 / ohm), 9);
    expect(lossDb(1e6)).toBeCloseTo(depthDb, 6);
    // edges lie symmetric in log f about the notch
    const low = -widthHz / 2 + Math.hypot(widthHz / 2, 1e6);
    expect(lossDb(low)).toBeCloseTo(3.0103, 3);
    expect(lossDb(low + widthHz)).toBeCloseTo(3.0103, 3);
  });
  // A quarter wave repeats an open end as a short, half a wave repeats a short. Source: Pozar, table 2.1.
  test('stubs: cut length, no loss where they are a half wave (open) or quarter wave (shorted), deep at the notch', () => {
    const stub = { notchHz: 98e6, velocityFactor: 0.66, lineOhm: 50, stubOhm: 50, dbPer100m: 0.001 };
    const open = coaxStub({ kind: 'open quarter', ...stub });
    const shorted = coaxStub({ kind: 'shorted half', ...stub });
    expect(open.lengthM).toBeCloseTo(74.948 * 0.66 * (1 / 98), 3); // 74.948 m·MHz is c/4
    expect(shorted.lengthM).toBeCloseTo(2 * open.lengthM, 9);
    expect(open.depthDb).toBeGreaterThan(80);
    expect(open.lossDb(196e6)).toBeLessThan(0.001);
    expect(shorted.lossDb(49e6)).toBeLessThan(0.001);
    expect(open.nextNotchHz).toBe(294e6);
    expect(open.lossDb(294e6)).toBeGreaterThan(80);
    // at half the notch an open stub is −j50 Ω: |1 + j/2|² = 1.25
    expect(open.lossDb(49e6)).toBeCloseTo(10 * Math.log10(1.25), 3);
  });
  test('what cannot be is refused', () => {
    expect(() => notchTrap({ ...trap, q: 0 })).toThrow(OutOfRangeError);
  });
});
