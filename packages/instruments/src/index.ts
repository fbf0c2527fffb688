export { respond, startState, type AnalyserState, type HiddenTruth } from './analyser';
export { serveAnalyser } from './serve';
