import { describe, expect, test } from '@jest/globals';
import { type Evidence, holdsFor, isScope, type Question, type Scope } from './index';

type Corners = readonly (readonly [number, number])[];
const at = (points: Corners) => ({ runs: [{ points, heightM: 6, endHeightM: 6 }] });
const LOOP = {
  id: 'antenna:7',
  name: 'Loop',
  revision: 2,
  ...at([
    [0, 0],
    [10, 0],
  ]),
};
const RELAY = { id: 'part:1', name: 'Relay', state: 'switch 1 - a' };
const SCOPE: Scope = {
  ...{ frequenciesHz: [[7e6, 7.2e6]], powerW: 100, antennas: [LOOP], parts: [RELAY] },
  ...{ receiver: { id: '3', name: 'SDR', gain: '20 dB' }, directionsDeg: [[300, 60]], bandwidthHz: 2400 },
  times: { fromMs: Date.UTC(2026, 2, 1), toMs: Date.UTC(2026, 2, 8) },
};
const taken = (scope: Scope, more: Partial<Evidence<number>> = {}): Evidence<number> => ({
  ...{ value: 62, origin: 'by test', scope, atMs: 0 },
  ...more,
});
const asked = (question: Question, scope = SCOPE, more: Partial<Evidence<number>> = {}) =>
  holdsFor(taken(scope, more), question);

describe('what a figure holds for', () => {
  test('its own frequency, power, parts, antennas, receiver, direction, bandwidth and time', () => {
    const question: Question = {
      ...{ freqHz: 7.1e6, powerW: 50, antennas: [LOOP], parts: [RELAY], receiver: SCOPE.receiver },
      ...{ directionDeg: 10, bandwidthHz: 2500, atMs: Date.UTC(2026, 2, 4) },
    };
    expect(asked(question)).toEqual({ state: 'covers' });
    expect(asked({})).toEqual({ state: 'covers' });
  });
  test('four times the power and 2 % of the frequency are stretched, with 1 dB more each; beyond that they are refused in words', () => {
    expect(asked({ powerW: 400 })).toMatchObject({ state: 'stretched', addsDb: 1, because: 'from 100 W to 400 W' });
    expect(asked({ powerW: 401 })).toEqual({ state: 'not', reason: 'tested up to 100 W, asked at 401 W' });
    expect(asked({ powerW: 400, freqHz: 7.3e6 })).toMatchObject({ state: 'stretched', addsDb: 2 });
    expect(asked({ freqHz: 7.35e6 })).toEqual({
      state: 'not',
      reason: 'tested from 7.000 MHz to 7.200 MHz, asked at 7.350 MHz',
    });
  });
  test('an antenna holds within 0.3 m and 3°, and on its revision', () => {
    const moved = (dx: number, dy: number) => ({
      ...LOOP,
      ...at([
        [dx, dy],
        [10 + dx, dy],
      ]),
    });
    expect(asked({ antennas: [moved(0.2, 0)] })).toMatchObject({
      state: 'stretched',
      because: 'Loop was moved by 20 cm',
    });
    expect(asked({ antennas: [moved(6, 0)] })).toMatchObject({ reason: 'since then Loop was moved by 6.0 m' });
    // 0.29 m at one end of 4 m turns it by 4.2°
    const short = {
      ...LOOP,
      ...at([
        [0, 0],
        [4, 0],
      ]),
    };
    const turned = {
      ...LOOP,
      ...at([
        [0, 0],
        [4, 0.29],
      ]),
    };
    expect(holdsFor(taken({ antennas: [short] }), { antennas: [turned] })).toMatchObject({ state: 'not' });
    expect(asked({ antennas: [{ ...LOOP, revision: 3 }] })).toMatchObject({
      reason: 'it was taken on revision 2 of Loop, now it is revision 3',
    });
    expect(asked({ antennas: [] })).toMatchObject({ reason: 'since then Loop was taken out' });
  });
  test('what went or came among the parts is named before what it changed beside it', () => {
    const limiter = { id: 'part:2', name: 'Limiter', state: 'limiter' };
    const other = { ...RELAY, state: 'switch 1 - b' };
    expect(asked({ parts: [other, limiter] })).toMatchObject({ reason: 'since then Limiter was put in' });
    expect(asked({ parts: [limiter] })).toMatchObject({ reason: 'since then Relay was taken out' });
    expect(asked({ parts: [other] })).toMatchObject({
      reason: 'since then Relay was changed or connected differently',
    });
  });
  test('sectors go round through north, and a gap is no direction measured', () => {
    for (const deg of [300, 0, 360, 60, -30]) expect(asked({ directionDeg: deg })).toEqual({ state: 'covers' });
    expect(asked({ directionDeg: 180 })).toMatchObject({ reason: 'nothing was measured toward 180°' });
    expect(holdsFor(taken({ directionsDeg: [[0, 360]] }), { directionDeg: 123 })).toEqual({ state: 'covers' });
  });
  test('receiver, gain, bandwidth and time', () => {
    expect(asked({ receiver: { id: '3', name: 'SDR', gain: '30 dB' } })).toMatchObject({ state: 'not' });
    expect(asked({ receiver: { id: '4', name: 'Dongle' } })).toMatchObject({
      reason: 'it was taken with SDR, not with Dongle',
    });
    expect(asked({ bandwidthHz: 10_000 })).toMatchObject({ state: 'stretched', addsDb: 0.5 });
    expect(asked({ bandwidthHz: 100_000 })).toMatchObject({ state: 'not' });
    expect(asked({ atMs: Date.UTC(2026, 6, 1) })).toMatchObject({
      reason: 'taken from 2026-03-01 to 2026-03-08 only',
    });
  });
  test('clipped, lost and levelled samples are no levels, and too few readings are too few', () => {
    expect(asked({}, SCOPE, { quality: { clipped: 3 } })).toMatchObject({ reason: '3 samples stood at full scale' });
    expect(asked({}, SCOPE, { quality: { dropped: 1 } })).toMatchObject({ state: 'not' });
    expect(asked({}, SCOPE, { quality: { agc: true } })).toMatchObject({ state: 'not' });
    expect(asked({ count: 2 }, SCOPE, { quality: { count: 1 } })).toMatchObject({ state: 'not' });
  });
  test('what nobody wrote down covers no question', () => {
    for (const question of [
      { freqHz: 1 },
      { powerW: 1 },
      { antennas: [] },
      { parts: [] },
      { directionDeg: 1 },
      { atMs: 1 },
    ])
      expect(asked(question, {})).toMatchObject({ state: 'not', reason: expect.stringContaining('nobody wrote down') });
  });
});

test('a stored scope is read strictly: no field too many, no text for a number', () => {
  expect(isScope(JSON.parse(JSON.stringify(SCOPE)))).toBe(true);
  expect(isScope({})).toBe(true);
  for (const wrong of [
    null,
    [],
    { powerW: '100' },
    { other: 1 },
    { antennas: [{ id: '1' }] },
    { frequenciesHz: [[1]] },
  ])
    expect(isScope(wrong)).toBe(false);
});
