import { expect, test } from '@jest/globals';
import { converterFloor } from './receiver';
import { RECEIVER_KINDS } from './receiver-kinds';
import { highestHz, reaches } from './reach';
import { setupCard } from './setup-card';

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
