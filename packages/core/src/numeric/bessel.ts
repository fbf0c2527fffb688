// named once: hot loops must not look them up on a global
const { cos, sqrt } = Math;

/**
 * Bessel functions J0 and J1 of a real argument ≥ 0, to 5e-8. Source: Abramowitz & Stegun, Handbook of Mathematical Functions, 9.4.1 to
 * 9.4.6 (coefficients from memory; checked against the integral representation in the tests).
 */
export function besselJ0(x: number): number {
  if (x < 3) {
    const t = (x / 3) ** 2;
    return 1 + t * (-2.2499997 + t * (1.2656208 + t * (-0.3163866 + t * (0.0444479 + t * (-0.0039444 + t * 0.00021)))));
  }
  const u = 3 / x;
  const size =
    0.79788456 +
    u * (-0.00000077 + u * (-0.0055274 + u * (-0.00009512 + u * (0.00137237 + u * (-0.00072805 + u * 0.00014476)))));
  const phase =
    x -
    0.78539816 +
    u * (-0.04166397 + u * (-0.00003954 + u * (0.00262573 + u * (-0.00054125 + u * (-0.00029333 + u * 0.00013558)))));
  return (size * cos(phase)) / sqrt(x);
}

export function besselJ1(x: number): number {
  if (x < 3) {
    const t = (x / 3) ** 2;
    return (
      x *
      (0.5 +
        t *
          (-0.56249985 + t * (0.21093573 + t * (-0.03954289 + t * (0.00443319 + t * (-0.00031761 + t * 0.00001109))))))
    );
  }
  const u = 3 / x;
  const size =
    0.79788456 +
    u * (0.00000156 + u * (0.01659667 + u * (0.00017105 + u * (-0.00249511 + u * (0.00113653 - u * 0.00020033)))));
  const phase =
    x -
    2.35619449 +
    u * (0.12499612 + u * (0.0000565 + u * (-0.00637879 + u * (0.00074348 + u * (0.00079824 - u * 0.00029166)))));
  return (size * cos(phase)) / sqrt(x);
}
