import { requirePositive, requireRange, ShapeError } from '../errors';
import { gammaOfSwr, mismatchLossDb } from '../line/reflection';
import { freeSpaceLossDb } from '../site/orbit';
import { DIPOLE_GAIN_DBI } from '../units/constants';
import { powerDb, powerRatio } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

/**
 * A direct wave and one reflected by flat ground.
 * @param reflection coefficient of the ground, real, −1 to 1.
 * @returns path difference, level against free space, and how far the receiving antenna is raised from one maximum to the next.
 */
export function twoRay(input: {
  readonly freqHz: number;
  readonly heightM: number;
  readonly otherHeightM: number;
  readonly distanceM: number;
  readonly reflection: number;
}) {
  requirePositive(input.distanceM, 'Distance (m)');
  requirePositive(input.heightM, 'Height (m)');
  requireRange(input.reflection, 'Reflection', -1, 1);
  const lambda = wavelengthM(input.freqHz);
  const direct = Math.hypot(input.distanceM, input.heightM - input.otherHeightM);
  const reflected = Math.hypot(input.distanceM, input.heightM + input.otherHeightM);
  const phase = (2 * Math.PI * (reflected - direct)) / lambda;
  const weight = (input.reflection * direct) / reflected;
  return {
    pathDifferenceM: reflected - direct,
    levelDb: 20 * Math.log10(Math.max(1e-10, Math.hypot(1 + weight * Math.cos(phase), weight * Math.sin(phase)))),
    heightStepM: (lambda * input.distanceM) / (2 * input.heightM),
  };
}

/** A gain measured by exchanging the antenna for one of known gain. */
export interface SubstitutedGain {
  /** As it is on its line, mismatch included, dBi. */
  readonly realisedDbi: number;
  /** Of the antenna itself, dBi. */
  readonly gainDbi: number;
  readonly gainDbd: number;
}

/**
 * Gain by substitution: the difference of two levels on the gain of the reference, each corrected for its mismatch.
 * @param referenceDbi gain of the reference when matched. Source: IEEE Std 149, gain-transfer method (from memory).
 */
export function substitutionGain(input: {
  readonly referenceDbi: number;
  readonly referenceDbm: number;
  readonly testDbm: number;
  readonly referenceSwr: number;
  readonly testSwr: number;
}): SubstitutedGain {
  const lost = (swr: number, what: string): number => {
    requireRange(swr, what, 1, 100);
    return mismatchLossDb(gammaOfSwr(swr)) ?? 0;
  };
  const realisedDbi =
    input.referenceDbi - lost(input.referenceSwr, 'SWR of the reference') + input.testDbm - input.referenceDbm;
  const gainDbi = realisedDbi + lost(input.testSwr, 'SWR of the antenna');
  return { realisedDbi, gainDbi, gainDbd: gainDbi - DIPOLE_GAIN_DBI };
}

/** The way from the sender to the reference, held against free space. */
interface RangeCheck {
  /** Loss between the two antennas in free space, dB, and the level that the reference should then show. */
  readonly freeSpaceDb: number;
  readonly expectedDbm: number;
  /** Measured level of the reference less the expected one, dB: what the room adds. */
  readonly offDb: number;
  /** Whether that is within what the errors explain. */
  readonly sound: boolean;
}

/** A gain by substitution held against free space and a model. */
export interface GainCheck extends SubstitutedGain {
  /** undefined where frequency, distance, power or the sender's gain were not given: then nothing is said of free space. */
  readonly range?: RangeCheck;
  /** Error of the gain, 1 sigma, and its parts, dB. */
  readonly sigmaDb: number;
  readonly parts: readonly { readonly name: string; readonly db: number }[];
  /** Measured less model, dB; null without a model. */
  readonly modelOffDb: number | null;
  /** Whether the model lies within two sigmas; null without a model, and where the way is not sound: then no gain of this place proves anything. */
  readonly agrees: boolean | null;
}

/**
 * Gain by substitution with its error budget: scatter of either level, the reference's own gain, reflections of the place; as independent parts.
 * Source: root of the sum of squares, JCGM 100 (GUM).
 */
