import { magnitude } from '@velvet-reed/core/numeric';
import {
  findPeak,
  findResonance,
  gainRatio,
  type Ground,
  inputImpedance,
  lostShare,
  type LumpedLoad,
  maximumGain,
  type Mesh,
  meshOf,
  nearFieldPerRootWatt,
  openCircuitVoltage,
  type Point,
  radiatedShare,
  type Solution,
  solveAt,
  transmission,
  type Wire,
  type WireModel,
} from '@velvet-reed/core/solver';
import { powerDb } from '@velvet-reed/core/units';
import { CaseInputError, Inputs } from './inputs';

/** Finer than the rule: a check file asks for the converged answer. */
const DENSITY = 2;
const TAKEOFF_STEP_DEG = 0.25;

const point = (inputs: Inputs, name: string): Point => {
  const [x, y, z] = inputs.numbers(name);
  return [x, y, z];
};

function wireOf(inputs: Inputs): Wire {
  const insulation = inputs.has('insulation') ? inputs.group('insulation') : undefined;
  return {
    from: point(inputs, 'p1'),
    to: point(inputs, 'p2'),
    radiusM: inputs.number('radius'),
    ...(inputs.has('sigma') ? { conductivitySPerM: inputs.number('sigma') } : {}),
    ...(insulation
      ? {
          insulation: {
            outerRadiusM: insulation.number('outer_radius'),
            relPermittivity: insulation.number('eps_r'),
            lossTangent: insulation.number('tan_delta', 0),
          },
        }
      : {}),
  };
}

const loadOf = (inputs: Inputs): LumpedLoad => ({
  wire: inputs.number('wire'),
  position: inputs.number('pos'),
  ...(inputs.has('R') ? { ohm: inputs.number('R') } : {}),
  ...(inputs.has('L') ? { henry: inputs.number('L') } : {}),
  ...(inputs.has('C') ? { farad: inputs.number('C') } : {}),
  parallel: inputs.flag('par'),
});

function groundOf(inputs: Inputs): Ground {
  const type = inputs.text('type');
  if (type === 'free') return { type: 'free' };
  if (type === 'pec') return { type: 'perfect' };
  if (type === 'real')
    return { type: 'real', relPermittivity: inputs.number('eps_r'), conductivitySPerM: inputs.number('sigma') };
  throw new CaseInputError(`The ground "${type}" is not known. Use free, pec or real.`);
}

function modelOf(inputs: Inputs): WireModel {
  return {
    wires: inputs.groups('wires').map(wireOf),
    ports: inputs.groups('feeds').map((feed) => ({ wire: feed.number('wire'), position: feed.number('pos') })),
    loads: inputs.has('loads') ? inputs.groups('loads').map(loadOf) : [],
    ground: groundOf(inputs.group('ground')),
  };
}

/** Answers of one quantity: one number or several, in the order of the check file. */
type Quantity = (solution: Solution, check: Inputs) => readonly number[];

const direction = (check: Inputs): readonly [number, number] => [check.number('az', 0), check.number('el', 0)];
const gainDbi = (solution: Solution, az: number, el: number): number => powerDb(gainRatio(solution)(az, el));

/** Elevation of the largest gain at one azimuth, on the scan that the check file's conventions name. */
function takeoff(solution: Solution, az: number): { el: number; gainDbi: number } {
  const gain = gainRatio(solution);
  let [el, best] = [0, -1];
  for (let e = solution.model.ground.type === 'free' ? -90 : 0; e <= 90; e += TAKEOFF_STEP_DEG) {
    const value = gain(az, e);
    if (value > best) [el, best] = [e, value];
  }
  return { el, gainDbi: powerDb(best) };
}

/** Unit vector of the electric field: "theta" (points down), "phi", or x, y, z. */
function polarisationOf(check: Inputs, azimuthDeg: number, elevationDeg: number): Point {
  if (Array.isArray(check.raw('pol'))) return point(check, 'pol');
  const [az, el] = [(azimuthDeg * Math.PI) / 180, (elevationDeg * Math.PI) / 180];
  const name = check.text('pol');
  if (name === 'theta') return [Math.sin(el) * Math.cos(az), Math.sin(el) * Math.sin(az), -Math.cos(el)];
  if (name === 'phi') return [-Math.sin(az), Math.cos(az), 0];
  throw new CaseInputError(`The polarisation "${name}" is not known. Use theta, phi or a unit vector.`);
}

