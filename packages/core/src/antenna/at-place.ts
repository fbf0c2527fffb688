import { CoreError } from '../errors';
import { checkDimensions, dimensionsOf } from './dimensions';
import type { Design, PlaceRoom } from './kind';
import { antennaKind } from './kinds';

/**
 * A design as a place would hold it: as high as the support there, and as long as the run there where a kind's length is free. Dimensions that a
 * person set stay. A kind whose dimensions would leave their range stays as it was.
 */
export function atPlace(design: Design, room: PlaceRoom): Design {
  const kind = antennaKind(design.kind);
  if (!kind.atPlace) return design;
  try {
    const own = kind.atPlace(dimensionsOf(kind.parameters, design), design, room);
    const placed = { ...design, dimensions: { ...own, ...design.dimensions } };
    checkDimensions(kind.parameters, placed);
    return placed;
  } catch (error) {
    if (error instanceof CoreError) return design;
    throw error;
  }
}
