import type { LogPage, Saved } from '@velvet-reed/contract';
import type { LogSummary } from '@velvet-reed/core/formats';
import type { DecodeReport, SlotComparison } from '@velvet-reed/core/trial';
import useSWRImmutable from 'swr/immutable';
import { getJson } from './api';

type Header = Pick<Saved<'logs'>, 'id' | 'checksum'>;

function isSummary(value: unknown): value is LogSummary {
  return typeof value === 'object' && value !== null && 'buckets' in value && Array.isArray(value.buckets);
}
function isPage(value: unknown): value is LogPage {
  return typeof value === 'object' && value !== null && 'rows' in value && Array.isArray(value.rows);
}
const isReport = (value: unknown): value is DecodeReport =>
  typeof value === 'object' && value !== null && 'doubtful' in value && Array.isArray(value.doubtful);
const isComparison = (value: unknown): value is SlotComparison =>
  typeof value === 'object' && value !== null && 'both' in value && typeof value.both === 'number';
const broken = (): never => {
  throw new Error('The server and this page do not understand each other. Reload the page.');
};

/** A long log at a glance; the rows behind a checksum never change. */
export const useLogSummary = ({ id, checksum }: Header) =>
  useSWRImmutable<LogSummary, Error>(['log summary', checksum, id], async () => {
    const answer = await getJson(`/api/logs/${id}/summary`);
    return isSummary(answer) ? answer : broken();
  });

/** Several long logs at a glance, by their numbers. @throws RefusedError */
export async function loadLogSummaries(logs: readonly Header[]): Promise<ReadonlyMap<number, LogSummary>> {
  const found = new Map<number, LogSummary>();
  for (const { id } of logs) {
    const answer = await getJson(`/api/logs/${id}/summary`);
    found.set(id, isSummary(answer) ? answer : broken());
  }
  return found;
}

/** The same for a room that shows them. */
export const useLogSummaries = (logs: readonly Header[]) =>
  useSWRImmutable<ReadonlyMap<number, LogSummary>, Error>(
    ['log summaries', ...logs.map(({ checksum }) => checksum)],
    () => loadLogSummaries(logs),
  );

/** A page of its rows. */
export const useLogPage = ({ id, checksum }: Header, from: number, count: number) =>
  useSWRImmutable<LogPage, Error>(
    ['log page', checksum, id, from, count],
    async () => {
      const answer = await getJson(`/api/logs/${id}/rows?from=${from}&count=${count}`);
      return isPage(answer) ? answer : broken();
    },
    { keepPreviousData: true },
  );

/** What a log of decodes says: figures, reach, doubts. */
export const useDecodeReport = (log: Header | undefined) =>
  useSWRImmutable<DecodeReport, Error>(log ? ['decode report', log.checksum, log.id] : null, async () => {
    const answer = await getJson(`/api/logs/${log?.id}/decodes`);
    return isReport(answer) ? answer : broken();
  });

/** Two logs of decodes, slot by slot. */
export const useSlots = (a: Header | undefined, b: Header | undefined, slotS: number) =>
  useSWRImmutable<SlotComparison, Error>(
    a && b && slotS > 0 ? ['slots', a.checksum, b.checksum, a.id, b.id, slotS] : null,
    async () => {
      const answer = await getJson(`/api/logs/${a?.id}/slots?with=${b?.id}&slot=${Math.round(slotS)}`);
      return isComparison(answer) ? answer : broken();
    },
  );