const QUANTITIES: Readonly<Record<string, Quantity>> = {
  Zin: (solution) => {
    const z = inputImpedance(solution);
    return [z.re, z.im];
  },
  Z21: (solution) => [solution.impedance[1][0].re, solution.impedance[1][0].im],
  S21_dB: (solution) => [2 * powerDb(magnitude(transmission(solution, 50)))],
  Gmax_dB: (solution) => [powerDb(maximumGain(solution))],
  gain_dBi: (solution, check) => [gainDbi(solution, ...direction(check))],
  FB_dB: (solution, check) => {
    const [az, el] = direction(check);
    return [gainDbi(solution, az, el) - gainDbi(solution, az + 180, el)];
  },
  takeoff_deg: (solution, check) => [takeoff(solution, check.number('az', 0)).el],
  maxgain_el: (solution, check) => [findPeak(solution, 0, [check.number('az', 0)]).gainDbi],
  efficiency: (solution) => [1 - lostShare(solution)],
  rad_eff: (solution) => [radiatedShare(solution)],
  Voc_mag: (solution, check) => {
    const [azimuthDeg, elevationDeg] = direction(check);
    const polarisation = polarisationOf(check, azimuthDeg, elevationDeg);
    return [magnitude(openCircuitVoltage(solution, { azimuthDeg, elevationDeg, polarisation }))];
  },
  nearE_per_W: (solution, check) => [nearFieldPerRootWatt(solution, point(check, 'point')).e],
  nearH_per_W: (solution, check) => [nearFieldPerRootWatt(solution, point(check, 'point')).h],
};

/** One model with its solutions by frequency, so that checks at one frequency share one solve. */
function solver(model: WireModel): (freqHz: number) => Solution {
  const solutions = new Map<number, Solution>();
  const meshes = new Map<number, Mesh>();
  return (freqHz) => {
    const known = solutions.get(freqHz);
    if (known) return known;
    const octave = Math.ceil(Math.log2(freqHz) * 8);
    const mesh = meshes.get(octave) ?? meshOf(model, 2 ** (octave / 8), DENSITY);
    meshes.set(octave, mesh);
    const solution = solveAt(model, mesh, freqHz);
    solutions.set(freqHz, solution);
    return solution;
  };
}

const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : [value]);

/** Checks of one wire case: the first that disagrees, or undefined when all agree. */
function firstFault(entry: Record<string, unknown>): string | undefined {
  const inputs = new Inputs(entry);
  const at = solver(modelOf(inputs));
  const checks = inputs.groups('checks');
  if (checks.length === 0) return 'the case expects nothing';
  for (const [i, check] of checks.entries()) {
    const name = check.text('q');
    let got: readonly number[];
    if (name === 'resonance') {
      const found = findResonance((freqHz) => inputImpedance(at(freqHz)), check.number('f_guess'));
      got = [found.freqHz, found.resistanceOhm];
    } else if (Object.hasOwn(QUANTITIES, name)) got = QUANTITIES[name](at(check.number('f')), check);
    else return `quantity ${name} is not known here`;
    const expected = list(check.raw('value'));
    const tolerance = list(check.raw('tol'));
    const agrees = expected.every((value, k) => {
      const allowed = tolerance[k] ?? tolerance[0];
      return typeof value === 'number' && typeof allowed === 'number' && Math.abs(got[k] - value) <= allowed;
    });
    if (!agrees || expected.length !== got.length)
      return `check ${i + 1} ${name} got ${JSON.stringify(got)} expected ${JSON.stringify(check.raw('value'))} tolerance ${JSON.stringify(check.raw('tol'))}`;
  }
  return undefined;
}

/** Runs one wire case; a refusal of the solver is a fault too. */
export function wireFault(entry: Record<string, unknown>): string | undefined {
  try {
    return firstFault(entry);
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}
