import { describe, expect, test } from '@jest/globals';
import type { KindId, PlaceRoom, Reception } from '../antenna/kind';
import { ANTENNA_KINDS, antennaKind, startDesign } from '../antenna/kinds';
import { worthAsking } from '../antenna/useful-range';
import { type BoughtAntenna, boughtReception, gainsText, readGains } from './bought';
import { type CandidateSpec, hearingQuestions, kindCandidates, readyCandidate } from './candidate';
import { bandTargets, coverageGaps, coverageOf } from './coverage';
import {
  filterAdvice,
  type ForecastPlace,
  forecasterAt,
  type ForecastTarget,
  overallLossDb,
  type ReceiveEnd,
} from './forecast';
import { gainToward, hearingKey, solveHearing, strongestAzimuthDeg } from './hearing';
import { poorlyHeard } from './poorly-heard';
import { inGroups, rankCandidates, type RankRules, schoolsSentence, usable } from './rank';
import { turningPoints } from './turning';
import { choiceVerdict } from './verdict';
import type { Spot } from './spot';
import { pricePerProvenDb } from './worth';
import { preselectionDb } from '../path/receiver';
import { expectedNoise } from '../site/external-noise';
import { groundClass } from '../solver/ground-classes';
import type { Ground } from '../solver/model';
import { catalogueFor } from '../spectrum/catalogue';
import { trialVerdict } from '../trial/verdict';
import { powerDb, powerRatio } from '../units/decibel';

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
  transmitters: [],
  receivers: [HF],
  lineLossDb: () => 1,
  externalFaDb: (freqHz) => expectedNoise('rural', freqHz).faDb,
};
const B31: ForecastTarget = {
  id: '31',
  name: '31 m',
  lowHz: 9.4e6,
  highHz: 9.9e6,
  bandwidthHz: 5000,
  weight: 5,
  arrivalDeg: 15,
};
const SEA: ForecastTarget = {
  arrivalDeg: 15,
  id: 'sea',
  name: 'sea text',
  lowHz: 517.7e3,
  highHz: 518.3e3,
  bandwidthHz: 500,
  weight: 2,
};
const ROOM = { spanM: 38, heightM: 9 };
/** A garden so far from the house that nothing of it counts. */
const gardenOf = ({ spanM, heightM }: PlaceRoom): readonly Spot[] => [
  { ...{ id: 'g', name: 'Garden', kind: 'garden', spanM, widthM: 0, heightM }, distanceM: 100 },
];
const matched = (transfer: number): Reception => ({ realisedGainDbi: 2.15, transfer, validity: 'holds' });

