import { unpackSamples, type Saved } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import useSWRImmutable from 'swr/immutable';
import { getBytes } from './api';

type Header = Pick<Saved<'sweeps'>, 'id' | 'checksum' | 'referenceOhm' | 'points'>;

/** So many points of sweeps are kept in memory, the latest used: 12 MB. The browser keeps the rest on its disk. */
const MOST_POINTS = 500_000;
const kept = new Map<string, { readonly points: number; readonly samples: Promise<SweepData> }>();

const nameOf = ({ checksum, referenceOhm, id }: Header): string => `${checksum} ${referenceOhm} ${id}`;

/** Samples of one sweep: fetched once, because what a checksum names never changes. */
function samplesOf(header: Header): Promise<SweepData> {
  const name = nameOf(header);
  const known = kept.get(name);
  kept.delete(name);
  const one = known ?? {
    points: header.points,
    samples: getBytes(`/api/sweeps/${header.id}/samples?sum=${header.checksum}`).then((bytes) =>
      unpackSamples(bytes, header.referenceOhm),
    ),
  };
  kept.set(name, one); // the latest used stands last
  one.samples.catch(() => kept.delete(name));
  let points = [...kept.values()].reduce((sum, each) => sum + each.points, 0);
  for (const [oldest, { points: its }] of kept) {
    if (points <= MOST_POINTS || oldest === name) break;
    kept.delete(oldest);
    points -= its;
  }
  return one.samples;
}

/** Samples of several sweeps by their numbers, a few requests at a time. @throws RefusedError */
export async function loadSamples(sweeps: readonly Header[]): Promise<ReadonlyMap<number, SweepData>> {
  const found = new Map<number, SweepData>();
  const waiting = [...sweeps];
  const work = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift()) found.set(next.id, await samplesOf(next));
  };
  await Promise.all([work(), work(), work(), work()]);
  return found;
}

/** Samples of the sweeps that a room shows. */
export const useSamples = (sweeps: readonly Header[]) =>
  useSWRImmutable<ReadonlyMap<number, SweepData>, Error>(
    sweeps.length > 0 ? ['samples', ...sweeps.map(nameOf)] : null,
    () => loadSamples(sweeps),
    // SWR takes any two Maps for equal and would keep showing the first
    { keepPreviousData: true, compare: Object.is },
  );
