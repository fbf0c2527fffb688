import { type CableLimit, levelOf, type TurnTarget } from '@velvet-reed/core/bearing';
import { useCallback, useEffect, useRef, useState } from 'react';
import { readOrDropped, recordSpectrum, stopTable, turnTable } from './instruments';
import { localStore } from './browser-store';
import { ofThisFile } from './data-file';

/** How a turn is made. */
export interface TurnSettings {
  readonly tableId: string;
  readonly meterId: string;
  /** A receiver reads the strongest of a few bins; a power meter its one level. */
  readonly meterKind: 'power-meter' | 'receiver';
  readonly antennaId: number | null;
  readonly antennaName: string;
  readonly freqHz: number;
  /** Where the table stood when the turn began, m east and north of the middle; absent where the place does not matter. */
  readonly place?: { readonly xM: number; readonly yM: number };
  readonly settleS: number;
  readonly readings: number;
  readonly limit: CableLimit;
  /** Directions in the order in which they are gone to. */
  readonly targets: readonly TurnTarget[];
}

/** A turn under way or broken off: levels in the order of its directions; null where the meter dropped every reading. */
export interface TurnRun {
  readonly settings: TurnSettings;
  readonly levels: readonly (number | null)[];
}

const STORE = 'velvet-reed.turn';
/** Bins and width of a receiver's look at the sender. */
const LOOK = { points: 41, bandwidthHz: 1000, spanHz: 20_000 };

function keptRun(place: string): TurnRun | undefined {
  try {
    const text = localStore.getItem(ofThisFile(`${STORE}.${place}`));
    const value: unknown = text === null ? undefined : JSON.parse(text);
    // what this device wrote itself
    return typeof value === 'object' &&
      value !== null &&
      'levels' in value &&
      'settings' in value &&
      typeof value.settings === 'object' &&
      value.settings !== null &&
      'targets' in value.settings
      ? (value as TurnRun)
      : undefined;
  } catch {
    return undefined;
  }
}

function keep(place: string, run: TurnRun | undefined): void {
  if (run) localStore.setItem(ofThisFile(`${STORE}.${place}`), JSON.stringify(run));
  else localStore.removeItem(ofThisFile(`${STORE}.${place}`));
}

const pause = (seconds: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(resolve, 1000 * seconds);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });

async function readOnce({ meterId, meterKind, freqHz }: TurnSettings): Promise<number> {
  if (meterKind === 'power-meter') return readOrDropped(meterId, { what: 'power', freqHz });
  const { levelDb } = await recordSpectrum(meterId, {
    ...{ startHz: Math.round(freqHz - LOOK.spanHz / 2), stopHz: Math.round(freqHz + LOOK.spanHz / 2) },
    ...{ points: LOOK.points, bandwidthHz: LOOK.bandwidthHz },
  });
  return Math.max(...levelDb);
}

/** Turns, settles, reads; one direction after the other. A fault or a stop keeps what was read, across a reload too: it can be gone on with. */
/** @param place where the turn is kept: by station and what it is for. */
export function useTurn(place: string) {
  const [run, setRun] = useState<TurnRun | undefined>(() => keptRun(place));
  const [going, setGoing] = useState(false);
  const [fault, setFault] = useState('');
  const control = useRef<AbortController>(undefined);
  useEffect(() => () => control.current?.abort(), []);
  const change = useCallback(
    (next: TurnRun | undefined): void => {
      setRun(next);
      keep(place, next);
    },
    [place],
  );
  /** @returns the whole turn, or undefined when it was stopped or broken off. */
  const go = async (from: TurnRun): Promise<TurnRun | undefined> => {
    const mine = new AbortController();
    control.current?.abort();
    control.current = mine;
    setGoing(true);
    setFault('');
    let now = from;
    const { tableId, settleS, readings, limit, targets } = from.settings;
    try {
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
