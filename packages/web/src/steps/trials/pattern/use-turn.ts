import { type CableLimit, levelOf, type Turned, type TurnTarget, turnTargets } from '@velvet-reed/core/bearing';
import { useCallback, useEffect, useRef, useState } from 'react';
import { readInstrument, recordSpectrum, stopTable, turnTable } from '../../../data/instruments';

/** How a turn is made. */
export interface TurnSettings {
  readonly tableId: string;
  readonly meterId: string;
  /** A receiver reads the strongest of a few bins; a power meter its one level. */
  readonly meterKind: 'power-meter' | 'receiver';
  readonly antennaId: number | null;
  readonly antennaName: string;
  readonly freqHz: number;
  readonly stepDeg: number;
  readonly settleS: number;
  readonly readings: number;
  readonly limit: CableLimit;
  readonly turned: Turned;
}

/** A turn under way or broken off: levels in the order of its directions; null where the meter dropped every reading. */
export interface TurnRun {
  readonly settings: TurnSettings;
  readonly levels: readonly (number | null)[];
}

const STORE = 'velvet-reed.turn';
/** Bins and width of a receiver's look at the sender. */
const LOOK = { points: 41, bandwidthHz: 1000, spanHz: 20_000 };

function keptRun(stationId: number): TurnRun | undefined {
  try {
    const text = localStorage.getItem(`${STORE}.${stationId}`);
    const value: unknown = text === null ? undefined : JSON.parse(text);
    // what this device wrote itself
    return typeof value === 'object' && value !== null && 'levels' in value && 'settings' in value
      ? (value as TurnRun)
      : undefined;
  } catch {
    return undefined;
  }
}

function keep(stationId: number, run: TurnRun | undefined): void {
  try {
    if (run) localStorage.setItem(`${STORE}.${stationId}`, JSON.stringify(run));
    else localStorage.removeItem(`${STORE}.${stationId}`);
  } catch {
    // a browser that keeps nothing can go on until the page is left
  }
}

export const targetsOf = ({ stepDeg, limit, turned }: TurnSettings): readonly TurnTarget[] =>
  turnTargets(stepDeg, limit, turned);

const pause = (seconds: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(resolve, 1000 * seconds);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });

async function readOnce({ meterId, meterKind, freqHz }: TurnSettings): Promise<number> {
  if (meterKind === 'power-meter') return readInstrument(meterId, { what: 'power', freqHz });
  const { levelDb } = await recordSpectrum(meterId, {
    ...{ startHz: Math.round(freqHz - LOOK.spanHz / 2), stopHz: Math.round(freqHz + LOOK.spanHz / 2) },
    ...{ points: LOOK.points, bandwidthHz: LOOK.bandwidthHz },
  });
  return Math.max(...levelDb);
}

/** Turns, settles, reads; one direction after the other. A fault or a stop keeps what was read, across a reload too: it can be gone on with. */
export function useTurn(stationId: number) {
  const [run, setRun] = useState<TurnRun | undefined>(() => keptRun(stationId));
  const [going, setGoing] = useState(false);
  const [fault, setFault] = useState('');
  const control = useRef<AbortController>(undefined);
  useEffect(() => () => control.current?.abort(), []);
  const change = useCallback(
    (next: TurnRun | undefined): void => {
      setRun(next);
      keep(stationId, next);
    },
    [stationId],
  );
  /** @returns the whole turn, or undefined when it was stopped or broken off. */
  const go = async (from: TurnRun): Promise<TurnRun | undefined> => {
    const mine = new AbortController();
    control.current?.abort();
    control.current = mine;
    setGoing(true);
    setFault('');
    let now = from;
    const { tableId, settleS, readings, limit } = from.settings;
    try {
      const targets = targetsOf(from.settings);
      change(now);
      while (now.levels.length < targets.length && !mine.signal.aborted) {
        await turnTable(tableId, { toDeg: targets[now.levels.length].tableDeg, ...limit }, mine.signal);
        await pause(settleS, mine.signal);
        const read: number[] = [];
        while (read.length < readings && !mine.signal.aborted) read.push(await readOnce(now.settings));
        if (mine.signal.aborted) break;
        // all dropped: once more, then this direction is left out
        const level = levelOf(read) ?? levelOf([await readOnce(now.settings)]);
        now = { ...now, levels: [...now.levels, level ?? null] };
        change(now);
      }
      return mine.signal.aborted ? undefined : now;
    } catch (error) {
      if (!mine.signal.aborted)
        setFault(`${error instanceof Error ? error.message : 'The turn broke off.'} What was read is kept.`);
      return undefined;
    } finally {
      if (control.current === mine) setGoing(false);
    }
  };
  const stop = async (): Promise<void> => {
    control.current?.abort();
    setGoing(false);
    if (run) await stopTable(run.settings.tableId).catch((error: unknown) => setFault(String(error)));
  };
  const setAside = (): void => {
    change(undefined);
    setFault('');
  };
  return { run, going, fault, go, stop, setAside };
}
