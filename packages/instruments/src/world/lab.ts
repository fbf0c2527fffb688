import { type KindId, startDesign, wireModel } from '@velvet-reed/core/antenna';
import { cableClass, type LineLossModel } from '@velvet-reed/core/line';
import type { WireModel } from '@velvet-reed/core/solver';
import { solvedAntenna, type AntennaTruth } from './antenna';
import { drawFault, faultyFeed, FAULT_KINDS, SOUND, stretchedModel, type Fault, type FaultKind } from './faults';
import { reflectionsAt, type HiddenFeed } from './feed';
import { drawRange, solvedAzimuth, startAzimuth, type AzimuthGain, type Range } from './range';
import { randomFrom } from './random';

/** What is screwed onto the analyser. */
export type Plugged = 'antenna' | 'open' | 'short' | 'load';

/** A strong station that the receiver hears through the antenna. */
export interface HeardStation {
  readonly freqHz: number;
  readonly levelDbm: number;
}

/** The hidden truth that all stand-ins share, and the hands that plug things together. */
export interface World {
  readonly seed: number;
  /** What was drafted; the truth differs. */
  readonly drafted: WireModel;
  readonly aboutHz: number;
  readonly antenna: AntennaTruth;
  /** The same after the fault. */
  readonly antennaAfter: AntennaTruth;
  readonly feed: HiddenFeed;
  readonly fault: Fault;
  /** Largest disturbance of a reading, as |Γ|, one standard deviation. */
  readonly noise: number;
  /** Drift of the analyser per sweep, degrees of phase. */
  readonly driftDeg: number;
  readonly stations: readonly HeardStation[];
  /** What a transmitter next door loses on its way to the meter, and from where the amplifier before the meter compresses. */
  readonly leak: { readonly lossDb: number; readonly compressDbm: number };
  /** Pattern of the antenna on the turntable, and the place it is measured in. */
  readonly azimuth: AzimuthGain;
  readonly range: Range;
  /** A source of noise nearby, m east and north of the middle, and how it arrives on a second antenna against the first. */
  readonly source: {
    readonly eastM: number;
    readonly northM: number;
    readonly onSecond: { readonly db: number; readonly deg: number };
  };
  /** What the box that sets one antenna against the other is off, dB and degrees. */
  readonly boxOff: { readonly db: number; readonly deg: number };
  /** Tuned coil before the receiver. */
  readonly coil: { readonly freqHz: number; readonly q: number; readonly riseRatio: number };
  /** Amplifier before the receiver; strong stations make products in it. */
  readonly amplifier: {
    readonly gainDb: number;
    readonly noiseFigureDb: number;
    readonly iip2Dbm: number;
    readonly iip3Dbm: number;
  };
}

/** A box that adds two antennas: which of them it lets through, and what it does to the second. */
export interface Box {
  readonly through: 'first' | 'second' | 'both';
  readonly gainDb: number;
  readonly phaseDeg: number;
}

/** Everything the stand-ins know at one moment. */
export interface Lab {
  readonly world: World;
  readonly plugged: Plugged;
  /** Whether the exercise's fault has happened yet. */
  readonly faulty: boolean;
  readonly noiseSource: boolean;
  /** Where the turntable stands by its own count, not wrapped, and where it is told to go, degrees. */
  readonly azimuthDeg: number;
  readonly targetDeg: number;
  /** It has been at its mark: from then on its zero is the mark. */
  readonly homed: boolean;
  /** Which antenna the switch has closed, 1 or 2; 0: none. */
  readonly route: 0 | 1 | 2;
  /** Power that is sent next door, W, and the pad before the meter; absent: the meter looks at the turntable. */
  readonly sent?: { readonly powerW: number; readonly padDb: number };
  /** Where the loop on the table was carried, m east and north; absent: no loop is on it. */
  readonly loopAt?: { readonly eastM: number; readonly northM: number };
  /** The box before the meter; absent: there is none. */
  readonly box?: Box;
  /** A distant station that a person tuned to, Hz; 0: none. */
  readonly distantHz: number;
  /** State of the noise generator; the same start gives the same readings. */
  readonly seed: number;
  readonly sweepsDone: number;
}

/** Length errors of hand-cut wire, one standard deviation, as a ratio. Common practice, no source. */
const CUT_ERROR = 0.012;

/** What the listener meant to build and to connect. */
export interface Meant {
  readonly model: WireModel;
  readonly aboutHz: number;
  readonly line: LineLossModel & {
    readonly impedanceOhm: number;
    readonly velocityFactor: number;
    readonly lengthM: number;
  };
}

