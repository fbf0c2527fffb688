import { describe, expect, test } from '@jest/globals';
import { bearingFix, cancellation, combining, ELLIPSE_95, figureEightNull } from './fix';
import { farField, patternFigures, reflectionByMove, reflectionRipple, threeAntennas } from './pattern';
import { pairArrival } from './pair';
import { checkedGain } from './range';
import { chanceOf } from '../recording/made';
import { ShapeError } from '../errors';

const RAD = Math.PI / 180;

describe('bearings', () => {
  // Geometry: two bearings at right angles from the same distance d make a circle of d·σ; source far from Stansfield's small-angle limit is not used.
  test('crossed at right angles the place is exact and the ellipse a circle', () => {
    const fix = bearingFix([
      { eastKm: 0, northKm: 0, bearingDeg: 0, sigmaDeg: 2 },
      { eastKm: 5, northKm: 5, bearingDeg: 270, sigmaDeg: 2 },
    ]);
    expect(fix.eastKm).toBeCloseTo(0, 9);
    expect(fix.northKm).toBeCloseTo(5, 9);
    expect(fix.semiMajorKm).toBeCloseTo(5 * 2 * RAD, 6);
    expect(fix.semiMinorKm).toBeCloseTo(5 * 2 * RAD, 6);
    expect(fix.chiSquare).toBeCloseTo(0, 9);
    expect(ELLIPSE_95 ** 2).toBeCloseTo(5.991, 3); // 95 % of chi-square with two degrees of freedom, any table
  });
  test('axes without a sense cross behind the stations too, a crooked set still has a place between its crossings', () => {
    // (78.8, 104.5) m of a source from a loop at the origin (37°) and one 120 m east, 20 m north (334°): plain trigonometry
    const fix = bearingFix(
      [
        { eastKm: 0, northKm: 0, bearingDeg: 37, sigmaDeg: 3 },
        { eastKm: 0.12, northKm: 0.02, bearingDeg: 154, sigmaDeg: 3 },
      ],
      true,
    );
    expect(fix.eastKm * 1000).toBeCloseTo(78.8, 1);
    expect(fix.northKm * 1000).toBeCloseTo(104.5, 0);
    expect(fix.semiMajorKm * 1000).toBeCloseTo(8.4, 0);
    expect(fix.semiMinorKm * 1000).toBeCloseTo(4.6, 0);
  });
  test('one bearing, or bearings that part, are refused in words', () => {
    const line = { eastKm: 0, northKm: 0, bearingDeg: 300, sigmaDeg: 2 };
    expect(() => bearingFix([line])).toThrow(ShapeError);
    expect(() => bearingFix([line, { ...line, eastKm: 5, bearingDeg: 60 }])).toThrow('do not cross ahead');
  });
  test('a residual in quadrature fills the null of a figure of eight; a perfect one follows the sine', () => {
    expect(figureEightNull(90, -60).responseDb).toBeCloseTo(0, 5);
    expect(figureEightNull(5, -200).responseDb).toBeCloseTo(20 * Math.log10(Math.sin(5 * RAD)), 6);
    expect(figureEightNull(0, -30).responseDb).toBeCloseTo(figureEightNull(0, -30).nullDepthDb, 9);
  });
  // Phasors: with g = 1 what is left is 2 sin(φ/2).
  test('cancelling: 1° leaves 35.2 dB, equal and opposite leaves nothing', () => {
    expect(cancellation(0, 1, 40).depthDb).toBeCloseTo(-20 * Math.log10(2 * Math.sin(0.5 * RAD)), 9);
    expect(cancellation(0, 0, 40).depthDb).toBeNull();
    const { amplitudeNeededDb, phaseNeededDeg } = cancellation(0, 0, 30);
    expect(cancellation(amplitudeNeededDb, 0, 30).depthDb).toBeCloseTo(30, 6);
    expect(cancellation(0, phaseNeededDeg, 30).depthDb).toBeCloseTo(30, 6);
  });
  // Source: Brennan 1959: n equal branches give 10 log n by maximum ratio and by equal gain, nothing by selection.
  test('combining equal branches', () => {
    const four = combining([6, 6, 6, 6]);
    expect(four.maximumRatioDb).toBeCloseTo(6 + 10 * Math.log10(4), 9);
    expect(four.equalGainDb).toBeCloseTo(6 + 10 * Math.log10(4), 9);
    expect(four.selectionDb).toBe(6);
  });
});

