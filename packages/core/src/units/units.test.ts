import { describe, expect, test } from '@jest/globals';
import { THERMAL_NOISE_DBM_PER_HZ } from './constants';
import { dbmToVoltsRms, sumAmplitudesDb, sumPowersDb } from './decibel';
import {
  bandText,
  fixed,
  frequencyText,
  lengthText,
  midSentence,
  plain,
  showField,
  showLength,
  showPower,
  countText,
  freeName,
} from './format';
import { inchText } from './inches';
import { parseQuantity } from './quantity';
import { dbmToS, emfToDbm, sToDbm } from './s-meter';
import { wavelengthM } from './wavelength';

describe('typed quantities', () => {
  test.each([
    ['7.1 MHz', 'frequency', 7.1e6],
    ['7.1M', 'frequency', 7.1e6],
    ['518 kHz', 'frequency', 518e3],
    ['1.09GHz', 'frequency', 1.09e9],
    ['40 m', 'length', 40],
    ['6 ft 3 in', 'length', 1.905],
    ['6ft 3in', 'length', 1.905],
    ['6\' 3"', 'length', 1.905],
    ['65 mm', 'length', 0.065],
    ['-73 dBm', 'level', -73],
    ['−73', 'level', -73],
    ['7,1 MHz', 'frequency', 7.1e6],
    ['1,234,567 Hz', 'frequency', 1234567],
    ['1,234.5 m', 'length', 1234.5],
    ['100', 'power', 100],
    ['3 kW', 'power', 3000],
    ['120°', 'angle', 120],
    ['12 ms', 'time', 0.012],
    ['1 000 m', 'length', 1000],
  ] as const)('%s', (text, dimension, value) => {
    expect(parseQuantity(text, dimension)).toBeCloseTo(value, 9);
  });
  // V²/R against 1 mW: 1 µV across 50 Ω is −107 dBm (20 fW); across 75 Ω 1.76 dB less
  test.each([
    ['1 uV', -106.99],
    ['12 µV', -85.41],
    ['0 dBµV', -106.99],
    ['34 dBuV', -72.99],
    ['1 uV in 75 ohm', -108.75],
    ['1 mW', 0],
    ['100 W', 50],
    ['2,5 mV', -39.03],
  ])('a level as voltage or power: %s', (text, dbm) => {
    expect(parseQuantity(text, 'level')).toBeCloseTo(dbm, 2);
  });
  test('S readings follow the reference of their frequency: 20 dB lower at VHF', () => {
    expect(parseQuantity('S9+10', 'level', { freqHz: 7e6 })).toBe(-63);
    expect(parseQuantity('s7', 'level', { freqHz: 7e6 })).toBe(-85);
    expect(parseQuantity('S7', 'level', { freqHz: 145e6 })).toBe(-105);
  });
  test.each([
    ['S9+999', 7e6],
    ['S12', 7e6],
    ['S5+20', 7e6],
    ['S7', undefined],
    ['0 uV', undefined],
  ])('%s is not taken for a level', (text, freqHz) => {
    expect(() => parseQuantity(text, 'level', { freqHz })).toThrow(/Type it like/);
  });
  test('a comma that may group thousands is asked back, with both readings', () => {
    expect(() => parseQuantity('7,100 MHz', 'frequency')).toThrow('"7,100 MHz" can mean 7.1 MHz or 7100 MHz.');
    expect(() => parseQuantity('1,000 m', 'length')).toThrow(/can mean 1 m or 1000 m/);
  });
  test('thousands of digits are refused at once', () => {
    expect(() => parseQuantity('1'.repeat(100_000), 'length')).toThrow(/too long/);
  });
  test('a bare number takes the unit of its field', () => {
    expect(parseQuantity('9.65', 'frequency', { bareUnit: 'MHz' })).toBe(9.65e6);
  });
  test.each([
    ['', 'length'],
    ['abc', 'frequency'],
    ['7.1 furlong', 'length'],
    ['7.1 MHz 8 MHz', 'frequency'],
    ['3 m -2 cm', 'length'],
    ['1e999 Hz', 'frequency'],
    ['5 kg', 'power'],
  ] as const)('%j as %s is refused with an example', (text, dimension) => {
    expect(() => parseQuantity(text, dimension)).toThrow(/Type it like/);
  });
});