/** A world about an antenna as it was meant: cut a little wrong, on a cable a little other than its data sheet and its tape measure. */
export function worldOf(
  { model: drafted, aboutHz, line: cable }: Meant,
  seed: number,
  kind: FaultKind = 'none',
): World {
  const random = randomFrom(seed);
  const lengthError = 1 + CUT_ERROR * random.normal();
  const feed: HiddenFeed = {
    impedanceOhm: cable.impedanceOhm * (1 + 0.01 * random.normal()),
    velocityFactor: cable.velocityFactor * (1 + 0.01 * random.normal()),
    lengthM: cable.lengthM * (1 + 0.01 * random.normal()),
    k1: cable.k1 * random.between(0.9, 1.2),
    k2: cable.k2 * random.between(0.9, 1.2),
    plugHenry: random.between(1e-9, 4e-9),
    plugFarad: random.between(0.3e-12, 1.5e-12),
    joint: 'sound',
  };
  const fault = kind === 'none' ? SOUND : drawFault(kind, 1, random);
  const antenna = solvedAntenna(stretchedModel(drafted, lengthError), aboutHz);
  return {
    seed,
    drafted,
    aboutHz,
    antenna,
    antennaAfter:
      fault.lengthFactor === 1
        ? antenna
        : solvedAntenna(stretchedModel(drafted, lengthError * fault.lengthFactor), aboutHz),
    feed,
    fault,
    noise: 0.0015,
    driftDeg: random.between(0, 0.1),
    stations: [
      { freqHz: 1.053e6, levelDbm: -22 },
      { freqHz: 9.74e6, levelDbm: -48 },
      { freqHz: 98.7e6, levelDbm: -18 },
    ],
    coil: { freqHz: random.between(77e3, 80e3), q: random.between(60, 110), riseRatio: 900 },
    amplifier: { gainDb: 14, noiseFigureDb: 9, iip2Dbm: 25, iip3Dbm: 5 },
    // drawn last, so that worlds known before stay as they were
    leak: { lossDb: random.between(48, 72), compressDbm: -22 },
    range: drawRange(random),
    azimuth: solvedAzimuth(stretchedModel(drafted, lengthError), aboutHz),
    source: {
      ...{ eastM: random.between(-60, 60), northM: random.between(60, 140) },
      onSecond: { db: random.between(-6, 6), deg: random.between(-180, 180) },
    },
    boxOff: { db: random.between(-0.3, 0.3), deg: random.between(-2, 2) },
  };
}

/** The antenna that is on the bench before anybody chose one: a dipole for 31 m in free space. */
export const startWorld = (seed: number): World => ({
  ...worldOf(
    {
      model: wireModel(startDesign('half-wave-dipole', 9.65e6), { type: 'free' }),
      aboutHz: 9.65e6,
      line: { ...cableClass('pe5'), lengthM: 15 },
    },
    seed,
  ),
  azimuth: startAzimuth,
});

const EXERCISE_ANTENNAS: readonly { readonly kind: KindId; readonly freqHz: number }[] = [
  { kind: 'half-wave-dipole', freqHz: 9.65e6 },
  { kind: 'half-wave-dipole', freqHz: 14.175e6 },
  { kind: 'quarter-wave', freqHz: 137.5e6 },
  { kind: 'v-dipole', freqHz: 145.8e6 },
];
/** Faults that an exercise hides; several wires are not on its bench. */
const EXERCISE_FAULTS = FAULT_KINDS.filter((kind) => kind !== 'wire-down' && kind !== 'all');

/** An exercise: antenna and fault follow from the seed alone. */
export function exerciseWorld(seed: number): World {
  const random = randomFrom(seed + 7919);
  const { kind, freqHz } = random.pick(EXERCISE_ANTENNAS);
  const fault = random.pick(EXERCISE_FAULTS);
  const line = { ...cableClass('pe5'), lengthM: random.between(5, freqHz > 30e6 ? 10 : 25) };
  return worldOf({ model: wireModel(startDesign(kind, freqHz), { type: 'free' }), aboutHz: freqHz, line }, seed, fault);
}

export const startLab = (world: World): Lab => ({
  world,
  plugged: 'antenna',
  faulty: false,
  noiseSource: true,
  azimuthDeg: 0,
  targetDeg: 0,
  homed: false,
  route: 1,
  distantHz: 0,
  seed: world.seed,
  sweepsDone: 0,
});

/** True reflections of the antenna system at the analyser's plug. */
export function trueReflections({ world, faulty }: Lab, freqHz: Float64Array) {
  return faulty
    ? reflectionsAt(world.antennaAfter, faultyFeed(world.feed, world.fault), freqHz)
    : reflectionsAt(world.antenna, world.feed, freqHz);
}
