import type { Band } from '../spectrum/catalogue';
import { bandText } from '../units/format';
import { noiseAskOf, type ReadyCandidate } from './candidate';
import { forecasterAt, type ForecastPlace, type ForecastTarget } from './forecast';
import { usualSignal } from '../spectrum/usual-signal';

/** A band counts as served when the chain costs it no more than this, dB. */
const SERVED_DB = 3;

/** What one antenna is worth on one band. */
export interface Coverage {
  readonly band: Band;
  readonly antenna: string;
  /** SNR that the chain costs there, dB; undefined where it could not be computed. */
  readonly snrLossDb?: number;
  readonly marginDb?: number;
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
    const { snrLossDb, marginDb } = forecast;
    return {
      band,
      antenna: ready.spec.name,
      ...(snrLossDb !== undefined ? { snrLossDb } : {}),
      ...(marginDb !== undefined ? { marginDb } : {}),
      why:
        forecast.remarks[0] ??
        (snrLossDb === undefined ? 'Not computed.' : `The chain costs ${snrLossDb.toFixed(1)} dB of SNR here.`),
    };
  });
}

/** The gaps in words: bands that no antenna serves with under 3 dB lost, neighbours joined. */
export function coverageGaps(cells: readonly Coverage[], bands: readonly Band[]): readonly string[] {
  const best = (band: Band): number =>
    Math.min(
      99,
      ...cells.flatMap((cell) => (cell.band.id === band.id && cell.snrLossDb !== undefined ? [cell.snrLossDb] : [])),
    );
  const gaps: Band[][] = [];
  let open = false;
  for (const band of [...bands].sort((a, b) => a.lowHz - b.lowHz)) {
    const gap = best(band) >= SERVED_DB;
    if (gap && open) gaps[gaps.length - 1].push(band);
    else if (gap) gaps.push([band]);
    open = gap;
  }
  return gaps.map((run) => {
    const losses = run.map(best);
    const [lost, most] = [Math.min(...losses), Math.max(...losses.filter((one) => one < 99), 0)];
    const range = bandText(run[0].lowHz, run[run.length - 1].highHz);
    const which = run.length <= 3 ? run.map((band) => band.name).join(', ') : `${run.length} bands, ${range}`;
    return lost >= 99
      ? `${which}: nothing of yours is known to hear it.`
      : `${which}: the best of yours loses ${lost.toFixed(0)}${most - lost >= 1 ? ` to ${most.toFixed(0)}` : ''} dB.`;
  });
}