describe('patterns', () => {
  test('a known curve: V = 0.05 + 0.95((1 + cos θ)/2)³ has 79.5°, 26.0 dB back and its sides', () => {
    const volts = (deg: number): number => 0.05 + 0.95 * ((1 + Math.cos(deg * RAD)) / 2) ** 3;
    const figures = patternFigures(Array.from({ length: 72 }, (_, i) => 20 * Math.log10(volts(5 * i))));
    // closed forms: back 20 log(1/0.05); half voltage at ((1 + cos θ)/2)³ = (10^(−3/20) − 0.05)/0.95
    const half = (10 ** (-3 / 20) - 0.05) / 0.95;
    expect(figures.widthDeg).toBeCloseTo((2 * Math.acos(2 * Math.cbrt(half) - 1)) / RAD, 0);
    expect(figures.frontToBackDb).toBeCloseTo(26.02, 2);
    expect(figures.frontToRearDb).toBeCloseTo(-20 * Math.log10(volts(90)), 6);
    expect(figures.sideLobeDb).toBeNull();
  });
  test('a turned figure of eight: peak found, 90° wide, no front to back, the other lobe is the side lobe', () => {
    const figures = patternFigures(
      Array.from({ length: 360 }, (_, i) => 20 * Math.log10(Math.abs(Math.cos((i - 40) * RAD)) + 1e-6)),
    );
    expect(figures.peakDeg).toBe(40);
    expect(figures.widthDeg).toBeCloseTo((2 * Math.acos(10 ** (-3 / 20))) / RAD, 1);
    expect(figures.frontToBackDb).toBeCloseTo(0, 6);
    expect(figures.sideLobeDb).toBeCloseTo(0, 6);
  });
  test('a circle has no width; too few directions are refused', () => {
    expect(patternFigures(Array.from({ length: 36 }, () => -3)).widthDeg).toBeNull();
    expect(() => patternFigures([1, 2, 3])).toThrow(ShapeError);
  });
  // Source: Balanis, Antenna Theory, sec. 2.2.4: 2D²/λ is where the phase error over the aperture is 22.5°.
  test('far field of an aperture', () => {
    const lambda = 299_792_458 / 1296e6;
    const at = farField(1296e6, 1.2, (2 * 1.2 ** 2) / lambda);
    expect(at.phaseErrorDeg).toBeCloseTo(22.5, 1);
    expect(at.enough).toBe(true);
    expect(farField(2.4e9, 0.15, 1).recommendedM).toBeCloseTo(1.5, 6);
    expect(farField(2.4e9, 0.15, 1).enough).toBe(false);
  });
  test('a reflection 20 dB down adds at most 0.83 dB; its ripple leads back to it', () => {
    const one = reflectionRipple(-20, 2);
    expect(one.mostDb).toBeCloseTo(20 * Math.log10(1.1), 9);
    expect(one.leastDb).toBeCloseTo(20 * Math.log10(0.9), 9);
    expect(reflectionRipple(-20, one.rippleDb).reflectedDb).toBeCloseTo(-20, 9);
    expect(one.reflectedDb).toBeCloseTo(-18.8, 1);
  });
  // Friis forward with known gains, then back.
  test('three antennas give each its own gain', () => {
    const loss = 20 * Math.log10((4 * Math.PI * 15 * 1296e6) / 299_792_458);
    const { gainADbi, gainBDbi, gainCDbi } = threeAntennas(1296e6, 15, {
      ab: 8 + 14 - loss,
      ac: 8 + 11 - loss,
      bc: 14 + 11 - loss,
    });
    expect([gainADbi, gainBDbi, gainCDbi].map((gain) => Math.round(gain * 1e6) / 1e6)).toEqual([8, 14, 11]);
  });
});

describe('gain by substitution', () => {
  const ASKED = {
    ...{ referenceDbi: 2.15, referenceDbm: -26.5, testDbm: -22.2, referenceSwr: 1, testSwr: 1 },
    ...{ freqHz: 868e6, distanceM: 6, sentDbm: 14, senderDbi: 2.15 },
    ...{ scatterDb: 0.5, referenceErrorDb: 0.3, reflectionDb: 1 },
  };
  // worked example: 868 MHz over 6 m: 46.8 dB; a dipole of 2.15 dBi at 14 dBm shows −28.5 dBm; 4.3 dB over it are 6.45 dBi, the model says 6.1
  test('the beam of the worked example agrees with its model within the scatter', () => {
    const found = checkedGain({ ...ASKED, modelDbi: 6.1 });
    expect(found.range?.freeSpaceDb).toBeCloseTo(46.8, 1);
    expect(found.range?.expectedDbm).toBeCloseTo(-28.5, 1);
    expect(found.gainDbi).toBeCloseTo(6.45, 2);
    expect(found.modelOffDb).toBeCloseTo(0.35, 2);
    expect(found.agrees).toBe(true);
    // 0.707, 0.3 and 1 dB as independent parts (by hand)
    expect(found.sigmaDb).toBeCloseTo(Math.sqrt(0.5 + 0.09 + 1), 6);
  });
  test('a model far off is told; without one nothing is said; a wrong figure is refused', () => {
    expect(checkedGain({ ...ASKED, modelDbi: 10 }).agrees).toBe(false);
    expect(checkedGain({ ...ASKED, modelDbi: null })).toMatchObject({ modelOffDb: null, agrees: null });
    expect(() => checkedGain({ ...ASKED, modelDbi: 6, scatterDb: -1 })).toThrow('Scatter of a level');
    expect(() => checkedGain({ ...ASKED, modelDbi: 6, testSwr: 0.5 })).toThrow('SWR of the antenna');
  });
  test('17 dB off free space "agreed within the scatter": such a way proves nothing, and nobody is told of a way he did not give', () => {
    const off = { ...ASKED, referenceDbm: ASKED.referenceDbm - 17, testDbm: ASKED.testDbm - 17 };
    const found = checkedGain({ ...off, modelDbi: 6.1 });
    expect(found.range?.sound).toBe(false);
    expect(found.agrees).toBeNull();
    expect(checkedGain({ ...ASKED, modelDbi: 6.1 }).range?.sound).toBe(true);
    const unsaid = checkedGain({ ...off, modelDbi: 6.1, sentDbm: null });
    expect(unsaid.range).toBeUndefined();
    expect(unsaid.agrees).toBe(true);
  });
  test('more received than sent is refused, as a loss without its sign', () => {
    expect(() => threeAntennas(868e6, 6, { ab: 38, ac: -39, bc: -40 })).toThrow(/minus sign/);
  });
});

