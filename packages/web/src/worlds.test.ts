import { describe, expect, test } from '@jest/globals';
import { BLANK, RESOURCE_NAMES, SCHEMAS } from '@velvet-reed/contract';
import { randomStation } from '@velvet-reed/contract/testing';
import { ANTENNA_KINDS, antennaKind, type KindId } from '@velvet-reed/core/antenna';
import {
  type Candidate,
  choiceVerdict,
  type ForecastPlace,
  type ForecastTarget,
  type Hearing,
  hearingKey,
  hearingQuestions,
  type HearingQuestion,
  hearingState,
  kindCandidates,
  rankCandidates,
  type RankRules,
  readyCandidate,
  type ReadyCandidate,
  type SpotNoise,
  turningPoints,
} from '@velvet-reed/core/choose';
import { CoreError } from '@velvet-reed/core/errors';
import { readTouchstone, type SweepData } from '@velvet-reed/core/formats';
import { groundClass } from '@velvet-reed/core/solver';
import { findResonances } from '@velvet-reed/core/sweep';
import { comparisonsOf, conditionVerdict } from '@velvet-reed/station/trials/conditions';
import {
  boughtCandidates,
  designOf,
  forecastPlace,
  outsideNoise,
  ownCandidates,
  roomOf,
  targetChoices,
} from '@velvet-reed/station/derive';
import { spotsOf } from '@velvet-reed/station/spots';
import type { StationData } from '@velvet-reed/station/record';
import { wholeStation } from './data/station-cache';
import { plannedTransmitters } from '@velvet-reed/station/transmitters';
import { guardVerdict, judgedGuard } from '@velvet-reed/station/guard/judge';
import { judgedBench, judgedNoise, judgedPath, judgedTrial, unjudgedPath } from '@velvet-reed/station/verdicts';
import { standings } from '@velvet-reed/station/standings';
import { reportOf } from './steps/notebook/report/report';

/** Worlds looked at; the seed of a failing one is in its message. */
const WORLDS = 2000;
/** What is costly is looked at in every so manieth world. */
const COSTLY = 25;
const STAMP = '2026-03-08T12:00:00.000Z';
const AT_MS = Date.parse(STAMP);

interface World {
  readonly data: StationData;
  readonly samples: ReadonlyMap<number, SweepData>;
}

const made = new Map<number, World>();
const world = (seed: number): World => {
  const known = made.get(seed) ?? makeWorld(seed);
  made.set(seed, known);
  return known;
};

function makeWorld(seed: number): World {
  const { station, lists, sweeps } = randomStation(seed);
  const base = { version: 1, stationId: 1, createdAt: STAMP };
  const read = sweeps.map(({ touchstone }) => readTouchstone(touchstone));
  const headers = sweeps.map(({ name, antennaId }, i) => {
    const { freqHz, referenceOhm } = read[i];
    return {
      ...BLANK.sweeps,
      ...{
        name,
        antennaId,
        points: freqHz.length,
        startHz: freqHz[0],
        stopHz: freqHz[freqHz.length - 1],
        referenceOhm,
      },
      ...{ phaseKnown: true, shown: true, correction: 'file', attachmentId: 1 },
    };
  });
  const data = wholeStation({
    run: 'test',
    revision: 1,
    station: { id: 1, ...base, ...station },
    undo: null,
    ...Object.fromEntries(RESOURCE_NAMES.map((name) => [name, []])),
    ...Object.fromEntries(
      Object.entries({ ...lists, sweeps: headers }).map(([name, list]) => [
        name,
        list.map((record, i) => ({ id: i + 1, ...base, ...record })),
      ]),
    ),
  });
  const hearing = { atMs: AT_MS, heard: (question: HearingQuestion) => pretended(hearingKey(question)) };
  return { data: { ...data, hearing }, samples: new Map(read.map((sweep, i) => [i + 1, sweep])) };
}

/** An answer of the wire model by a made-up rule: the same question gives the same answer, and nothing is solved. */
function pretended(key: string): Hearing {
  let hash = 2166136261;
  for (let i = 0; i < key.length; i += 1) hash = Math.imul(hash ^ key.charCodeAt(i), 16777619) >>> 0;
  const gain = 10 ** ((hash % 40) / 10 - 3);
  return {
    impedance: { re: 5 + (hash % 997), im: ((hash >>> 8) % 1000) - 500 },
    radiated: 0.05 + ((hash >>> 4) % 90) / 100,
    gains: Array.from({ length: 36 }, (_, i) => gain * (1 + 0.9 * Math.cos((i * Math.PI) / 18))),
    vertical: Array.from({ length: 36 }, () => (gain * ((hash >>> 12) % 10)) / 100),
    rightHand: Array.from({ length: 36 }, () => (gain * ((hash >>> 16) % 10)) / 100),
    segments: 10,
  };
}

