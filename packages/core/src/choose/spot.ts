import type { PlaceRoom, SpotKind } from '../antenna/kind';

export const SPOT_WORDS: Readonly<Record<SpotKind, string>> = {
  indoors: 'indoors',
  window: 'at the window',
  balcony: 'on the balcony',
  attic: 'in the attic',
  roof: 'on the roof',
  deck: 'on the metal deck or roof',
  wall: 'against the wall',
  garden: 'in the garden',
  trees: 'in the trees',
};

/** A spot where an antenna may hang: what it offers, in metres over the ground below. */
export interface Spot {
  readonly id: string;
  readonly name: string;
  readonly kind: SpotKind;
  /** Longest side, m. */
  readonly spanM: number;
  /** Other side, m. */
  readonly widthM: number;
  /** Highest point over the ground at which something can be fixed. */
  readonly heightM: number;
  /** From the nearest outside wall of the house; 0 in or at the house; undefined: nobody said. */
  readonly distanceM?: number;
}

/** How much of an antenna may stand up there where nothing reaches down to the ground, m. Common practice, no source. */
const TALL_M: Readonly<Partial<Record<SpotKind, number>>> = {
  indoors: 2,
  window: 1.5,
  balcony: 2,
  attic: 2.5,
  roof: 5,
  deck: 5,
};

/** Whether wires may reach the ground there. */
export const onGround = ({ kind }: Pick<Spot, 'kind'>): boolean => TALL_M[kind] === undefined;

/** The room of a spot: the longest straight run is its diagonal where one may cross it. */
export const spotRoom = ({ kind, spanM, widthM, heightM }: Spot): PlaceRoom => {
  const tallM = TALL_M[kind];
  return {
    spanM: Math.hypot(spanM, tallM === undefined || kind === 'roof' || kind === 'attic' ? widthM : 0),
    heightM,
    ...(tallM === undefined ? {} : { lowM: Math.max(0, heightM - tallM) }),
  };
};

/** What walls and roofs take of a wave at VHF and above, and below, dB. Common practice, no source. */
export const shieldDb = ({ kind }: Pick<Spot, 'kind'>, freqHz: number): number => {
  const high = freqHz > 30e6;
  if (kind === 'indoors') return high ? 12 : 3;
  if (kind === 'attic') return high ? 5 : 1;
  if (kind === 'window') return high ? 5 : 0;
  return kind === 'balcony' && high ? 3 : 0;
};

type NewSpot = Omit<Spot, 'id'>;
const spot = (
  name: string,
  kind: SpotKind,
  [spanM, widthM, heightM]: readonly [number, number, number],
  distanceM = 0,
): NewSpot => ({ name, kind, spanM, widthM, heightM, distanceM });

/** Height of one storey, m. */
const STOREY_M = 3;
const windowOn = (storey: number): number => STOREY_M * storey + 1.5;

/** A usual home: what it is called, and where antennas may hang there. Assumed, to be changed. */
export interface Home {
  readonly id: string;
  readonly name: string;
  /** It asks for the storey. */
  readonly storeys?: boolean;
  spots(storey: number): readonly NewSpot[];
}

/** Homes as they usually are, each a start that is refined. */
export const HOMES: readonly Home[] = [
  {
    ...{ id: 'window', name: 'Flat with windows only', storeys: true },
    spots: (storey) => [spot('Window', 'window', [2, 0.3, windowOn(storey)])],
  },
  {
    ...{ id: 'balcony', name: 'Flat with a balcony', storeys: true },
    spots: (storey) => [spot('Balcony', 'balcony', [3, 1.2, windowOn(storey) + 0.5])],
  },
  {
    ...{ id: 'attic', name: 'Attic only' },
    spots: () => [spot('Attic', 'attic', [8, 5, 8])],
  },
  {
    ...{ id: 'terraced', name: 'Terraced house, small garden' },
    spots: () => [
      spot('Far corner of the garden', 'garden', [12, 8, 4], 10),
      spot('House wall', 'wall', [8, 1, 6]),
      spot('Roof', 'roof', [8, 6, 10]),
      spot('Attic', 'attic', [8, 5, 8]),
    ],
  },
  {
    ...{ id: 'detached', name: 'Detached house with a garden' },
    spots: () => [
      spot('Garden', 'garden', [30, 20, 9], 15),
      spot('Roof', 'roof', [10, 8, 10]),
      spot('Attic', 'attic', [10, 6, 8]),
    ],
  },
  {
    ...{ id: 'farm', name: 'Farm or country house' },
    spots: () => [spot('Trees', 'trees', [60, 40, 12], 30), spot('Roof', 'roof', [12, 8, 10])],
  },
  {
    ...{ id: 'boat', name: 'Boat or caravan' },
    spots: () => [spot('Deck', 'deck', [6, 2, 5])],
  },
];
