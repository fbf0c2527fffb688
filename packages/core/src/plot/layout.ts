import type { PlaceRoom } from '../antenna/kind';
import { lengthText } from '../units/format';
import { wavelengthM } from '../units/wavelength';
import {
  featureDistance,
  insideArea,
  planBearingDeg,
  planDistance,
  stretchesOf,
  type PlanPoint,
  type PlotFeature,
} from './feature';

const of = (features: readonly PlotFeature[], kind: PlotFeature['kind']): readonly PlotFeature[] =>
  features.filter((feature) => feature.kind === kind);

/** Longest straight run between two supports and the highest support; undefined with fewer than two supports. */
export function plotRoom(
  features: readonly PlotFeature[],
): (PlaceRoom & { readonly between: readonly [string, string] }) | undefined {
  const supports = of(features, 'support');
  let best: (PlaceRoom & { between: readonly [string, string] }) | undefined;
  const heightM = Math.max(0, ...supports.map((support) => support.heightM));
  supports.forEach((a, i) =>
    supports.slice(i + 1).forEach((b) => {
      const spanM = planDistance(a.points[0], b.points[0]);
      if (!best || spanM > best.spanM) best = { spanM, heightM, between: [a.name, b.name] };
    }),
  );
  return best;
}

/** Length along a run with its rises: plan length, slope between the end heights, and the drop to the ground at both ends. */
export function cableRunM(cable: Pick<PlotFeature, 'kind' | 'points' | 'heightM' | 'endHeightM'>): number {
  const plan = stretchesOf(cable).reduce((sum, [a, b]) => sum + planDistance(a, b), 0);
  return plan + cable.heightM + cable.endHeightM;
}

/** Length of a wire laid straight from height to height. */
export function laidLengthM(wire: Pick<PlotFeature, 'kind' | 'points' | 'heightM' | 'endHeightM'>): number {
  const plan = stretchesOf(wire).reduce((sum, [a, b]) => sum + planDistance(a, b), 0);
  return Math.hypot(plan, wire.endHeightM - wire.heightM);
}

/** Density of copper, kg/m³, and the pull taken: a tenth of the breaking stress of soft copper, Pa. */
const COPPER_KG_PER_M3 = 8960;
const PULL_PA = 0.1 * 220e6;
const GRAVITY_M_PER_S2 = 9.81;

/**
 * Sag of a copper wire in the middle of a span, m: ρgL²/(8σ), whatever its thickness, at a tenth of its breaking stress (assumed pull).
 * Ice, wind and the feed line are not counted. Source: parabola approximation of the catenary.
 */
export const sagM = (spanM: number): number => (COPPER_KG_PER_M3 * GRAVITY_M_PER_S2 * spanM ** 2) / (8 * PULL_PA);

/** One thing that was looked at, and whether it is as it should be. */
export interface Finding {
  readonly state: 'good' | 'caution' | 'danger';
  readonly sentence: string;
}

/** What an antenna needs of its place. */
export interface LaidNeeds {
  /** Ground span with ropes, m. */
  readonly spanM: number;
  readonly heightM: number;
  /** It hears across the direction in which it lies, not along it. */
  readonly across: boolean;
}

/** How an antenna lies on the plan. */
export interface Layout {
  readonly spanM: number;
  readonly bearingDeg: number;
  /** Bearing that it hears best or faces: at right angles to a wire hung broadside. */
  readonly facingDeg: number;
  readonly sagM: number;
  /** Lowest point of the sagging wire over ground. */
  readonly lowestM: number;
  readonly findings: readonly Finding[];
}

/** A wire below this can be walked into. Common practice, no source. */
const HEAD_HEIGHT_M = 2.5;

