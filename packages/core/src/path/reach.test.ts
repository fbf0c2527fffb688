import { expect, test } from '@jest/globals';
import { converterFloor } from './receiver';
import { RECEIVER_KINDS } from './receiver-kinds';
import { atWorkingGains } from './receiver-kinds';
import { gainSettingsText, readGainSettings } from './gain-settings';
import { highestHz, reaches, reachesThrough } from './reach';
import { setupCard, setupSentence } from './setup-card';
import type { PathStage } from './stages';

// Nyquist: 96 kS/s of real samples show up to 48 kHz
const card = {
  name: 'card',
  minHz: 1e3,
  maxHz: 90e3,
  sampleRateHz: 96e3,
  complexSamples: false,
  bits: 15,
  fullScaleDbm: 5,
};
const dongle = { name: 'dongle', ...RECEIVER_KINDS[0].figures };

test('a sound card of 96 kS/s was taken for 66.6 kHz: it reaches 48 kHz, whatever was typed', () => {
  expect(highestHz(card)).toBe(48e3);
  expect(reaches(card, 66.6e3)).toBe(false);
  expect(reaches(card, 17e3, 24e3)).toBe(true);
  expect(reaches({ ...card, sampleRateHz: 192e3 }, 66.6e3)).toBe(true);
});
test('complex samples reach as far as the tuner', () => {
  expect(reaches(dongle, 137e6)).toBe(true);
  expect(reaches(dongle, 7.1e6)).toBe(false);
});
test('"tune it to 6.8 MHz" was said of a receiver that begins at 24 MHz: its card says what reaches the frequency instead', () => {
  const found = setupCard(dongle, 7.1e6, 2400);
  expect(found.tuning).toBeUndefined();
  expect(found.remarks.join(' ')).toMatch(/outside its range.*converter.*direct input/);
  expect(setupCard(dongle, 2e9, 2400).remarks.join(' ')).not.toMatch(/direct input/);
});
test('no kind claims more than half of a real sample rate, or a noise figure below its converter’s own floor', () => {
  for (const { id, figures } of RECEIVER_KINDS) {
    expect([id, highestHz(figures)]).toEqual([id, figures.maxHz]);
    const floorDb = converterFloor({ ...figures, bandwidthHz: 1 }).noiseFigureDb;
    expect([id, floorDb <= figures.noiseFigureDb + 1]).toEqual([id, true]);
  }
});

const converter: PathStage = {
  ...{ kind: 'converter', name: 'Converter', gainDb: 55, noiseFigureDb: 0.7, iip2Dbm: 0, iip3Dbm: -40 },
  ...{ oscillatorHz: 9.75e9, mixing: 'above', imageRejectionDb: 40 },
};
test('"tunes to none" was said of a receiver behind a converter, and its card tuned to 10.489 GHz: it is at 739.5 MHz (by hand)', () => {
  expect(reaches(dongle, 10.489e9, 10.49e9)).toBe(false);
  expect(reachesThrough([converter], dongle, 10.489e9, 10.49e9)).toBe(true);
  // a mirrored band: its ends change places, and both lie within
  expect(reachesThrough([{ ...converter, oscillatorHz: 11.25e9, mixing: 'below' }], dongle, 10.489e9, 10.49e9)).toBe(
    true,
  );
  expect(reachesThrough([{ ...converter, oscillatorHz: 8e9 }], dongle, 10.489e9, 10.49e9)).toBe(false);
  const found = setupCard(dongle, 739.5e6, 2400);
  expect(setupSentence(dongle, 'the satellite', found, { name: 'Converter', outHz: 739.5e6, mirrored: false })).toBe(
    'Tune dongle to 739.20 MHz for the satellite, which Converter brings to 739.50 MHz, beside it and clear of the spike.',
  );
});
test('a superhet has a dial and no samples: neither "complex samples" nor a floor of a converter', () => {
  const kind = RECEIVER_KINDS.find(({ id }) => id === 'superhet');
  const superhet = { name: 'superhet', ...(kind?.figures ?? dongle) };
  const found = setupCard(superhet, 7.1e6, 2400);
  expect(found.mode).not.toMatch(/complex/);
  expect(found).toMatchObject({ ghostsHz: [], outside: false });
  expect([found.cleanHz, found.floorDbfs, found.tuning]).toEqual([undefined, undefined, undefined]);
  expect(setupSentence(superhet, '40 m', found)).toMatch(/^Set the dial of superhet to 40 m/);
});
test('a receiver folds, ends before, or shows what is wanted where it is: one sentence each', () => {
  const direct = { ...card, minHz: 1e4, maxHz: 60e6, sampleRateHz: 28.8e6 };
  expect(setupSentence(direct, 'it', setupCard(direct, 7e6, 2400))).toMatch(
    /where it is: it samples the whole input up to 14\.4/,
  );
  expect(setupSentence(direct, 'it', setupCard(direct, 21e6, 2400))).toMatch(/folded and mirrored, at 7\.8/);
  expect(setupSentence(direct, 'it', setupCard(direct, 14.4e6, 2400))).toMatch(/edge of a zone/);
  expect(setupSentence(dongle, 'it', setupCard(dongle, 7e6, 2400))).toBe('dongle does not tune to it.');
});

test('gains that its owner typed come before those of the kind; an intercept that nobody said moves with full scale', () => {
  expect(atWorkingGains(dongle).map(({ name }) => name)).toEqual([
    'dongle',
    'dongle at middle gain',
    'dongle at high gain',
  ]);
  const gains = readGainSettings('20 dB; 9 dB; −52 dBm\n40 dB;4,5;-70;-10;-38\n');
  expect(gains).toEqual([
    { name: '20 dB', noiseFigureDb: 9, fullScaleDbm: -52 },
    { name: '40 dB', noiseFigureDb: 4.5, fullScaleDbm: -70, iip2Dbm: -10, iip3Dbm: -38 },
  ]);
  expect(readGainSettings(gainSettingsText(gains))).toEqual(gains);
  const [, first, second] = atWorkingGains({ ...dongle, gains });
  // full scale falls by 20 dB, from −32 to −52: both intercepts with it
  expect(first).toMatchObject({ name: 'dongle at 20 dB', noiseFigureDb: 9, iip2Dbm: -5, iip3Dbm: -35 });
  expect(second).toMatchObject({ name: 'dongle at 40 dB', iip2Dbm: -10, iip3Dbm: -38 });
});
test('a line of gains that is none is told with its number, and nothing is left out in silence', () => {
  for (const line of ['20 dB', '; 9; −52', 'x; nine; −52', 'x; 9; ', 'x; 9; −52; ; 3', 'x; 9; 300', 'a; 1; 2; 3; 4; 5'])
    expect(() => readGainSettings(`high; 6; -62\n${line}`)).toThrow(/^Line 2, /);
  expect(() => readGainSettings('a; 1; -1\n'.repeat(13))).toThrow(/13 gains/);
  expect(readGainSettings('')).toEqual([]);
});
