import { atPlace } from '../antenna/at-place';
import { fitOf, knownDimensions, receptionOf, tryDraft } from '../antenna/attempt';
import { antennaKind, ANTENNA_KINDS, startDesign } from '../antenna/kinds';
import { CoreError } from '../errors';
import type { Burden, AntennaKind, Design, Fit, HeadAmplifier, KindId, PlaceRoom, Reception } from '../antenna/kind';
import { worthAsking } from '../antenna/useful-range';
import { type Ground, wireLengthM, type WireModel } from '../solver/model';
import { powerDb } from '../units/decibel';
import { frequencyText, lengthText } from '../units/format';
import { wavelengthM } from '../units/wavelength';
import { boughtReception, type BoughtAntenna } from './bought';
import type { ForecastTarget } from './forecast';
import { remembered, rememberedOf } from './remembered';
import {
  bestTransformer,
  gainToward,
  meanGain,
  strongestAzimuthDeg,
  transferThrough,
  type Hearing,
  type HearingQuestion,
  type Unheard,
} from './hearing';

/** An antenna in the comparison: a kind that could be built, one of the listener's own, or one that can be bought. */
export type CandidateSpec = { readonly id: string; readonly name: string; readonly burden: Burden } & (
  | {
      readonly source: 'kind' | 'own';
      readonly design: Design;
      /** It hangs there: something was measured on it. A draft on paper does not. */
      readonly standing?: boolean;
      /** As it is laid it is a danger: what comes too near to a line. */
      readonly forbidden?: string;
      /** Bearing of its forward (+x) side, when it lies on the Plot. */
      readonly headingDeg?: number;
    }
  | { readonly source: 'bought'; readonly bought: BoughtAntenna; readonly sizeM: number }
);

/** Cuts within this share of a target's frequency serve it. */
const SERVES = 0.15;

/** A design of a kind cut for a frequency; the same object each time, so that what is worked out for it is found again. */
const startOf = remembered((kind: KindId) => remembered((freqHz: number): Design => startDesign(kind, freqHz)));
/** A design as a room would hold it, as it was asked last. */
const placedIn = rememberedOf((design: Design) => rememberedOf((room: PlaceRoom): Design => atPlace(design, room)));
/** Whether a design fits a room, as it was asked last. */
const fitIn = rememberedOf((design: Design) => rememberedOf((room: PlaceRoom): Fit => fitOf(design, room)));
/** What a design hands on by closed form at frequencies as they are asked. */
const closedForm = rememberedOf((design: Design) => {
  const closed = receptionOf(design);
  return closed && remembered(closed);
});

/** How large a design is, in words: "9.0 m up, 15.1 m of conductor"; empty where neither is known. */
export const sizeWords = rememberedOf((design: Design): string => {
  const { draft } = tryDraft(design);
  const conductorM = (draft?.pieces ?? []).reduce((sum, one) => sum + (one.bought ? 0 : one.count * one.finishedM), 0);
  const { heightM } = knownDimensions(design);
  return [
    heightM === undefined ? '' : `${lengthText(heightM, 2)} up`,
    conductorM > 0 ? `${lengthText(conductorM)} of conductor` : '',
  ]
    .filter(Boolean)
    .join(', ');
});

/** The frequency to cut a kind for: that of the target with the most weight around it, of those at which the kind fits the place. */
function cutFor(kind: KindId, targets: readonly ForecastTarget[], room: PlaceRoom): number | undefined {
  const centre = (target: ForecastTarget): number => (target.lowHz + target.highHz) / 2;
  const served = (freqHz: number): number =>
    targets.reduce((sum, target) => sum + (Math.abs(centre(target) / freqHz - 1) < SERVES ? target.weight : 0), 0);
  const fits = (freqHz: number): boolean | undefined => {
    try {
      return antennaKind(kind).fit(placedIn(startOf(kind)(freqHz))(room), room).fits;
    } catch (error) {
      if (error instanceof CoreError) return undefined; // it cannot be drawn there at all
      throw error;
    }
  };
  const list = targets.map(centre).filter((freqHz) => worthAsking(kind, freqHz) && fits(freqHz) !== undefined);
  if (list.length === 0) return undefined;
  const fitting = list.filter(fits);
  return (fitting.length > 0 ? fitting : list).reduce((best, freqHz) =>
    served(freqHz) > served(best) ? freqHz : best,
  );
}

/** One candidate of every kind that is good for a target at all, cut for the place and the targets. Nothing wanted: none. */
export function kindCandidates(
  targets: readonly ForecastTarget[],
  room: PlaceRoom,
  kinds: readonly KindId[] = ANTENNA_KINDS.map((kind) => kind.id),
): readonly CandidateSpec[] {
  if (targets.length === 0) return [];
  return kinds.flatMap((id): CandidateSpec[] => {
    const freqHz = cutFor(id, targets, room);
    if (freqHz === undefined) return [];
    return [
      {
        id: `kind-${id}`,
        name: antennaKind(id).name,
        source: 'kind',
        design: placedIn(startOf(id)(freqHz))(room),
        burden: antennaKind(id).burden,
      },
    ];
  });
}

