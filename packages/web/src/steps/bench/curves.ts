import type { Saved } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import { type FeedLine, findResonances, takeLineOff } from '@velvet-reed/core/sweep';
import { useMemo } from 'react';
import type { LoadedSweep, StoredSweep, SweepHeader } from '@velvet-reed/station/bench/loaded-sweep';

/** A sweep on the screen that is not stored yet. */
export interface Unsaved {
  readonly sweep: SweepData;
  readonly correction: Saved<'sweeps'>['correction'];
}

/** A sweep that is not stored, to be drawn beside those that are. */
const unstored = (sweep: SweepData, id: number, name: string, look: number): LoadedSweep => ({
  header: {
    id,
    name,
    points: sweep.freqHz.length,
    startHz: sweep.freqHz[0],
    stopHz: sweep.freqHz[sweep.freqHz.length - 1],
    phaseKnown: true,
    correction: 'raw',
  },
  sweep,
  dips: findResonances(sweep),
  look,
});

/** A sweep with the line taken off by calculation; one without phase stays as it is. */
function atAntenna<H extends SweepHeader>(
  one: LoadedSweep<H>,
  line: FeedLine,
): { readonly one: LoadedSweep<H>; readonly doubts?: readonly string[] } {
  if (!one.header.phaseKnown)
    return { one, doubts: [`${one.header.name} has SWR only: the line cannot be taken off without the phase.`] };
  const { sweep, doubts } = takeLineOff(one.sweep, line);
  return { one: { ...one, sweep, dips: findResonances(sweep) }, doubts };
}

/** Sweeps with their samples and dips; the same list as long as headers and samples stay. */
export function useLoaded(
  headers: readonly Saved<'sweeps'>[],
  samples: ReadonlyMap<number, SweepData> | undefined,
): readonly StoredSweep[] {
  // a header never changes but by a new version
  const key = headers.map(({ id, version }) => `${id}.${version}`).join();
  return useMemo(
    () =>
      headers.flatMap((header, look): StoredSweep[] => {
        const sweep = samples?.get(header.id);
        return sweep ? [{ header, sweep, dips: findResonances(sweep), look }] : [];
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for the headers, which are filtered anew at every render
    [key, samples],
  );
}

/** Curves to draw: the stored ones at the reference plane chosen, beside the live and the held one. */
export function useCurves({
  loaded,
  plane,
  line,
  live,
  held,
}: {
  readonly loaded: readonly StoredSweep[];
  readonly plane: 'analyser' | 'antenna';
  readonly line: FeedLine;
  readonly live: Unsaved | undefined;
  readonly held: SweepData | undefined;
}) {
  const stored = useMemo(() => {
    const moved = loaded.map((one): { readonly one: StoredSweep; readonly doubts?: readonly string[] } =>
      plane === 'antenna' ? atAntenna(one, line) : { one },
    );
    const seen = moved.filter(({ one }) => one.header.shown);
    return {
      placed: moved.map(({ one }) => one),
      shown: seen.map(({ one }) => one),
      doubts: [...new Set(seen.flatMap((one) => one.doubts ?? []))],
    };
  }, [loaded, plane, line]);
  const curves = useMemo((): readonly LoadedSweep[] => {
    const place = (sweep: SweepData): SweepData => (plane === 'antenna' ? takeLineOff(sweep, line).sweep : sweep);
    const count = stored.shown.length;
    return [
      ...stored.shown,
      ...(held ? [unstored(place(held), -2, 'held', count + 1)] : []),
      ...(live ? [unstored(place(live.sweep), -1, `live, ${live.correction}`, count)] : []),
    ];
  }, [stored, held, live, plane, line]);
  return { ...stored, curves };
}
