import type { Saved } from '@velvet-reed/contract';
import {
  EVENING,
  type ForecastPlace,
  type ForecastTarget,
  hearingQuestions,
  mendsFor,
  type HearingQuestion,
  ownTransmission,
  type OwnTransmission,
  type PathEnd,
  pathEnd,
  readyCandidate,
  type ReadyCandidate,
} from '@velvet-reed/core/choose';
import type { PathSignal } from '@velvet-reed/core/path';
import { transmitterField } from '@velvet-reed/core/site';
import { groundClass } from '@velvet-reed/core/solver';
import { forecastPlace, ownCandidate, targetChoices } from '../derive';
import type { StationData } from '../record';
import { othersTransmitters, unplannedTransmitters } from '../transmitters';

/** What a path is asked, where its antenna can be judged. */
export type AskedPath = Extract<PathEnd, { readonly state: 'judged' }>;

/** What the paths of a station share. */
interface Asking {
  readonly targets: readonly ForecastTarget[];
  readonly place: ForecastPlace;
  readonly ready: Map<number, ReadyCandidate | undefined>;
}

const asking = new WeakMap<StationData, Asking>();
function askingOf(data: StationData): Asking {
  const known = asking.get(data);
  if (known) return known;
  const made = {
    targets: targetChoices(data, data.hearing?.atMs ?? Date.parse(data.station.createdAt)),
    place: forecastPlace(data),
    ready: new Map<number, ReadyCandidate | undefined>(),
  };
  asking.set(data, made);
  return made;
}

/** An antenna of the station as its paths hear with it; undefined while it has no dimensions. */
function readyAntenna(data: StationData, antennaId: number): ReadyCandidate | undefined {
  const { targets, ready } = askingOf(data);
  if (!ready.has(antennaId)) {
    const spec = ownCandidate(data, antennaId);
    const heard = data.hearing?.heard ?? (() => undefined);
    ready.set(
      antennaId,
      spec && readyCandidate(spec, [...targets, ...EVENING], groundClass(data.station.groundId).ground, heard),
    );
  }
  return ready.get(antennaId);
}

/** What a path is asked at a target: noise and carriers as its antenna hands them on at its spot. */
export function askPath(data: StationData, path: Saved<'paths'>, target: Saved<'targets'>): PathEnd {
  const { targets, place } = askingOf(data);
  const wanted = targets.find(({ id }) => id === String(target.id));
  if (!wanted) return { state: 'not judged', because: 'Its target is gone.' };
  if (path.antennaId === null) return pathEnd(wanted, place);
  const antenna = readyAntenna(data, path.antennaId);
  return antenna
    ? pathEnd(wanted, place, antenna)
    : { state: 'not judged', because: 'Its antenna has no dimensions yet: draft it first.' };
}

/** Carriers of others as an antenna of the station hands them on. */
export interface Carriers {
  /** The antenna; undefined: none is judged yet, a lossless one without direction stands in. */
  readonly antenna?: string;
  /** The wire model is still at the antenna of a path. */
  readonly waiting: boolean;
  readonly signals: readonly PathSignal[];
}

/** The same levels as in Path: those at the antenna of a receiver's path, else of any path. @param receiverId absent: any. */
export function carriersHere(data: StationData, receiverId?: number): Carriers {
  const paths = [...data.paths].sort(
    (a, b) => Number(b.receiverId === receiverId) - Number(a.receiverId === receiverId),
  );
  let waiting = false;
  for (const path of paths) {
    const target = data.targets.find(({ id }) => id === path.targetId);
    const asked = target && path.antennaId !== null ? askPath(data, path, target) : undefined;
    const antenna = data.antennas.find(({ id }) => id === path.antennaId)?.name;
    if (asked?.state === 'judged' && antenna !== undefined)
      return { antenna, waiting: false, signals: asked.question.signals.filter(({ assumed }) => !assumed) };
    waiting ||= asked?.state === 'waiting';
  }
  return {
    waiting,
    signals: othersTransmitters(data).map((one) => ({
      ...{ name: one.name, freqHz: one.freqHz },
      levelDbm: transmitterField(one).isotropicDbm,
    })),
  };
}

/** What an own transmitter that Guard has no plan for puts on the antenna of a path, where it is more than harmless. */
export function ownThreat(data: StationData, path: Saved<'paths'>): OwnTransmission | undefined {
  const antenna = path.antennaId === null ? undefined : readyAntenna(data, path.antennaId);
  const unplanned = new Set(unplannedTransmitters(data).map(({ name }) => name));
  const own = (askingOf(data).place.ownTransmitters ?? []).filter(({ name }) => unplanned.has(name));
  return antenna && ownTransmission(antenna, own);
}

/** What a common-mode choke would bring at the antenna of a path, as a clause; undefined where it has one, or where it would bring nothing. */
export function chokeHint(data: StationData, path: Saved<'paths'>, target: Saved<'targets'>): string | undefined {
  const { targets, place } = askingOf(data);
  const wanted = targets.find(({ id }) => id === String(target.id));
  const antenna = path.antennaId === null ? undefined : readyAntenna(data, path.antennaId);
  return wanted && antenna && mendsFor(antenna, [wanted], place).find(({ what }) => what === 'choke')?.sentence;
}

/** Gain toward a transmitter as Path counts it, dBi; undefined where the model does not know it. */
export function gainToward(data: StationData, antennaId: number, freqHz: number): number | undefined {
  const reception = readyAntenna(data, antennaId)?.fromTransmitter(freqHz);
  return reception && reception.validity !== 'outside' ? reception.realisedGainDbi : undefined;
}

/** What the wire model is asked for the antennas of all paths. */
export function pathHearingQuestions(data: StationData, atMs: number): readonly HearingQuestion[] {
  const ids = new Set(data.paths.flatMap(({ antennaId }) => antennaId ?? []));
  if (ids.size === 0) return [];
  const place = forecastPlace(data);
  return hearingQuestions(
    [...ids].flatMap((id) => ownCandidate(data, id) ?? []),
    [...targetChoices(data, atMs), ...EVENING],
    [...place.transmitters, ...(place.ownTransmitters ?? [])].map(({ freqHz }) => freqHz),
    groundClass(data.station.groundId).ground,
  );
}