const FREE: Ground = { type: 'free' };

/** The wires of a design; undefined where they cannot be drawn with these dimensions. */
const drawn = rememberedOf((design: Design) =>
  rememberedOf((ground: Ground): WireModel | undefined => {
    try {
      return antennaKind(design.kind).model?.(design, ground);
    } catch (error) {
      if (error instanceof CoreError) return undefined;
      throw error;
    }
  }),
);

/** Elevation asked for targets (degrees), rounded so that nearly equal ones share an answer. */
const roundedDeg = (deg: number): number => Math.round(deg * 2) / 2;

/** What must be solved to hear a target with a drafted candidate; undefined where closed form answers alone. */
function targetQuestion(spec: CandidateSpec, target: ForecastTarget, ground: Ground): HearingQuestion | undefined {
  if (spec.source === 'bought') return undefined;
  const kind = antennaKind(spec.design.kind);
  const freqHz = (target.lowHz + target.highHz) / 2;
  if (!kind.model || (spec.source === 'kind' && !worthAsking(kind.id, freqHz))) return undefined;
  const model = drawn(spec.design)(ground);
  if (!model) return undefined;
  return {
    model,
    freqHz,
    elevationDeg: roundedDeg(target.arrivalDeg),
  };
}

/** The same for a transmitter nearby: in free space, toward the horizon. Active kinds answer by closed form. */
function transmitterQuestion(spec: CandidateSpec, freqHz: number): HearingQuestion | undefined {
  if (spec.source === 'bought') return undefined;
  const kind = antennaKind(spec.design.kind);
  if (!kind.model || kind.head) return undefined;
  const model = drawn(spec.design)(FREE);
  if (!model) return undefined;
  const wavelengths = model.wires.reduce((sum, wire) => sum + wireLengthM(wire), 0) / wavelengthM(freqHz);
  // an upper bound stands for long wires: it costs seconds to know better
  if (wavelengths > LONG_FOR_EMITTER) return undefined;
  return { model, freqHz, elevationDeg: 0 };
}
const LONG_FOR_EMITTER = 5;

/** Everything that must be solved for a ranking, in the order of the candidates. */
export function hearingQuestions(
  specs: readonly CandidateSpec[],
  targets: readonly ForecastTarget[],
  transmittersHz: readonly number[],
  ground: Ground,
): readonly HearingQuestion[] {
  return specs.flatMap((spec) => [
    ...targets.flatMap((target) => targetQuestion(spec, target, ground) ?? []),
    ...transmittersHz.flatMap((freqHz) => transmitterQuestion(spec, freqHz) ?? []),
  ]);
}

/** Looks an answer up; undefined while it is not there yet. */
export type Heard = (question: HearingQuestion) => Hearing | Unheard | undefined;

/** Gain taken for overload where nothing better is known. */
const BOUND_DBI = 0;

/** One candidate made ready for forecasts: closed form where it is active or no wire, the wire model otherwise. */
export interface ReadyCandidate {
  readonly spec: CandidateSpec;
  readonly head?: HeadAmplifier;
  toward(target: ForecastTarget): Reception;
  fromTransmitter(freqHz: number): Reception;
  /** False while answers of the wire model are missing. */
  readonly complete: boolean;
}