interface Judged {
  readonly ready: readonly ReadyCandidate[];
  readonly targets: readonly ForecastTarget[];
  readonly place: ForecastPlace;
  readonly rules: RankRules;
  readonly ranked: readonly Candidate[];
}

/** @param kinds the kinds compared beside what is owned or could be bought; absent: all. */
function choose(data: StationData, view: 'quiet' | 'signal', kinds?: readonly KindId[]): Judged {
  const targets = targetChoices(data, AT_MS);
  const specs = [...ownCandidates(data), ...boughtCandidates(data), ...kindCandidates(targets, spotsOf(data), kinds)];
  const place = forecastPlace(data);
  const { ground } = groundClass(data.station.groundId);
  const asked = hearingQuestions(
    specs,
    targets,
    place.transmitters.map(({ freqHz }) => freqHz),
    ground,
  );
  const answers = new Map(asked.map((question) => [hearingKey(question), pretended(hearingKey(question))]));
  const ready = specs.map((spec) =>
    readyCandidate(spec, targets, ground, (question) => answers.get(hearingKey(question))),
  );
  const { station } = data;
  const rules: RankRules = {
    view,
    weights: { price: station.priceWeight, effort: station.effortWeight, sight: station.sightWeight },
    restrictions: station,
    room: roomOf(data),
  };
  return { ready, targets, place, rules, ranked: rankCandidates(ready, targets, place, rules) };
}

const fail = (): never => {
  throw new Error('this place knows no noise');
};

/** Four kinds for a world; every kind has its turn. */
const kindsOf = (seed: number): readonly KindId[] =>
  [0, 1, 2, 3].map((i) => ANTENNA_KINDS[(4 * seed + i) % ANTENNA_KINDS.length].id);

