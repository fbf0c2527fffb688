import { describe, expect, test } from '@jest/globals';
import { readTwoPort, thinTransfer } from '../formats/two-port';
import { joinConnectors, readConnector } from './connectors';
import { dcFeed } from './dc-path';
import { featureConflicts } from './features';
import { readGainRows } from './gain-rows';
import { checkRouting, readRoutes } from './routing';
import { type SearchGoal, searchOrder, type ShelfPart } from './order-search';
import { plainTeeLossDb } from './pads';
import { analysePath } from './plan';
import type { PathReceiver, PathSignal } from './question';
import { frequencyError, gainByMeasurement, heardAt, setupCard } from './setup-card';
import { padFinding, productDropDb, spurSources } from './spur-finder';
import { compressionDbm, type PathStage, stageGainDb } from './stages';
import { finish } from '../solver/model-sweep';

describe('which transmitters make a spur', () => {
  const fm = [
    { name: 'A', freqHz: 91.7e6, levelDbm: -26.5 },
    { name: 'B', freqHz: 95.3e6, levelDbm: -21 },
    { name: 'C', freqHz: 104.9e6, levelDbm: -21.6 },
  ];
  test('9.6 MHz is 104.9 − 95.3 first', () => {
    const [first] = spurSources(9.6e6, fm, 20e3);
    expect(first).toMatchObject({ label: 'f1 − f2', order: 2, carriers: ['C', 'B'] });
    expect(Math.abs(first.offHz)).toBeLessThan(1);
  });
  test('triples and harmonics are found, and nothing beyond the tolerance', () => {
    // 91.7 + 95.3 − 104.9 = 82.1; 2·91.7 = 183.4; 2·95.3 − 91.7 = 98.9 (arithmetic)
    expect(spurSources(82.1e6, fm, 1e3)[0]).toMatchObject({ label: 'f1 + f2 − f3', order: 3 });
    expect(spurSources(183.4e6, fm, 1e3)[0]).toMatchObject({ label: '2f', carriers: ['A'] });
    expect(spurSources(98.9e6, fm, 1e3)[0]).toMatchObject({ label: '2f1 − f2', carriers: ['B', 'A'] });
    expect(spurSources(50e6, fm, 1e3)).toEqual([]);
  });
});

test('a low-pass of 56.8 and 61.2 dB takes 118 dB off their difference; 2f1 − f2 counts the first twice, a harmonic it alone', () => {
  const source = { label: '', order: 2 as const, carriers: ['C', 'B'], freqHz: 9.6e6, offHz: 0, estimateDbm: 0 };
  const loss = (name: string): number => ({ B: 56.8, C: 61.2 })[name] ?? NaN;
  expect(productDropDb(source, loss, 0)).toBeCloseTo(118, 9);
  expect(productDropDb({ ...source, order: 3 }, loss, 1)).toBeCloseTo(2 * 61.2 + 56.8 - 1, 9);
  expect(productDropDb({ ...source, carriers: ['B'] }, loss, 0)).toBeCloseTo(2 * 56.8, 9);
});

describe('pad test', () => {
  const drop = (spurDropDb: number, amplifierAhead = true, wantedDropDb = 10) =>
    padFinding({ padDb: 10, wantedDropDb, spurDropDb, amplifierAhead }).where;
  // 1, 2 and 3 dB per dB by the laws of second and third order; 0: behind the input
  test.each([
    [10, /before the pad \(amplifier\)/],
    [20, /receiver, second order/],
    [30, /receiver, third order/],
    [0.5, /inside the receiver, or .*by the screen of a cable/],
    [15, /mixture/],
    [45, /clipping/],
  ])('a spur that falls by %s dB behind a 10 dB pad', (spurDropDb, where) => {
    expect(drop(spurDropDb)).toMatch(where);
  });
  test('without an amplifier ahead it is real; a wanted signal that does not follow makes the test worthless', () => {
    // a rusty joint outside makes products that fall as a real signal does (common practice, no source)
    expect(drop(10, false)).toMatch(/A real signal, or made outside in a poor joint/);
    expect(drop(20, true, 4)).toMatch(/does not count/);
  });
});

