import type { Saved } from '@velvet-reed/contract';
import { isNoiseTest, type TestReading } from '@velvet-reed/core/noise';
import type { StationData } from './record';

type Level = Saved<'levels'>;
/** A level as its room speaks of it, with the record behind it. */
type Seen<T> = T & { readonly id: number; readonly freqHz: number; readonly record: Level };

/** The noise with a dummy in the antenna's place, and with the antenna. */
export type OffOn = Seen<{ readonly antennaId: number | null; readonly offDbm: number; readonly onDbm: number }>;
/** A floor as read through an antenna; null: referred to a lossless one. */
export type Floor = Seen<{
  readonly antennaId: number | null;
  readonly levelDbm: number;
  readonly bandwidthHz: number;
}>;
/** The floor at one moment of a log. */
type LoggedFloor = Seen<{ readonly atMs: number; readonly levelDbm: number }>;
/** The floor with a device on, and with it off. */
type Switching = Seen<{
  readonly device: string;
  readonly onDbm: number;
  readonly offDbm: number;
  readonly atMs: number;
}>;
/** The noise before and after one thing was changed, to tell whose it is. */
type Tested = Seen<TestReading & { readonly atMs: number }>;
/** A reference signal as heard on one antenna; null: an antenna that was deleted since. */
type Surveyed = Seen<{
  readonly antennaId: number | null;
  readonly name: string;
  readonly levelDbm: number;
  readonly noiseDbm: number;
  readonly atMs: number;
}>;

/** The levels of a station by what they were read for, oldest first. */
export interface Levels {
  readonly offOn: readonly OffOn[];
  readonly floors: readonly Floor[];
  readonly log: readonly LoggedFloor[];
  readonly devices: readonly Switching[];
  readonly tests: readonly Tested[];
  readonly surveys: readonly Surveyed[];
}

const sorted = new WeakMap<readonly Level[], Levels>();

/** Sorts the levels once for each state of the records. */
export function levelsOf({ levels }: Pick<StationData, 'levels'>): Levels {
  const known = sorted.get(levels);
  if (known) return known;
  const found = {
    ...{ offOn: new Array<OffOn>(), floors: new Array<Floor>(), log: new Array<LoggedFloor>() },
    ...{ devices: new Array<Switching>(), tests: new Array<Tested>(), surveys: new Array<Surveyed>() },
  };
  for (const record of levels) {
    const { id, freqHz, levelDbm, againstDbm, bandwidthHz, antennaId, subject } = record;
    const seen = { id, freqHz, record };
    const atMs = record.atMs ?? Date.parse(record.createdAt);
    // what its kind needs is there: the table's own rule sees to it
    const against = againstDbm ?? levelDbm;
    switch (record.kind) {
      case 'off and on':
        found.offOn.push({ ...seen, antennaId, offDbm: against, onDbm: levelDbm });
        break;
      case 'floor':
        found.floors.push({ ...seen, antennaId, levelDbm, bandwidthHz: bandwidthHz ?? 1 });
        break;
      case 'log':
        found.log.push({ ...seen, atMs, levelDbm });
        break;
      case 'device':
        found.devices.push({ ...seen, device: subject, onDbm: levelDbm, offDbm: against, atMs });
        break;
      case 'test':
        if (isNoiseTest(subject))
          found.tests.push({ ...seen, test: subject, beforeDbm: levelDbm, afterDbm: against, atMs });
        break;
      case 'survey':
        found.surveys.push({ ...seen, antennaId, name: subject, levelDbm, noiseDbm: against, atMs });
        break;
    }
  }
  sorted.set(levels, found);
  return found;
}
