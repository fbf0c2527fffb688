import type { LogPage, Saved } from '@velvet-reed/contract';
import { type MeasuredPattern, measuredPattern, scaleDoubtful } from '@velvet-reed/core/bearing';
import { CoreError } from '@velvet-reed/core/errors';
import { getJson } from './api';

/** Rows of a turn that are read: ten turns in steps of a degree. */
const MOST_ROWS = 3600;
const isPage = (value: unknown): value is LogPage =>
  typeof value === 'object' && value !== null && 'rows' in value && Array.isArray(value.rows);

/** Measured patterns among long logs, by their numbers; one whose scale must be asked, or that is no circle, is left out. */
export async function loadPatterns(logs: readonly Saved<'logs'>[]): Promise<ReadonlyMap<number, MeasuredPattern>> {
  const found = new Map<number, MeasuredPattern>();
  for (const { id, kind } of logs) {
    if (kind !== 'pattern') continue;
    const page = await getJson(`/api/logs/${id}/rows?from=0&count=${MOST_ROWS}`);
    const rows = isPage(page)
      ? page.rows.flatMap(([angle, level]) =>
          typeof angle === 'number' && typeof level === 'number' ? [{ angleDeg: angle, level }] : [],
        )
      : [];
    if (scaleDoubtful(rows.map(({ level }) => level))) continue;
    try {
      found.set(id, measuredPattern(rows, 'dB'));
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
    }
  }
  return found;
}
