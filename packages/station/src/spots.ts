import { type Spot, spotRoom } from '@velvet-reed/core/choose';
import { featureDistance, plotRoom } from '@velvet-reed/core/plot';
import { plotFeaturesOf } from './plotted';
import type { StationData } from './record';

/** What nobody said yet: the run and the height as they were entered, in the open, so far from the house as nobody knows. */
const UNSAID = 'place';

/** How far the supports of the plan stand from the house, the farthest; undefined without a house. */
function plottedDistanceM(data: StationData): number | undefined {
  const features = plotFeaturesOf(data);
  const houses = features.filter(({ kind }) => kind === 'house');
  const supports = features.filter(({ kind }) => kind === 'support');
  if (houses.length === 0 || supports.length === 0) return undefined;
  return Math.max(...supports.map((support) => Math.min(...houses.map((house) => featureDistance(support, house)))));
}

const known = new WeakMap<StationData, readonly Spot[]>();

/** Spots where an antenna may hang here: as entered, the garden by the Plot where it has supports; where nothing was entered one spot in the open. */
export function spotsOf(data: StationData): readonly Spot[] {
  const found = known.get(data) ?? spotsFrom(data);
  known.set(data, found);
  return found;
}

function spotsFrom(data: StationData): readonly Spot[] {
  const room = plotRoom(plotFeaturesOf(data));
  const distanceM = plottedDistanceM(data);
  const byPlot = room && {
    spanM: room.spanM,
    heightM: room.heightM,
    ...(distanceM === undefined ? {} : { distanceM }),
  };
  const entered = data.spots.map((one): Spot => ({
    ...{ id: String(one.id), name: one.name, kind: one.kind },
    ...{ spanM: one.spanM, widthM: one.widthM, heightM: one.heightM },
    ...(one.distanceM === null ? {} : { distanceM: one.distanceM }),
  }));
  if (entered.length === 0) {
    const { spanM, heightM } = data.station;
    return [{ ...{ id: UNSAID, name: 'The place', kind: 'garden', spanM, widthM: 0, heightM }, ...byPlot }];
  }
  const drawn = byPlot && entered.find(({ kind }) => kind === 'garden' || kind === 'trees');
  return entered.map((one) => (one === drawn ? { ...one, widthM: 0, ...byPlot } : one));
}

/** Whether somebody said where antennas may hang. */
export const spotsSaid = (data: StationData): boolean => data.spots.length > 0;

/** The spot at which an antenna hangs; undefined: nobody said, and there is more than one. */
export function spotOfAntenna(data: StationData, antennaId: number): Spot | undefined {
  const spots = spotsOf(data);
  const { spotId } = data.antennas.find(({ id }) => id === antennaId) ?? { spotId: null };
  return spotId === null ? (spots.length === 1 ? spots[0] : undefined) : spots.find(({ id }) => id === String(spotId));
}

/** The spot with the longest run. */
export const widestSpot = (data: StationData): Spot =>
  spotsOf(data).reduce((widest, one) => (spotRoom(one).spanM > spotRoom(widest).spanM ? one : widest));
