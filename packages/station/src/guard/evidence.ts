import type { Saved } from '@velvet-reed/contract';
import {
  type AntennaState,
  antennaState,
  type Evidence,
  type Holding,
  holdsFor,
  type PartState,
  type Question,
  type Scope,
} from '@velvet-reed/core/evidence';
import { type Footing, type Known, type PowerTest, powerTest } from '@velvet-reed/core/guard';
import { fixed, plain, showPower, wattsToDbm } from '@velvet-reed/core/units';
import type { StationData } from '../record';
import type { PlannedTransmitter } from '../transmitters';
import { type CouplingAsk, knownCoupling } from './couplings';
import { TRUSTED_LOSS_DB } from '@velvet-reed/core/guard';

type Part = Saved<'guardParts'>;
export type PartFigure = 'lossDb' | 'isolationDb' | 'gainDb';

/** An antenna of the station as it stands now. */
export function stateOfAntenna(data: StationData, id: number): AntennaState | undefined {
  const antenna = data.antennas.find((one) => one.id === id);
  if (!antenna) return undefined;
  return antennaState(
    antenna,
    data.revisions.filter(({ antennaId }) => antennaId === id).map(({ number }) => number),
    data.plotFeatures
      .filter(({ kind, antennaId }) => kind === 'antenna' && antennaId === id)
      .sort((a, b) => a.id - b.id),
  );
}

const isFooting = (word: string | undefined): word is Footing =>
  word === 'measured' || word === 'model' || word === 'assumed';

/** A figure as stretched or refused evidence leaves it. */
function asHeld(db: number, footing: Footing, holding: Holding): Known {
  switch (holding.state) {
    case 'covers':
      return { db, footing };
    case 'stretched':
      return { db: Math.max(0, db - holding.addsDb), footing, because: `stretched: ${holding.because}` };
    case 'not':
      return { because: holding.reason };
  }
}

/** A figure of a part at a frequency: from its points, else from the single figure, which holds for the frequency that stands beside it. */
export function figureAt(part: Part, name: PartFigure, freqHz: number): Known {
  const word = part.evidence[name];
  const footing = isFooting(word) ? word : 'assumed';
  const evidence = (scope: Scope): Evidence<number> => ({ value: 0, origin: 'measured', scope, atMs: null });
  const points = part.points.filter(({ figure }) => figure === name).sort((a, b) => a.freqHz - b.freqHz);
  if (points.length > 0) {
    const band = [points[0].freqHz, points[points.length - 1].freqHz] as const;
    const sign = name === 'gainDb' ? -1 : 1;
    const held = asHeld(
      sign * between(points, freqHz),
      footing,
      holdsFor(evidence({ frequenciesHz: [band] }), { freqHz }),
    );
    return held.db === undefined || name !== 'gainDb' ? held : { ...held, db: between(points, freqHz) };
  }
  if (!(name in part.figures)) return {};
  const db = part.figures[name];
  const atHz: number | undefined = part.figures[`${name}Hz`];
  // measured, but at which frequency nobody wrote down: it counts as a guess
  if (atHz === undefined)
    return footing === 'assumed' ? { db, footing } : { db, footing: 'assumed', because: 'at no stated frequency' };
  return asHeld(db, footing, holdsFor(evidence({ frequenciesHz: [[atHz, atHz]] }), { freqHz }));
}

/** Between two points along a straight line of dB over the logarithm of the frequency; beyond the last the last. */
function between(points: readonly { readonly freqHz: number; readonly db: number }[], freqHz: number): number {
  const next = points.findIndex((one) => one.freqHz >= freqHz);
  if (next < 0) return points[points.length - 1].db;
  const [a, b] = [points[Math.max(0, next - 1)], points[next]];
  if (a.freqHz === b.freqHz || freqHz <= a.freqHz) return Math.min(a.db, freqHz <= a.freqHz ? a.db : b.db);
  return a.db + ((b.db - a.db) * Math.log(freqHz / a.freqHz)) / Math.log(b.freqHz / a.freqHz);
}

/** What a typed coupling holds for: what was written down with it, and its own frequency. */
const couplingEvidence = (coupling: Saved<'guardCouplings'>): Evidence<number> => ({
  ...{ value: coupling.lossDb, origin: coupling.origin, atMs: null },
  scope: {
    ...coupling.takenOn,
    ...(coupling.freqHz === null ? {} : { frequenciesHz: [[coupling.freqHz, coupling.freqHz]] }),
  },
});

