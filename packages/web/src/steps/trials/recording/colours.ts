type Rgb = readonly [number, number, number];

/** Colours from quiet to loud: lightness runs one way only, so that they say the same without colour. */
const SCALES: Readonly<Record<'day' | 'night', readonly Rgb[]>> = {
  day: [
    [251, 248, 241],
    [205, 220, 214],
    [120, 172, 168],
    [52, 110, 122],
    [58, 44, 78],
    [22, 12, 30],
  ],
  night: [
    [18, 15, 17],
    [44, 36, 56],
    [96, 66, 104],
    [172, 102, 120],
    [234, 168, 108],
    [255, 244, 218],
  ],
};
const STEPS = 256;

/** A colour for each of 256 steps of level, as bytes R, G, B in turn. */
export function levelColours(theme: 'day' | 'night'): Uint8ClampedArray {
  const stops = SCALES[theme];
  const out = new Uint8ClampedArray(3 * STEPS);
  for (let i = 0; i < STEPS; i += 1) {
    const at = (i / (STEPS - 1)) * (stops.length - 1);
    const low = Math.min(stops.length - 2, Math.floor(at));
    for (let k = 0; k < 3; k += 1) out[3 * i + k] = stops[low][k] + (at - low) * (stops[low + 1][k] - stops[low][k]);
  }
  return out;
}

/** Which step a level has between the darkest and the brightest. */
export const stepOf = (levelDb: number, lowDb: number, highDb: number): number =>
  Math.max(0, Math.min(STEPS - 1, Math.round(((levelDb - lowDb) / Math.max(1, highDb - lowDb)) * (STEPS - 1))));
