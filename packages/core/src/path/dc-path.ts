import { requirePositive, requireRange } from '../errors';
import { symmetricPad } from './pads';
import { type Switched, switchedBy } from './switching';

/** Something that is fed over the coax. */
export interface DcLoad {
  readonly dc: 'load';
  readonly name: string;
  /** Least voltage it works at. */
  readonly leastV: number;
  /** Absent: nobody said. */
  readonly currentA?: number;
  readonly wantsPositive: boolean;
  /** Volts and a tone choose its polarisation and band; the oscillator that the path counts with, Hz. */
  readonly switchedHz?: number;
}

/** A stage of the path as the DC on the coax meets it. */
export type DcStage =
  /** `assumed`: the resistance is usual for the class, nobody entered it. */
  | {
      readonly dc: 'line';
      readonly name: string;
      readonly lengthM: number;
      readonly ohmPerM?: number;
      readonly assumed?: boolean;
    }
  | { readonly dc: 'through'; readonly name: string }
  /** `own`: it has a supply of its own and ends the coax of another. */
  | { readonly dc: 'blocked'; readonly name: string; readonly own?: boolean }
  | { readonly dc: 'pad'; readonly name: string; readonly lossDb: number }
  | { readonly dc: 'resistive splitter' | 'leg without DC' | 'diodes' | 'unknown'; readonly name: string }
  | DcLoad
  | {
      readonly dc: 'feed';
      readonly name: string;
      readonly supplyV: number;
      readonly limitA: number;
      readonly positive: boolean;
      /** The amplifier inside an active antenna, when it hangs on this feed. */
      readonly head?: DcLoad;
    };

/** What one load gets. */
interface DcAtLoad {
  readonly name: string;
  readonly feed?: string;
  readonly volts?: number;
  readonly leastV: number;
  /** Whether the drop of every line on the way is in the volts. */
  readonly lineCounted?: boolean;
  /** What these volts switch it to. */
  readonly switched?: Switched;
  readonly errors: readonly string[];
  readonly warnings: readonly string[];
}

/** DC along a whole path. */
export interface DcPath {
  readonly loads: readonly DcAtLoad[];
  /** About feeds themselves: current, a feed without a load. */
  readonly errors: readonly string[];
  readonly warnings: readonly string[];
}

/** Less room than this above the least voltage is remarked, share of it. Common practice, no source. */
const ROOM = 0.05;

/** Why a resistive pad must not carry DC: U²/(R1 + R2) of its T are burnt even with its output open. */
function padInDc(name: string, lossDb: number, volts: number): string {
  const { teeSeriesOhm, teeShuntOhm } = symmetricPad(lossDb, 50);
  const watt = volts ** 2 / (teeSeriesOhm + teeShuntOhm);
  return `${name}: a resistive pad in the DC path takes ${watt.toFixed(2)} W even with its output open, and passes next to nothing. Put it on the receiver's side of the feed.`;
}

/** Why a stage between feed and load must not stand there; undefined for one that may. */
function barrier(stage: DcStage, volts: number): string | undefined {
  const { name } = stage;
  switch (stage.dc) {
    case 'pad':
      return padInDc(name, stage.lossDb, volts);
    case 'resistive splitter':
      return `${name}: a resistive splitter in the DC path burns and drops the supply. Use a transformer splitter with one DC leg.`;
    case 'leg without DC':
      return `${name}: this output blocks DC. Use the one that passes it.`;
    case 'diodes':
      return `${name}: limiter diodes across the coax short the DC. Put it on the receiver's side of the feed.`;
    case 'blocked':
      return stage.own
        ? `${name}: it has a supply of its own and passes no DC on. Feed what lies ahead of it from between the two.`
        : `${name}: no DC gets through it. Put it on the receiver's side of the feed, or bypass it with a choke.`;
    default:
      return undefined;
  }
}

/**
 * DC over the coax of a path, read off its stages, antenna first: each feed serves the loads ahead of it up to the next feed, and every line carries the
 * current of all loads beyond it. Drop on loop resistance by Ohm. A stage that burns, blocks or shorts the DC is an error with its name.
 */
export function dcPath(stages: readonly DcStage[]): DcPath {
  const loads: DcAtLoad[] = [];
  const errors: string[] = [];
  const warnings: string[] = [];
  let from = 0;
  stages.forEach((feed, end) => {
    if (feed.dc !== 'feed') return;
    const served = [...(feed.head ? [feed.head] : []), ...stages.slice(from, end)];
    from = end + 1;
    const found = serve(feed, served);
    loads.push(...found.loads);
    if (found.loads.length === 0)
      warnings.push(
        `${feed.name}: nothing on its antenna side says that it is fed. Enter what it needs, or leave the feed out.`,
      );
    if (found.ampere > feed.limitA)
      errors.push(
        `${feed.name}: ${(1000 * found.ampere).toFixed(0)} mA are drawn, it gives ${(1000 * feed.limitA).toFixed(0)} mA. Use a stronger one.`,
      );
  });
  for (const stage of stages.slice(from)) {
    if (stage.dc !== 'load') continue;
    const { name, leastV } = stage;
    loads.push({
      ...{ name, leastV, warnings: [] },
      errors: [
        `${name}: no bias feed stands between it and the receiver. Add one, or empty its voltage if it has a supply of its own.`,
      ],
    });
  }
  return { loads, errors, warnings };
}

