import type { NoiseResponse } from '../antenna/kind';
import { combinedDecilesDb, type Environment, expectedNoise, type TimeOfDay } from '../site/external-noise';
import { powerDb, powerRatio } from '../units/decibel';
import type { Spot } from './spot';

/** A figure with the range in which it usually lies, dB. */
export interface Ranged {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** What an antenna is to the noise around it. */
export interface NoiseAsk {
  readonly freqHz: number;
  /** Half of the day whose atmospheric noise counts. */
  readonly time?: TimeOfDay;
  /** Where it hangs; absent: nobody said. */
  readonly spot?: Spot;
  readonly answersTo: NoiseResponse;
  /** It can be turned so that its null points at one source. */
  readonly turns: boolean;
  /** A choke keeps the noise of the cable off; undefined: nobody said. */
  readonly choked?: boolean;
  /** Mast and cable are its other half: no choke keeps them off. */
  readonly cableIsHalf?: boolean;
  /** It looks up, away from the warm earth. */
  readonly seesSky?: boolean;
  /** How high a target stands that it then looks at, degrees. */
  readonly elevationDeg?: number;
  /** One of the listener's own, by its id: what was measured through it counts. */
  readonly antenna?: string;
}

/** Outside noise as one antenna meets it, dB over kT₀. */
export interface SpotNoise extends Ranged {
  /** Of the place in the open, without the house. */
  readonly openDb: number;
  /** What the own house adds over that, dB. */
  readonly houseDb: number;
  /** A floor decides. */
  readonly measured?: boolean;
  /** Where it comes from, one clause. */
  readonly from: string;
}

/** Noise of one's own house at an electric antenna, over the class of the place in the open, dB. Common practice, no source; to be typed over by what is measured. */
const HOUSE_DB: Readonly<Record<'inside' | 'edge' | 'outside', Ranged>> = {
  inside: { low: 10, middle: 20, high: 35 },
  edge: { low: 5, middle: 12, high: 25 },
  outside: { low: 3, middle: 8, high: 15 },
};
/** The same by distance from the house, m: middle and half of the range, dB; straight over the logarithm of the distance. */
const BY_DISTANCE: readonly (readonly [distanceM: number, middle: number, half: number])[] = [
  [1, 8, 5],
  [5, 6, 4],
  [20, 1, 1],
  [40, 0, 0],
];
/** Nobody said how far from the house, or where it hangs at all: between against the wall and in the open. */
const UNSAID: Ranged = { low: 0, middle: 6, high: 20 };
/** What a kind of antenna hears less of the house than an electric one, dB: indoors, and outside. Common practice, no source. */
const LESS_DB: Readonly<Record<NoiseResponse, Readonly<Record<'indoors' | 'outside', number>>>> = {
  electric: { indoors: 0, outside: 0 },
  balanced: { indoors: 5, outside: 5 },
  magnetic: { indoors: 10, outside: 6 },
};
/** What a null turned to one source takes off the house's part: up to 20 dB. Common practice, no source. */
const NULL_DB: Ranged = { low: 0, middle: 6, high: 20 };
/** What the cable of an antenna without a choke brings into it, dB. Common practice, no source. */
export const CABLE_DB: Ranged = { low: 3, middle: 8, high: 15 };
/** The same where nobody said whether there is one. */
const CABLE_UNSAID_DB: Ranged = { low: 0, middle: 4, high: 15 };
/** The same where the cable is the other half of the antenna, choked as far as that goes. Common practice, no source. */
const CABLE_AS_HALF_DB: Ranged = { low: 0, middle: 4, high: 10 };
const NONE: Ranged = { low: 0, middle: 0, high: 0 };

const byDistance = (distanceM: number): Ranged => {
  const far = BY_DISTANCE.findIndex(([at]) => at >= distanceM);
  const [, middle, half] =
    far === 0
      ? BY_DISTANCE[0]
      : far < 0
        ? BY_DISTANCE[BY_DISTANCE.length - 1]
        : between(BY_DISTANCE[far - 1], BY_DISTANCE[far], distanceM);
  return { low: Math.max(0, middle - half), middle, high: middle + half };
};
const between = (
  a: (typeof BY_DISTANCE)[number],
  b: (typeof BY_DISTANCE)[number],
  distanceM: number,
): (typeof BY_DISTANCE)[number] => {
  const share = Math.log(distanceM / a[0]) / Math.log(b[0] / a[0]);
  return [distanceM, a[1] + share * (b[1] - a[1]), a[2] + share * (b[2] - a[2])];
};

/** What the house adds for an electric antenna at a spot, over the class in the open, dB. */
function houseExcessDb(spot: Spot | undefined): Ranged {
  if (!spot) return UNSAID;
  switch (spot.kind) {
    case 'indoors':
    case 'attic':
      return HOUSE_DB.inside;
    case 'window':
    case 'balcony':
      return HOUSE_DB.edge;
    case 'roof':
    case 'wall':
    case 'deck':
      return HOUSE_DB.outside;
    default:
      return spot.distanceM === undefined ? UNSAID : byDistance(spot.distanceM);
  }
}

/**
 * Outside noise as an antenna at a spot meets it: the class of the place, the sky and the season's storms in the open, the house's own by spot and by what
 * the antenna answers to, and what the cable brings; the range from the scatter of each.
 */
export function spotNoise(environment: Environment, offsetDb: number, ask: NoiseAsk): SpotNoise {
  const { freqHz, time, spot, answersTo, turns, choked, cableIsHalf, seesSky = false, elevationDeg } = ask;
  const open = expectedNoise(environment, freqHz, offsetDb, {
    ...(time ? { time } : {}),
    seesSky,
    ...(elevationDeg === undefined ? {} : { elevationDeg }),
  });
  const manMadeDb = open.parts.find(({ source }) => source === 'man-made')?.faDb ?? NOTHING_DB;
  const house = houseExcessDb(spot);
  const cable = cableIsHalf ? CABLE_AS_HALF_DB : choked === true ? NONE : choked === false ? CABLE_DB : CABLE_UNSAID_DB;
  const nulled = turns ? NULL_DB : NONE;
  const lessDb = LESS_DB[answersTo][spot?.kind === 'indoors' || spot?.kind === 'attic' ? 'indoors' : 'outside'];
  const manMade = powerRatio(manMadeDb);
  const others = powerRatio(open.faDb) - manMade;
  const total = (overDb: number, nullDb: number, cableDb: number): number => {
    const house = (powerRatio(Math.max(0, overDb - lessDb)) - 1) * powerRatio(-nullDb);
    return powerDb(others + manMade * (1 + house) * powerRatio(cableDb));
  };
  const middle = total(house.middle, nulled.middle, cable.middle);
  const [least, most] = [total(house.low, nulled.high, cable.low), total(house.high, nulled.low, cable.high)];
  const scatter = combinedDecilesDb(environment);
  const storms = open.parts.find(({ source }) => source === 'atmospheric');
  // the rough curve of the storms counts by its share in the whole
  const stormDb = storms ? STORM_DB * powerRatio(storms.faDb - middle) : 0;
  return {
    middle,
    low: middle - Math.hypot(scatter?.downDb ?? USUAL_SCATTER_DB, middle - least, stormDb),
    high: middle + Math.hypot(scatter?.upDb ?? USUAL_SCATTER_DB, most - middle, stormDb),
    openDb: open.faDb,
    houseDb: middle - open.faDb,
    from: spot
      ? 'the class of the place and the usual noise of a house at that spot, assumed'
      : 'the class of the place; nobody said where it hangs',
  };
}
/** Where a class states nothing of its own. */
const NOTHING_DB = -60;
/** Scatter where a class states none, and of the rough curves of atmospheric noise, dB. */
const USUAL_SCATTER_DB = 6;
const STORM_DB = 15;

/** How much farther the range reaches when a measured floor is carried to another antenna at its spot, dB. Common practice, no source. */
const CARRIED_DB = 4;
/** How far a floor that was measured through this antenna is trusted, dB: hours and days differ. */
const MEASURED_DB = 3;

/** The same where a floor was measured: through this antenna itself, or through another at the same spot. */
export const withFloor = (
  expected: SpotNoise,
  floor: { readonly overExpectedDb: number; readonly through: 'it' | 'another'; readonly name: string },
): SpotNoise => {
  const middle = expected.middle + floor.overExpectedDb;
  const half = floor.through === 'it' ? MEASURED_DB : MEASURED_DB + CARRIED_DB;
  return {
    ...{
      middle,
      low: middle - half,
      high: middle + half,
      openDb: expected.openDb,
      houseDb: middle - expected.openDb,
      measured: true,
    },
    from:
      floor.through === 'it' ? 'its own measured floor' : `the floor measured through ${floor.name} at the same spot`,
  };
};
