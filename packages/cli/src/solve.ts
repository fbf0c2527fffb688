import { readModelFile } from '@velvet-reed/contract';
import { reflectionOf, swrOf } from '@velvet-reed/core/line';
import { magnitude } from '@velvet-reed/core/numeric';
import {
  elevationStepDeg,
  finish,
  findPeak,
  gainRatio,
  inputImpedance,
  lostShare,
  meshOf,
  radiatedShare,
  settle,
  solveAt,
} from '@velvet-reed/core/solver';
import { powerDb } from '@velvet-reed/core/units';

const LISTED_ELEVATIONS = [5, 10, 20, 30, 45, 60, 90];

/** Impedance, gain and pattern of a model file's wires at its frequency, as plain values. */
export function solveFile(file: unknown) {
  const { model, freqHz } = readModelFile(file);
  const { solution } = finish(settle(solveAt(model, meshOf(model, freqHz), freqHz)));
  const { mesh } = solution;
  const peak = findPeak(solution);
  const gain = gainRatio(solution);
  const z = inputImpedance(solution);
  const gammaSize = magnitude(reflectionOf(z, 50));
  const free = model.ground.type === 'free';
  const step = Math.max(0.25, elevationStepDeg(solution));
  const lowest = free ? -90 : 0;
  const count = Math.ceil((90 - lowest) / step);
  const elevations = Array.from({ length: count + 1 }, (_, i) => lowest + ((90 - lowest) * i) / count);
  const azimuths = Array.from({ length: 72 }, (_, i) => 5 * i);
  const dbi = (az: number, el: number): number | null => {
    const ratio = gain(az, el);
    return ratio > 0 ? powerDb(ratio) : null;
  };
  return {
    freqHz,
    segments: mesh.segments,
    impedanceOhm: { re: z.re, im: z.im },
    portImpedancesOhm: solution.impedance,
    swr50: swrOf(gammaSize),
    peak,
    efficiency: 1 - lostShare(solution),
    radiatedShare: radiatedShare(solution),
    /** Azimuth counts from +x toward +y. */
    elevationCut: {
      azimuthDeg: peak.azimuthDeg,
      elevationDeg: elevations,
      gainDbi: elevations.map((e) => dbi(peak.azimuthDeg, e)),
    },
    azimuthCut: {
      elevationDeg: peak.elevationDeg,
      azimuthDeg: azimuths,
      gainDbi: azimuths.map((a) => dbi(a, peak.elevationDeg)),
    },
    remarks: mesh.remarks,
    listed: LISTED_ELEVATIONS.map((elevationDeg) => ({ elevationDeg, gainDbi: dbi(peak.azimuthDeg, elevationDeg) })),
  };
}
