import { antennaKind } from '../antenna/kinds';
import { type PlacedAntenna, placedWires } from '../antenna/placed-wires';
import { OutOfRangeError, requirePositive } from '../errors';
import { BEARING_DEG, PLACE_M } from '../evidence/holds-for';
import { LINE_OHM } from '../line/coax';
import { add, complex, divide, magnitude, multiply, subtract } from '../numeric/complex';
import { gainRatio } from '../solver/far-field';
import { meshOf } from '../solver/mesh';
import { distance, type Ground, type Point, type WireModel } from '../solver/model';
import { nearFieldPerRootWatt } from '../solver/near-field';
import { inputImpedance, maximumGain, type Solution, solveAt } from '../solver/solve';
import { FREE_SPACE_IMPEDANCE_OHM } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

/** What one antenna takes from another. */
export interface AntennaCoupling {
  readonly freqHz: number;
  readonly distanceM: number;
  /** Power that goes into the transmit antenna over power in 50 Ω at the other, dB. */
  readonly lossDb: number;
  /** The least of it with the other antenna off its place or bearing by what a builder can hold: the figure to protect by, dB. */
  readonly safeDb: number;
  /** The least loss that any matching of the receiver could have, dB; absent where the antenna is no wire to the solver. */
  readonly leastLossDb?: number;
  /** Voltage at the open feed of the other with 1 W, V peak; absent likewise. */
  readonly openVoltsPerRootWatt?: number;
  /** The same over free space by the far field, dB, for comparison: it knows no ground, no polarisation and no null. */
  readonly farFieldLossDb: number;
  readonly reactiveM: number;
  readonly farFieldM: number;
  /** Gain of the other antenna's own amplifier, which comes on top, dB; 0 for none. */
  readonly amplifierDb: number;
  /** By wires, or by the field at its place and the gain of its kind. */
  readonly by: 'wires' | 'field';
}

/** Two antennas as one model with a port each. */
function together(one: Omit<WireModel, 'ground'>, other: Omit<WireModel, 'ground'>, ground: Ground): WireModel {
  const shift = one.wires.length;
  return {
    wires: [...one.wires, ...other.wires],
    ports: [one.ports[0], { ...other.ports[0], wire: other.ports[0].wire + shift }],
    loads: [...one.loads, ...other.loads.map((load) => ({ ...load, wire: load.wire + shift }))],
    ground,
  };
}

function solved(model: WireModel, freqHz: number): Solution {
  const mesh = meshOf(model, freqHz, 1);
  return solveAt(model, mesh, freqHz);
}

const extentOf = ({ wires }: Pick<WireModel, 'wires'>): number =>
  Math.max(
    ...wires.flatMap(({ from, to }) =>
      wires.map((other) => Math.max(distance(from, other.to), distance(to, other.from))),
    ),
  );
const middleOf = ({ wires }: Pick<WireModel, 'wires'>): Point => {
  const ends = wires.flatMap(({ from, to }) => [from, to]);
  const mean = (axis: 0 | 1 | 2): number => ends.reduce((sum, end) => sum + end[axis], 0) / ends.length;
  return [mean(0), mean(1), mean(2)];
};

/** Height at which a kind without wires is taken to stand unless its design says otherwise, m. */
const PROBE_HEIGHT_M = 2;

/** No computed loss counts for more until it was tested: lines, supplies and houses lead round it. Common practice, no source. */
export const TRUSTED_LOSS_DB = 50;

/** A loss never shows a gain: two wires do not give more than they get. */
const asLoss = (ratio: number): number => Math.max(0, -powerDb(ratio));

/** The other antenna off its place, and off its bearing, by what a builder can hold. */
const offPlace = (other: PlacedAntenna): readonly PlacedAntenna[] =>
  [
    [PLACE_M, 0],
    [-PLACE_M, 0],
    [0, PLACE_M],
    [0, -PLACE_M],
  ].map(([east, north]) => ({ ...other, at: [other.at[0] + east, other.at[1] + north] }));
const offBearing = (other: PlacedAntenna): readonly PlacedAntenna[] =>
  [BEARING_DEG, -BEARING_DEG].map((turn) => ({ ...other, facingDeg: other.facingDeg + turn }));

/**
 * Coupling of a transmit antenna to another over the station's ground, near field and the other's own influence included: both as wires in one
 * model, the other ending in 50 Ω. A kind that is no wire takes the field at its place times the gain of its kind.
 * @throws OutOfRangeError for a sender without wires, GeometryError where the two touch, at their places or off them by 0.3 m.
 * Range: what the wire solver holds for; feed lines, towers, houses and the sea's edge are not in it.
 */
export function antennaCoupling(
  sender: PlacedAntenna,
  other: PlacedAntenna,
  ground: Ground,
  freqHz: number,
): AntennaCoupling {
  const { lossDb, ...found } = couplingAsPlaced(sender, other, ground, freqHz);
  const varied = [...offPlace(other), ...offBearing(other)].map(
    (moved) => couplingAsPlaced(sender, moved, ground, freqHz).lossDb,
  );
  return {
    ...{ ...found, lossDb, safeDb: Math.min(lossDb, ...varied) },
    farFieldLossDb: farFieldLoss(sender, other, freqHz),
  };
}