/** Text that no listener may ever read. */
const NONSENSE = /NaN|undefined|Infinity|\[object|null\b/;

const eachWorld = (step: number, check: (one: World, seed: number) => void): void => {
  for (let seed = 1; seed <= WORLDS; seed += step) {
    try {
      check(world(seed), seed);
    } catch (error) {
      if (error instanceof Error) error.message = `world ${seed}: ${error.message}`;
      throw error;
    }
  }
};

describe(`${WORLDS} made-up stations`, () => {
  test('every record fits, and every step says where it stands', () => {
    eachWorld(2, ({ data }) => {
      for (const name of RESOURCE_NAMES)
        for (const record of data[name]) SCHEMAS[name].validateSync(record, { strict: true });
      expect(Object.values(standings(data)).every((state) => state.length > 0)).toBe(true);
    });
  });

  test('Choose: what is recommended fits, is allowed, hears something and overloads nothing; the counts are those of the table', () => {
    eachWorld(5, ({ data }, seed) => {
      const { ranked } = choose(data, seed % 2 === 0 ? 'quiet' : 'signal', kindsOf(seed));
      const verdict = choiceVerdict(ranked);
      expect(`${verdict.sentence} ${verdict.next}`).not.toMatch(NONSENSE);
      for (const one of ranked) {
        expect(Number.isFinite(one.sumDb)).toBe(true);
        expect(one.reason).not.toMatch(NONSENSE);
        const states = one.forecasts.map(hearingState);
        for (const [state, n] of Object.entries(one.counts)) expect(states.filter((s) => s === state)).toHaveLength(n);
        for (const forecast of one.forecasts)
          if (forecast.receiver && forecast.headroomDb !== undefined && forecast.headroomDb < 0)
            expect(['overloads', 'not judged']).toContain(hearingState(forecast));
      }
      const { best } = verdict;
      if (!best) return;
      expect(best.fit.fits && best.withdrawn === undefined).toBe(true);
      const states = best.forecasts.map(hearingState);
      // of several antennas each counts for its own targets
      if (!verdict.set) {
        expect(states).not.toContain('overloads');
        if (verdict.state === 'best') expect(states).not.toContain('unusable');
      }
      const heard = states.filter((state) => state === 'served' || state === 'weak').length;
      expect(heard).toBeGreaterThan(0);
      const told = /hears (\d+) of (\d+) targets/.exec(verdict.sentence);
      if (states.length > 1 && !verdict.set) expect(told?.slice(1).map(Number)).toEqual([heard, states.length]);
    });
  });

  test('Choose: everything that is said to turn the choice turns it when tried', () => {
    let tried = 0;
    eachWorld(COSTLY, ({ data }) => {
      if (data.targets.length > 6) return;
      const { ready, targets, place, rules, ranked } = choose(data, 'quiet');
      const now = choiceVerdict(ranked).best?.spec;
      for (const { what, sentence } of turningPoints(ready, targets, place, rules)) {
        expect(sentence).not.toMatch(NONSENSE);
        const number = Number(/([\d.]+) (?:dB|times)/.exec(sentence)?.[1]);
        const db = (sentence.includes('higher') ? 1 : -1) * number;
        const { noise } = place;
        const louder = (found: SpotNoise, by: number): SpotNoise => ({
          ...found,
          ...{ low: found.low + by, middle: found.middle + by, high: found.high + by, houseDb: found.houseDb + by },
        });
        const changed: ForecastPlace =
          what === 'line'
            ? { ...place, lineLossDb: (freqHz) => place.lineLossDb(freqHz) * number }
            : what === 'noise'
              ? {
                  ...place,
                  externalFaDb: (freqHz, time) => place.externalFaDb(freqHz, time) + db,
                  noise: (ask) => louder(noise?.(ask) ?? fail(), db),
                }
              : {
                  ...place,
                  noise: (ask) => {
                    const found = noise?.(ask) ?? fail();
                    return louder(found, found.houseDb > 0 ? Math.max(-found.houseDb, db) : 0);
                  },
                };
        const then = choiceVerdict(rankCandidates(ready, targets, changed, rules));
        expect(then.best?.spec.id).not.toBe(now?.id);
        tried += 1;
      }
    });
    expect(tried).toBeGreaterThan(5);
  });

  test('Path: an overload is always told, and nothing is called fine that no transmitter was entered for', () => {
    let overloads = 0;
    eachWorld(1, ({ data }) => {
      for (const path of data.paths) {
        const judged = judgedPath(data, path);
        if (!judged) {
          const why = unjudgedPath(data, path);
          if (!why || why.waiting) throw new Error('A path lost its receiver, target or answers.');
          expect(`${why.sentence} ${why.next}`).not.toMatch(NONSENSE);
          continue;
        }
        const { verdict, orders, asked } = judged;
        expect(`${verdict.sentence} ${verdict.next} ${verdict.limit}`).not.toMatch(NONSENSE);
        for (const one of [verdict.better, verdict.other]) {
          const analysis = orders.find(({ order }) => order === one?.order)?.analysis;
          if (!one || !analysis) continue;
          const over = analysis.firstOverload !== undefined || analysis.canClip;
          if (over) expect(['overload', 'out of reach', 'alias', 'no supply']).toContain(one.state);
          if (one.state === 'overload') expect(over).toBe(true);
          overloads += over ? 1 : 0;
        }
        if (asked.question.signals.length === 0) expect(verdict.limit).not.toMatch(/^Noise, not overload/);
      }
    });
    expect(overloads).toBeGreaterThan(20);
  });

  test('Bench: a cut is only named where the dip that counts lies too low, and the nearest dip counts', () => {
    let cuts = 0;
    eachWorld(1, ({ data, samples }) => {
      for (const antenna of data.antennas) {
        const sweep = data.sweeps.filter(({ antennaId }) => antennaId === antenna.id).at(-1);
        const found = sweep && samples.get(sweep.id);
        const dips = found && findResonances(found);
        const { verdict, targetHz } = judgedBench(data, antenna, dips);
        expect(`${verdict.sentence} ${verdict.next}`).not.toMatch(NONSENSE);
        if (dips && dips.length > 0 && targetHz !== undefined && verdict.dipHz !== undefined) {
          const off = (hz: number): number => Math.abs(Math.log(hz / targetHz));
          expect(off(verdict.dipHz)).toBe(Math.min(...dips.map(({ freqHz }) => off(freqHz))));
        }
        if (verdict.state !== 'cut') continue;
        cuts += 1;
        expect(verdict.offHz).toBeGreaterThan(0);
        expect(verdict.cutM).toBeGreaterThan(0);
      }
    });
    expect(cuts).toBeGreaterThan(20);
  });

  test('Trials: proven only where the interval that is shown leaves zero out, over five pairs and more', () => {
    let proven = 0;
    eachWorld(1, ({ data }) => {
      for (const trial of data.trials) {
        const { verdict } = judgedTrial(data, trial);
        expect(verdict.sentence).not.toMatch(NONSENSE);
        for (const one of [verdict.snr, verdict.level, verdict.noise]) {
          if (!one.proven) continue;
          proven += 1;
          const shown = [one.interval?.low, one.interval?.high].map((db) => Number((db ?? 0).toFixed(1)));
          expect(shown[0] > 0 || shown[1] < 0).toBe(true);
          expect(one.result?.n).toBeGreaterThanOrEqual(one.rule === 'plan' ? 5 : 6);
        }
        expect(/, proven( by a hair)?\./.test(verdict.sentence)).toBe(verdict.primary.proven);
      }
    });
    expect(proven).toBeGreaterThan(20);
  });

  test('Conditions: a rule has two sides of five pairs, and names which way round they are', () => {
    let compared = 0;
    eachWorld(1, ({ data }) => {
      for (const comparison of comparisonsOf(data)) {
        compared += 1;
        const { sentence, next } = conditionVerdict(comparison);
        expect(`${sentence} ${next}`).not.toMatch(NONSENSE);
        if (comparison.finding.state !== 'rule') continue;
        const { near, far, opposite } = comparison.finding.rule;
        expect(Math.min(near.n, far.n)).toBeGreaterThanOrEqual(5);
        expect(near.meanDb * far.meanDb < 0).toBe(opposite);
      }
    });
    expect(compared).toBeGreaterThan(20);
  });

  test('Guard: never green while an antenna is not drawn, an input is not disconnected, or a way has no figure', () => {
    const seen = new Set<string>();
    let cells = 0;
    eachWorld(1, ({ data }) => {
      for (const plan of plannedTransmitters(data)) {
        const { proof, rows, drawn } = judgedGuard(data, plan);
        seen.add(proof.colour);
        expect(`${proof.sentence} ${proof.next}`).not.toMatch(NONSENSE);
        for (const cell of proof.cells) {
          cells += 1;
          expect(cell.sentence).not.toMatch(NONSENSE);
          const { limitDbm = 0 } = proof.receivers.find(({ id }) => id === cell.receiver) ?? {};
          if (cell.route && cell.colour !== 'unknown') expect(cell.route.dbm > limitDbm).toBe(cell.colour === 'danger');
          if (cell.route?.steps.some(({ footing }) => footing === 'unknown') && cell.colour !== 'danger')
            expect(cell.colour === 'unknown' || (cell.marginDb ?? -1) >= 0).toBe(true);
        }
        if (proof.colour === 'danger' || proof.colour === 'unknown') continue;
        expect(rows.length).toBeGreaterThan(0);
        expect(drawn.undrawn).toEqual([]);
      }
    });
    expect(cells).toBeGreaterThan(500);
    expect([...seen]).toEqual(expect.arrayContaining(['danger', 'unknown']));
  });

  test('Noise and Draft: sentences hold their numbers, and no piece is cut shorter than it ends', () => {
    let pieces = 0;
    eachWorld(1, ({ data }) => {
      const noise = judgedNoise(data);
      expect(`${noise.sentence} ${noise.next}`).not.toMatch(NONSENSE);
      expect(noise.state === 'nothing measured').toBe(data.levels.every(({ kind }) => kind === 'survey'));
      for (const { lowHz, highHz } of data.targets)
        expect(Number.isFinite(outsideNoise(data, (lowHz + highHz) / 2).faDb)).toBe(true);
      for (const revision of data.revisions) {
        const draft = drafted(data, revision);
        for (const piece of draft?.pieces ?? []) {
          pieces += 1;
          expect(Number.isFinite(piece.cutM)).toBe(true);
          expect(piece.cutM).toBeGreaterThanOrEqual(piece.finishedM * (1 - 1e-9));
        }
      }
    });
    expect(pieces).toBeGreaterThan(500);
  });

  test('the report reads the same verdicts, and nothing in it is nonsense', () => {
    eachWorld(COSTLY, ({ data, samples }) => {
      const { ranked } = choose(data, 'quiet');
      const text = JSON.stringify(
        reportOf({ data, samples, ranked, patterns: new Map(), summaries: new Map() }, AT_MS).content,
      );
      expect(text.replaceAll(':null', '')).not.toMatch(NONSENSE);
      const told = [
        choiceVerdict(ranked).sentence,
        judgedNoise(data).sentence,
        ...data.trials.map((trial) => judgedTrial(data, trial).verdict.sentence),
        ...plannedTransmitters(data).map((plan) => guardVerdict(judgedGuard(data, plan)).sentence),
        ...data.paths.flatMap((path) => judgedPath(data, path)?.verdict.sentence ?? []),
      ];
      for (const sentence of told) expect(text).toContain(JSON.stringify(sentence).slice(1, -1));
    });
  });
});

function drafted(data: StationData, revision: StationData['revisions'][number]) {
  try {
    return antennaKind(revision.kind).draft(designOf(data, revision));
  } catch (error) {
    if (error instanceof CoreError) return undefined;
    throw error;
  }
}
