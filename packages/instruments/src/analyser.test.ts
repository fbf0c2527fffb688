import { connect } from 'node:net';
import { expect, test } from '@jest/globals';
import { dipoleResonanceHz, findResonances } from '@velvet-reed/core';
import { respond, serveAnalyser, startState, type HiddenTruth } from './index';

const TRUTH: HiddenTruth = {
  lengthM: 15,
  diameterM: 0.002,
  stretch: 1.02,
  cable: { lengthM: 0.5, velocityFactor: 0.66, lossDbAt10MHz: 0.05 },
  noise: 0.003,
};
const run = (lines: readonly string[], seed = 7) => {
  let state = startState(TRUTH, seed);
  const replies: string[] = [];
  for (const line of lines) {
    const answer = respond(state, line);
    state = answer.state;
    if (answer.reply !== undefined) replies.push(answer.reply);
  }
  return replies;
};
const SWEEP = [':SENS:FREQ:STAR 8E6', ':SENS:FREQ:STOP 11E6', ':SENS:SWE:POIN 301', ':CALC:DATA:SDAT?'];

test('the sweep shows the hidden antenna, not the drafted one', () => {
  const values = run(SWEEP)[0].split(',').map(Number);
  expect(values).toHaveLength(602);
  const sweep = {
    freqHz: Float64Array.from({ length: 301 }, (_, i) => 8e6 + i * 1e4),
    re: Float64Array.from({ length: 301 }, (_, i) => values[2 * i]),
    im: Float64Array.from({ length: 301 }, (_, i) => values[2 * i + 1]),
    referenceOhm: 50,
  };
  const dip = findResonances(sweep)[0].freqHz;
  // the stretched wire resonates 2 % lower; noise and the deepest match (not X = 0) allow 0.7 %
  expect(Math.abs(dip / dipoleResonanceHz(15 * 1.02, 0.002) - 1)).toBeLessThan(0.007);
  expect(Math.abs(dip / dipoleResonanceHz(15, 0.002) - 1)).toBeGreaterThan(0.01);
});

test('the same seed repeats the noise, another does not', () => {
  expect(run(SWEEP)).toEqual(run(SWEEP));
  expect(run(SWEEP, 8)).not.toEqual(run(SWEEP));
});

test('a wrong line waits in the error queue and answers nothing', () => {
  expect(
    run([
      ':NONSENSE',
      ':SENS:SWE:POIN many',
      ':SENS:SWE:POIN 1e9',
      ':SYST:ERR?',
      ':SYST:ERR?',
      ':SYST:ERR?',
      ':SYST:ERR?',
    ]),
  ).toEqual(['-113,"Undefined header"', '-104,"Data type error"', '-222,"Data out of range"', '0,"No error"']);
});

test('speaks SCPI over TCP on the loopback interface', async () => {
  const server = await serveAnalyser(startState(TRUTH), 0);
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const reply = await new Promise<string>((resolve) => {
    const socket = connect(port, '127.0.0.1', () => socket.write('*IDN?\n'));
    socket.once('data', (data) => {
      socket.destroy();
      resolve(String(data));
    });
  });
  await new Promise((resolve) => server.close(resolve));
  expect(reply).toBe('Velvet Reed,stand-in analyser,0,1\n');
});
