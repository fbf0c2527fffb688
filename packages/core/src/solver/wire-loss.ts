import { complex, divide, multiply, subtract, type Complex } from '../numeric/complex';
import { VACUUM_PERMEABILITY_H_PER_M } from '../units/constants';

/** Beyond this many skin depths of radius the two-term high-frequency form is exact to 1e-4. */
const THICK = 40;

/**
 * Internal impedance of a round wire per metre: z = k_c J₀(k_c a)/(2πaσ J₁(k_c a)) with k_c = (1 − j)/δ. 0 without a conductivity.
 * Source: Ramo, Whinnery & Van Duzer, Fields and Waves, sec. 4.5.
 */
export function wireSurfaceImpedance(radiusM: number, conductivitySPerM: number | undefined, freqHz: number): Complex {
  if (conductivitySPerM === undefined) return complex(0);
  const depth = 1 / Math.sqrt(Math.PI * freqHz * VACUUM_PERMEABILITY_H_PER_M * conductivitySPerM);
  const ratio = radiusM / depth;
  const per = 1 / (2 * Math.PI * radiusM * conductivitySPerM);
  if (ratio > THICK) return complex(per * (1 / depth + 1 / (2 * radiusM)), per / depth);
  // J₁/J₀ by its continued fraction: (z/2)/(1 − (z/2)²/(1·2)/(1 − (z/2)²/(2·3)/…)), from the bottom up
  const z = complex(ratio, -ratio);
  const quarter = complex(0, (-2 * ratio * ratio) / 4);
  let tail = complex(1);
  for (let n = Math.ceil(40 + 3 * ratio); n >= 1; n -= 1)
    tail = subtract(complex(1), divide(complex(quarter.re / (n * (n + 1)), quarter.im / (n * (n + 1))), tail));
  const inverse = divide(multiply(complex(2), tail), z); // J₀/J₁
  return multiply(complex(per / depth, -per / depth), inverse);
}
