import { VACUUM_PERMITTIVITY_F_PER_M } from '../units/constants';
import type { Mesh } from './mesh';
import type { WireModel } from './model';
import { gaussPoints } from './pair';
import { wireSurfaceImpedance } from './wire-loss';

// named once: hot loops must not look them up on a global
const { cos, log, sin } = Math;

const LOSS_POINTS = gaussPoints(6);

/** Adds conductor loss z_i ∫φφ and insulation −(1/jωε₀)(1 − 1/ε_r) ln(b/a)/2π ∫φ̇φ̇ of one segment to its own block. */
export function distributedTerms(
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  k: number,
): (sum: Float64Array, segment: number) => void {
  const omega = 2 * Math.PI * freqHz;
  const perWire = model.wires.map((wire) => {
    const surface = wireSurfaceImpedance(wire.radiusM, wire.conductivitySPerM, freqHz);
    let sr = 0;
    let si = 0;
    if (wire.insulation) {
      const { outerRadiusM, relPermittivity, lossTangent } = wire.insulation;
      // 1 − 1/ε with ε = ε_r(1 − j tanδ); −1/(jωε₀) = j/(ωε₀)
      const den = relPermittivity * (1 + lossTangent ** 2);
      const factor = log(outerRadiusM / wire.radiusM) / (2 * Math.PI * omega * VACUUM_PERMITTIVITY_F_PER_M);
      const re = 1 - 1 / den;
      const im = -lossTangent / den;
      sr = -im * factor;
      si = re * factor;
    }
    return { zr: surface.re, zi: surface.im, sr, si };
  });
  return (sum, segment) => {
    const { zr, zi, sr, si } = perWire[mesh.wireOf[segment]];
    if (zr === 0 && zi === 0 && sr === 0 && si === 0) return;
    const length = mesh.lengthM[segment];
    const sinKl = sin(k * length);
    for (let g = 0; g < LOSS_POINTS.at.length; g += 1) {
      const s = length * LOSS_POINTS.at[g];
      const w = length * LOSS_POINTS.weight[g];
      const phi = [sin(k * (length - s)) / sinKl, sin(k * s) / sinKl];
      const slope = [(-k * cos(k * (length - s))) / sinKl, (k * cos(k * s)) / sinKl];
      for (let i = 0; i < 2; i += 1)
        for (let j = 0; j < 2; j += 1) {
          const pp = w * phi[i] * phi[j];
          const dd = w * slope[i] * slope[j];
          sum[4 * i + 2 * j] += zr * pp + sr * dd;
          sum[4 * i + 2 * j + 1] += zi * pp + si * dd;
        }
    }
  };
}
