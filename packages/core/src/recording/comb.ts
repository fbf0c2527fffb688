import { median } from '../numeric/statistics';
import type { Spectrum } from '../formats/spectrum-csv';

/** A carrier that stands out of a spectrum. */
export interface SpectrumLine {
  readonly freqHz: number;
  readonly levelDb: number;
  /** Over the median around it. */
  readonly riseDb: number;
}

/** Carriers at equal spacing: usually one source. */
export interface Comb {
  readonly spacingHz: number;
  readonly firstHz: number;
  readonly count: number;
  /** Share of the places between first and last that hold a carrier. */
  readonly share: number;
}

/** A line stands this far over the median of so many neighbours each side. */
const LEAST_RISE_DB = 6;
const NEIGHBOURS = 40;
const MOST_LINES = 120;

/** Lines of a spectrum, strongest first: local maxima well over their surroundings, placed between bins by a parabola. */
export function spectrumLines({ freqHz, levelDb }: Spectrum): readonly SpectrumLine[] {
  const lines: SpectrumLine[] = [];
  for (let i = 1; i + 1 < levelDb.length; i += 1) {
    const [left, top, right] = [levelDb[i - 1], levelDb[i], levelDb[i + 1]];
    if (top < left || top <= right) continue;
    const riseDb = top - median(levelDb.slice(Math.max(0, i - NEIGHBOURS), i + NEIGHBOURS + 1));
    if (riseDb < LEAST_RISE_DB) continue;
    const bend = left - 2 * top + right;
    const off = bend < 0 ? (left - right) / (2 * bend) : 0;
    lines.push({ freqHz: freqHz[i] + off * (freqHz[i + 1] - freqHz[i]), levelDb: top, riseDb });
  }
  return lines.sort((a, b) => b.riseDb - a.riseDb).slice(0, MOST_LINES);
}

/** Carriers that a comb has at least, and the share of its places that must hold one. */
const LEAST_TEETH = 4;
const LEAST_SHARE = 0.7;

/**
 * The comb that explains most lines of a spectrum; undefined where none does.
 * @param binHz resolution: teeth lie within one bin and a half of their place.
 */
export function combIn(lines: readonly SpectrumLine[], binHz: number): Comb | undefined {
  const places = lines.map(({ freqHz }) => freqHz).sort((a, b) => a - b);
  const near = 1.5 * binHz;
  const holds = (hz: number): number | undefined => {
    let [low, high] = [0, places.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (places[middle] < hz - near) low = middle + 1;
      else high = middle;
    }
    return places[low] !== undefined && places[low] <= hz + near ? places[low] : undefined;
  };
  let best: (Comb & { readonly score: number }) | undefined;
  for (let i = 0; i < places.length; i += 1)
    for (let j = i + 1; j < places.length; j += 1) {
      let spacing = places[j] - places[i];
      if (spacing < 4 * binHz) continue;
      let [at, number, teeth] = [places[j], 1, 2];
      // each tooth that is found makes the spacing more exact; two empty places in a row end the comb
      for (let missing = 0; missing < 2;) {
        const found = holds(at + spacing);
        number += 1;
        if (found === undefined) {
          missing += 1;
          at += spacing;
          continue;
        }
        missing = 0;
        at = found;
        teeth += 1;
        spacing = (found - places[i]) / number;
      }
      const slots = Math.round((at - places[i]) / spacing) + 1;
      const last = slots - 1 - (holds(places[i] + (slots - 1) * spacing) === undefined ? 2 : 0);
      const share = teeth / Math.max(teeth, last + 1);
      if (teeth < LEAST_TEETH || share < LEAST_SHARE) continue;
      const score = teeth * share;
      if (!best || score > best.score + 0.5 || (score > best.score - 0.5 && spacing > 1.5 * best.spacingHz))
        best = { spacingHz: spacing, firstHz: places[i], count: teeth, share, score };
    }
  if (!best) return undefined;
  const { score: _, ...comb } = best;
  return comb;
}
