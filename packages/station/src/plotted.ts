import type { PlotFeature } from '@velvet-reed/core/plot';
import type { StationData } from './record';

/** Features of the plan as the core wants them. */
export const plotFeaturesOf = (data: StationData): readonly PlotFeature[] =>
  data.plotFeatures.map((feature) => ({ ...feature, id: String(feature.id) }));
