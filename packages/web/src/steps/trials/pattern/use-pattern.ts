import type { Saved } from '@velvet-reed/contract';
import { type LevelScale, measuredPattern, scaleDoubtful } from '@velvet-reed/core/bearing';
import { useState } from 'react';
import { useLogPage } from '../../../data/logs';
import { tried } from '../../../ui/tried';
import { localStore } from '../../../data/browser-store';

export const SCALES: readonly (readonly [LevelScale, string])[] = [
  ['dB', 'decibels'],
  ['amplitude', 'amplitude (voltage)'],
  ['power', 'power'],
];
/** Rows of a pattern that are read: ten turns of a degree each are more than anybody measures. */
const MOST_ROWS = 1000;
const STORE = 'velvet-reed.pattern-scale';

function scaleOf(checksum: string): LevelScale | undefined {
  try {
    const kept = localStore.getItem(`${STORE}.${checksum}`);
    return SCALES.find(([id]) => id === kept)?.[0];
  } catch {
    return undefined;
  }
}

/** A measured pattern with its figures; what its levels are is asked where they look like shares of the largest. */
export function usePattern(log: Saved<'logs'>) {
  const { data: page, error } = useLogPage(log, 0, MOST_ROWS);
  const [said, setSaid] = useState<LevelScale | undefined>(() => scaleOf(log.checksum));
  const rows = (page?.rows ?? []).flatMap(([angle, level]) =>
    typeof angle === 'number' && typeof level === 'number' ? [{ angleDeg: angle, level }] : [],
  );
  const scale = said ?? (scaleDoubtful(rows.map(({ level }) => level)) ? undefined : 'dB');
  const { value: found, fault } = tried(() => (page && scale ? measuredPattern(rows, scale) : undefined));
  const choose = (next: LevelScale): void => {
    setSaid(next);
    localStore.setItem(`${STORE}.${log.checksum}`, next);
  };
  return { read: page !== undefined, error, rows, scale, choose, found, fault };
}

export type ShownPattern = ReturnType<typeof usePattern>;