describe('DC on the coax', () => {
  const base = { supplyV: 5, currentA: 0.12, leastV: 4.3, limitA: 0.2, centrePositive: true, wantsPositive: true };
  const line = { dc: 'line', name: 'coax', lengthM: 35, ohmPerM: 0.12 } as const;
  test('5 V, 120 mA, 35 m of 0.12 Ω/m leave 4.50 V; 48.6 m is the limit (Ohm, by hand)', () => {
    const found = dcFeed({ ...base, parts: [line] });
    expect(found.atLoadV).toBeCloseTo(4.496, 6);
    expect(found.limitLengthM).toBeCloseTo(48.6, 1);
    expect(found.fine).toBe(true);
    expect(found.warnings[0]).toMatch(/room/);
  });
  test('a resistive 20 dB pad takes 0.49 W at 5 V and 3.31 W at 13 V (T of 40.9 and 10.1 Ω)', () => {
    const pad = { dc: 'pad', name: '20 dB pad', lossDb: 20 } as const;
    expect(dcFeed({ ...base, parts: [pad] }).errors[0]).toMatch(/0\.49 W/);
    expect(dcFeed({ ...base, supplyV: 13, parts: [pad] }).errors[0]).toMatch(/3\.31 W/);
  });
  test('polarity, current, splitter legs, blocks and too long a line are errors of their own', () => {
    const found = dcFeed({
      ...base,
      wantsPositive: false,
      currentA: 0.3,
      parts: [
        { ...line, lengthM: 60 },
        { dc: 'leg without DC', name: 'hub' },
        { dc: 'blocked', name: 'block' },
        { dc: 'resistive splitter', name: 'star' },
      ],
    });
    expect(found.errors).toHaveLength(6);
    expect(found.errors.join(' ')).toMatch(/polarity.*only 2\.84 V.*300 mA/);
  });
});

