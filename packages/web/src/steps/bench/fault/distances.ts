import { CoreError } from '@velvet-reed/core/errors';
import { type DistancePlot, distanceToFault, type FeedLine } from '@velvet-reed/core/sweep';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** What a sweep says of the places along its line, or why it cannot. */
export function distancesOf(
  one: LoadedSweep | undefined,
  line: FeedLine,
): { readonly plot?: DistancePlot; readonly fault?: string } {
  if (!one) return {};
  if (!one.header.phaseKnown) return { fault: 'This sweep has SWR only: distances need the phase. Export S11.' };
  try {
    return { plot: distanceToFault(one.sweep, line, line.lengthM) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}
