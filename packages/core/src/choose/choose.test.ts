import { describe, expect, test } from '@jest/globals';
import {
  antennaKind,
  choiceVerdict,
  expectedNoise,
  forecastTarget,
  overallLossDb,
  powerDb,
  powerRatio,
  preselectionDb,
  rankCandidates,
  startDesign,
  type ForecastPlace,
  type ForecastTarget,
  type Reception,
} from '../index';

const HF = {
  name: 'HF receiver',
  noiseFigureDb: 18,
  iip2Dbm: 60,
  iip3Dbm: 25,
  fullScaleDbm: 0,
  minHz: 1e4,
  maxHz: 60e6,
};
const PLACE: ForecastPlace = {
  emitters: [],
  receivers: [HF],
  lineLossDb: () => 1,
  externalFaDb: (freqHz) => expectedNoise('rural', freqHz).faDb,
};
const B31: ForecastTarget = { id: '31', name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 5 };
const SEA: ForecastTarget = {
  id: 'sea',
  name: 'sea text',
  lowHz: 517.7e3,
  highHz: 518.3e3,
  bandwidthHz: 500,
  weight: 2,
};
const ROOM = { spanM: 38, heightM: 9 };
const matched = (transfer: number): Reception => ({ realisedGainDbi: 2.15, transfer, validity: 'holds' });

describe('margin', () => {
  test('a perfect antenna: external noise over noise factor of line and receiver, less one', () => {
    const forecast = forecastTarget(() => matched(1), undefined, B31, PLACE);
    const fa = expectedNoise('rural', 9.65e6).faDb;
    expect(forecast.marginDb).toBeCloseTo(fa - powerDb(powerRatio(19) - 1), 9);
    expect(forecast.snrLossDb).toBeCloseTo(powerDb(1 + powerRatio(-(forecast.marginDb ?? 0))), 9);
  });
  test('every dB of mismatch costs a dB of margin, once the receiver dominates', () => {
    const [full, tenth] = [0.01, 0.001].map(
      (share) => forecastTarget(() => matched(share), undefined, B31, PLACE).marginDb ?? 0,
    );
    expect(full - tenth).toBeCloseTo(10, 1);
  });
  test('nothing is claimed where the formulas or the receiver end', () => {
    const outside = forecastTarget(() => ({ ...matched(0), validity: 'outside' }), undefined, B31, PLACE);
    expect(outside.marginDb).toBeUndefined();
    expect(overallLossDb([outside])).toBe(30);
    const vhf = forecastTarget(() => matched(1), undefined, { ...B31, lowHz: 137e6, highHz: 138e6 }, PLACE);
    expect(vhf.receiver).toBeUndefined();
    expect(vhf.remarks[0]).toMatch(/No receiver/);
  });
});

describe('overload', () => {
  // Worked example: an amplifier of +35 dBm second-order intercept, effective gain −12 dBi at FM: 104.9 − 95.3 MHz make −77.6 dBm at 9.6 MHz.
  test('the pair of FM stations that spoils 9.6 MHz is named', () => {
    const fm = (name: string, freqHz: number, powerW: number, distanceM: number) => ({
      name,
      freqHz,
      powerW,
      powerKind: 'ERP' as const,
      distanceM,
    });
    const place = {
      ...PLACE,
      emitters: [fm('91.7', 91.7e6, 2000, 2500), fm('95.3', 95.3e6, 4000, 1800), fm('104.9', 104.9e6, 8000, 2500)],
    };
    const loop = (freqHz: number): Reception => ({
      realisedGainDbi: freqHz > 60e6 ? -12 : -28,
      transfer: powerRatio(-28),
      ownFaDb: 0,
      validity: 'holds',
    });
    const forecast = forecastTarget(
      loop,
      { gainDb: 20, iip2Dbm: 35, iip3Dbm: 20 },
      { ...B31, lowHz: 9.5e6, highHz: 9.7e6, bandwidthHz: 2500 },
      { ...place, externalFaDb: (hz) => expectedNoise('residential', hz).parts[0].faDb },
    );
    expect(forecast.worstProduct).toMatchObject({
      emitters: ['95.3', '104.9'],
      label: 'f2−f1',
      madeIn: 'head amplifier',
    });
    expect(forecast.worstProduct?.levelDbm).toBeCloseTo(-77.6, 0);
    expect(Math.abs((forecast.worstProduct?.overNoiseDb ?? 0) - 45)).toBeLessThan(1);
  });
  test('a receiver’s own input filter counts outside its range only', () => {
    expect(preselectionDb(HF, 9e6)).toBe(0);
    expect(preselectionDb(HF, 120e6)).toBeCloseTo(18, 9);
    expect(preselectionDb(HF, 12e9)).toBe(60);
  });
});

describe('ranking', () => {
  test('on 518 kHz the dipole does not fit and ranks below the loop, whatever it would hear', () => {
    const ranked = rankCandidates([SEA], ROOM, PLACE);
    const order = ranked.map((candidate) => candidate.kind.id);
    expect(order.indexOf('amplified-loop')).toBeLessThan(order.indexOf('half-wave-dipole'));
    expect(ranked.find((candidate) => candidate.kind.id === 'half-wave-dipole')?.reason).toMatch(/Does not fit: needs/);
    expect(choiceVerdict(ranked).best?.kind.id).toBe('amplified-loop');
  });
  test('on 31 m a dipole wins on a large place and a loop on a balcony', () => {
    expect(choiceVerdict(rankCandidates([B31], ROOM, PLACE)).best?.kind.id).toMatch(/dipole/);
    expect(choiceVerdict(rankCandidates([B31], { spanM: 3, heightM: 3 }, PLACE)).best?.kind.id).toBe('amplified-loop');
  });
  test('weights decide: two people with equal gear and other goals get other advice', () => {
    const sea = rankCandidates(
      [
        { ...SEA, weight: 5 },
        { ...B31, weight: 1 },
      ],
      ROOM,
      PLACE,
    );
    const bc = rankCandidates(
      [
        { ...SEA, weight: 1 },
        { ...B31, weight: 5 },
      ],
      ROOM,
      PLACE,
    );
    const dipole = (ranked: typeof sea): number =>
      ranked.find((candidate) => candidate.kind.id === 'half-wave-dipole')?.lossDb ?? 0;
    expect(dipole(sea)).toBeGreaterThan(dipole(bc));
  });
  test('nothing wanted ranks nothing', () => {
    expect(rankCandidates([], ROOM, PLACE)).toEqual([]);
    expect(choiceVerdict([])).toEqual({});
  });
  test('off its resonance a dipole is not a 2.15 dBi antenna', () => {
    const at = antennaKind('half-wave-dipole').reception?.(startDesign('half-wave-dipole', 9.65e6));
    expect(at?.(9.65e6).realisedGainDbi).toBeGreaterThan(1.9);
    expect(at?.(5e6).realisedGainDbi).toBeLessThan(-5);
  });
});
