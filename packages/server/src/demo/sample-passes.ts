import { satellitePasses, type OrbitalElements, type Position } from '@velvet-reed/core/site';

/** Days before the elements' epoch that were listened to. */
const DAYS = 7;
const DAY_MS = 86_400_000;

/** A week of rated passes: low ones broken, high ones whole, as a listener behind trees would have it. Made up. */
export function weekOfPasses(elements: OrbitalElements, site: Position, epochMs: number) {
  const passes = satellitePasses(elements, site, { fromMs: epochMs - DAYS * DAY_MS, toMs: epochMs, leastDeg: 10 });
  return passes
    .filter((_, i) => i % 2 === 0)
    .map(({ riseMs, highestDeg }, i) => ({
      ...{ riseMs: Math.round(riseMs), highestDeg: Number(highestDeg.toFixed(1)) },
      rating: Math.max(0, Math.min(5, Math.round(highestDeg / 16 + (i % 3) - 1))),
      note: highestDeg < 20 ? 'behind the trees' : '',
    }));
}