describe('set-up of a receiver', () => {
  test('a tone over the dial, in both side bands and behind converters (by hand)', () => {
    expect(heardAt(136e3, 1500, 'upper')).toBe(137.5e3);
    expect(heardAt(136e3, 1500, 'lower')).toBe(134.5e3);
    expect(heardAt(28e6, 1500, 'upper', { oscillatorHz: 116e6, mirrored: false })).toBe(144.0015e6);
    expect(heardAt(28e6, 1500, 'upper', { oscillatorHz: 172e6, mirrored: true })).toBe(143.9985e6);
    expect(() => heardAt(136e3, 0, 'upper')).toThrow(/Tone/);
  });
  test('complex samples: tuned aside, the image lies as far on the other side; too far is told (by hand)', () => {
    const quick = {
      name: 'sdr',
      bits: 12,
      fullScaleDbm: -10,
      sampleRateHz: 2e6,
      complexSamples: true,
      minHz: 1e5,
      maxHz: 2e9,
    };
    expect(setupCard(quick, 100e6, 2400).tuning).toEqual({ tunedHz: 99.75e6, imageHz: 99.5e6, inside: true });
    expect(setupCard(quick, 100e6, 2400, 98e6).tuning).toEqual({ tunedHz: 98e6, imageHz: 96e6, inside: false });
  });
  const dongle = {
    name: 'dongle',
    bits: 8,
    fullScaleDbm: -10,
    sampleRateHz: 28.8e6,
    complexSamples: false,
    minHz: 1e5,
    maxHz: 14.4e6,
  };
  test('28.8 MS/s at 14.1 MHz: ghosts at 14.7 and 42.9 MHz, a low-pass under 14.4', () => {
    const card = setupCard(dongle, 14.1e6, 2400);
    expect(card.ghostsHz).toEqual([14.7e6, 42.9e6]);
    expect(card.filter).toMatch(/14\.40 MHz/);
    expect(card.mode).toMatch(/real input, direct/);
  });
  test('8-bit dongle at 7.1 MHz: ghost at 21.7; 21.7 itself appears at 7.1, mirrored', () => {
    expect(setupCard(dongle, 7.1e6, 2400).ghostsHz[0]).toBeCloseTo(21.7e6, 3);
    expect(setupCard(dongle, 21.7e6, 2400)).toMatchObject({ mirrored: true });
    expect(setupCard(dongle, 21.7e6, 2400).appearsAtHz).toBeCloseTo(7.1e6, 3);
    expect(setupCard(dongle, 21.25e6, 2400).appearsAtHz).toBeCloseTo(7.55e6, 3);
  });
  test('10.8 and 17.5 effective bits at 2 MS/s and 192 kS/s in 200 Hz: −103.8 and −133.9 dBFS, 1.0 MHz and 96 kHz', () => {
    // 6.0206 N + 1.7609 + 10 log(fs/2B)
    const real = (bits: number, sampleRateHz: number) =>
      setupCard({ ...dongle, bits, sampleRateHz, minHz: 1, maxHz: sampleRateHz / 2 }, 77.5e3, 200);
    const [sdr, card] = [real(10.8, 2e6), real(17.5, 192e3)];
    expect(sdr.floorDbfs).toBeCloseTo(-103.8, 1);
    expect(card.floorDbfs).toBeCloseTo(-133.9, 1);
    expect([sdr.cleanHz, card.cleanHz]).toEqual([1e6, 96e3]);
    expect(card.mode).toMatch(/mirrored twin/);
  });
  test('10 MHz read as 10,000,087 Hz is +8.7 ppm: 83 Hz at 9.58 MHz, 1.27 kHz at 145.8 MHz', () => {
    const { ppm, offAtHz } = frequencyError(10e6, 10_000_087);
    expect(ppm).toBeCloseTo(8.7, 6);
    expect(offAtHz(9.58e6)).toBeCloseTo(83.3, 1);
    expect(offAtHz(145.8e6)).toBeCloseTo(1268.5, 1);
  });
  test('gain: up to where the noise follows with 10 dB over the converter, less where signals are strong, less where it compresses', () => {
    // converter noise −100 dBFS, outside noise −110 + gain: powers add
    const noise = (gainDb: number): number => 10 * Math.log10(10 ** -10 + 10 ** ((-110 + gainDb) / 10));
    const readings = [0, 5, 10, 15, 20, 25, 30, 35].map((gainDb) => ({ gainDb, noiseDbfs: noise(gainDb) }));
    expect(gainByMeasurement(readings, -60)).toMatchObject({ state: 'found', gainDb: 25 });
    // −27 dBFS and 15 dB leave the 12 dB to full scale that fading of carriers asks for; 20 dB would not
    expect(gainByMeasurement(readings, -27)).toMatchObject({ state: 'limited by headroom', gainDb: 15 });
    const flat = readings.map((one) => ({ ...one, noiseDbfs: -100 }));
    expect(gainByMeasurement(flat, -60)?.state).toBe('never external');
    expect(gainByMeasurement(readings.slice(0, 2), undefined)).toBeUndefined();
  });
  test('"10 dB over the converter’s own" was said of noise that follows from the first row, where the converter was never seen', () => {
    const outside = [10, 15, 20, 25].map((gainDb) => ({ gainDb, noiseDbfs: -110 + gainDb }));
    expect(gainByMeasurement(outside, -60)).toMatchObject({ state: 'external from the first', gainDb: 10 });
    expect(gainByMeasurement(outside, -60)?.reason).not.toMatch(/over the converter/);
    expect(gainByMeasurement(outside, -5)?.state).toBe('limited by headroom');
    // −100 and −110 + gain add to −96.5 at 14 dB more (by hand): too little over −100
    const short = [0, 5, 10, 13, 16].map((gainDb) => ({
      gainDb,
      noiseDbfs: 10 * Math.log10(10 ** -10 + 10 ** ((-110 + gainDb) / 10)),
    }));
    expect(gainByMeasurement([...short, { gainDb: 18, noiseDbfs: short[4].noiseDbfs + 2 }], -60)?.state).toBe(
      'raise further',
    );
  });
  test('rows with letters were dropped in silence: units are read, a heading is one, any other line is told', () => {
    expect(readGainRows('gain, noise\n0 dB, −100 dBFS\n\n5;-99.6')).toEqual([
      { gainDb: 0, noiseDbfs: -100 },
      { gainDb: 5, noiseDbfs: -99.6 },
    ]);
    expect(() => readGainRows('0, -100\nabout 5, -99')).toThrow(/Line 2, “about 5, -99”/);
    expect(() => readGainRows('0, -100\n5')).toThrow(/Line 2/);
  });
});