/** @param targets all targets of the ranking: the first that it is cut for decides which way it is turned. */
export function readyCandidate(
  spec: CandidateSpec,
  targets: readonly ForecastTarget[],
  ground: Ground,
  heard: Heard,
): ReadyCandidate {
  if (spec.source === 'bought') {
    const reception = boughtReception(spec.bought);
    return {
      spec,
      ...(spec.bought.head ? { head: spec.bought.head } : {}),
      toward: (target) => reception((target.lowHz + target.highHz) / 2),
      fromTransmitter: reception,
      complete: true,
    };
  }
  const kind = antennaKind(spec.design.kind);
  const closed = closedForm(spec.design);
  const answers = new Map(
    targets.map((target) => {
      const question = targetQuestion(spec, target, ground);
      return [target.id, question && heard(question)] as const;
    }),
  );
  const cut = cutTarget(spec.design.freqHz, targets);
  const cutHeard = cut && answers.get(cut.id);
  const solvedCut = cutHeard && !('why' in cutHeard) ? cutHeard : undefined;
  const transformer = kind.head || !solvedCut ? 1 : bestTransformer(solvedCut);
  const heading =
    spec.headingDeg ??
    (cut?.bearingDeg !== undefined && solvedCut ? cut.bearingDeg + strongestAzimuthDeg(solvedCut) : undefined);
  const directed = (target: ForecastTarget, hearing: Hearing): number =>
    target.bearingDeg !== undefined && heading !== undefined
      ? gainToward(hearing, heading - target.bearingDeg)
      : // nobody can turn it toward where nobody said that the target is
        meanGain(hearing);
  const toward = (target: ForecastTarget): Reception => {
    const freqHz = (target.lowHz + target.highHz) / 2;
    // an antenna that is there is asked everywhere; one to be built only where it is worth building
    if (spec.source === 'kind' && !worthAsking(kind.id, freqHz)) return outOfBand(kind);
    const hearing = answers.get(target.id);
    if (kind.head && closed) return withPattern(closed(freqHz), target, hearing, directed);
    if (!kind.model) return closed?.(freqHz) ?? NOT_KNOWN;
    if (!hearing) return NOT_KNOWN;
    if ('why' in hearing) return { ...NOT_KNOWN, remark: hearing.why };
    const passed = transferThrough(hearing, transformer);
    return {
      realisedGainDbi: powerDb(Math.max(1e-12, directed(target, hearing) * passed)),
      transfer: hearing.radiated * passed,
      validity: 'holds',
      ...(transformer > 1 ? { remark: `Through a ${transformer}:1 transformer, assumed lossless.` } : {}),
    };
  };
  const fromTransmitter = (freqHz: number): Reception => {
    if (closed && (kind.head || !kind.model)) return closed(freqHz);
    const question = transmitterQuestion(spec, freqHz);
    const hearing = question && heard(question);
    if (!hearing || 'why' in hearing)
      return {
        realisedGainDbi: BOUND_DBI,
        transfer: 0,
        validity: 'outside',
        remark: 'Many wavelengths long there: 0 dBi is assumed for overload.',
      };
    const passed = transferThrough(hearing, transformer);
    return {
      realisedGainDbi: powerDb(Math.max(1e-12, Math.max(...hearing.gains) * passed)),
      transfer: hearing.radiated * passed,
      validity: 'rough',
    };
  };
  const complete = targets.every((target) => !targetQuestion(spec, target, ground) || answers.get(target.id));
  return {
    spec,
    ...(kind.head ? { head: kind.head } : {}),
    // asked again and again while circumstances are varied: each answer is worked out once
    toward: remembered(toward, (target) => target.id),
    fromTransmitter: remembered(fromTransmitter, String),
    complete,
  };
}

const mhz = (freqHz: number): string => frequencyText(freqHz, 2);
/** No figure at all where a kind is not good for anything. */
const outOfBand = ({ id, name }: AntennaKind): Reception => ({
  ...NOT_KNOWN,
  remark: `A ${name.toLowerCase()} is not worth asking here: it is good from ${mhz(antennaKind(id).bandHz[0])} to ${mhz(antennaKind(id).bandHz[1])}.`,
});

const NOT_KNOWN: Reception = {
  realisedGainDbi: BOUND_DBI,
  transfer: 0,
  validity: 'outside',
  remark: 'Not computed yet.',
};

/** The target nearest to the frequency it is cut for, if it serves one. */
const cutTarget = (freqHz: number, targets: readonly ForecastTarget[]): ForecastTarget | undefined =>
  [...targets]
    .map((target) => ({ target, off: Math.abs(Math.log((target.lowHz + target.highHz) / 2 / freqHz)) }))
    .filter(({ off }) => off < Math.log(1 + SERVES))
    .sort((a, b) => a.off - b.off)[0]?.target;

/** An active antenna: level and own noise by closed form, direction by the wire model over this ground. */
function withPattern(
  closed: Reception,
  target: ForecastTarget,
  hearing: Hearing | Unheard | undefined,
  directed: (target: ForecastTarget, hearing: Hearing) => number,
): Reception {
  if (!hearing || 'why' in hearing || closed.validity === 'outside') return closed;
  return { ...closed, realisedGainDbi: closed.realisedGainDbi + powerDb(directed(target, hearing) / hearing.radiated) };
}

/** Metal surface that can be counted on, m: a car's roof. Common practice, no source. */
const MOST_SURFACE_M = 3;

/** Whether a candidate fits the room; an antenna that needs its own metal surface fits only where that may be had. */
export function candidateFit(spec: CandidateSpec, room: PlaceRoom): Fit {
  if (spec.source !== 'bought') {
    const kind = antennaKind(spec.design.kind);
    const surfaceM = wavelengthM(spec.design.freqHz) / 2;
    // a kind that is not built yet would be made for the room that is asked about
    const design = spec.source === 'kind' ? placedIn(startOf(kind.id)(spec.design.freqHz))(room) : spec.design;
    const fit = fitIn(design)(room);
    return kind.ownGround && surfaceM > MOST_SURFACE_M
      ? {
          ...fit,
          fits: false,
          reason: `needs a metal surface about ${lengthText(surfaceM, 2)} across; ${lengthText(MOST_SURFACE_M, 1)} is what a roof or vehicle offers`,
        }
      : fit;
  }
  const fits = spec.sizeM <= room.spanM;
  return {
    fits,
    needsSpanM: spec.sizeM,
    needsHeightM: 0,
    reason: fits
      ? `it fits, ${lengthText(spec.sizeM)} across`
      : `it is ${lengthText(spec.sizeM)} across, and the place offers ${lengthText(room.spanM)}`,
  };
}
