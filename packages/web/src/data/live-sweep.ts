import type { SweepRequest } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import { averageSweeps } from '@velvet-reed/core/sweep';
import { useCallback, useEffect, useRef, useState } from 'react';
import { sweepOnce } from './instruments';
import { learnedRate, learnRate } from './learned-rate';

/** A sweep under way or just done. */
export interface LiveSweep {
  readonly running: boolean;
  /** Of the present pass, 0 to 1. */
  readonly share: number;
  /** Passes in the mean so far, or passes done when repeating. */
  readonly passes: number;
  /** Raw readings: mean of the passes, or the latest when repeating. */
  readonly sweep?: SweepData;
  /** Of one pass about the mean, as |Γ|. */
  readonly scatter?: number;
  /** Time of the last whole pass, s. */
  readonly seconds?: number;
  readonly fault?: string;
  /** What the instrument could not do. */
  readonly told?: string;
}

interface LiveRequest extends Omit<SweepRequest, 'averages'> {
  readonly instrument: string;
  /** Passes to average. */
  readonly averages: number;
  /** Go on until stopped, showing the latest pass. */
  readonly repeat: boolean;
}

/** Points asked for at once: enough to be quick, few enough to show progress and to stop soon. */
const STRETCH = 1001;
/** A stretch of a slow analyser takes no longer than this, so that its progress is seen, s. */
const STRETCH_S = 2;

/** Points [from, to) of the stretches of one pass; none has a single point. */
function stretches(points: number): readonly (readonly [number, number])[] {
  const { seconds, learned } = learnedRate();
  const atOnce = learned ? Math.max(11, Math.min(STRETCH, Math.round(STRETCH_S / seconds))) : STRETCH;
  const count = Math.ceil(points / atOnce);
  return Array.from(
    { length: count },
    (_, i) => [Math.floor((i * points) / count), Math.floor(((i + 1) * points) / count)] as const,
  );
}

async function onePass(
  request: LiveRequest,
  signal: AbortSignal,
  onShare: (share: number, told: string) => void,
): Promise<SweepData> {
  const { instrument, startHz, stopHz, points, waitS } = request;
  const asked = (i: number): number => startHz + ((stopHz - startHz) * i) / (points - 1);
  const freqHz: number[] = [];
  const re: number[] = [];
  const im: number[] = [];
  for (const [from, to] of stretches(points)) {
    const ask = { startHz: asked(from), stopHz: asked(to - 1), points: to - from, averages: 1 };
    const part = await sweepOnce(instrument, waitS === undefined ? ask : { ...ask, waitS }, signal);
    // where the instrument measured is what counts: one that rounds its span may come back over the end of the stretch before
    part.sweep.freqHz.forEach((freq, k) => {
      if (freqHz.length > 0 && freq <= freqHz[freqHz.length - 1]) return;
      freqHz.push(freq);
      re.push(part.sweep.re[k]);
      im.push(part.sweep.im[k]);
    });
    onShare(to / points, part.told);
  }
  return {
    ...{ freqHz: Float64Array.from(freqHz), re: Float64Array.from(re), im: Float64Array.from(im) },
    referenceOhm: 50,
  };
}

/** Sweeps with progress, averaging and repeating; a fault keeps the last whole pass and says what went wrong. */
export function useLiveSweep() {
  const [live, setLive] = useState<LiveSweep>({ running: false, share: 0, passes: 0 });
  const control = useRef<AbortController>(undefined);
  useEffect(() => () => control.current?.abort(), []);
  const stop = useCallback(() => control.current?.abort(), []);
  const clear = useCallback(() => setLive({ running: false, share: 0, passes: 0 }), []);
  const start = useCallback(async (request: LiveRequest): Promise<SweepData | undefined> => {
    control.current?.abort();
    const mine = new AbortController();
    control.current = mine;
    const done: SweepData[] = [];
    setLive({ running: true, share: 0, passes: 0 });
    try {
      do {
        const begun = performance.now();
        const pass = await onePass(request, mine.signal, (share, told) =>
          setLive((old) => ({ ...old, share, ...(told === '' ? {} : { told }) })),
        );
        const seconds = (performance.now() - begun) / 1000;
        learnRate(seconds / request.points);
        if (request.repeat) done.splice(0);
        done.push(pass);
        const { sweep, scatter } = averageSweeps(done);
        setLive((old) => ({ ...old, running: true, share: 0, passes: old.passes + 1, sweep, scatter, seconds }));
      } while (!mine.signal.aborted && (request.repeat || done.length < request.averages));
    } catch (error) {
      if (!mine.signal.aborted)
        setLive((old) => ({ ...old, fault: error instanceof Error ? error.message : 'The sweep failed. Try again.' }));
    }
    if (control.current === mine) setLive((old) => ({ ...old, running: false, share: 0 }));
    return done.length > 0 ? averageSweeps(done).sweep : undefined;
  }, []);
  return { live, start, stop, clear };
}
