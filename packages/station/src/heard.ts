import type { HeardMark } from '@velvet-reed/core/site';
import type { StationData } from './record';

/** A signal this far over its noise was heard, dB. */
const HEARD_DB = 3;

const stands = (levelDbm: number | null, noiseDbm: number | null): boolean =>
  levelDbm !== null && noiseDbm !== null && levelDbm - noiseDbm >= HEARD_DB;

const known = new WeakMap<StationData, readonly HeardMark[]>();
/** What was heard by the station's records: pairs of its trials over the noise, and the signals of its recordings. */
export function heardMarks(data: StationData): readonly HeardMark[] {
  const before = known.get(data);
  if (before) return before;
  const trialHz = new Map(data.trials.map(({ id, freqHz }) => [id, freqHz]));
  const pairs = data.readings.flatMap((one): HeardMark[] => {
    const freqHz = trialHz.get(one.trialId);
    const heard = stands(one.levelADbm, one.noiseADbm) || stands(one.levelBDbm, one.noiseBDbm);
    return freqHz !== undefined && one.atMs !== null && heard ? [{ atMs: one.atMs, freqHz }] : [];
  });
  const recorded = data.recordings.flatMap(({ startMs, signalHz }): HeardMark[] =>
    startMs !== null && signalHz !== null && signalHz > 0 ? [{ atMs: startMs, freqHz: signalHz }] : [],
  );
  const marks = [...pairs, ...recorded];
  known.set(data, marks);
  return marks;
}
