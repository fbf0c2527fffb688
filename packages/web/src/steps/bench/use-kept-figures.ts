import type { Saved } from '@velvet-reed/contract';
import { useEffect, useMemo, useRef } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../data/station';
import type { KeptTexts } from '../../ui/use-typed-numbers';

/** Typing rests this long before it is saved, ms. */
const REST_MS = 900;

/**
 * What was typed into a tool of an antenna's Bench, saved as it is typed; without an antenna nothing is kept.
 * @param tool stands ahead of every field's name in the record that the tools of an antenna share; the coil's came first and has none.
 */
export function useKeptFigures(
  data: StationData,
  antenna: Saved<'antennas'> | undefined,
  tool: '' | 'wires ',
): KeptTexts | undefined {
  const { trySave } = useWrite();
  const record = data.coilTests.find(({ antennaId }) => antennaId === antenna?.id);
  const pending = useRef<Record<string, string>>({});
  const timer = useRef(0);
  const latest = useRef(record);
  useEffect(() => {
    latest.current = record;
  });
  const antennaId = antenna?.id;
  const flush = useRef(() => {});
  useEffect(() => {
    flush.current = () => {
      window.clearTimeout(timer.current);
      const typed = pending.current;
      if (antennaId === undefined || Object.keys(typed).length === 0) return;
      pending.current = {};
      const now = latest.current;
      void trySave([
        now
          ? {
              op: 'update',
              resource: 'coilTests',
              id: now.id,
              version: now.version,
              values: { typed: { ...now.typed, ...typed } },
            }
          : { op: 'create', resource: 'coilTests', values: { antennaId, typed } },
      ]);
    };
  });
  // what was typed a moment before the page is left is saved too
  useEffect(() => () => flush.current(), []);
  return useMemo(
    () =>
      antennaId === undefined
        ? undefined
        : {
            texts: Object.fromEntries(
              Object.entries(record?.typed ?? {}).flatMap(([name, text]) =>
                name.startsWith(tool) ? [[name.slice(tool.length), text]] : [],
              ),
            ),
            keep: (typed) => {
              for (const [name, text] of Object.entries(typed)) pending.current[`${tool}${name}`] = text;
              window.clearTimeout(timer.current);
              timer.current = window.setTimeout(() => flush.current(), REST_MS);
            },
          },
    [antennaId, record, tool],
  );
}
