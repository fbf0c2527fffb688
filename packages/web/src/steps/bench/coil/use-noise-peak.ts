import type { Spectrum } from '@velvet-reed/core/formats';
import { useEffect, useState } from 'react';
import { useSpectra } from '../../../data/instruments';
import type { StationData } from '@velvet-reed/station/record';
import { useJob } from '../../../workers/use-job';

type Source = 'on' | 'off';

/** The antenna's recordings, those chosen (the latest by themselves), and the resonance between them. */
export function useNoisePeak(data: StationData, antennaId: number | undefined) {
  // chosen by id: what was chosen of another antenna is not among this one's recordings
  const [chosen, setChosen] = useState<{ readonly on?: number; readonly off?: number }>({});
  const mine = data.spectra.filter((one) => one.antennaId === (antennaId ?? null));
  const of = (source: Source) => mine.filter((one) => one.source === source);
  const picked = (source: Source) => of(source).find(({ id }) => id === chosen[source]) ?? of(source).at(-1);
  const [onHeader, offHeader] = [picked('on'), picked('off')];
  const levels = useSpectra([onHeader, offHeader].filter((one) => one !== undefined));
  const found = usePeak(levels.data?.get(onHeader?.id ?? 0), levels.data?.get(offHeader?.id ?? 0));
  const recorded = [onHeader, offHeader].flatMap((header) => {
    const spectrum = header && levels.data?.get(header.id);
    return spectrum ? [{ name: `source ${header.source}`, spectrum }] : [];
  });
  const choose = (source: Source, id: number): void => setChosen({ ...chosen, [source]: id });
  return { peak: found?.value, fault: found?.fault, levels: recorded, of, picked, choose };
}

/** Fitted in a worker; while it is under way there is neither value nor fault. */
function usePeak(on: Spectrum | undefined, off: Spectrum | undefined) {
  const { start, answer, fault } = useJob('noisePeak');
  useEffect(() => {
    if (on && off) start({ on, off });
  }, [on, off, start]);
  return on && off ? { ...(answer ? { value: answer } : {}), ...(fault === undefined ? {} : { fault }) } : undefined;
}

export type NoiseOfCoil = ReturnType<typeof useNoisePeak>;
