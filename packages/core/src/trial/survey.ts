import { ShapeError } from '../errors';

/** One reference signal as heard on one antenna at one time. */
export interface SurveyReading {
  readonly antennaId: number;
  readonly name: string;
  readonly freqHz: number;
  readonly levelDbm: number;
  readonly noiseDbm: number;
  readonly atMs: number;
}

/** A signal counts as heard from here on, dB over the noise. Common practice, no source: readable speech by ear. */
export const HEARD_DB = 6;
/** How many reference signals a survey takes. */
export const SURVEY_SIGNALS = 10;

/** What a survey says of one antenna: the latest reading of each signal counts. */
export interface SurveySummary {
  readonly antennaId: number;
  readonly heard: number;
  readonly asked: number;
  /** Median of the SNR over its signals, dB. */
  readonly medianSnrDb: number;
}

/** Sums a survey up, an antenna at a time; best first. */
export function surveySummary(readings: readonly SurveyReading[]): readonly SurveySummary[] {
  const antennas = [...new Set(readings.map((one) => one.antennaId))];
  return antennas
    .map((antennaId) => {
      const latest = new Map<string, SurveyReading>();
      for (const one of [...readings].sort((a, b) => a.atMs - b.atMs))
        if (one.antennaId === antennaId) latest.set(one.name, one);
      const snr = [...latest.values()].map((one) => one.levelDbm - one.noiseDbm).sort((a, b) => a - b);
      const middle = snr.length >> 1;
      return {
        antennaId,
        heard: snr.filter((db) => db >= HEARD_DB).length,
        asked: snr.length,
        medianSnrDb: snr.length % 2 === 1 ? snr[middle] : (snr[middle - 1] + snr[middle]) / 2,
      };
    })
    .sort((a, b) => b.heard / b.asked - a.heard / a.asked || b.medianSnrDb - a.medianSnrDb);
}

/** Rows for a file: time (UTC), signal, frequency, level, SNR, antenna. @throws ShapeError for an antenna without a name. */
export function surveyRows(
  readings: readonly SurveyReading[],
  antennaName: (id: number) => string | undefined,
): readonly (readonly [string, string, number, number, number, string])[] {
  return [...readings]
    .sort((a, b) => a.atMs - b.atMs)
    .map((one) => {
      const name = antennaName(one.antennaId);
      if (name === undefined)
        throw new ShapeError('A reading names an antenna that is no longer there. Delete that reading.', 'antenna');
      return [
        new Date(one.atMs).toISOString(),
        one.name,
        one.freqHz,
        one.levelDbm,
        one.levelDbm - one.noiseDbm,
        name,
      ] as const;
    });
}
