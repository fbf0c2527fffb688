import type { Dimension } from '../units/quantity';
import type { Ground, WireModel } from '../solver/model';
import type { BuildStep } from './build-plan';

/** What a person decides about an antenna; which dimensions count depends on the kind. SI units. */
export interface Design {
  readonly kind: KindId;
  /** Frequency it is cut for. */
  readonly freqHz: number;
  /** Conductor diameter. */
  readonly diameterM: number;
  readonly insulated: boolean;
  /** Share added to every cut for trimming, as a ratio. */
  readonly allowance: number;
  /** Dimensions set by hand or by trimming the model; what is absent follows from the frequency by closed form. SI or degrees. */
  readonly dimensions: Readonly<Record<string, number>>;
}

/** Name of a kind, as stored; which there are the list of kinds says. */
export type KindId = string;

/** Sensible start values; every field can be changed. */
export const DEFAULT_DESIGN: Omit<Design, 'kind' | 'freqHz'> = {
  diameterM: 0.002,
  insulated: false,
  allowance: 0.03,
  dimensions: {},
};

/** A dimension of a kind: its name, range, and what closed form gives when nobody set it. */
export interface Parameter {
  readonly id: string;
  readonly label: string;
  readonly dimension: Dimension;
  /** Unit of a bare number. */
  readonly bareUnit?: string;
  readonly least: number;
  readonly most: number;
  readonly whole?: boolean;
  /** A question of yes (1) or no (0). */
  readonly yesNo?: boolean;
  /** Whether it counts with these dimensions; absent: always. */
  readonly counts?: (d: Dimensions) => boolean;
  readonly hint?: string;
  /** Closed-form first guess. `other` gives the dimensions listed before this one. */
  start(design: Design, other: Dimensions): number;
}

/** Every dimension of a design by name, set or by closed form. */
export type Dimensions = Readonly<Record<string, number>>;

/** A frequency-trimmed length: what the fit may change to move the resonance. */
interface TrimChoice {
  /** Parameter that moves the resonance. */
  readonly id: string;
  /** As a person says it: "each arm". */
  readonly name: string;
  /** Share of that parameter that is one piece (a dipole's arm is half of its length). */
  readonly share: number;
}

/** Something to cut: how many, how long when finished, how long to cut first. */
export interface CutPiece {
  readonly name: string;
  readonly count: number;
  readonly finishedM: number;
  readonly cutM: number;
  /** It is bought, not cut: no conductor is needed for it. */
  readonly bought?: boolean;
  /** Why the cut is longer than the finished length with its allowance; absent where it is not. */
  readonly longer?: string;
}

/** A figure with the formula behind it. */
export interface DraftFigure {
  readonly label: string;
  readonly value: number;
  readonly dimension: Dimension;
  readonly figures: number;
  readonly origin: 'model' | 'catalogue' | 'assumed';
  readonly formula: string;
  readonly source: string;
}

/** Dimensions and everything that follows from them. */
export interface Draft {
  readonly pieces: readonly CutPiece[];
  readonly figures: readonly DraftFigure[];
  readonly remarks: readonly string[];
  readonly steps: readonly BuildStep[];
  /** Length that a diagnosis refers to (one arm, the element, the circumference). */
  readonly trimLengthM: number;
  readonly trimName: string;
}

/** Where at a home an antenna may hang. */
export const SPOT_KINDS = ['indoors', 'window', 'balcony', 'attic', 'roof', 'deck', 'wall', 'garden', 'trees'] as const;
export type SpotKind = (typeof SPOT_KINDS)[number];

/** What is known of the choke of an antenna. */
export const CHOKES = ['not said', 'yes', 'no'] as const;

/** What the place offers, in metres. */
export interface PlaceRoom {
  readonly spanM: number;
  readonly heightM: number;
  /** Floor of a spot from which nothing reaches down to the ground: a balcony, a roof; absent: the ground itself. */
  readonly lowM?: number;
}

/** What an antenna answers to of the noise near by: the electric field of wiring and cables, both alike and balanced, or the magnetic field. */
export type NoiseResponse = 'electric' | 'balanced' | 'magnetic';

/** Whether an antenna fits, with the reason and the numbers that decide. */
export interface Fit {
  readonly fits: boolean;
  readonly reason: string;
  readonly needsSpanM: number;
  readonly needsHeightM: number;
}

/** How far the formulas behind a figure may be trusted. */
type Validity = 'holds' | 'rough' | 'outside';

/** How an antenna hands on what the field brings, at one frequency. */
export interface Reception {
  /** Power at its output or amplifier input against an isotropic lossless antenna, dB: directivity, loss and mismatch together. */
  readonly realisedGainDbi: number;
  /** Share of the external noise power that arrives (efficiency times power transfer), ratio. */
  readonly transfer: number;
  /** Internal noise of an active antenna as an equivalent external noise figure, dB; absent for passive ones. */
  readonly ownFaDb?: number;
  readonly validity: Validity;
  readonly remark?: string;
}