test('what does not go together, and routes that are missing or run in circles', () => {
  expect(featureConflicts(['IF tap', 'diversity'])[0]).toMatchObject({ verdict: 'impossible' });
  expect(featureConflicts(['panadapter with switch', 'independent bands'])).toEqual([]);
  const { missing, loops } = checkRouting(
    readRoutes(
      'control: radio > control program, USB\ncontrol: control program > receiver program\n\naudio: receiver program > decoder\naudio: decoder > receiver program, cable 2',
    ),
  );
  expect(missing).toEqual([
    'control program to receiver program: a pair of virtual serial ports is missing.',
    'receiver program to decoder: a virtual audio cable is missing.',
  ]);
  expect(loops).toEqual(['audio: decoder → receiver program → decoder is a loop.']);
  expect(() => readRoutes('audio: radio > decoder\nwhisper')).toThrow(/"whisper" is no route/);
});

test('receive and transmit audio between a radio and one program was "a loop", two programs on one port were not remarked', () => {
  const of = (text: string) => checkRouting(readRoutes(text));
  // common practice, no source: a radio does not send out of its receiver what it is given to transmit
  expect(of('audio: radio > decoder, cable 1\naudio: decoder > radio, cable 2')).toEqual({
    ...{ missing: [], loops: [], shared: [] },
  });
  expect(of('control: radio > logger, COM3\ncontrol: logger > radio, COM3')).toEqual({
    ...{ missing: [], loops: [], shared: [] },
  });
  expect(of('audio: a > b, 1\naudio: b > c, 2\naudio: c > a, 3').loops).toEqual(['audio: a → b → c → a is a loop.']);
  expect(of('control: radio > logger, COM3\ncontrol: radio > decoder, com3').shared).toEqual([
    'COM3 serves logger and decoder. A port opens for one program only: name two ports, or let one program hand it on.',
  ]);
});

test('a plain T of two hands 4/9, of three 1/4 of the power to each: 3.52 and 6.02 dB', () => {
  expect(plainTeeLossDb(2)).toBeCloseTo(3.52, 2);
  expect(plainTeeLossDb(3)).toBeCloseTo(6.02, 2);
});

test('fewest adapters between two ends', () => {
  const ends = (a: string, b: string) => ({ name: `${a} to ${b}`, a: readConnector(a), b: readConnector(b) });
  const box = [ends('SMA-m', 'BNC-f'), ends('BNC-m', 'N-f'), ends('SMA-m', 'N-f'), ends('N-f', 'N-f')];
  expect(joinConnectors(readConnector('SMA-f'), readConnector('N-m'), box)).toEqual({
    fits: true,
    adapters: ['SMA-m to N-f'],
  });
  expect(joinConnectors(readConnector('SMA-f'), readConnector('SMA-m'), box)).toEqual({ fits: true, adapters: [] });
  expect(joinConnectors(readConnector('SMA-f'), readConnector('N-m'), box.slice(0, 2)).adapters).toHaveLength(2);
  expect(joinConnectors(readConnector('F-f'), readConnector('N-m'), box).missing).toBe('an adapter F-m to N-f');
  expect(() => readConnector('plug')).toThrow(/family and gender/);
});

