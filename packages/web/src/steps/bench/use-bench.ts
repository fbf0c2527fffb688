import { tryDraft } from '@velvet-reed/core/antenna';
import type { FeedLine } from '@velvet-reed/core/sweep';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { designOf, feedLineOf, latestRevision } from '@velvet-reed/station/derive';
import { useSamples } from '../../data/samples';
import type { StationData } from '@velvet-reed/station/record';
import { useLoaded } from './curves';

/** The antenna on the Bench with what was measured on it; every room of the step reads the same. */
export function useBench(data: StationData) {
  const [params, setParams] = useSearchParams();
  const antenna =
    data.antennas.find((one) => one.id === Number(params.get('antenna'))) ??
    data.antennas.find((one) => data.sweeps.some((sweep) => sweep.antennaId === one.id)) ??
    data.antennas.at(-1);
  const headers = data.sweeps.filter((sweep) => sweep.antennaId === (antenna?.id ?? null));
  const samples = useSamples(headers.filter(({ shown: seen }) => seen));
  const loaded = useLoaded(headers, samples.data);
  const line = useMemo((): FeedLine => feedLineOf(data.station), [data.station]);
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const { draft } = design ? tryDraft(design) : {};
  return {
    ...{ data, antenna, headers, samples, loaded, line, design, draft },
    pick: (id: number) => setParams({ antenna: String(id) }),
  };
}
export type BenchState = ReturnType<typeof useBench>;