describe('how a source arrives on two antennas, by four levels', () => {
  test('1,000 made-up sources: level and phase within their reading, and the setting cancels to 30 dB without scatter', () => {
    const chance = chanceOf(165);
    for (let round = 0; round < 1000; round += 1) {
      const [db, deg] = [-8 + 16 * chance.uniform(), -180 + 360 * chance.uniform()];
      const g = 10 ** (db / 20);
      const sum = (turnDeg: number): number => {
        const angle = ((deg + turnDeg) * Math.PI) / 180;
        return 20 * Math.log10(Math.max(1e-9, Math.hypot(1 + g * Math.cos(angle), g * Math.sin(angle))));
      };
      const found = pairArrival({ first: -60, second: -60 + db, both: -60 + sum(0), bothTurned: -60 + sum(90) });
      expect(Math.abs(found.levelDb - db)).toBeLessThan(1e-9);
      expect(Math.abs(Math.sin(((found.phaseDeg - deg) * Math.PI) / 360))).toBeLessThan(1e-6);
      expect(found.misfit).toBeLessThan(1e-6);
      const left = ((deg + found.setDeg) * Math.PI) / 180;
      expect(Math.hypot(1 + Math.cos(left), Math.sin(left))).toBeLessThan(1e-3);
    }
  });
  test('levels that no one source gives, or too far apart, are told', () => {
    expect(() => pairArrival({ first: -60, second: -60, both: -40, bothTurned: -40 })).toThrow(/one steady source/);
    expect(() => pairArrival({ first: -60, second: -100, both: -60, bothTurned: -60 })).toThrow(/40 dB apart/);
  });
});

describe('errors of a pattern', () => {
  test('a reflection of r is found from the same cut a quarter wave away, none where nothing differs', () => {
    for (const db of [-30, -20, -14]) {
      const r = 10 ** (db / 20);
      // the ray comes back in phase at one angle first, out of phase after the move
      const first = Array.from({ length: 36 }, (_, i) => -0.02 * i + (i === 4 ? 20 * Math.log10(1 + r) : 0));
      const moved = Array.from({ length: 36 }, (_, i) => -0.02 * i + (i === 4 ? 20 * Math.log10(1 - r) : 0));
      // the peak of the first turn is the raised one: a fraction of a dB goes into the level
      expect(Math.abs(reflectionByMove(first, moved) - db)).toBeLessThan(6);
    }
    const same = Array.from({ length: 36 }, (_, i) => -0.1 * i);
    expect(reflectionByMove(same, same)).toBe(-80);
    expect(() => reflectionByMove(same, same.slice(1))).toThrow(/same angles/);
  });
  test('three antennas: 10,000 draws scatter as the budget says', () => {
    const chance = chanceOf(167);
    const sums = [0, 0];
    const draws = 10_000;
    for (let i = 0; i < draws; i += 1) {
      const s21 = { ab: -40 + chance.normal(), ac: -41 + chance.normal(), bc: -42 + chance.normal() };
      const gain = threeAntennas(868e6, 6 + 0.1 * chance.normal(), s21).gainADbi;
      sums[0] += gain / draws;
      sums[1] += gain ** 2 / draws;
    }
    const { sigmaDb } = threeAntennas(868e6, 6, { ab: -40, ac: -41, bc: -42 }, { scatterDb: 1, distanceErrorM: 0.1 });
    // the path's loss is in no other way random: its own error adds as half of 8.686·Δd/d
    expect(Math.abs(Math.sqrt(sums[1] - sums[0] ** 2) / sigmaDb - 1)).toBeLessThan(0.05);
  });
});