export function checkedGain(
  input: Parameters<typeof substitutionGain>[0] & {
    readonly freqHz: number | null;
    readonly distanceM: number | null;
    readonly sentDbm: number | null;
    readonly senderDbi: number | null;
    readonly scatterDb: number;
    readonly referenceErrorDb: number;
    readonly reflectionDb: number;
    readonly modelDbi: number | null;
  },
): GainCheck {
  for (const [what, db] of [
    ['Scatter of a level (dB)', input.scatterDb],
    ['Error of the reference (dB)', input.referenceErrorDb],
    ['Reflections (dB)', input.reflectionDb],
  ] as const)
    requireRange(db, what, 0, 40);
  const gain = substitutionGain(input);
  const parts = [
    { name: 'scatter of the two levels', db: Math.SQRT2 * input.scatterDb },
    { name: 'gain of the reference', db: input.referenceErrorDb },
    { name: 'reflections of the place', db: input.reflectionDb },
  ];
  const sigmaDb = Math.hypot(...parts.map(({ db }) => db));
  const range = rangeOf(input, sigmaDb);
  const modelOffDb = input.modelDbi === null ? null : gain.gainDbi - input.modelDbi;
  return {
    ...gain,
    ...(range ? { range } : {}),
    ...{ sigmaDb, parts, modelOffDb },
    agrees: modelOffDb === null || range?.sound === false ? null : Math.abs(modelOffDb) <= 2 * sigmaDb,
  };
}

/** Cables, plugs and a sender's power are known to about this together, dB, 1 sigma. Common practice, no source. */
const RANGE_SIGMA_DB = 1.5;
/** So many sigmas off, a way is not the free one: something is wrong with it, and not with the antennas. */
const RANGE_SIGMAS = 3;

function rangeOf(
  {
    freqHz,
    distanceM,
    sentDbm,
    senderDbi,
    referenceDbi,
    referenceDbm,
  }: Pick<
    Parameters<typeof checkedGain>[0],
    'freqHz' | 'distanceM' | 'sentDbm' | 'senderDbi' | 'referenceDbi' | 'referenceDbm'
  >,
  sigmaDb: number,
): RangeCheck | undefined {
  if (freqHz === null || distanceM === null || sentDbm === null || senderDbi === null) return undefined;
  const freeSpaceDb = freeSpaceLossDb(distanceM, freqHz);
  const expectedDbm = sentDbm + senderDbi + referenceDbi - freeSpaceDb;
  const offDb = referenceDbm - expectedDbm;
  return {
    ...{ freeSpaceDb, expectedDbm, offDb },
    sound: Math.abs(offDb) <= RANGE_SIGMAS * Math.hypot(sigmaDb, RANGE_SIGMA_DB),
  };
}

/** One turn of an antenna: levels at each angle, and the level at the reference angle before and after. */
export interface PatternTurn {
  readonly levelsDbm: readonly number[];
  readonly startDbm: number;
  readonly endDbm: number;
}

/**
 * Turns averaged in power, angle by angle, after a drift of the transmitter that runs evenly from the first reference reading to the last.
 * @throws ShapeError when the turns have different angles.
 */
export function averageTurns(turns: readonly PatternTurn[]) {
  const angles = turns[0]?.levelsDbm.length ?? 0;
  if (angles === 0 || turns.some(({ levelsDbm }) => levelsDbm.length !== angles))
    throw new ShapeError('Every turn needs a level at the same angles. Complete the shorter one, or leave it out.');
  const meansDbm = Array.from({ length: angles }, (_, i) =>
    powerDb(
      turns.reduce((sum, { levelsDbm, startDbm, endDbm }) => {
        // the reference is read once before and once after: the angles lie evenly between
        const drift = ((endDbm - startDbm) * (i + 1)) / (angles + 1);
        return sum + powerRatio(levelsDbm[i] - drift);
      }, 0) / turns.length,
    ),
  );
  const maximumDbm = Math.max(...meansDbm);
  return { normalisedDb: meansDbm.map((one) => one - maximumDbm), maximumDbm };
}
