import type { Spectrum } from '@velvet-reed/core/formats';
import type { NoisePeak } from '@velvet-reed/core/sweep';
import { useEffect, useState } from 'react';
import { useSpectra } from '../../data/instruments';
import type { StationData } from '../../data/station';
import { startSolver } from '../../workers/solver';

type Source = 'on' | 'off';

/** The antenna's recordings, those chosen (the latest by themselves), and the resonance between them. */
export function useNoisePeak(data: StationData, antennaId: number | undefined) {
  const [chosen, setChosen] = useState<{ readonly on?: number; readonly off?: number }>({});
  const mine = data.spectra.filter((one) => one.antennaId === (antennaId ?? null));
  const of = (source: Source) => mine.filter((one) => one.source === source);
  const picked = (source: Source) => of(source).find(({ id }) => id === chosen[source]) ?? of(source).at(-1);
  const [onHeader, offHeader] = [picked('on'), picked('off')];
  const levels = useSpectra([onHeader, offHeader].filter((one) => one !== undefined));
  const found = usePeak(levels.data?.get(onHeader?.id ?? 0), levels.data?.get(offHeader?.id ?? 0));
  const choose = (source: Source, id: number): void => setChosen({ ...chosen, [source]: id });
  return { peak: found?.value, fault: found?.fault, of, picked, choose };
}

interface Found {
  readonly value?: NoisePeak;
  readonly fault?: string;
}

/** Fitted in a worker; while it is under way there is neither value nor fault. */
function usePeak(on: Spectrum | undefined, off: Spectrum | undefined): Found | undefined {
  const [answer, setAnswer] = useState<{ readonly on: Spectrum; readonly off: Spectrum; readonly found: Found }>();
  useEffect(() => {
    if (!on || !off) return;
    const { ask, end } = startSolver((reply) => {
      if (reply.reply === 'peak') setAnswer({ on, off, found: { value: reply.peak } });
      if (reply.reply === 'trouble') setAnswer({ on, off, found: { fault: reply.message } });
    });
    ask({ do: 'noise-peak', on, off });
    return end;
  }, [on, off]);
  return answer?.on === on && answer?.off === off ? answer?.found : undefined;
}

export type NoiseOfCoil = ReturnType<typeof useNoisePeak>;