describe('parts by their own data', () => {
  const text = [
    '! measured',
    '# MHz S RI R 50',
    '1 0 0 0.1 0 0.1 0 0 0',
    '10 0 0 0 1 0 1 0 0',
    '100 0 0 10 0 0.01 0 0 0',
  ].join('\n');
  test('|S21| of a two-port file: 0.1, 1 and 10 are −20, 0 and 20 dB; a one-port row is refused', () => {
    expect(readTwoPort(text).points.map(({ gainDb }) => gainDb)).toEqual([-20, 0, 20]);
    expect(readTwoPort('# GHz S DB R 50\n1 0 0 3 0 0 0 0 0').points).toEqual([{ freqHz: 1e9, gainDb: 3 }]);
    expect(() => readTwoPort('# MHz S RI R 50\n1 0.1 0.2')).toThrow(/needs 9 numbers and has 3/);
  });
  test('thinning keeps the ends and the corner', () => {
    const line = Array.from({ length: 500 }, (_, i) => ({
      freqHz: 1e6 * 1.01 ** i,
      gainDb: i < 250 ? 0 : -(i - 250) / 10,
    }));
    const thin = thinTransfer(line, 20);
    expect(thin).toHaveLength(20);
    expect([thin[0], thin[19]]).toEqual([line[0], line[499]]);
    expect(thin.some(({ freqHz }) => Math.abs(freqHz / line[250].freqHz - 1) < 0.02)).toBe(true);
  });
  test('a passive part counts like a pad of its loss, an active one like an amplifier; between its points gain is straight over log f', () => {
    const receiver = {
      name: 'r',
      noiseFigureDb: 10,
      iip2Dbm: 50,
      iip3Dbm: 10,
      fullScaleDbm: 0,
      bits: 16,
      sampleRateHz: 1e8,
      complexSamples: false,
      minHz: 1,
      maxHz: 5e7,
    };
    const question = { lowHz: 9e6, highHz: 11e6, bandwidthHz: 2400, externalFaDb: 20, signals: [] };
    const nf = (stage: PathStage): number => analysePath([stage], receiver, question).noiseFigureDb;
    const box: PathStage = {
      kind: 'part',
      name: 'box',
      transfer: [
        { freqHz: 1e6, gainDb: -6 },
        { freqHz: 1e8, gainDb: 0 },
      ],
    };
    expect(stageGainDb(box, 10e6)).toBeCloseTo(-3, 9);
    expect(nf(box)).toBeCloseTo(nf({ kind: 'pad', name: 'pad', lossDb: 3 }), 9);
    const amplifier: PathStage = {
      kind: 'part',
      name: 'a',
      transfer: [{ freqHz: 1e6, gainDb: 14 }],
      noiseFigureDb: 9,
      iip3Dbm: 5,
    };
    // story of the active rod: 14 dB and 9 dB, then 12 dB: 9.31 dB (Friis by hand: 7.943 + 14.849/25.12 = 8.534)
    expect(analysePath([amplifier], { ...receiver, noiseFigureDb: 12 }, question).noiseFigureDb).toBeCloseTo(9.31, 2);
    expect(compressionDbm(amplifier)).toBe(-5);
    expect(compressionDbm({ ...amplifier, p1Dbm: 2 })).toBe(2);
    expect(compressionDbm(box)).toBeUndefined();
  });
});

