export { writeCsv } from './csv-out';
export { type FloorReading, readFloorCsv, readMoment } from './floor-csv';
export { readPlot, toLonLat, toPlan, writePlot } from './geojson';
export {
  LOG_COLUMNS,
  PATTERN_CUTS,
  type PatternCut,
  LOG_KINDS,
  type LogKind,
  type LogRows,
  type LogSummary,
  MOST_LOG_ROWS,
  readLogCsv,
  summariseLog,
} from './log-csv';
export { LEVEL_SCALES } from './levels-of';
export { patternFileText } from './pattern-file';
export { readSpectrumCsv, type Spectrum } from './spectrum-csv';
export { readSweepText } from './sweep-csv';
export { type TableAnswer, type TableQuestion, TableQuestionError } from './table-question';
export { templateDxf, templateOf, templateSvg } from './template';
export { readTouchstone, type SweepData, writeTouchstone } from './touchstone';
export { readTwoPort, thinTransfer, type TransferPoint, type TwoPort } from './two-port';