describe('shown quantities', () => {
  test('units and digits', () => {
    expect([
      frequencyText(9.65e6),
      frequencyText(518e3, 3),
      lengthText(7.384),
      lengthText(0.0653),
      plain(showPower(3000)),
    ]).toEqual(['9.650 MHz', '518 kHz', '7.38 m', '65.3 mm', '3.00 kW']);
    expect(plain(showLength(1.905, 3, 'imperial'))).toBe('6 ft 3 in');
    expect(bandText(161.9625e6, 162.0375e6)).toBe('161.9625 to 162.0375 MHz');
    expect(bandText(1e5, 1.5e9)).toBe('100 kHz to 1.5 GHz');
    expect(bandText(0, 30e6)).toBe('0 to 30 MHz');
    expect(fixed(-0.04, 1)).toBe('0.0');
    expect(fixed(-12.34, 1)).toBe('−12.3');
    expect([midSentence('V dipole'), midSentence('Half-wave dipole')]).toEqual(['V dipole', 'half-wave dipole']);
  });
});

describe('levels', () => {
  test('kT₀ is −173.975 dBm/Hz, not −174', () => {
    expect(THERMAL_NOISE_DBM_PER_HZ).toBeCloseTo(-173.975, 3);
  });
  // IARU R.1: S9 is 50 µV in 50 Ω below 30 MHz; 6 dB per unit.
  test('S9 is 50 µV, S5 is −97 dBm, S0 is the floor', () => {
    expect(dbmToVoltsRms(sToDbm({ sUnits: 9, dbOverS9: 0 }, 7e6)) * 1e6).toBeCloseTo(50.1, 1);
    expect(sToDbm({ sUnits: 5, dbOverS9: 0 }, 7e6)).toBe(-97);
    expect(dbmToS(-200, 7e6).sUnits).toBe(0);
    expect(dbmToS(-83, 145e6)).toEqual({ sUnits: 9, dbOverS9: 10 });
    expect(() => sToDbm({ sUnits: 10, dbOverS9: 0 }, 7e6)).toThrow(/between 0 and 9/);
  });
  test('two equal powers add 3 dB, two equal voltages in phase 6 dB; EMF halves at the terminals', () => {
    expect(sumPowersDb([-20, -20])).toBeCloseTo(-16.99, 2);
    expect(sumAmplitudesDb([-20, -20])).toBeCloseTo(-13.98, 2);
    expect(emfToDbm(100e-6)).toBeCloseTo(-73.01, 2);
  });
  test('2 GHz is 14.99 cm; a quarter wave at 461 MHz 16.26 cm', () => {
    expect(wavelengthM(2e9)).toBeCloseTo(0.1499, 4);
    expect(wavelengthM(461e6) / 4).toBeCloseTo(0.1626, 4);
  });
});

describe('inches', () => {
  // Worked by hand: 1 ft = 304.8 mm, 1/16 in = 1.5875 mm.
  test.each([
    [0.3048, '1 ft 0 in'],
    [2.0, '6 ft 6 3/4 in'],
    [0.0653, '2 9/16 in'],
    [0.00158, '0 1/16 in'],
  ])('%d m', (lengthM, text) => {
    expect(inchText(lengthM)).toBe(text);
  });
});

test('a field is told in the unit that needs no zeros', () => {
  expect(plain(showField(0.2461))).toBe('0.246 V/m');
  expect(plain(showField(0.0549))).toBe('54.9 mV/m');
  expect(plain(showField(3.2e-6, 2))).toBe('3.2 µV/m');
});

test('"two arm 1s" was counted, and two drafts got one name', () => {
  expect(countText(2, 'arm 1')).toBe('2 × arm 1');
  expect(countText(2, 'arm')).toBe('two arms');
  expect(freeName('dipole', [])).toBe('dipole');
  expect(freeName('dipole', ['dipole', 'dipole 2'])).toBe('dipole 3');
});
