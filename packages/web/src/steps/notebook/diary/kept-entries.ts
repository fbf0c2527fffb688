import type { Saved } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';

/** Which entries are shown; empty: all. */
export interface Filter {
  readonly step: string;
  readonly antenna: string;
  /** Days as typed, "2026-03-10", both included. */
  readonly from: string;
  readonly to: string;
  readonly photos: boolean;
}
export const EVERYTHING: Filter = { step: '', antenna: '', from: '', to: '', photos: false };

const DAY_MS = 86_400_000;

/** Entries that pass, in their order. */
export function keptEntries(
  data: StationData,
  entries: readonly Saved<'entries'>[],
  filter: Filter,
): readonly Saved<'entries'>[] {
  const [fromMs, toMs] = [Date.parse(`${filter.from}T00:00:00Z`), Date.parse(`${filter.to}T00:00:00Z`) + DAY_MS];
  const pictured = new Set(data.photos.map(({ entryId }) => entryId));
  return entries.filter(
    (entry) =>
      (filter.step === '' || entry.step === filter.step) &&
      (filter.antenna === '' || entry.antennaId === Number(filter.antenna)) &&
      !(entry.atMs < fromMs) &&
      !(entry.atMs >= toMs) &&
      (!filter.photos || pictured.has(entry.id)),
  );
}
