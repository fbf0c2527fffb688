/** One run of an antenna as laid on the plan: corners, m east and north, and the heights of its ends, m. */
export interface LaidRun {
  readonly points: readonly (readonly [number, number])[];
  readonly heightM: number;
  readonly endHeightM: number;
}

/** How an antenna stood: which revision of its dimensions, and where on the plan. What is absent nobody wrote down. */
export interface AntennaState {
  /** "antenna:3". */
  readonly id: string;
  readonly name: string;
  readonly revision?: number;
  readonly runs?: readonly LaidRun[];
}

/** An antenna as it stands: its latest revision, and where it is laid; an antenna that is not laid has no place. */
export const antennaState = (
  { id, name }: { readonly id: number; readonly name: string },
  revisions: readonly number[],
  laid: readonly LaidRun[],
): AntennaState => ({
  ...{ id: `antenna:${id}`, name },
  ...(revisions.length > 0 ? { revision: Math.max(...revisions) } : {}),
  ...(laid.length > 0
    ? { runs: laid.map(({ points, heightM, endHeightM }) => ({ points, heightM, endHeightM })) }
    : {}),
});

/** A part of a drawing: what it is, how it is set, and what hangs on its ports. */
export interface PartState {
  readonly id: string;
  readonly name: string;
  readonly state: string;
}

/** What a figure was taken on, and so what it holds for. What is absent was not written down; no question is covered by it. */
export interface Scope {
  /** Bands, Hz, lower end first; a single frequency is a band of no width. */
  readonly frequenciesHz?: readonly (readonly [number, number])[];
  /** Transmit power up to which it was taken, W. */
  readonly powerW?: number;
  readonly antennas?: readonly AntennaState[];
  readonly parts?: readonly PartState[];
  /** The receiver and its setting of gain as written down. */
  readonly receiver?: { readonly id: string; readonly name: string; readonly gain?: string };
  /** Sectors of azimuth, degrees clockwise from true north, each from its first to its second. */
  readonly directionsDeg?: readonly (readonly [number, number])[];
  readonly bandwidthHz?: number;
  readonly times?: { readonly fromMs: number; readonly toMs: number };
}

/** How well a figure was taken. */
export interface Quality {
  readonly count?: number;
  /** Samples at full scale, and samples that were lost. */
  readonly clipped?: number;
  readonly dropped?: number;
  readonly agc?: boolean;
}

export type Origin = 'typed' | 'assumed' | 'catalogue' | 'model' | 'measured' | 'by test';

/** A figure with what it rests on. */
export interface Evidence<T> {
  readonly value: T;
  /** 95 % interval where one is known. */
  readonly interval?: { readonly low: T; readonly high: T };
  readonly origin: Origin;
  readonly scope: Scope;
  readonly quality?: Quality;
  /** When it was taken, ms; null: nobody wrote it down. */
  readonly atMs: number | null;
}

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isNumber = (value: unknown): boolean => typeof value === 'number' && Number.isFinite(value);
const isText = (value: unknown): boolean => typeof value === 'string' && value.length <= 4000;
const isPair = (value: unknown): boolean => Array.isArray(value) && value.length === 2 && value.every(isNumber);
const isList = (value: unknown, isItem: (one: unknown) => boolean, most = 400): boolean =>
  Array.isArray(value) && value.length <= most && value.every(isItem);

type Check = (value: unknown) => boolean;
const only =
  (checks: Readonly<Record<string, Check>>, needed: readonly string[] = []): Check =>
  (value) =>
    isObject(value) &&
    needed.every((name) => name in value) &&
    Object.entries(value).every(([name, one]) => Object.hasOwn(checks, name) && checks[name](one));

const isRun = only({ points: (value) => isList(value, isPair), heightM: isNumber, endHeightM: isNumber }, [
  ...['points', 'heightM', 'endHeightM'],
]);
const isAntenna = only({ id: isText, name: isText, revision: isNumber, runs: (value) => isList(value, isRun, 40) }, [
  'id',
  'name',
]);
const scopeCheck = only({
  frequenciesHz: (value) => isList(value, isPair),
  powerW: isNumber,
  antennas: (value) => isList(value, isAntenna, 50),
  parts: (value) => isList(value, only({ id: isText, name: isText, state: isText }, ['id', 'name', 'state'])),
  receiver: only({ id: isText, name: isText, gain: isText }, ['id', 'name']),
  directionsDeg: (value) => isList(value, isPair),
  bandwidthHz: isNumber,
  times: only({ fromMs: isNumber, toMs: isNumber }, ['fromMs', 'toMs']),
});

/** Whether a stored value is a scope: known fields of the right shape, none else. */
export const isScope = (value: unknown): value is Scope => scopeCheck(value);
