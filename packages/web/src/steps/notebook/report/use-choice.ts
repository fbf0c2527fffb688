import { useState } from 'react';
import { type ReportChoice, WHOLE_REPORT } from './report';
import { localStore } from '../../../data/browser-store';
import { ofThisFile } from '../../../data/data-file';

const keyOf = (stationId: number): string => ofThisFile(`velvet-reed.report.${stationId}`);

const isList = (value: unknown): value is readonly unknown[] => Array.isArray(value);
const isChoice = (value: object): value is ReportChoice =>
  'without' in value &&
  isList(value.without) &&
  'withoutAntennas' in value &&
  isList(value.withoutAntennas) &&
  'from' in value &&
  typeof value.from === 'string' &&
  'to' in value &&
  typeof value.to === 'string' &&
  'captions' in value &&
  typeof value.captions === 'object';

function stored(stationId: number): ReportChoice {
  try {
    const kept: unknown = JSON.parse(localStore.getItem(keyOf(stationId)) ?? 'null');
    return typeof kept === 'object' && kept !== null && isChoice(kept) ? kept : WHOLE_REPORT;
  } catch {
    return WHOLE_REPORT;
  }
}

/** What goes into the report of a station, kept in this browser. */
export function useChoice(stationId: number): {
  readonly choice: ReportChoice;
  readonly setChoice: (choice: ReportChoice) => void;
} {
  const [choice, setChoice] = useState(() => stored(stationId));
  return {
    choice,
    setChoice(next) {
      setChoice(next);
      localStore.setItem(keyOf(stationId), JSON.stringify(next));
    },
  };
}
