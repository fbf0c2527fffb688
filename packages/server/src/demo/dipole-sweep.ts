import { dipoleImpedance, dipoleResonanceHz } from '@velvet-reed/core/antenna';
import { writeTouchstone } from '@velvet-reed/core/formats';
import { alongLine, reflectionOf } from '@velvet-reed/core/line';
import { complex } from '@velvet-reed/core/numeric';
import { repeatableNoise } from './sample-noise';

/**
 * A sweep of a dipole that is a little too long, seen through a short jumper cable with an analyser's noise: sample data for the demo
 * station. @param lengthM overall length of the straight dipole; ground and house add 3 % electrically.
 */
export function dipoleSweepFile(lengthM: number, startHz: number, stopHz: number, points: number): string {
  const noise = repeatableNoise(20260310);
  const slowed = lengthM * 1.03;
  const freqHz = Float64Array.from({ length: points }, (_, i) => startHz + ((stopHz - startHz) * i) / (points - 1));
  const gamma = Array.from(freqHz, (freq) => {
    const z = dipoleImpedance(slowed, 0.001, freq);
    const seen = alongLine(reflectionOf(complex(z.re * 0.9 + 2, z.im), 50), 0.02, (0.3 * freq) / (0.66 * 299_792_458));
    return complex(seen.re + 0.002 * noise(), seen.im + 0.002 * noise());
  });
  const dip = dipoleResonanceHz(slowed, 0.002);
  const body = writeTouchstone(
    { freqHz, re: Float64Array.from(gamma, (g) => g.re), im: Float64Array.from(gamma, (g) => g.im), referenceOhm: 50 },
    { unit: 'MHz' },
  );
  return `! Sample sweep of an invented dipole, resonance near ${(dip / 1e6).toFixed(2)} MHz\n${body}`;
}