function serve(feed: Extract<DcStage, { dc: 'feed' }>, served: readonly DcStage[]) {
  const loads: DcAtLoad[] = [];
  const drawn = served.map((stage) => (stage.dc === 'load' ? (stage.currentA ?? 0) : 0));
  let ampere = drawn.reduce((sum, one) => sum + one, 0);
  const total = ampere;
  let volts = feed.supplyV;
  let wrong: string[] = [];
  let doubts: string[] = [];
  let lineCounted = true;
  // from the feed outwards
  for (let i = served.length - 1; i >= 0; i -= 1) {
    const stage = served[i];
    const fault = barrier(stage, volts);
    if (fault) wrong = [...wrong, fault];
    if (stage.dc === 'unknown') doubts = [...doubts, `${stage.name}: nobody said whether it passes DC. Look it up.`];
    if (stage.dc === 'line') {
      if (stage.ohmPerM === undefined && stage.lengthM > 0)
        doubts = [...doubts, `${stage.name}: without its loop resistance its drop is not counted. Enter it.`];
      else if (stage.assumed)
        doubts = [
          ...doubts,
          `${stage.name}: ${((stage.ohmPerM ?? 0) * stage.lengthM).toFixed(1)} Ω there and back are usual for its class (assumed; a steel centre has more).`,
        ];
      lineCounted &&= stage.ohmPerM !== undefined || stage.lengthM === 0;
      volts -= stage.lengthM * (stage.ohmPerM ?? 0) * ampere;
    }
    if (stage.dc !== 'load') continue;
    loads.unshift({
      ...{ name: stage.name, feed: feed.name, volts, leastV: stage.leastV, lineCounted },
      ...(stage.switchedHz === undefined ? {} : { switched: switchedBy(volts, stage.switchedHz) }),
      errors: [
        ...wrong,
        ...(feed.positive === stage.wantsPositive
          ? []
          : [
              `${stage.name}: the polarity is wrong; it wants the other pole on the centre. Reverse it before anything is connected.`,
            ]),
        ...(volts < stage.leastV
          ? [
              `${stage.name}: only ${volts.toFixed(2)} V arrive; it needs ${stage.leastV.toFixed(2)} V. Shorten the line, take a thicker one, or more volts.`,
            ]
          : []),
      ],
      warnings: [
        ...doubts,
        ...(stage.currentA === undefined
          ? [`${stage.name}: its current is not entered, so it drops nothing here.`]
          : []),
        ...(volts >= stage.leastV && volts < stage.leastV * (1 + ROOM)
          ? [`Only ${(volts - stage.leastV).toFixed(2)} V of room are left at ${stage.name}: wet plugs can take them.`]
          : []),
      ],
    });
    ampere -= drawn[i];
  }
  return { loads, ampere: total };
}

/** A single feed asked about on its own, the feed first. */
export interface DcQuestion {
  readonly supplyV: number;
  readonly currentA: number;
  /** Least voltage the amplifier works at. */
  readonly leastV: number;
  /** What the feed delivers at most. */
  readonly limitA: number;
  readonly centrePositive: boolean;
  /** What the amplifier wants on the centre. */
  readonly wantsPositive: boolean;
  readonly parts: readonly DcStage[];
}

/** What arrives at the amplifier, and why something must not stay as it is. */
export interface DcFinding {
  readonly atLoadV: number;
  /** Longest line of the same kind that still leaves the least voltage, m; undefined without a single line of known resistance. */
  readonly limitLengthM?: number;
  readonly errors: readonly string[];
  readonly warnings: readonly string[];
  readonly fine: boolean;
}

/** One amplifier on one feed: the same as a path of these parts, and how long its line may be. @throws OutOfRangeError for a negative figure. */
export function dcFeed(question: DcQuestion): DcFinding {
  const { supplyV, currentA, leastV, limitA, parts } = question;
  requirePositive(supplyV, 'Supply (V)');
  requirePositive(currentA, 'Current (A)');
  requireRange(leastV, 'Least voltage (V)', 0);
  const lines = parts.filter((part) => part.dc === 'line');
  for (const { lengthM, ohmPerM = 0 } of lines) {
    requireRange(lengthM, 'Line length (m)', 0);
    requireRange(ohmPerM, 'Loop resistance (ohm per m)', 0);
  }
  const found = dcPath([
    { dc: 'load', name: 'the amplifier', leastV, currentA, wantsPositive: question.wantsPositive },
    ...[...parts].reverse(),
    { dc: 'feed', name: 'the feed', supplyV, limitA, positive: question.centrePositive },
  ]);
  const [load] = found.loads;
  const errors = [...load.errors, ...found.errors];
  const ohmPerM = lines.length === 1 ? lines[0].ohmPerM : undefined;
  return {
    atLoadV: load.volts ?? supplyV,
    ...(ohmPerM ? { limitLengthM: Math.max(0, (supplyV - leastV) / (ohmPerM * currentA)) } : {}),
    ...{ errors, warnings: load.warnings, fine: errors.length === 0 },
  };
}
