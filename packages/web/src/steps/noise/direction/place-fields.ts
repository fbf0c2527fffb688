import { CoreError } from '@velvet-reed/core/errors';
import { toPlan } from '@velvet-reed/core/formats';
import { parsePosition, type Position } from '@velvet-reed/core/site';

/** Where somebody stood: typed coordinates or a locator, as m east and north of the middle of the plan. */
export function placeFromText(
  text: string,
  origin: Position,
): { readonly xM: number; readonly yM: number } | { readonly fault: string } {
  try {
    const { latDeg, lonDeg } = parsePosition(text);
    const [xM, yM] = toPlan([lonDeg, latDeg], origin);
    if (Math.hypot(xM, yM) > FARTHEST_M)
      return {
        fault: `That is ${Math.round(Math.hypot(xM, yM) / 1000)} km away; bearings hold here to 20 km. Correct it.`,
      };
    return { xM: Math.round(10 * xM) / 10, yM: Math.round(10 * yM) / 10 };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}

const FARTHEST_M = 20_000;
