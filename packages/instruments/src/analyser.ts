import { alongLine, complex, dipoleImpedance, reflectionOf, type Complex } from '@velvet-reed/core';

/** What stands at the analyser's port: a dipole with faults that the user cannot see. */
export interface HiddenTruth {
  readonly lengthM: number;
  readonly diameterM: number;
  /** Cut error and ground together, as a factor on the electrical length. */
  readonly stretch: number;
  readonly cable: { readonly lengthM: number; readonly velocityFactor: number; readonly lossDbAt10MHz: number };
  /** Largest disturbance of the real and imaginary part. */
  readonly noise: number;
}

/** State of the stand-in between two lines. */
export interface AnalyserState {
  readonly truth: HiddenTruth;
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
  /** State of the noise generator; the same start gives the same readings. */
  readonly seed: number;
  readonly errors: readonly string[];
}

export const startState = (truth: HiddenTruth, seed = 1): AnalyserState => ({
  truth,
  startHz: 1e6,
  stopHz: 30e6,
  points: 101,
  seed,
  errors: [],
});

/** Park & Miller's generator, CACM 31 (1988) 1192. */
const nextSeed = (seed: number): number => (seed * 48271) % 2147483647;
const unit = (seed: number): number => (2 * seed) / 2147483647 - 1;

function reflectionAt(truth: HiddenTruth, freqHz: number): Complex {
  const z = dipoleImpedance(truth.lengthM * truth.stretch, truth.diameterM / 2, freqHz);
  const { lengthM, velocityFactor, lossDbAt10MHz } = truth.cable;
  const lossDb = lossDbAt10MHz * Math.sqrt(freqHz / 10e6);
  return alongLine(reflectionOf(complex(z.re, z.im), 50), lossDb, (freqHz * lengthM) / (velocityFactor * 299_792_458));
}

/** Measures every point; noise continues from the state's seed. */
function sweep(state: AnalyserState): { readonly state: AnalyserState; readonly text: string } {
  let seed = state.seed;
  const words: string[] = [];
  for (let i = 0; i < state.points; i += 1) {
    const freqHz = state.startHz + (state.points === 1 ? 0 : ((state.stopHz - state.startHz) * i) / (state.points - 1));
    const gamma = reflectionAt(state.truth, freqHz);
    const re = nextSeed(seed);
    seed = nextSeed(re);
    words.push(
      (gamma.re + state.truth.noise * unit(re)).toExponential(9),
      (gamma.im + state.truth.noise * unit(seed)).toExponential(9),
    );
  }
  return { state: { ...state, seed }, text: words.join(',') };
}

const SETTINGS = { ':SENS:FREQ:STAR': 'startHz', ':SENS:FREQ:STOP': 'stopHz', ':SENS:SWE:POIN': 'points' } as const;
const LIMITS = { startHz: [1e4, 1.5e9], stopHz: [1e4, 1.5e9], points: [2, 20001] } as const;
const fault = (state: AnalyserState, text: string): { state: AnalyserState } => ({
  state: { ...state, errors: [...state.errors.slice(-15), text] },
});

/**
 * Answers one line of SCPI (IEEE 488.2 common commands, a small set of sweep commands). Pure: the socket is elsewhere.
 * Replies to queries only; faults wait in the error queue (:SYST:ERR?).
 */
export function respond(
  state: AnalyserState,
  line: string,
): { readonly state: AnalyserState; readonly reply?: string } {
  const command = line.trim();
  if (command === '') return { state };
  const upper = command.toUpperCase();
  if (upper === '*IDN?') return { state, reply: 'Velvet Reed,stand-in analyser,0,1' };
  if (upper === '*RST') return { state: startState(state.truth, state.seed) };
  if (upper === '*OPC?') return { state, reply: '1' };
  if (upper === ':SYST:ERR?') {
    const [first, ...rest] = state.errors;
    return { state: { ...state, errors: rest }, reply: first ?? '0,"No error"' };
  }
  if (upper === ':CALC:DATA:SDAT?') {
    if (!(state.startHz < state.stopHz)) return fault(state, '-221,"Settings conflict; start lies above stop"');
    const measured = sweep(state);
    return { state: measured.state, reply: measured.text };
  }
  const match = /^(:[A-Z:]+)(\?|\s+(\S+))$/.exec(upper);
  const name = Object.entries(SETTINGS).find(([header]) => header === match?.[1])?.[1];
  if (!match || !name) return fault(state, '-113,"Undefined header"');
  if (match[2] === '?') return { state, reply: String(state[name]) };
  const value = Number(match[3]);
  const [low, high] = LIMITS[name];
  if (!Number.isFinite(value)) return fault(state, '-104,"Data type error"');
  if (value < low || value > high) return fault(state, '-222,"Data out of range"');
  return { state: { ...state, [name]: name === 'points' ? Math.round(value) : value } };
}
