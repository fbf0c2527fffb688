export {
  featureDistance,
  leastPoints,
  planBearingDeg,
  planDistance,
  type PlanPoint,
  PLOT_KINDS,
  PLOT_NAMES,
  PLOT_SHAPES,
  type PlotFeature,
  type PlotKind,
  snapped,
} from './feature';
export { plotHorizon } from './horizon';
export { cableRunM, earthDistance, type Finding, type Layout, layoutOf, plotRoom, supportFindings } from './layout';
