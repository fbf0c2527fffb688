/** A complex number; e^{+jωt} throughout. */
export interface Complex {
  readonly re: number;
  readonly im: number;
}

export const complex = (re: number, im = 0): Complex => ({ re, im });
export const add = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });
export const subtract = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im });
export const multiply = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
export const scale = (a: Complex, factor: number): Complex => ({ re: a.re * factor, im: a.im * factor });

/** Quotient by Smith's scaling, which does not overflow where |b|² would (CACM 5 (1962) 435). */
export function divide(a: Complex, b: Complex): Complex {
  if (Math.abs(b.re) >= Math.abs(b.im)) {
    const ratio = b.im / b.re;
    const whole = b.re + b.im * ratio;
    return { re: (a.re + a.im * ratio) / whole, im: (a.im - a.re * ratio) / whole };
  }
  const ratio = b.re / b.im;
  const whole = b.re * ratio + b.im;
  return { re: (a.re * ratio + a.im) / whole, im: (a.im * ratio - a.re) / whole };
}

export const magnitude = (a: Complex): number => Math.hypot(a.re, a.im);
/** Angle in degrees, in (−180, 180]. */
export const angleDeg = (a: Complex): number => (Math.atan2(a.im, a.re) * 180) / Math.PI;
export const fromPolar = (size: number, angleDegrees: number): Complex => ({
  re: size * Math.cos((angleDegrees * Math.PI) / 180),
  im: size * Math.sin((angleDegrees * Math.PI) / 180),
});
/** Both impedances in parallel. */
export const parallel = (a: Complex, b: Complex): Complex => divide(multiply(a, b), add(a, b));