/** The coupling with both antennas exactly where they were laid. */
function couplingAsPlaced(
  sender: PlacedAntenna,
  other: PlacedAntenna,
  ground: Ground,
  freqHz: number,
): Omit<AntennaCoupling, 'safeDb' | 'farFieldLossDb'> {
  requirePositive(freqHz, 'Frequency (Hz)');
  const sending = placedWires(sender);
  if (!sending)
    throw new OutOfRangeError(
      `${sender.name} is no wire to the solver: what it radiates nearby cannot be computed. Measure step by step instead.`,
    );
  const hearing = placedWires(other);
  const lambda = wavelengthM(freqHz);
  const size = Math.max(extentOf(sending), hearing ? extentOf(hearing) : 0);
  const common = {
    ...{ freqHz, distanceM: Math.hypot(other.at[0] - sender.at[0], other.at[1] - sender.at[1]) },
    ...{ reactiveM: lambda / (2 * Math.PI), farFieldM: (2 * size ** 2) / lambda },
    amplifierDb: antennaKind(other.design.kind).head?.gainDb ?? 0,
  };
  if (!hearing) {
    const place: Point = [...other.at, other.design.dimensions.heightM ?? PROBE_HEIGHT_M];
    const { e } = nearFieldPerRootWatt(solved({ ...sending, ground }, freqHz), place);
    const gainDbi = antennaKind(other.design.kind).reception?.(other.design)(freqHz).realisedGainDbi ?? 0;
    // power density of the field times the area that the gain stands for
    const density = e ** 2 / (2 * FREE_SPACE_IMPEDANCE_OHM);
    return { ...common, lossDb: asLoss((density * lambda ** 2 * 10 ** (gainDbi / 10)) / (4 * Math.PI)), by: 'field' };
  }
  const solution = solved(together(sending, hearing, ground), freqHz);
  const [[z11, z12], [z21, z22]] = solution.impedance;
  const loaded = add(z22, complex(LINE_OHM));
  const input = subtract(z11, divide(multiply(z12, z21), loaded));
  const received = (magnitude(z21) / magnitude(loaded)) ** 2 * LINE_OHM;
  return {
    ...common,
    lossDb: asLoss(received / input.re),
    leastLossDb: asLoss(maximumGain(solution)),
    // 1 W: ½·|I|²·R = 1
    openVoltsPerRootWatt: magnitude(z21) * Math.sqrt(2 / z11.re),
    by: 'wires',
  };
}

/** Loss by Friis with the gains of both in free space toward each other. */
function farFieldLoss(sender: PlacedAntenna, other: PlacedAntenna, freqHz: number): number {
  const gainToward = (from: PlacedAntenna, to: PlacedAntenna): number => {
    const wires = placedWires(from);
    if (!wires) return antennaKind(from.design.kind).reception?.(from.design)(freqHz).realisedGainDbi ?? 0;
    const there = placedWires(to);
    const [a, b] = [middleOf(wires), there ? middleOf(there) : ([...to.at, PROBE_HEIGHT_M] as const)];
    const [dx, dy, dz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const solution = solved({ ...wires, ground: { type: 'free' } }, freqHz);
    // the solver counts azimuth from +x toward +y; 50 Ω take what the mismatch leaves
    const gain = gainRatio(solution)(
      (Math.atan2(dy, dx) * 180) / Math.PI,
      (Math.atan2(dz, Math.hypot(dx, dy)) * 180) / Math.PI,
    );
    const { re, im } = inputImpedance(solution);
    const transfer = from === other ? (4 * LINE_OHM * re) / ((re + LINE_OHM) ** 2 + im ** 2) : 1;
    return powerDb(Math.max(1e-30, gain * transfer));
  };
  const apart = Math.max(1e-3, Math.hypot(other.at[0] - sender.at[0], other.at[1] - sender.at[1]));
  const path = 20 * Math.log10((4 * Math.PI * apart) / wavelengthM(freqHz));
  return path - gainToward(sender, other) - gainToward(other, sender);
}

/** How a coupling moves with what is not known well. */
export interface CouplingRange {
  readonly lowDb: number;
  readonly highDb: number;
  readonly because: string;
}

/** Heights are known to about this share. */
const HEIGHT_SHARE = 0.1;

/** The coupling with the other antenna off its place and bearing by what a builder can hold, its height 10 % off, and over drier and wetter ground. */
export function couplingRanges(
  sender: PlacedAntenna,
  other: PlacedAntenna,
  grounds: readonly Ground[],
  own: Ground,
  freqHz: number,
): readonly CouplingRange[] {
  const range = (because: string, losses: readonly number[]): CouplingRange => ({
    ...{ because, lowDb: Math.min(...losses), highDb: Math.max(...losses) },
  });
  const { heightM } = other.design.dimensions;
  const at = (share: number): PlacedAntenna => ({
    ...other,
    design: { ...other.design, dimensions: { ...other.design.dimensions, heightM: heightM * share } },
  });
  const lossOf = (moved: PlacedAntenna): number => couplingAsPlaced(sender, moved, own, freqHz).lossDb;
  return [
    range(`its place ${100 * PLACE_M} cm off`, offPlace(other).map(lossOf)),
    range(`its bearing ${BEARING_DEG}° off`, offBearing(other).map(lossOf)),
    ...(heightM === undefined
      ? []
      : [
          range(
            `its height ${100 * HEIGHT_SHARE} % off`,
            [1 - HEIGHT_SHARE, 1 + HEIGHT_SHARE].map((share) => lossOf(at(share))),
          ),
        ]),
    ...(own.type === 'free'
      ? []
      : [
          range(
            'drier and wetter ground',
            grounds.map((ground) => couplingAsPlaced(sender, other, ground, freqHz).lossDb),
          ),
        ]),
  ];
}
