import { atPlace } from '../antenna/at-place';
import { fitOf, knownDimensions, receptionOf, tryDraft } from '../antenna/attempt';
import { dimensionsOf } from '../antenna/dimensions';
import { antennaKind, ANTENNA_KINDS, startDesign } from '../antenna/kinds';
import { CoreError } from '../errors';
import type {
  Burden,
  AntennaKind,
  Design,
  Fit,
  HeadAmplifier,
  KindId,
  PlaceRoom,
  Reception,
  SpotKind,
} from '../antenna/kind';
import { usefulRange, worthAsking } from '../antenna/useful-range';
import { GROUND_WAVE_BELOW_HZ } from '../site/field';
import { type Ground, wireLengthM, type WireModel } from '../solver/model';
import { powerDb, powerRatio } from '../units/decibel';
import { frequencyText, lengthText } from '../units/format';
import { wavelengthM } from '../units/wavelength';
import { boughtReception, type BoughtAntenna } from './bought';
import { burdenOf, type PriceRates } from './cost';
import { signalOf, type ForecastTarget } from './forecast';
import type { NoiseAsk } from './house-noise';
import { remembered, rememberedOf } from './remembered';
import {
  bestTransformer,
  CROSSED,
  gainToward,
  meanGain,
  polarised,
  polarisedShare,
  strongestAzimuthDeg,
  transferThrough,
  type Hearing,
  type HearingQuestion,
  type Unheard,
} from './hearing';
import { onGround, shieldDb, type Spot, SPOT_WORDS, spotRoom } from './spot';

