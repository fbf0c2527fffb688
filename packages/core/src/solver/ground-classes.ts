import type { Ground } from './model';

/** A named sort of ground. */
export interface GroundClass {
  readonly id: string;
  readonly name: string;
  readonly ground: Ground;
}

const real = (relPermittivity: number, conductivitySPerM: number): Ground => ({
  type: 'real',
  relPermittivity,
  conductivitySPerM,
});

/** Ground at HF, in the manner of Recommendation ITU-R P.527 and its usual amateur classes (values from memory; real soil varies by season). */
export const GROUND_CLASSES: readonly GroundClass[] = [
  { id: 'average', name: 'average: pasture, loam (13, 5 mS/m)', ground: real(13, 0.005) },
  { id: 'good', name: 'good: moist, rich soil (20, 30 mS/m)', ground: real(20, 0.03) },
  { id: 'wet', name: 'wet ground, marsh (30, 10 mS/m)', ground: real(30, 0.01) },
  { id: 'medium-dry', name: 'medium dry (15, 1 mS/m)', ground: real(15, 0.001) },
  { id: 'poor', name: 'poor: sandy, rocky, city (5, 1 mS/m)', ground: real(5, 0.001) },
  { id: 'very-dry', name: 'very dry (3, 0.1 mS/m)', ground: real(3, 0.0001) },
  { id: 'fresh-water', name: 'fresh water (80, 3 mS/m)', ground: real(80, 0.003) },
  { id: 'sea', name: 'sea water (80, 5 S/m)', ground: real(80, 5) },
  { id: 'perfect', name: 'perfect conductor', ground: { type: 'perfect' } },
  { id: 'free', name: 'free space, no ground', ground: { type: 'free' } },
];

export const groundClass = (id: string): GroundClass =>
  GROUND_CLASSES.find((one) => one.id === id) ?? GROUND_CLASSES[0];