/** Whether an antenna fits where it was laid: length, sag, clearance to keep-outs, boundary. */
export function layoutOf(antenna: PlotFeature, needs: LaidNeeds, features: readonly PlotFeature[]): Layout {
  const first = antenna.points[0];
  const last = antenna.points[antenna.points.length - 1];
  const spanM = planDistance(first, last);
  const bearingDeg = planBearingDeg(first, last);
  const sag = sagM(spanM);
  const lowestM = Math.max(0, (antenna.heightM + antenna.endHeightM) / 2 - sag);
  const findings: Finding[] = [
    needs.spanM <= spanM + 1e-6
      ? {
          state: 'good',
          sentence: `Its length fits: it takes ${lengthText(needs.spanM)} with ropes, and ${lengthText(spanM)} lie between the ends.`,
        }
      : {
          state: 'caution',
          sentence: `Too long by ${lengthText(needs.spanM - spanM)}: it takes ${lengthText(needs.spanM)} with ropes, and ${lengthText(spanM)} lie between the ends. Move an end or choose a shorter antenna.`,
        },
    ...clearances(antenna, features),
  ];
  const boundary = of(features, 'boundary')[0];
  if (boundary && antenna.points.some((point) => !insideArea(boundary.points, point)))
    findings.push({
      state: 'caution',
      sentence: `It reaches over the boundary "${boundary.name}". Ask the neighbour first.`,
    });
  if (antenna.heightM > HEAD_HEIGHT_M && lowestM < HEAD_HEIGHT_M)
    findings.push({
      state: 'caution',
      sentence: `Its middle sags to ${lengthText(lowestM, 2)}: keep wires at neck height away from paths.`,
    });
  return {
    spanM,
    bearingDeg,
    facingDeg: (bearingDeg + (needs.across ? 90 : 0)) % 360,
    sagM: sag,
    lowestM,
    findings,
  };
}

/** Distances to keep-outs: the plan distance must exceed the clearance; a falling wire reaches as far as it is high. */
function clearances(feature: PlotFeature, features: readonly PlotFeature[]): readonly Finding[] {
  return of(features, 'keepout').map((keepout): Finding => {
    const distance = featureDistance(feature, keepout);
    const reach = Math.max(feature.heightM, feature.endHeightM) + keepout.clearanceM;
    if (distance < keepout.clearanceM)
      return {
        state: 'danger',
        sentence: `${feature.name} comes within ${lengthText(distance, 2)} of ${keepout.name}; ${lengthText(keepout.clearanceM, 2)} must stay free. Move it.`,
      };
    if (distance < reach)
      return {
        state: 'caution',
        sentence: `If it falls, ${feature.name} can reach ${keepout.name}: ${lengthText(distance, 2)} away, and it stands ${lengthText(reach - keepout.clearanceM, 2)} high with ${lengthText(keepout.clearanceM, 2)} to stay free.`,
      };
    return {
      state: 'good',
      sentence: `${keepout.name} is ${lengthText(distance, 2)} away from ${feature.name}, farther than it can fall.`,
    };
  });
}

/** Supports that could fall onto a keep-out. Keep the height plus the margin away from any line. */
export const supportFindings = (features: readonly PlotFeature[]): readonly Finding[] =>
  of(features, 'support').flatMap((support) =>
    clearances({ ...support, endHeightM: support.heightM }, features).filter(({ state }) => state !== 'good'),
  );

/** An RF earth farther than this is no earth: the lead is an antenna of its own. Common practice, no source. */
const EARTH_LIMIT_WAVELENGTHS = 0.1;

/** Distance from a point to the nearest RF earth, in metres and wavelengths, against a tenth of a wave. undefined without an earth. */
export function earthDistance(
  from: PlanPoint,
  features: readonly PlotFeature[],
  freqHz: number,
):
  | { readonly name: string; readonly distanceM: number; readonly wavelengths: number; readonly limitM: number }
  | undefined {
  const nearest = of(features, 'earth')
    .map((earth) => ({ name: earth.name, distanceM: planDistance(from, earth.points[0]) }))
    .sort((a, b) => a.distanceM - b.distanceM)[0];
  if (!nearest) return undefined;
  return {
    ...nearest,
    wavelengths: nearest.distanceM / wavelengthM(freqHz),
    limitM: EARTH_LIMIT_WAVELENGTHS * wavelengthM(freqHz),
  };
}