/** An antenna in the comparison: a kind that could be built, one of the listener's own, or one that can be bought. */
export type CandidateSpec = {
  readonly id: string;
  readonly name: string;
  readonly burden: Burden;
  /** Where it hangs or would hang; absent: nobody said. */
  readonly spot?: Spot;
  /** A choke keeps the noise of the cable off; absent: nobody said. */
  readonly choked?: boolean;
} & (
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
const sizeOf = rememberedOf((design: Design): string => {
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

/** Where a candidate would hang and how large it would be there: "at the window, 9.0 m up, 15.1 m of conductor". */
export const sizeWords = (spec: CandidateSpec): string =>
  [spec.spot ? SPOT_WORDS[spec.spot.kind] : '', spec.source === 'bought' ? '' : sizeOf(spec.design)]
    .filter(Boolean)
    .join(', ');

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
  // of equals the one in the middle of all: what is tuned from band to band then reaches most of them
  const middle = list.reduce((sum, freqHz) => sum + Math.log(freqHz), 0) / list.length;
  const off = (freqHz: number): number => Math.abs(Math.log(freqHz) - middle);
  return (fitting.length > 0 ? fitting : list).reduce((best, freqHz) =>
    served(freqHz) > served(best) || (served(freqHz) === served(best) && off(freqHz) < off(best)) ? freqHz : best,
  );
}

/** Heights that are tried below the highest that a spot offers, m; only where the spot is high against the wave. */
const LOWER_M = [2, 3, 4.5, 6, 8, 10, 13, 17, 22, 30, 40];
const HIGH_WAVELENGTHS = 0.6;
/** Frequency from which an antenna may stand upright as well as lie level. */
const UPRIGHT_FROM_HZ = 30e6;

/** Sizes in which a kind is tried at a spot: as the room gives it, then lower, shorter, upright. The first is always there. */
function variantsOf(kind: AntennaKind, freqHz: number, room: PlaceRoom): readonly Design[] {
  const start = startOf(kind.id)(freqHz);
  const has = (id: string): boolean => kind.parameters.some((one) => one.id === id);
  const set = (more: Design['dimensions']): Design => ({ ...start, dimensions: more });
  const standing = has('upright') && freqHz > UPRIGHT_FROM_HZ ? [start, set({ upright: 1 })] : [start];
  const lower = LOWER_M.filter(
    (heightM) =>
      kind.atPlace &&
      has('heightM') &&
      room.heightM > HIGH_WAVELENGTHS * wavelengthM(freqHz) &&
      heightM < 0.8 * room.heightM &&
      heightM > Math.max(room.lowM ?? 0, 0.15 * wavelengthM(freqHz)),
  );
  // of VHF rods the highest place is the best: the horizon decides
  const heights = freqHz > UPRIGHT_FROM_HZ ? [] : lower;
  const placed = standing.flatMap((design) => [
    atPlaceOnce(design)(room),
    ...heights.map((heightM) => atPlaceOnce(design)({ ...room, heightM })),
  ]);
  const sized = kind.sizes
    ? placed.flatMap((design) => [
        design,
        ...(kind.sizes?.(dimensionsOf(kind.parameters, design), design, room) ?? []).map((more) => ({
          ...design,
          dimensions: { ...design.dimensions, ...more },
        })),
      ])
    : placed;
  return sized;
}
const atPlaceOnce = (design: Design) => (room: PlaceRoom) =>
  design.dimensions.upright === undefined ? placedIn(design)(room) : atPlace(design, room);

/** Where a kind is put up when it does not say. Common practice, no source. */
const ANYWHERE: readonly SpotKind[] = ['attic', 'roof', 'deck', 'balcony', 'wall', 'garden', 'trees'];

const variants = rememberedOf((spot: Spot) =>
  remembered((id: KindId) => remembered((freqHz: number) => variantsOf(antennaKind(id), freqHz, roomAt(spot)))),
);
const roomAt = rememberedOf(spotRoom);

/**
 * Candidates of every kind that is good for a target at all: at every spot where it may be put up, cut for the targets, in the sizes that are tried there.
 * Candidates of one kind share their id: a ranking keeps the best of them. Nothing wanted: none.
 */
export function kindCandidates(
  targets: readonly ForecastTarget[],
  spots: readonly Spot[],
  kinds: readonly KindId[] = ANTENNA_KINDS.map((kind) => kind.id),
  rates?: PriceRates,
): readonly CandidateSpec[] {
  if (targets.length === 0) return [];
  return kinds.flatMap((id) => {
    const kind = antennaKind(id);
    const suits = spots.filter((spot) => (kind.spots ?? ANYWHERE).includes(spot.kind));
    // a kind that hangs nowhere here is shown all the same, with the reason
    return (suits.length > 0 ? suits : spots.slice(0, 1)).flatMap((spot): CandidateSpec[] => {
      const freqHz = cutFor(id, targets, roomAt(spot));
      if (freqHz === undefined) return [];
      return variants(spot)(id)(freqHz).map((design) => ({
        id: `kind-${id}`,
        name: kind.name,
        source: 'kind',
        ...{ design, spot, choked: true },
        burden: burdenOf(design, rates, !onGround(spot) || spot.kind === 'trees'),
      }));
    });
  });
}

/** What a candidate is to the noise around it. */
export function noiseAskOf(spec: CandidateSpec): Omit<NoiseAsk, 'freqHz' | 'time'> {
  const { spot, choked } = spec;
  const kind = spec.source === 'bought' ? undefined : antennaKind(spec.design.kind);
  return {
    ...(spot ? { spot } : {}),
    ...(choked === undefined ? {} : { choked }),
    // an amplified bought antenna of little size is a loop or a probe: which, nobody said
    answersTo: kind?.answersTo ?? 'balanced',
    turns: kind?.turns ?? false,
    ...(kind?.cableIsHalf ? { cableIsHalf: true } : {}),
    ...(kind?.seesSky ? { seesSky: true } : {}),
    ...(spec.source === 'own' ? { antenna: spec.id } : {}),
  };
}

const FREE: Ground = { type: 'free' };
const PERFECT: Ground = { type: 'perfect' };

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

/** So far off the span in which it is good nobody builds an antenna of a kind, ratio. Common practice, no source. */
const OFF_RATIO = 3;

/** Frequencies at which a design that is not built yet is asked at all, Hz. */
const reachOf = rememberedOf((design: Design): readonly [lowHz: number, highHz: number] => {
  const [low, high] = antennaKind(design.kind).bandHz;
  const [from, to] = usefulRange(design);
  return [Math.max(low, from / OFF_RATIO), Math.min(high, to * OFF_RATIO)];
});
const madeFor = (design: Design, freqHz: number): boolean => {
  const [lowHz, highHz] = reachOf(design);
  return freqHz >= lowHz && freqHz <= highHz;
};

/** Elevation asked for targets (degrees), rounded so that nearly equal ones share an answer. */
const roundedDeg = (deg: number): number => Math.round(deg * 2) / 2;

/** What must be solved to hear a target with a drafted candidate, elevation by elevation; nothing where closed form answers alone. */
function targetQuestions(spec: CandidateSpec, target: ForecastTarget, ground: Ground): readonly HearingQuestion[] {
  if (spec.source === 'bought') return [];
  const kind = antennaKind(spec.design.kind);
  const freqHz = (target.lowHz + target.highHz) / 2;
  if (!kind.model || (spec.source === 'kind' && !madeFor(spec.design, freqHz))) return [];
  const model = drawn(spec.design)(ground);
  if (!model) return [];
  return [target.arrivalDeg, ...(target.alsoDeg ?? [])].map((deg) => ({
    model,
    freqHz,
    elevationDeg: roundedDeg(deg),
  }));
}

/** What lies lower than this is not seen over perfect ground, which would short it, m. */
const OVER_GROUND_M = 0.5;
/**
 * The field at the ground is twice that of the wave that arrives: the power that a gain over perfect ground is counted from, ratio. Real ground tilts the
 * field forward by about what crossed polarisation keeps, which is all that level wires see of it.
 */
const ARRIVING = 0.25;

/** Whether an antenna takes a transmitter nearby from its ground wave. */
function byGroundWave(design: Design, freqHz: number): boolean {
  const span = freqHz < GROUND_WAVE_BELOW_HZ ? extent(design) : undefined;
  return span !== undefined && span[0] >= 0 && span[1] > OVER_GROUND_M;
}

/**
 * The same for a transmitter nearby, toward the horizon: in free space, below 3 MHz over perfect ground, where the vertical part counts. Active kinds
 * answer by closed form.
 */
function transmitterQuestions(spec: CandidateSpec, freqHz: number): readonly HearingQuestion[] {
  if (spec.source === 'bought') return [];
  const kind = antennaKind(spec.design.kind);
  if (!kind.model || kind.head) return [];
  const model = drawn(spec.design)(FREE);
  if (!model) return [];
  const wavelengths = model.wires.reduce((sum, wire) => sum + wireLengthM(wire), 0) / wavelengthM(freqHz);
  // an upper bound stands for long wires: it costs seconds to know better
  if (wavelengths > LONG_FOR_EMITTER[spec.source]) return [];
  const over = byGroundWave(spec.design, freqHz) ? drawn(spec.design)(PERFECT) : undefined;
  return [model, ...(over ? [over] : [])].map((one) => ({ model: one, freqHz, elevationDeg: 0 }));
}
const LONG_FOR_EMITTER = { kind: 5, own: 12 } as const;

/** Everything that must be solved for a ranking, in the order of the candidates. */
export function hearingQuestions(
  specs: readonly CandidateSpec[],
  targets: readonly ForecastTarget[],
  transmittersHz: readonly number[],
  ground: Ground,
): readonly HearingQuestion[] {
  return specs.flatMap((spec) => [
    ...targets.flatMap((target) => targetQuestions(spec, target, ground)),
    ...transmittersHz.flatMap((freqHz) => transmitterQuestions(spec, freqHz)),
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
  /** Whether all is there that `toward` needs for a target: its answers, and those of the target that it is cut for. */
  answered(target: ForecastTarget): boolean;
  /** Whether all is there that `fromTransmitter` needs at a frequency. */
  answeredFrom(freqHz: number): boolean;
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
  const shielded = (target: ForecastTarget, reception: Reception): Reception => {
    const lossDb = spec.spot ? shieldDb(spec.spot, (target.lowHz + target.highHz) / 2) : 0;
    return lossDb === 0 ? reception : { ...reception, realisedGainDbi: reception.realisedGainDbi - lossDb };
  };
  if (spec.source === 'bought') {
    const reception = boughtReception(spec.bought);
    return {
      spec,
      ...(spec.bought.head ? { head: spec.bought.head } : {}),
      toward: (target) =>
        shielded(target, overGround(reception((target.lowHz + target.highHz) / 2), target, undefined, false)),
      fromTransmitter: reception,
      answered: () => true,
      answeredFrom: () => true,
      complete: true,
    };
  }
  const kind = antennaKind(spec.design.kind);
  const closed = closedForm(spec.design);
  const asked = new Map(targets.map((target) => [target.id, targetQuestions(spec, target, ground)] as const));
  const everyAnswer = new Map(
    targets.map(({ id }) => [
      id,
      (asked.get(id) ?? []).flatMap((one) => {
        const answer = heard(one);
        return answer ? [arrayed(spec.design, one, answer)] : [];
      }),
    ]),
  );
  const answers = new Map(targets.map(({ id }) => [id, everyAnswer.get(id)?.[0]] as const));
  const cut = cutTarget(spec.design.freqHz, targets);
  const cutHeard = cut && answers.get(cut.id);
  const solvedCut = cutHeard && !('why' in cutHeard) ? cutHeard : undefined;
  const transformer = kind.head || !solvedCut ? 1 : bestTransformer(solvedCut);
  const heading =
    spec.headingDeg ??
    (cut?.bearingDeg !== undefined && solvedCut ? cut.bearingDeg + strongestAzimuthDeg(solvedCut) : undefined);
  const directed = (target: ForecastTarget, first: Hearing): number => {
    const others = (everyAnswer.get(target.id) ?? []).slice(1).filter((one): one is Hearing => !('why' in one));
    // over a pass the mean of the levels counts: a lobe does not make up for a null
    const levels = [first, ...others].map((one) => powerDb(Math.max(1e-6, directedAt(target, one))));
    return powerRatio(levels.reduce((sum, one) => sum + one, 0) / levels.length);
  };
  const directedAt = (target: ForecastTarget, hearing: Hearing): number => {
    const counted = polarised(hearing, signalOf(target).polarisation);
    return target.bearingDeg !== undefined && heading !== undefined
      ? gainToward(counted, heading - target.bearingDeg)
      : // nobody can turn it toward where nobody said that the target is
        meanGain(counted);
  };
  const toward = (target: ForecastTarget): Reception => {
    const freqHz = (target.lowHz + target.highHz) / 2;
    // an antenna that is there is asked everywhere; one to be built only where it is worth building
    if (spec.source === 'kind' && !madeFor(spec.design, freqHz)) return outOfBand(spec.design);
    const hearing = answers.get(target.id);
    if (kind.head && closed) return withPattern(closed(freqHz), target, hearing, directed);
    if (!kind.model) {
      const known = closed?.(freqHz);
      return known ? overGround(known, target, kind.polarised, kind.seesSky ?? false) : NOT_KNOWN;
    }
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
    const [free, over] = transmitterQuestions(spec, freqHz).map(heard);
    if (!free || 'why' in free)
      return {
        realisedGainDbi: BOUND_DBI,
        transfer: 0,
        validity: 'outside',
        remark: `${free ? free.why : 'Many wavelengths of wire there.'} The mean over all directions, 0 dBi at most, is assumed.`,
      };
    const inFree = Math.max(...free.gains) * transferThrough(free, transformer);
    const gain =
      over && !('why' in over)
        ? Math.max(ARRIVING * Math.max(...over.vertical) * transferThrough(over, transformer), CROSSED * inFree)
        : inFree;
    return {
      realisedGainDbi: powerDb(Math.max(1e-12, gain)),
      transfer: free.radiated * transferThrough(free, transformer),
      validity: 'rough',
    };
  };
  const answered = ({ id }: ForecastTarget): boolean =>
    (everyAnswer.get(id) ?? []).length === (asked.get(id) ?? []).length;
  return {
    spec,
    ...(kind.head ? { head: kind.head } : {}),
    // asked again and again while circumstances are varied: each answer is worked out once
    toward: remembered(
      (target: ForecastTarget) => shielded(target, toward(target)),
      (target) => target.id,
    ),
    fromTransmitter: remembered(fromTransmitter, String),
    answered: (target) => answered(target) && (!cut || answered(cut)),
    answeredFrom: (freqHz) => transmitterQuestions(spec, freqHz).every((one) => heard(one) !== undefined),
    complete: targets.every(answered),
  };
}

/** What several of a modelled antenna hear together: the gains of one by the factor of the array. */
function arrayed(
  design: Design,
  { freqHz, elevationDeg }: HearingQuestion,
  answer: Hearing | Unheard,
): Hearing | Unheard {
  const factor = antennaKind(design.kind).arrayFactor?.(design, freqHz);
  if (!factor || 'why' in answer) return answer;
  const by = (list: readonly number[]): readonly number[] =>
    list.map((gain, i) => gain * factor((360 * i) / list.length, elevationDeg));
  return { ...answer, gains: by(answer.gains), vertical: by(answer.vertical), rightHand: by(answer.rightHand) };
}

/** What the reflection in the ground adds to a gain in free space on average over the sky: all of the power goes into half of the sphere. */
const GROUND_DB = powerDb(2);

/** A gain that closed form or a data sheet states for free space, as it counts over ground for a wave of the target's polarisation. */
function overGround(
  reception: Reception,
  target: ForecastTarget,
  own: 'vertical' | 'horizontal' | 'circular' | undefined,
  seesSky: boolean,
): Reception {
  const share = polarisedShare(own, signalOf(target).polarisation);
  return { ...reception, realisedGainDbi: reception.realisedGainDbi + powerDb(share) + (seesSky ? 0 : GROUND_DB) };
}

const mhz = (freqHz: number): string => frequencyText(freqHz, 2);
/** No figure at all where a kind is not good for anything. */
const outOfBand = (design: Design): Reception => {
  const [lowHz, highHz] = reachOf(design);
  const { name } = antennaKind(design.kind);
  return { ...NOT_KNOWN, remark: `${name}: made for ${mhz(lowHz)} to ${mhz(highHz)}, not for this.` };
};

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

/** Lowest and highest point of the wires, m. */
const extent = rememberedOf((design: Design): readonly [low: number, high: number] | undefined => {
  const model = drawn(design)(FREE);
  if (!model) return undefined;
  const heights = model.wires.flatMap(({ from, to }) => [from[2], to[2]]);
  return [Math.min(...heights), Math.max(...heights)];
});

const no = (needsSpanM: number, needsHeightM: number, reason: string): Fit => ({
  ...{ fits: false, needsSpanM, needsHeightM, reason },
});

/** Whether a candidate fits the room, or its own spot; an antenna that needs its own metal surface fits only where that may be had. */
export function candidateFit(spec: CandidateSpec, given: PlaceRoom): Fit {
  const room = spec.spot ? roomAt(spec.spot) : given;
  if (spec.source === 'bought') {
    const fits = spec.sizeM <= room.spanM;
    return {
      ...{ fits, needsSpanM: spec.sizeM, needsHeightM: 0 },
      reason: fits
        ? `it fits, ${lengthText(spec.sizeM)} across`
        : `it is ${lengthText(spec.sizeM)} across, and the place offers ${lengthText(room.spanM)}`,
    };
  }
  const kind = antennaKind(spec.design.kind);
  const fit = fitIn(spec.design)(room);
  const { needsSpanM, needsHeightM } = fit;
  if (spec.source === 'kind' && spec.spot && !(kind.spots ?? ANYWHERE).includes(spec.spot.kind))
    return no(needsSpanM, needsHeightM, `it is put up ${spotsText(kind.spots ?? ANYWHERE)}`);
  const surfaceM = wavelengthM(spec.design.freqHz) / 2;
  if (kind.ownGround && surfaceM > MOST_SURFACE_M)
    return no(
      ...([needsSpanM, needsHeightM] as const),
      `needs a metal surface about ${lengthText(surfaceM, 2)} across; ${lengthText(MOST_SURFACE_M, 1)} is what a roof or vehicle offers`,
    );
  const span = extent(spec.design);
  if (fit.fits && room.lowM !== undefined && span && !kind.ownGround) {
    const [low, high] = span;
    const offeredM = room.heightM - room.lowM;
    if (high - low > offeredM + 0.01 || low < room.lowM - 0.01)
      return no(
        ...([needsSpanM, needsHeightM] as const),
        `it stands ${lengthText(high - Math.min(low, room.lowM), 2)} tall, and there is room for ${lengthText(offeredM, 2)} there`,
      );
  }
  return fit;
}

const spotsText = (kinds: readonly SpotKind[]): string => {
  const words = kinds.map((kind) => SPOT_WORDS[kind]);
  return words.length === 1 ? words[0] : `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]}`;
};