describe('order search', () => {
  const receiver: PathReceiver = {
    name: 'receiver',
    noiseFigureDb: 15,
    iip2Dbm: 50,
    iip3Dbm: 10,
    fullScaleDbm: 0,
    bits: 16,
    sampleRateHz: 125e6,
    complexSamples: false,
    minHz: 1e4,
    maxHz: 200e6,
  };
  const amplifier = (name: string, gainDb: number, noiseFigureDb: number, iip3Dbm: number): PathStage => ({
    kind: 'amplifier',
    name,
    gainDb,
    noiseFigureDb,
    iip2Dbm: iip3Dbm + 30,
    iip3Dbm,
  });
  const goal: SearchGoal = { name: '137 MHz', lowHz: 137e6, highHz: 138e6, bandwidthHz: 34e3, externalFaDb: 3 };
  const signals: PathSignal[] = [
    { name: 'FM 1', freqHz: 97.4e6, levelDbm: -5 },
    { name: 'FM 2', freqHz: 103.1e6, levelDbm: -18 },
  ];
  const filter: PathStage = {
    kind: 'filter',
    name: 'band filter',
    filter: {
      shape: 'bandpass',
      family: 'chebyshev',
      order: 3,
      rippleDb: 0.1,
      edgeLowHz: 134e6,
      edgeHighHz: 141e6,
      insertionLossDb: 1.5,
    },
  };
  const line: PathStage = { kind: 'line', name: 'coax', cable: { k1: 1.311, k2: 0.0294 }, lengthM: 25 };
  const part = (stage: PathStage, needed = false): ShelfPart => ({ stage, needed, cost: 1 });
  const lossOf = (stages: readonly PathStage[], by: readonly PathSignal[]): number =>
    analysePath(stages, receiver, { ...goal, signals: by }).snrLossWithProductsDb;

  test('without carriers the amplifier goes first; with an FM station at −5 dBm the filter does', () => {
    const shelf = [
      part(line, true),
      part(amplifier('low-noise amplifier', 20, 1, 5)),
      part(filter),
      part({ kind: 'pad', name: 'pad', lossDb: 6 }),
    ];
    const quiet = finish(searchOrder(shelf, receiver, [goal], []));
    expect(quiet.best?.order).toEqual([1, 0]);
    const loud = finish(searchOrder(shelf, receiver, [goal], signals));
    expect(loud.best?.order).toEqual([2, 1, 0]);
    expect(loud.sentence).toMatch(/band filter, then low-noise amplifier, then coax: 137 MHz loses/);
  });
  const shelves = [
    [part(line, true), part(amplifier('one', 14, 2, 12)), part(amplifier('two', 20, 1, 4)), part(filter)],
    [part(line, true), part({ kind: 'pad', name: 'pad', lossDb: 6 }), part(amplifier('two', 12, 3, 20)), part(filter)],
    [part(line, true), part(amplifier('one', 25, 0.7, 0)), part(amplifier('two', 8, 4, 25)), part(filter, true)],
  ];
  test.each(shelves.map((shelf, i) => ({ shelf, i })))(
    'no set and order is better (brute force), shelf $i',
    ({ shelf }) => {
      const { best } = finish(searchOrder(shelf, receiver, [goal], signals));
      expect(best).toBeDefined();
      if (!best) return;
      const stages = best.order.map((i) => shelf[i].stage);
      expect(best.lossesDb[0]).toBeCloseTo(lossOf(stages, signals), 6);
      const permutations = (rest: readonly number[]): number[][] =>
        rest.length === 0
          ? [[]]
          : rest.flatMap((one) => permutations(rest.filter((other) => other !== one)).map((tail) => [one, ...tail]));
      const subsets = [[0], [0, 1], [0, 2], [0, 3], [0, 1, 2], [0, 1, 3], [0, 2, 3], [0, 1, 2, 3]];
      for (const order of subsets.flatMap(permutations)) {
        const walked = analysePath(
          order.map((i) => shelf[i].stage),
          receiver,
          { ...goal, signals },
        );
        const overloaded = order.some((i, k) => {
          const { stage } = shelf[i];
          if (stage.kind !== 'amplifier') return false;
          const total =
            10 * Math.log10(walked.walks.reduce((sum, { levelsDbm }) => sum + 10 ** (levelsDbm[k] / 10), 0));
          return total > stage.iip3Dbm - 13;
        });
        if (!overloaded && (walked.headroomDb ?? 99) > 6)
          expect(walked.snrLossWithProductsDb).toBeGreaterThan(best.lossesDb[0] - 0.11);
      }
    },
  );
  test('an overload that nothing cures is told; too many parts are refused', () => {
    const near = [{ name: 'next door', freqHz: 137.2e6, levelDbm: 10 }];
    expect(finish(searchOrder([part(line, true)], { ...receiver, fullScaleDbm: -10 }, [goal], near)).sentence).toMatch(
      /overloaded/,
    );
    const many = Array.from({ length: 15 }, () => part(line));
    expect(() => finish(searchOrder(many, receiver, [goal], []))).toThrow(/Parts/);
  });
});
