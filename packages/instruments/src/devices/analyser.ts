import { add, complex, type Complex, divide, fromPolar, multiply, subtract } from '@velvet-reed/core/numeric';
import { standardReflections, type Standards } from '@velvet-reed/core/sweep';
import {
  formatCommands,
  numberSetting,
  numbersReply,
  PLAIN,
  spanSettings,
  type Device,
  type NumberFormat,
  type Outcome,
} from '../scpi/instrument';
import { randomFrom } from '../world/random';
import { trueReflections, type Lab } from '../world/lab';
import { handCommands, type OnBench } from './hands';

/** State of the one-port analyser between two messages. */
export interface Analyser extends OnBench {
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
  readonly averages: number;
  readonly format: NumberFormat;
  /** Last sweep, [re, im, …]; absent before the first and after a change of settings. */
  readonly taken?: Float64Array;
}

/** What the kit in the stand-in's box really is; its slip of paper says the same. */
export const STAND_IN_KIT: Standards = {
  openFarad: 40e-15,
  openDelayS: 12e-12,
  shortHenry: 0,
  shortDelayS: 14e-12,
  loadOhm: 50,
};
/** Cable between the analyser's bridge and its plug, m of air-equivalent line. */
const INNER_M = 0.24;

const settings = { startHz: 1e6, stopHz: 30e6, points: 201, averages: 1, format: PLAIN };
const range = { least: 10e3, most: 1.5e9, unit: 'frequency' } as const;
const LIMITS = {
  start: { ...range, standard: settings.startHz },
  stop: { ...range, standard: settings.stopHz },
};
export const startAnalyser = (lab: Lab): Analyser => ({ lab, ...settings });

/** The bridge's own errors at a frequency: directivity, source match, tracking; they turn with the cable inside. */
function bridge(freqHz: number, driftDeg: number) {
  const turn = (-720 * freqHz * INNER_M) / 299_792_458 + driftDeg;
  return {
    directivity: add(complex(0.035, -0.012), fromPolar(0.02, turn / 3)),
    sourceMatch: fromPolar(0.06, 40 - turn / 2),
    tracking: fromPolar(0.93, turn),
  };
}

/** A true reflection as the bridge reads it: m = e00 + e10e01·Γ/(1 − e11·Γ). */
const asRead = (gamma: Complex, { directivity, sourceMatch, tracking }: ReturnType<typeof bridge>): Complex =>
  add(directivity, divide(multiply(tracking, gamma), subtract(complex(1), multiply(sourceMatch, gamma))));

/** One sweep of what is plugged on; the noise goes on from the lab's seed. */
function sweep(state: Analyser): { readonly lab: Lab; readonly taken: Float64Array } {
  const { lab, startHz, stopHz, points, averages } = state;
  const freqHz = Float64Array.from(
    { length: points },
    (_, i) => startHz + ((stopHz - startHz) * i) / Math.max(1, points - 1),
  );
  const antenna = lab.plugged === 'antenna' ? trueReflections(lab, freqHz) : undefined;
  const random = randomFrom(lab.seed + lab.sweepsDone * 7877);
  const sigma = lab.world.noise / Math.sqrt(averages);
  const drift = lab.world.driftDeg * lab.sweepsDone;
  const taken = new Float64Array(2 * points);
  freqHz.forEach((freq, i) => {
    const gamma =
      lab.plugged === 'antenna' && antenna
        ? complex(antenna.re[i], antenna.im[i])
        : standardReflections(STAND_IN_KIT, freq)[lab.plugged === 'antenna' ? 'load' : lab.plugged];
    const read = asRead(gamma, bridge(freq, drift));
    taken[2 * i] = read.re + sigma * random.normal();
    taken[2 * i + 1] = read.im + sigma * random.normal();
  });
  return { lab: { ...lab, sweepsDone: lab.sweepsDone + 1 }, taken };
}

const measured = (state: Analyser): Outcome<Analyser> =>
  state.startHz < state.stopHz
    ? { state: { ...state, ...sweep(state) } }
    : { state, fault: '-221,"Settings conflict; start lies above stop"' };

function answered(outcome: Outcome<Analyser>): Outcome<Analyser> {
  const { state, fault } = outcome;
  if (fault) return outcome;
  return state.taken
    ? { state, reply: numbersReply(state.taken, state.format) }
    : { state, fault: '-230,"Data corrupt or stale"' };
}

const changed = (state: Analyser, change: Partial<Analyser>): Analyser => ({ ...state, ...change, taken: undefined });

/** One-port analyser: raw readings, since calibration is the listener's business. */
export const ANALYSER: Device<Analyser> = {
  identity: 'Velvet Reed,stand-in analyser,0,2',
  reset: (state) => ({ ...state, ...settings, taken: undefined }),
  commands: [
    ...spanSettings<Analyser>(changed, LIMITS),
    numberSetting(
      '[:SENSe]:SWEep:POINts',
      (s) => s.points,
      (s, points) => changed(s, { points: Math.round(points) }),
      { least: 2, most: 20_001, standard: settings.points },
    ),
    numberSetting(
      '[:SENSe]:AVERage:COUNt',
      (s) => s.averages,
      (s, averages) => changed(s, { averages: Math.round(averages) }),
      { least: 1, most: 999, standard: settings.averages },
    ),
    { pattern: ':INITiate[:IMMediate]', set: measured },
    { pattern: ':FETCh', query: (state) => answered({ state }) },
    { pattern: ':READ', query: (state) => answered(measured(state)) },
    ...formatCommands<Analyser>(),
    ...handCommands<Analyser>(),
  ],
};