describe('margin', () => {
  test('a perfect antenna: external noise over noise factor of line and receiver, less one', () => {
    const forecast = forecasterAt(PLACE)(() => matched(1))(B31);
    const fa = expectedNoise('rural', 9.65e6).faDb;
    expect(forecast.marginDb).toBeCloseTo(fa - powerDb(powerRatio(19) - 1), 9);
    expect(forecast.snrLossDb).toBeCloseTo(powerDb(1 + powerRatio(-(forecast.marginDb ?? 0))), 9);
  });
  test('every dB of mismatch costs a dB of margin, once the receiver dominates', () => {
    const [full, tenth] = [0.01, 0.001].map((share) => forecasterAt(PLACE)(() => matched(share))(B31).marginDb ?? 0);
    expect(full - tenth).toBeCloseTo(10, 1);
  });
  test('nothing is claimed where the formulas or the receiver end', () => {
    const outside = forecasterAt(PLACE)(() => ({ ...matched(0), validity: 'outside' }))(B31);
    expect(outside.marginDb).toBeUndefined();
    expect(overallLossDb([outside])).toBeUndefined(); // no figure, least of all a placeholder
    const vhf = forecasterAt(PLACE)(() => matched(1))({ ...B31, lowHz: 137e6, highHz: 138e6 });
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
      transmitters: [fm('91.7', 91.7e6, 2000, 2500), fm('95.3', 95.3e6, 4000, 1800), fm('104.9', 104.9e6, 8000, 2500)],
    };
    const loop = (freqHz: number): Reception => ({
      realisedGainDbi: freqHz > 60e6 ? -12 : -28,
      transfer: powerRatio(-28),
      ownFaDb: 0,
      validity: 'holds',
    });
    const forecaster = forecasterAt({ ...place, externalFaDb: (hz) => expectedNoise('residential', hz).parts[0].faDb });
    const forecast = forecaster(loop, { head: { gainDb: 20, iip2Dbm: 35, iip3Dbm: 20 } })({
      ...{ ...B31, lowHz: 9.5e6, highHz: 9.7e6 },
      bandwidthHz: 2500,
    });
    expect(forecast.worstProduct).toMatchObject({
      transmitters: ['95.3', '104.9'],
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

const OPEN = { nothingVisible: false, lawnAllowed: true };
const NO_BURDEN = { price: 0, effort: 0, sight: 0 };
const rules = (room = ROOM, more: Partial<RankRules> = {}): RankRules => ({
  view: 'quiet',
  weights: NO_BURDEN,
  restrictions: OPEN,
  room,
  ...more,
});
const AVERAGE = groundClass('average').ground;
/** Ranks kinds with every answer solved on the spot. */
function ranked(
  targets: readonly ForecastTarget[],
  kinds: readonly KindId[],
  {
    room = ROOM,
    place = PLACE,
    more = {},
  }: { room?: PlaceRoom; place?: ForecastPlace; more?: Partial<RankRules> } = {},
) {
  const ready = kindCandidates(targets, gardenOf(room), kinds).map((spec) =>
    readyCandidate(spec, targets, AVERAGE, solveHearing),
  );
  return rankCandidates(ready, targets, place, rules(room, more));
}
const kindsOf = (list: ReturnType<typeof ranked>): readonly string[] =>
  list.map(({ spec }) => (spec.source === 'bought' ? spec.name : spec.design.kind));

describe('ranking', () => {
  test('on 518 kHz the dipole does not fit and ranks below the loop, whatever it would hear', () => {
    const list = ranked([SEA], ['half-wave-dipole', 'amplified-loop']);
    expect(kindsOf(list)).toEqual(['amplified-loop', 'half-wave-dipole']);
    expect(list[1].reason).toMatch(/Does not fit: it needs/);
    expect(choiceVerdict(list).best?.spec.id).toBe('kind-amplified-loop');
  });
  test('on 31 m a dipole wins on a large place and a loop on a balcony', () => {
    const kinds: readonly KindId[] = ['half-wave-dipole', 'amplified-loop'];
    expect(kindsOf(ranked([B31], kinds))[0]).toBe('half-wave-dipole');
    expect(kindsOf(ranked([B31], kinds, { room: { spanM: 3, heightM: 3 } }))[0]).toBe('amplified-loop');
  });
  test('weights decide: two people with equal gear and other goals get other advice', () => {
    const kinds: readonly KindId[] = ['half-wave-dipole'];
    const sea = ranked(
      [
        { ...SEA, weight: 5 },
        { ...B31, weight: 1 },
      ],
      kinds,
    );
    const bc = ranked(
      [
        { ...SEA, weight: 1 },
        { ...B31, weight: 5 },
      ],
      kinds,
    );
    expect(sea[0].sumDb).toBeLessThan(bc[0].sumDb);
  });
  test('nothing wanted ranks nothing', () => {
    expect(ranked([], ['yagi'])).toEqual([]);
    expect(choiceVerdict([])).toMatchObject({ state: 'nothing wanted', step: 'listen' });
  });
  test('off its resonance a dipole is not a 2.15 dBi antenna', () => {
    const at = antennaKind('half-wave-dipole').reception?.(startDesign('half-wave-dipole', 9.65e6));
    expect(at?.(9.65e6).realisedGainDbi).toBeGreaterThan(1.9);
    expect(at?.(5e6).realisedGainDbi).toBeLessThan(-5);
  });
  test('a kind is cut for the fitting target with most weight around it', () => {
    const near = { ...B31, id: '30', lowHz: 10.0e6, highHz: 10.1e6, weight: 1 };
    const [spec] = kindCandidates([{ ...SEA, weight: 5 }, B31, near], gardenOf(ROOM), ['half-wave-dipole']);
    expect(spec.source === 'kind' && spec.design.freqHz).toBe(9.65e6);
  });
  test('nothing may be visible: a mast is withdrawn and says so; what lies on the lawn stays', () => {
    const list = ranked([B31], ['half-wave-dipole', 'ground-loop'], {
      more: { restrictions: { nothingVisible: true, lawnAllowed: true } },
    });
    expect(kindsOf(list)).toEqual(['ground-loop', 'half-wave-dipole']);
    expect(list[1].reason).toMatch(/^Withdrawn: it needs a mast/);
    expect(
      ranked([B31], ['ground-loop'], { more: { restrictions: { nothingVisible: false, lawnAllowed: false } } })[0]
        .withdrawn,
    ).toMatch(/lawn/);
  });
  test('without a receiver for it nothing is judged, and the reason says what to do', () => {
    const [only] = ranked([B31], ['half-wave-dipole'], { place: { ...PLACE, receivers: [] } });
    expect(only.reason).toMatch(/^No receiver of this station tunes what is asked for: add one in Listen/);
    expect([only.lossDb, only.weaknessDb, only.counts['not judged']]).toEqual([undefined, undefined, 1]);
    expect(choiceVerdict([only])).toMatchObject({ state: 'no receiver', step: 'listen' });
  });
  test('burdens count by their weights: at nothing they change nothing, above all they turn a near race', () => {
    const kinds: readonly KindId[] = ['half-wave-dipole', 'yagi'];
    const free = ranked([B31], kinds, { room: { spanM: 60, heightM: 40 } });
    expect(free.every((one) => one.burdenDb === 0)).toBe(true);
    const heavy = ranked([B31], kinds, {
      room: { spanM: 60, heightM: 40 },
      more: { weights: { price: 5, effort: 5, sight: 5 } },
    });
    // at weight 5: 5 · (price / 100 + hours / 4 + sight), by hand
    for (const { burdenDb, spec } of heavy)
      expect(burdenDb).toBeCloseTo(5 * (spec.burden.price / 100 + spec.burden.hours / 4 + spec.burden.sight), 6);
    // the dipole of 15 m: 60 and 4 h, and 9 m more of mast than head height: 6 m at 12 and 0.2 h
    const low = ranked([B31], ['half-wave-dipole'])[0].spec.burden;
    expect([low.price, low.hours]).toEqual([132, 5]);
    expect(kindsOf(heavy)[0]).toBe('half-wave-dipole');
  });
});

describe('hearing by the wire model', () => {
  // a half-wave dipole in free space: 2.15 dBi broadside, nothing off its ends; lossless but for copper (Balanis ch. 4)
  const free = (elevationDeg: number) => {
    const model = antennaKind('half-wave-dipole').model?.(startDesign('half-wave-dipole', 9.65e6), { type: 'free' });
    if (!model) throw new Error('no model');
    return { model, freqHz: 9.65e6, elevationDeg };
  };
  test('a dipole in free space', () => {
    const hearing = solveHearing(free(0));
    if ('why' in hearing) throw new Error(hearing.why);
    expect(10 * Math.log10(gainToward(hearing, 0))).toBeCloseTo(2.1, 1);
    expect(gainToward(hearing, 90)).toBeLessThan(0.01);
    expect(hearing.radiated).toBeGreaterThan(0.96);
    expect(hearing.radiated).toBeLessThan(1.005);
    expect(strongestAzimuthDeg(hearing) % 180).toBe(0);
    // between two samples the gain lies between them
    expect(gainToward(hearing, 35)).toBeCloseTo((gainToward(hearing, 30) + gainToward(hearing, 40)) / 2, 9);
    expect(gainToward(hearing, -10)).toBeCloseTo(gainToward(hearing, 350), 12);
  });
  test('bearings count clockwise, azimuths counter-clockwise: a laid wire hears what it faces', () => {
    const spec: CandidateSpec = {
      id: 'own-1',
      name: 'mine',
      source: 'own',
      design: startDesign('half-wave-dipole', 9.65e6),
      burden: { price: 0, hours: 0, sight: 0 },
      headingDeg: 60,
    };
    const at = (bearingDeg: number): number =>
      readyCandidate(spec, [{ ...B31, bearingDeg }], { type: 'free' }, solveHearing).toward({ ...B31, bearingDeg })
        .realisedGainDbi;
    expect(at(60)).toBeCloseTo(at(240), 1);
    // off its ends, 15° up: cos(½π cos 15°) / sin 15° = −13.7 dB (Balanis ch. 4)
    expect(Math.abs(at(60) - at(150) - 13.7)).toBeLessThan(0.4);
    // 30° off on either side is the same
    expect(at(90)).toBeCloseTo(at(30), 1);
  });
  test('a folded dipole is heard through the transformer that suits it, a plain one without', () => {
    const [folded] = kindCandidates([B31], gardenOf(ROOM), ['folded-dipole']);
    const reception = readyCandidate(folded, [B31], AVERAGE, solveHearing).toward(B31);
    expect(reception.remark).toMatch(/[49]:1 transformer/);
    const [plain] = kindCandidates([B31], gardenOf(ROOM), ['half-wave-dipole']);
    expect(readyCandidate(plain, [B31], AVERAGE, solveHearing).toward(B31).remark).toBeUndefined();
  });
  test('a wire of many wavelengths is refused with a sentence, not guessed', () => {
    const question = { ...free(5), freqHz: 400e6 };
    expect(solveHearing(question)).toMatchObject({ why: expect.stringMatching(/λ of wire here: too long/) });
  });
  test('equal content is one question; another ground or height is another', () => {
    const [spec] = kindCandidates([B31], gardenOf(ROOM), ['half-wave-dipole']);
    const key = (ground: Ground) => hearingQuestions([spec], [B31], [], ground).map(hearingKey)[0];
    expect(key(AVERAGE)).toBe(key(groundClass('average').ground));
    expect(key(AVERAGE)).not.toBe(key(groundClass('sea').ground));
  });
});

/** Worked example: three FM transmitters against four antennas on a lawn; powers against a dipole. */
const FM: ForecastPlace['transmitters'] = [
  { name: '91.7 MHz', freqHz: 91.7e6, powerW: 2000, powerKind: 'ERP', distanceM: 2500 },
  { name: '95.3 MHz', freqHz: 95.3e6, powerW: 4000, powerKind: 'ERP', distanceM: 1800 },
  { name: '104.9 MHz', freqHz: 104.9e6, powerW: 8000, powerKind: 'ERP', distanceM: 2500 },
];
const B9: ForecastTarget = { ...B31, id: '9', name: '9.6 MHz', lowHz: 9.55e6, highHz: 9.65e6, bandwidthHz: 2500 };
const HEAD = { gainDb: 20, noiseFigureDb: 4, iip2Dbm: 35, iip3Dbm: 15 };
const bought = (name: string, more: Partial<BoughtAntenna> = {}): CandidateSpec => ({
  id: name,
  name,
  source: 'bought',
  sizeM: 1,
  burden: { price: 250, hours: 2, sight: 1 },
  bought: { gains: readGains('9.6 MHz -28, 91 MHz -12, 105 MHz -12'), head: HEAD, ...more },
});

test('a target without a place got the beam’s maximum: it gets the mean over all bearings, and a place turns the beam there', () => {
  const away: ForecastTarget = { ...B31, id: 'away', lowHz: 28.4e6, highHz: 28.6e6 };
  const [spec] = kindCandidates([away], gardenOf({ spanM: 40, heightM: 13 }), ['yagi']);
  const towards = (target: ForecastTarget): number =>
    readyCandidate(spec, [target], AVERAGE, solveHearing).toward(target).realisedGainDbi;
  // three elements: some 7 dB over the mean of all bearings at one elevation (common practice, no source: 6 to 9)
  const won = towards({ ...away, bearingDeg: 40 }) - towards(away);
  expect(won).toBeGreaterThan(3);
  expect(won).toBeLessThan(9);
});

describe('four candidates under three FM transmitters', () => {
  const place: ForecastPlace = {
    ...PLACE,
    transmitters: FM,
    externalFaDb: (hz) => expectedNoise('residential', hz).parts[0].faDb,
  };
  const specs: readonly CandidateSpec[] = [
    bought('wideband loop'),
    bought('loop to 30 MHz', { inputFilterHz: 30e6 }),
    ...kindCandidates([B9], gardenOf(ROOM), ['ground-loop', 'end-fed-wire']),
  ];
  const ready = specs.map((spec) => readyCandidate(spec, [B9], AVERAGE, solveHearing));
  const list = rankCandidates(ready, [B9], place, rules());
  const wideband = list.find(({ spec }) => spec.id === 'wideband loop');
  const product = wideband?.forecasts[0].worstProduct;

  test('the wideband loop ranks last; the pair and the level are named', () => {
    expect(list[3].spec.id).toBe('wideband loop');
    expect(product?.transmitters).toEqual(['95.3 MHz', '104.9 MHz']);
    // −21.0 and −21.6 dBm at the amplifier; −77.6 dBm at 9.6 MHz; 45 dB over −122.7 dBm (worked example, ±0.3 and ±1)
    expect(product?.tonesDbm[0]).toBeCloseTo(-21, 0);
    expect(product?.tonesDbm[1]).toBeCloseTo(-21.6, 0);
    expect(Math.abs((product?.levelDbm ?? 0) + 77.6)).toBeLessThan(0.3);
    expect(Math.abs((product?.overNoiseDb ?? 0) - 45)).toBeLessThan(1);
    expect(wideband?.reason).toMatch(/95\.3 MHz and 104\.9 MHz \(f2−f1\).*not usable on 9\.6 MHz/);
  });
  test('drafts stood among kinds and things to buy: each stands apart, and the one that fails stands last whatever it is', () => {
    const groups = inGroups(list);
    expect(groups.map(({ group }) => group).sort()).toEqual(['failing', 'kinds', 'to buy']);
    expect(groups.at(-1)).toMatchObject({ group: 'failing', candidates: [{ spec: { id: 'wideband loop' } }] });
    expect(groups[0].candidates[0]).toBe(list[0]); // the best of all leads
    expect(groups.flatMap(({ candidates }) => candidates)).toHaveLength(list.length);
  });
  test('what does not fit served a target on paper: only what may be put up counts', () => {
    const huge = { ...list[1], fit: { ...list[1].fit, fits: false } };
    expect(poorlyHeard([huge], [B9])).toEqual([B9]);
    expect(poorlyHeard(list, [B9])).toEqual([]);
  });
  test('a filter helps only ahead of its amplifier, and 5 poles at 30 MHz are enough', () => {
    expect(product && filterAdvice(product)).toMatch(/only ahead of the head amplifier.*23 dB/);
    const filtered = list.find(({ spec }) => spec.id === 'loop to 30 MHz');
    // 56.8 and 61.2 dB ahead of the amplifier: −77.6 − 118.0 = −195.6 dBm
    expect(Math.abs((filtered?.forecasts[0].worstProduct?.levelDbm ?? 0) + 195.6)).toBeLessThan(0.5);
  });
  test('the other products of the worked example: 3.6 MHz and 13.2 MHz', () => {
    const at = (mhz: number) => {
      const target = { ...B9, id: String(mhz), lowHz: (mhz - 0.02) * 1e6, highHz: (mhz + 0.02) * 1e6 };
      return rankCandidates(ready.slice(0, 1), [target], place, rules())[0].forecasts[0].worstProduct?.levelDbm ?? 0;
    };
    expect(Math.abs(at(3.6) + 82.5)).toBeLessThan(0.3);
    expect(Math.abs(at(13.2) + 83.1)).toBeLessThan(0.3);
  });
  test('moving one mast turns the choice between two loops round', () => {
    const far = FM.map((one) => (one.freqHz === 95.3e6 ? { ...one, distanceM: 20e3 } : one));
    const strong = { ...HEAD, iip2Dbm: 75 };
    const loops = [
      readyCandidate(bought('wideband loop', { head: strong }), [B9], AVERAGE, solveHearing),
      // the filtered one is a little deafer on its own
      readyCandidate(
        bought('loop to 30 MHz', {
          head: strong,
          inputFilterHz: 30e6,
          gains: readGains('9.6 MHz -32, 91 MHz -12, 105 MHz -12'),
        }),
        [B9],
        AVERAGE,
        solveHearing,
      ),
    ];
    const away = { ...place, transmitters: far };
    expect(rankCandidates(loops, [B9], away, rules())[0].spec.id).toBe('wideband loop');
    expect(rankCandidates(loops, [B9], place, rules())[0].spec.id).toBe('loop to 30 MHz');
    // nobody moves a mast of others: it is no advice
    expect(
      turningPoints(loops, [B9], away, rules())
        .map(({ sentence }) => sentence)
        .join(),
    ).not.toMatch(/Moving/);
  });
  test('quiet-first and signal-first differ by what they assume, and the sentence names it', () => {
    const signal = rankCandidates(ready, [B9], { ...place, transmitters: [] }, rules(ROOM, { view: 'signal' }));
    const quiet = rankCandidates(ready, [B9], { ...place, transmitters: [] }, rules());
    // most level: the wire, which needs no amplifier to be loud, or an amplified loop; never the loop on the ground
    const louder = signal.filter(usable).map((one) => one.weaknessDb ?? Infinity);
    expect(signal[0].weaknessDb).toBeLessThanOrEqual(Math.min(...louder));
    expect(schoolsSentence(quiet[0], signal[0])).toMatch(/Both ways choose|What decides/);
  });
});

describe('verdicts that were wrong once', () => {
  const WIDE: ReceiveEnd = { ...HF, name: 'wideband', minHz: 10e3, maxHz: 2e9, noiseFigureDb: 6 };
  const everywhere = { ...PLACE, receivers: [WIDE] };
  const allKinds = (lowHz: number, highHz: number) =>
    kindsOf(ranked([{ ...B31, lowHz, highHz }], [...ANTENNA_KINDS.map((kind) => kind.id)], { place: everywhere }));
  test('marine VHF has no horn, end-fed wire or ferrite rod among its candidates, 31 m no dish', () => {
    const sea = allKinds(156e6, 162e6);
    for (const kind of ['horn', 'end-fed-wire', 'ferrite-rod', 'dish', 'ground-loop']) expect(sea).not.toContain(kind);
    expect(sea).toContain('discone');
    const short = allKinds(9.4e6, 9.9e6);
    for (const kind of ['horn', 'dish', 'ferrite-rod', 'discone']) expect(short).not.toContain(kind);
    expect(worthAsking('horn', 12.2e9)).toBe(true);
  });
  test('any target from 10 kHz to 24 GHz has candidates or none, never a fault', () => {
    for (let freqHz = 10e3; freqHz < 24e9; freqHz *= 2.7) expect(() => allKinds(freqHz, freqHz * 1.01)).not.toThrow();
    expect(allKinds(12.2e9, 12.3e9)).toContain('dish');
  }, 60_000);
  const head = { gainDb: 20, iip2Dbm: 40, iip3Dbm: 15, noiseFigureDb: 4 };
  const loop = (name: string, gainDbi: number): CandidateSpec => ({
    ...{ id: name, name, source: 'bought', sizeM: 1, burden: { price: 0, hours: 0, sight: 0 } },
    bought: {
      gains: [
        { freqHz: 9.65e6, gainDbi },
        { freqHz: 1e6, gainDbi },
      ],
      head,
    },
  });
  const near = {
    ...PLACE,
    transmitters: [{ name: 'MW', freqHz: 1e6, powerW: 1e6, powerKind: 'EMRP' as const, distanceM: 500 }],
  };
  test('what drives the converter over its full scale is not recommended, by either view, and the first sentence says by how much', () => {
    const ready = [loop('hot loop', -10)].map((spec) => readyCandidate(spec, [B31], AVERAGE, solveHearing));
    for (const view of ['quiet', 'signal'] as const) {
      const list = rankCandidates(ready, [B31], near, rules(ROOM, { view }));
      expect(list[0].counts.overloads).toBe(1);
      const verdict = choiceVerdict(list);
      expect(verdict).toMatchObject({ state: 'overload', step: 'path' });
      expect(verdict.best).toBeUndefined();
      expect(verdict.sentence).toMatch(/overloads your receiver: at best by \d+ dB/);
      expect(list[0].reason).toMatch(/over its full scale: not usable/);
    }
  });
  test('a draft on paper obeys the rules of the place; what was measured there stands', () => {
    const own = (standing: boolean): CandidateSpec => ({
      ...{ id: 'own-1', name: 'hF loop', source: 'own', design: startDesign('ground-loop', 9.65e6), standing },
      burden: { price: 60, hours: 3, sight: 0, onLawn: true },
    });
    const judged = (standing: boolean) =>
      rankCandidates(
        [readyCandidate(own(standing), [B31], AVERAGE, solveHearing)],
        [B31],
        PLACE,
        rules(ROOM, { restrictions: { nothingVisible: false, lawnAllowed: false } }),
      );
    expect(judged(false)[0].withdrawn).toMatch(/lawn/);
    expect(choiceVerdict(judged(false)).state).toBe('nothing fits');
    expect(judged(true)[0].fit.reason).toBe('stands already');
    expect(choiceVerdict(judged(true)).sentence).toContain('Best here is hF loop: a usual 31 m station stands');
  });
  test('stakes are withdrawn where none may be driven', () => {
    const low = { ...B31, lowHz: 3.6e6, highHz: 3.7e6 };
    const list = ranked([low], ['ground-laid-wire'], {
      room: { spanM: 200, heightM: 9 },
      more: { restrictions: { nothingVisible: false, lawnAllowed: true, noStakes: true } },
    });
    expect(list[0].withdrawn).toMatch(/stakes or rods/);
  });
  test('a receiver that shows it only as an alias does not tune it', () => {
    const narrow = { ...HF, realSampleRateHz: 192e3 };
    const forecaster = forecasterAt({ ...PLACE, receivers: [{ ...narrow, minHz: 1e3 }] });
    const forecast = forecaster(() => matched(1))({ ...B31, lowHz: 99e3, highHz: 101e3 });
    expect(forecast.receiver).toBeUndefined();
    expect(forecast.remarks[0]).toMatch(/only as an alias/);
  });
  test('a discone fits only as high as its cone hangs', () => {
    const kind = antennaKind('discone');
    const fit = kind.fit({ ...startDesign('discone', 12e6), dimensions: { heightM: 5 } }, { spanM: 60, heightM: 5.5 });
    expect(fit.fits).toBe(false); // a cone of 6.6 m rods hangs 5.7 m below its feed
  });
});

describe('bought antennas', () => {
  test('gains are read in any order and unit, and refused with an example', () => {
    expect(readGains('97 MHz -12; 518 kHz −52')).toEqual([
      { freqHz: 518e3, gainDbi: -52 },
      { freqHz: 97e6, gainDbi: -12 },
    ]);
    expect(readGains(gainsText(readGains('9.6 MHz -28, 97 MHz -12')))).toEqual(readGains('9.6 MHz -28, 97 MHz -12'));
    expect(() => readGains('loud')).toThrow(/Type it like 9\.6 MHz -28/);
    expect(() => readGains('')).toThrow(/at least one frequency/);
  });
  test('between the points in dB over the logarithm of the frequency; outside them the nearest, marked rough', () => {
    const at = boughtReception({ gains: readGains('1 MHz -40, 100 MHz -20') });
    expect(at(10e6).realisedGainDbi).toBeCloseTo(-30, 9);
    expect(at(10e6).validity).toBe('holds');
    expect(at(200e6)).toMatchObject({ realisedGainDbi: -20, validity: 'rough' });
  });
});

describe('coverage', () => {
  test('a whip resonant at 176 MHz is not shown as good at 7 MHz, and the gap is said in words', () => {
    const bands = catalogueFor(1).filter(
      (band) => ['a40', 'b31', 'mvhf'].includes(band.id) || (band.lowHz > 140e6 && band.highHz < 180e6),
    );
    const targets = bandTargets(bands, () => 10);
    const spec: CandidateSpec = {
      id: 'own-1',
      name: 'whip',
      source: 'own',
      design: startDesign('whip-on-surface', 176e6),
      burden: { price: 0, hours: 0, sight: 1 },
    };
    const vhf = { ...HF, minHz: 1e6, maxHz: 1e9, noiseFigureDb: 6 };
    const ready = readyCandidate(spec, targets, AVERAGE, solveHearing);
    const cells = coverageOf(ready, bands, targets, {
      ...PLACE,
      receivers: [vhf],
      externalFaDb: (hz) => expectedNoise('residential', hz).faDb,
    });
    const at40 = cells.find(({ band }) => band.id === 'a40');
    expect(at40?.snrLossDb).toBeGreaterThan(10);
    expect(
      Math.min(...cells.filter(({ band }) => band.lowHz > 150e6).map((cell) => cell.snrLossDb ?? 99)),
    ).toBeLessThan(3);
    expect(coverageGaps(cells, bands).join(' ')).toMatch(
      /40 m amateur.*a usual station stands \d+ dB (over|under) the noise/,
    );
  });
});

describe('price per proven dB', () => {
  const snr = (differences: readonly number[]) =>
    trialVerdict(
      differences.map((db) => ({ levelADbm: -90, noiseADbm: -100, levelBDbm: -90 + db, noiseBDbm: -100 })),
      { a: 'A', b: 'B' },
      { plannedPairs: Math.max(2, differences.length) },
    ).snr;
  // By hand: mean 5, scatter √1.2, t(5) = 2.571: interval 5 ± 1.15; 100 of money over it.
  test('six pairs: extra price over the mean, its range over the interval', () => {
    const differences = [4, 6, 4, 6, 4, 6];
    const worth = pricePerProvenDb(snr(differences), 50, 150);
    expect(worth).toMatchObject({ state: 'priced', better: 'B', gainDb: 5, perDb: 20 });
    if (worth.state !== 'priced') return;
    expect(worth.lowest).toBeCloseTo(100 / 6.15, 1);
    expect(worth.highest).toBeCloseTo(100 / 3.85, 1);
    // the other way round: the cheaper one lost, or won for nothing
    expect(pricePerProvenDb(snr(differences.map((db) => -db)), 150, 50)).toMatchObject({ better: 'A', perDb: 20 });
    expect(pricePerProvenDb(snr(differences), 150, 50)).toMatchObject({ state: 'not dearer', better: 'B' });
  });
  test('an interval with zero in it, or too few pairs, has no price; a price below nothing is refused', () => {
    expect(pricePerProvenDb(snr([-4, 6, -5, 6, -4, 7]), 50, 150)).toEqual({ state: 'not proven' });
    expect(pricePerProvenDb(snr([5, 5.1]), 50, 150)).toEqual({ state: 'not proven' });
    expect(pricePerProvenDb(snr([]), 50, 150)).toEqual({ state: 'not proven' });
    expect(() => pricePerProvenDb(snr([5]), -1, 0)).toThrow('Price of A');
  });
});
