export { type AtOnce, pairsAtOnce } from './at-once';
export {
  type Band,
  type BandLevel,
  type BandSeries,
  bandSeries,
  levelOver,
  type Spread,
  spreadOf,
} from './band-levels';
export { type StandardOffset, standardOffset } from './carrier';
export { type Comb, combIn, type SpectrumLine, spectrumLines } from './comb';
export { type ListenMode, MOST_LISTENED_S, type Sound, soundOf } from './demodulate';
export { type RecordedFloor, recordedFloor, type RecordedPulses, recordedPulses } from './floor';
export type { Stretch } from './frames';
export {
  type Annotation,
  bandOf,
  type ByteSource,
  type Recording,
  type RecordingLayout,
  type RecordingMeaning,
  recordingOf,
  secondsOf,
} from './layout';
export { chanceOf, madeSwitched, wavOf } from './made';
export { directionsIn, levelsAtMarks, typedMarks } from './marked';
export { meanSpectrum, peakOf, type PictureView, type Waterfall, waterfall } from './picture';
export { datasetNamed, readSigmfLayout, withAnnotations } from './sigmf';
export { comparedSnr, type ListedSnr, snrAtFrequencies } from './snr-list';
export { plannedTurns, type Switched, switchedTurns, switchingPeriodS, type Turn } from './switching';
export { readWavLayout } from './wav';
