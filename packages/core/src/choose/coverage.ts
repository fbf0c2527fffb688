import type { Band } from '../spectrum/catalogue';
import { bandText } from '../units/format';
import { noiseAskOf, type ReadyCandidate } from './candidate';
import { forecasterAt, type ForecastPlace, type ForecastTarget, WELL_DB } from './forecast';
import { usualSignal, usualTime } from '../spectrum/usual-signal';

/** What one antenna is worth on one band. */
export interface Coverage {
  readonly band: Band;
  readonly antenna: string;
  /** How far a usual station of the band stands over the noise, dB; undefined where it could not be computed. */
  readonly heardDb?: number;
  /** SNR that the chain costs there, dB; undefined with it. */
  readonly snrLossDb?: number;
  readonly why: string;
}

/** Bands as targets of equal weight, at the usual arrival angle. */
export const bandTargets = (
  bands: readonly Band[],
  arrivalDeg: (freqHz: number) => number,
): readonly ForecastTarget[] =>
  bands.map((band) => ({
    ...band,
    weight: 1,
    arrivalDeg: arrivalDeg((band.lowHz + band.highHz) / 2),
    time: usualTime((band.lowHz + band.highHz) / 2),
    signal: usualSignal(band),
  }));

/** Margins of one antenna over bands. */
export function coverageOf(
  ready: ReadyCandidate,
  bands: readonly Band[],
  targets: readonly ForecastTarget[],
  place: ForecastPlace,
): readonly Coverage[] {
  const forecaster = forecasterAt(place)((freqHz) => ready.fromTransmitter(freqHz), {
    ...(ready.head ? { head: ready.head } : {}),
    noise: noiseAskOf(ready.spec),
  });
  return bands.map((band, i) => {
    const forecast = forecaster(targets[i], ready.toward(targets[i]));
    const { snrLossDb, heard } = forecast;
    return {
      band,
      antenna: ready.spec.name,
      ...(snrLossDb !== undefined ? { snrLossDb } : {}),
      ...(heard ? { heardDb: heard.middle } : {}),
      why:
        forecast.remarks[0] ??
        (snrLossDb === undefined ? 'Not computed.' : `The chain costs ${snrLossDb.toFixed(1)} dB of SNR here.`),
    };
  });
}

/** The gaps in words: bands on which a usual station is not heard well by any antenna, neighbours joined. */
export function coverageGaps(cells: readonly Coverage[], bands: readonly Band[]): readonly string[] {
  const best = (band: Band): number | undefined => {
    const known = cells.flatMap((cell) =>
      cell.band.id === band.id && cell.heardDb !== undefined ? [cell.heardDb] : [],
    );
    return known.length > 0 ? Math.max(...known) : undefined;
  };
  const gaps: Band[][] = [];
  let open = false;
  for (const band of [...bands].sort((a, b) => a.lowHz - b.lowHz)) {
    const gap = (best(band) ?? -Infinity) < WELL_DB;
    if (gap && open) gaps[gaps.length - 1].push(band);
    else if (gap) gaps.push([band]);
    open = gap;
  }
  return gaps.map((run) => {
    const known = run.flatMap((band) => best(band) ?? []);
    const range = bandText(run[0].lowHz, run[run.length - 1].highHz);
    const which = run.length <= 3 ? run.map((band) => band.name).join(', ') : `${run.length} bands, ${range}`;
    if (known.length === 0) return `${which}: nothing of yours is known to hear it.`;
    const top = Math.max(...known);
    return `${which}: with the best of yours a usual station stands ${Math.abs(top).toFixed(0)} dB ${top < 0 ? 'under' : 'over'} the noise at most.`;
  });
}
