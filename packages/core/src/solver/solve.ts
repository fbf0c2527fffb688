import { add, complex, divide, multiply, type Complex } from '../numeric/complex';
import { factorInPlace, type Factored } from '../numeric/complex-solve';
import { factorSymmetric } from '../numeric/symmetric-solve';
import { imageRange } from './images';
import { fillByKernel, type FillHelp } from './fill-kernel';
import { fillImpedanceMatrix } from './impedance-matrix';
import type { CurrentRow, Mesh } from './mesh';
import type { LumpedLoad, WireModel } from './model';
import { groundTable, type GroundTable } from './ground-table';

/** What the wires do at one frequency. */
export interface Solution {
  readonly model: WireModel;
  readonly mesh: Mesh;
  readonly freqHz: number;
  /** Open-circuit impedances between ports, Ω: V = Z·I. */
  readonly impedance: readonly (readonly Complex[])[];
  /** For each port: the unknown currents with 1 A (peak) into that port and the others open, [re, im, …]. */
  readonly currents: readonly Float64Array[];
}

/** Impedance of a lumped load, Ω. */
export function loadImpedance(load: LumpedLoad, freqHz: number): Complex {
  const omega = 2 * Math.PI * freqHz;
  const parts: Complex[] = [];
  if (load.ohm !== undefined) parts.push(complex(load.ohm));
  if (load.henry !== undefined) parts.push(complex(0, omega * load.henry));
  if (load.farad !== undefined && load.farad > 0) parts.push(complex(0, -1 / (omega * load.farad)));
  if (parts.length === 0) return complex(0);
  if (!load.parallel) return parts.reduce(add);
  if (parts.some((part) => part.re === 0 && part.im === 0)) return complex(0);
  return divide(complex(1), parts.map((part) => divide(complex(1), part)).reduce(add));
}

/** Current through a row of unknowns. */
export function rowCurrent(row: CurrentRow, currents: Float64Array): Complex {
  let [re, im] = [0, 0];
  row.unknowns.forEach((unknown, i) => {
    re += row.signs[i] * currents[2 * unknown];
    im += row.signs[i] * currents[2 * unknown + 1];
  });
  return { re, im };
}

/** Adds every lumped load to the matrix: Z_L·c·cᵀ. */
function addLoads(z: Float64Array, model: WireModel, mesh: Mesh, freqHz: number): void {
  mesh.loads.forEach((row, i) => {
    const value = loadImpedance(model.loads[i], freqHz);
    row.unknowns.forEach((u, a) =>
      row.unknowns.forEach((v, b) => {
        const sign = row.signs[a] * row.signs[b];
        z[2 * (u * mesh.unknowns + v)] += sign * value.re;
        z[2 * (u * mesh.unknowns + v) + 1] += sign * value.im;
      }),
    );
  });
}

/** Inverse of a small complex matrix, by the same elimination as the large one. */
function inverted(matrix: readonly (readonly Complex[])[]): Complex[][] {
  const n = matrix.length;
  if (n === 1) return [[divide(complex(1), matrix[0][0])]];
  const flat = new Float64Array(2 * n * n);
  matrix.forEach((row, i) =>
    row.forEach((value, j) => {
      flat[2 * (i * n + j)] = value.re;
      flat[2 * (i * n + j) + 1] = value.im;
    }),
  );
  const factored = factorInPlace(flat, n);
  const columns = matrix.map((_, j) => {
    const b = new Float64Array(2 * n);
    b[2 * j] = 1;
    factored.solveInto(b);
    return b;
  });
  return matrix.map((_, i) => columns.map((column) => complex(column[2 * i], column[2 * i + 1])));
}

/** Ground integrals for a mesh at one frequency; none are needed in free space and over perfect ground. */
const groundTableFor = ({ ground }: WireModel, mesh: Mesh, freqHz: number): GroundTable | undefined =>
  ground.type === 'real' ? groundTable(ground, freqHz, imageRange(mesh)) : undefined;

/** How a matrix is factored; another implementation can be handed in. */
export type Factor = (matrix: Float64Array, n: number) => Factored;

/** How a matrix is filled; another implementation can be handed in. The table of the ground is made when it is asked for. */
export type Fill = (
  z: Float64Array,
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  table: () => GroundTable | undefined,
) => void;
/** Fills by the kernel where there is one, with what helps it. */
export const fillWith =
  (help?: FillHelp): Fill =>
  (z, model, mesh, freqHz, table) => {
    const own = table();
    if (!fillByKernel(z, model, mesh, freqHz, own, help)) fillImpedanceMatrix(z, model, mesh, freqHz, own);
  };

/**
 * Memory that a solve of a mesh takes at its height, bytes: the matrix here, in the kernel that fills it and in the one that factors it, its factors, and
 * three lists of at most all pairs.
 */
export const solveBytes = ({ unknowns }: Pick<Mesh, 'unknowns'>): number => (4 * 16 + 18) * unknowns * unknowns;

/**
 * Currents and port impedances at one frequency, by the Galerkin moment method with piecewise sinusoids.
 * @throws NotConvergedError when the equations have no solution.
 */
export function solveAt(
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  {
    table = () => groundTableFor(model, mesh, freqHz),
    factor = factorSymmetric,
    fill = fillWith(),
  }: { readonly table?: () => GroundTable | undefined; readonly factor?: Factor; readonly fill?: Fill } = {},
): Solution {
  const n = mesh.unknowns;
  const z = new Float64Array(2 * n * n);
  fill(z, model, mesh, freqHz, table);
  addLoads(z, model, mesh, freqHz);
  const factored = factor(z, n);
  const byVoltage = mesh.ports.map((row) => {
    const x = new Float64Array(2 * n);
    row.unknowns.forEach((unknown, i) => (x[2 * unknown] += row.signs[i]));
    factored.solveInto(x);
    return x;
  });
  const admittance = mesh.ports.map((row) => byVoltage.map((x) => rowCurrent(row, x)));
  const impedance = inverted(admittance);
  // 1 A into port p and none into the others means the voltages of column p of Z
  const currents = mesh.ports.map((_, p) => {
    const x = new Float64Array(2 * n);
    byVoltage.forEach((one, v) => {
      const { re, im } = impedance[v][p];
      for (let i = 0; i < n; i += 1) {
        x[2 * i] += re * one[2 * i] - im * one[2 * i + 1];
        x[2 * i + 1] += re * one[2 * i + 1] + im * one[2 * i];
      }
    });
    return x;
  });
  return { model, mesh, freqHz, impedance, currents };
}

/** Impedance at a port with the others open. */
export const inputImpedance = (solution: Solution, port = 0): Complex => solution.impedance[port][port];

/** S₂₁ between two ports on a real reference, complex. */
export function transmission(solution: Solution, referenceOhm: number): Complex {
  const [[z11, z12], [z21, z22]] = solution.impedance;
  const den = add(
    multiply(add(z11, complex(referenceOhm)), add(z22, complex(referenceOhm))),
    multiply(complex(-1), multiply(z12, z21)),
  );
  return divide(multiply(complex(2 * referenceOhm), z21), den);
}

/** Largest power gain from port 1 to port 2, both matched to the conjugate, as a ratio. Source: Linville; Pozar ch. 12. */
export function maximumGain(solution: Solution): number {
  const [[z11, z12], [z21, z22]] = solution.impedance;
  const product = multiply(z12, z21);
  const b = 2 * z11.re * z22.re - product.re;
  return (z21.re ** 2 + z21.im ** 2) / (b + Math.sqrt(Math.max(0, b * b - product.re ** 2 - product.im ** 2)));
}
