export { activeStage, cascadeIntercepts, cascadeNoiseFactor, noiseTemperatureK, passiveStage } from './cascade';
export { joinRow, type Plugged, type PlugRow, readAdapters, readConnector } from './connectors';
export { CONVERTER_ASSUMED, converterChain, downConversion } from './converter';
export { dcFeed, type DcPath, dcPath, type DcStage } from './dc-path';
export { type Feature, featureConflicts, FEATURES } from './features';
export { readGainRows } from './gain-rows';
export { type GainSetting, gainSettingsText, isGainSetting, MOST_GAINS, readGainSettings } from './gain-settings';
export { checkRouting, readRoutes } from './routing';
export { intermodAtAntenna } from './intermod';
export { MOST_PARTS, type SearchGoal, searchOrder, type SearchResult, type ShelfPart } from './order-search';
export {
  biasTee,
  diodeLimiter,
  lossAheadCostDb,
  minimumLossPad,
  resistiveSplitter,
  symmetricPad,
  wilkinson,
} from './pads';
export { analyseBands, analysePath, type PathAnalysis } from './plan';
export type { PathProduct } from './products';
export type { PathQuestion, PathReceiver, PathSignal } from './question';
export {
  directInput,
  RECOMMENDED_ROOM_DB,
  attenuatorTest,
  converterFloor,
  dynamicRange,
  effectiveNoiseFigureDb,
  foldAlias,
  fullScaleHeadroom,
  noiseRise,
  preselectionDb,
  requiredPreampGain,
} from './receiver';
export { arrivesAtHz, highestHz, reaches, reachesThrough } from './reach';
export { atWorkingGains, RECEIVER_KINDS, type ReceiverFigures } from './receiver-kinds';
export { frequencyError, gainByMeasurement, heardAt, setupCard, setupSentence, type SideBand } from './setup-card';
export { padFinding, productDropDb, spurSources } from './spur-finder';
export { CABLE_CHOICES, OWN_CABLE } from './kinds/line';
export { partStage } from './kinds/part';
export { limiterFigures } from './limiter';
export { splitterLossDb } from './kinds/splitter';
export { isChoice, type StageField, type StageValues } from './stage-kind';
export { figureFaults, STAGE_KINDS, stageKind, type StageKind } from './stage-kinds';
export {
  ASSUMED_NOISE_FIGURE_DB,
  frequenciesAlong,
  frequencyPlan,
  gainsAlong,
  type PathStage,
  stageGainDb,
} from './stages';
export { atWorkingGain, bandsAtWorkingGain } from './working-gain';
export { ALIKE_DB, overNoise, type PathVerdict, pathVerdict, snrLossDigits } from './verdict';
export { gaussianClipping, mixedBehindPad, reciprocalMixing } from './limits';