/** Whether a typed coupling speaks for its antennas as they stand, at a frequency. An assumed one says less, and is asked less. */
export function couplingHolds(
  coupling: Saved<'guardCouplings'>,
  freqHz: number,
  antennas: readonly AntennaState[],
): Holding {
  const evidence = couplingEvidence(coupling);
  const assumed = coupling.origin === 'assumed';
  return holdsFor(evidence, {
    ...(assumed && coupling.freqHz === null ? {} : { freqHz }),
    ...(assumed && evidence.scope.antennas === undefined ? {} : { antennas }),
  });
}

/** Loss over the air between two antennas at a frequency: measured, else by the model where it stands now, else assumed. */
export function couplingAt(
  typed: readonly Saved<'guardCouplings'>[],
  freqHz: number,
  antennas: readonly AntennaState[],
  { asks, byMast }: { readonly asks: readonly CouplingAsk[]; readonly byMast: boolean },
): Known {
  const refused: string[] = [];
  const best = (origin: 'measured' | 'assumed'): Known | undefined => {
    const held = typed
      .filter((one) => one.origin === origin)
      .map((one) => asHeld(one.lossDb, origin, couplingHolds(one, freqHz, antennas)));
    refused.push(
      ...held.flatMap(({ db, because }) => (db === undefined && because ? [`${origin}, but ${because}`] : [])),
    );
    return held.filter(({ db }) => db !== undefined).sort((a, b) => (a.db ?? 0) - (b.db ?? 0))[0];
  };
  return best('measured') ?? computedAt(asks, byMast) ?? best('assumed') ?? { because: refused[0] ?? whyNot(asks) };
}

/** The least of what the model computed for all runs of both antennas; absent while one of them is not known. */
function computedAt(asks: readonly CouplingAsk[], byMast: boolean): Known | undefined {
  const losses = asks.map((ask) => {
    const known = knownCoupling(ask);
    return known && 'coupling' in known ? known.coupling.safeDb - known.coupling.amplifierDb : undefined;
  });
  const known = losses.filter((db) => db !== undefined);
  if (asks.length === 0 || known.length < asks.length) return undefined;
  const db = Math.max(0, Math.min(TRUSTED_LOSS_DB, ...known));
  return {
    ...{ db, footing: byMast ? 'assumed' : 'model' },
    ...(db === TRUSTED_LOSS_DB ? { because: `no more than ${TRUSTED_LOSS_DB} dB counts without a test` } : {}),
  };
}

/** Why the model says nothing. */
function whyNot(asks: readonly CouplingAsk[]): string {
  if (asks.length === 0) return 'not both antennas are laid on the Plot';
  for (const ask of asks) {
    const known = knownCoupling(ask);
    if (known && 'refusal' in known) return known.refusal;
    if (known && 'fault' in known) return known.fault;
  }
  return 'it is being computed';
}

/** Typed powers that a transmitter can be set to, W. */
const stepsOf = (text: string): readonly number[] =>
  text
    .split(/[,;\s]+/)
    .map((one) => Number(one.replace(/W$/i, '')))
    .filter((one) => Number.isFinite(one) && one > 0);

/** A stepwise test with its steps, judged. */
export function judgedTest(data: StationData, test: Saved<'powerTests'>, plan: PlannedTransmitter) {
  const limitDbm = data.guardInputs.find(({ id }) => id === test.guardInputId)?.limitDbm ?? 0;
  const rungs = data.powerRungs.filter(({ powerTestId }) => powerTestId === test.id).sort((a, b) => a.round - b.round);
  const terms = {
    ...{ fullW: plan.powerW, lowestW: test.lowestW, limitDbm, marginDb: plan.marginToKeepDb },
    ...{ attenuatorDb: test.attenuatorDb, backgroundDbm: test.backgroundDbm },
    ...(test.expectedLossDb === null ? {} : { expectedLossDb: test.expectedLossDb }),
    stepsW: stepsOf(plan.powerSteps),
  };
  return { rungs, judged: powerTest(terms, rungs) };
}

/** Steps on the line that make a test: one reading alone is none. */
const LEAST_STEPS = 2;

/** What a test found and on what; undefined before its first step on the line. */
export function testEvidence(test: Saved<'powerTests'>, { loss }: PowerTest): Evidence<number> | undefined {
  if (!loss) return undefined;
  return {
    ...{ value: loss.db, interval: { low: loss.lowDb, high: loss.highDb }, origin: 'by test', atMs: test.atMs },
    scope: { ...test.takenOn, frequenciesHz: [[test.freqHz, test.freqHz]], powerW: loss.upToW },
    quality: { count: loss.rungs },
  };
}