/** Electronics that belong to an antenna. */
export interface HeadAmplifier {
  readonly gainDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
}

/** How much of it is seen: nothing, hardly, plainly, from the next street. */
export type Sight = 0 | 1 | 2 | 3;
export const SIGHT_WORDS: Readonly<Record<Sight, string>> = {
  0: 'unseen',
  1: 'hardly seen',
  2: 'plainly seen',
  3: 'seen from the street',
};

/** What an antenna costs beside its radio: money, time, looks, and what it takes from the place. */
export interface Burden {
  /** Parts, in the user's currency; order of magnitude. */
  readonly price: number;
  readonly hours: number;
  readonly sight: Sight;
  /** It lies on a lawn. */
  readonly onLawn?: boolean;
  /** It needs a mast or another high point. */
  readonly mast?: boolean;
  /** It is held by stakes or rods driven into the ground. */
  readonly stakes?: boolean;
}

/** Wires of an antenna that are trimmed one by one, and the band of each. */
export interface TrimmedWires {
  readonly ids: readonly string[];
  readonly bandsHz: readonly number[];
}

/** One kind of antenna: everything that differs between kinds. */
export interface AntennaKind {
  readonly id: KindId;
  readonly name: string;
  readonly summary: string;
  /**
   * Frequencies at which it is worth building at all, Hz: below, it would be larger than anybody puts up; above, another kind does it better or the wire
   * model ends. Common practice, no source; wide on purpose, so that nothing sensible is left out.
   */
  readonly bandHz: readonly [lowHz: number, highHz: number];
  /** Assumed for an ordinary home build with new parts; no source. Every figure can be weighed down to nothing. */
  readonly burden: Burden;
  /** It hears along the direction in which it is laid, first end to last; all others hear across it. */
  readonly hearsAlong?: boolean;
  /** Where practitioners differ about it, both sides in one or two sentences. */
  readonly school?: string;
  /** Spots at which it is put up; absent: wherever it finds room outdoors or under a roof. Common practice, no source. */
  readonly spots?: readonly SpotKind[];
  /** What it answers to of the noise of the house; absent: balanced. */
  readonly answersTo?: NoiseResponse;
  /** Mast and cable are its other half: what the cable brings, a choke does not keep off. */
  readonly cableIsHalf?: boolean;
  /** It is turned by hand or motor, so that its null takes one source away. */
  readonly turns?: boolean;
  /** It looks up, away from the warm earth. */
  readonly seesSky?: boolean;
  /** How its waves are polarised where closed form answers alone; absent: by the wire model. */
  readonly polarised?: 'vertical' | 'horizontal' | 'circular';
  /** Sizes worth trying beside the one that the place gives. */
  sizes?(d: Dimensions, design: Design, room: PlaceRoom): readonly Dimensions[];
  /** Dimensions that follow the place: how high its support lets it hang, how long the run lets it be. */
  atPlace?(d: Dimensions, design: Design, room: PlaceRoom): Dimensions;
  /** Conductor that it begins with whatever the frequency, m. */
  readonly conductorM?: number;
  /** Span in which a design of it is worth trying, Hz; absent: the few per cent about its frequency in which a resonant antenna stays good. */
  readonly usefulHz?: (design: Design, d: Dimensions) => readonly [lowHz: number, highHz: number];
  /** Its wires, where they are trimmed one by one; absent for a kind with one dip. */
  readonly trimmedWires?: (design: Design, d: Dimensions) => TrimmedWires;
  readonly parameters: readonly Parameter[];
  /** Design fields beside the parameters that do not count for this kind. */
  readonly ignores?: readonly ('freqHz' | 'insulated' | 'allowance')[];
  readonly trim?: TrimChoice;
  readonly head?: HeadAmplifier;
  /** Parts beside the conductor. */
  readonly materials: readonly string[];
  /** What usually goes wrong, and how one notices. */
  readonly goesWrong: readonly string[];
  draft(design: Design): Draft;
  fit(design: Design, room: PlaceRoom): Fit;
  /** Wires for the solver; broadside or forward along +x, z up. Absent for what is no wire: closed form alone. */
  model?(design: Design, ground: Ground): WireModel;
  /** Ground that the model needs whatever the place has (a vehicle's roof), with the reason. */
  readonly ownGround?: { readonly ground: Ground; readonly why: string };
  /** Of several of the modelled antennas together: power toward a direction over their own average over the sky, ratio. */
  arrayFactor?(design: Design, freqHz: number): (azimuthDeg: number, elevationDeg: number) => number;
  /** Closed-form reception for quick rankings; absent where only the wire model knows. */
  reception?(design: Design): (freqHz: number) => Reception;
}