const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** How a test speaks for a frequency of the station as it is drawn now. */
export type TestHolding =
  | { readonly state: 'holds'; readonly lossDb: number; readonly name: string }
  | { readonly state: 'refused'; readonly sentence: string };

/**
 * The test of an input that speaks for a frequency: the newest that covers it, else one that can be stretched to it; else why the newest does not.
 * @param question how the station is drawn now: parts and antennas. undefined: the input was never tested.
 */
export function testFor(
  data: StationData,
  plan: PlannedTransmitter,
  tests: readonly Saved<'powerTests'>[],
  question: Question,
): TestHolding | undefined {
  const found = [...tests]
    .sort((a, b) => b.atMs - a.atMs)
    .flatMap((test) => {
      const evidence = testEvidence(test, judgedTest(data, test, plan).judged);
      return evidence ? [{ test, evidence, holding: holdsFor(evidence, { ...question, count: LEAST_STEPS }) }] : [];
    });
  const holds =
    found.find(({ holding }) => holding.state === 'covers') ??
    found.find(({ holding }) => holding.state === 'stretched');
  if (holds) {
    const { interval, value } = holds.evidence;
    const low = interval?.low ?? value;
    const { holding } = holds;
    const stretched = holding.state === 'stretched';
    return {
      ...{ state: 'holds', lossDb: Math.max(0, low - (stretched ? holding.addsDb : 0)) },
      name: stretched
        ? `the whole way, by the stepwise test, stretched (${holding.because}; ${fixed(holding.addsDb, 0)} dB more doubt)`
        : 'the whole way, by the stepwise test',
    };
  }
  const [newest] = found;
  if (!newest || newest.holding.state !== 'not') return undefined;
  // with everything but the power in order the test still forecasts, and that is no proof
  const { powerW: _power, ...other } = question;
  const forecast = holdsFor(newest.evidence, { ...other, count: LEAST_STEPS }).state === 'covers';
  const { value, interval } = newest.evidence;
  const level = (loss: number): string => fixed(wattsToDbm(plan.powerW) - loss, 1);
  return {
    state: 'refused',
    sentence: `The stepwise test of ${dayOf(newest.test.atMs)} does not hold: ${newest.holding.reason}. ${
      forecast
        ? `It forecasts ${level(value)} dBm (${level(interval?.high ?? value)} to ${level(interval?.low ?? value)}) at ${plain(showPower(plan.powerW))}, which is no proof: go on with the test.`
        : 'Repeat it.'
    }`,
  };
}

/** What hangs on what, for the scope of a test: each part with its settings and what its ports lead to, in order. */
export function partStates(
  parts: readonly Part[],
  links: readonly {
    readonly from: { readonly node: string; readonly port: string };
    readonly to: { readonly node: string; readonly port: string };
  }[],
  others: readonly { readonly id: string; readonly name: string; readonly settings?: string }[],
): readonly PartState[] {
  const neighbours = (id: string): string =>
    links
      .flatMap(({ from, to }) => [
        ...(from.node === id ? [`${from.port}-${to.node}.${to.port}`] : []),
        ...(to.node === id ? [`${to.port}-${from.node}.${from.port}`] : []),
      ])
      .sort(byNumber)
      .join(' ');
  return [
    ...parts.map((part) => ({
      ...{ id: `part:${part.id}`, name: part.name },
      state: `${part.kind} ${settingsOf(part)} ${neighbours(`part:${part.id}`)}`.trim(),
    })),
    ...others.map(({ id, name, settings = '' }) => ({ id, name, state: `${settings} ${neighbours(id)}`.trim() })),
  ];
}
/** Figures that say what a part is, not what it loses: a loss that is typed anew is the same part. */
const SETTINGS = ['throws', 'outputs', 'leakDbm', 'surviveDbm', 'mostDbm'] as const;
const settingsOf = ({ figures, choices }: Part): string =>
  [
    ...SETTINGS.flatMap((name) => (name in figures ? [`${name}=${figures[name]}`] : [])),
    ...['drive', 'receive', 'transmit', 'rest'].flatMap((name) =>
      name in choices ? [`${name}=${choices[name]}`] : [],
    ),
  ].join(',');
/** part:2 before part:10, so that numbers given anew in the same order leave the text in order. */
const byNumber = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });
