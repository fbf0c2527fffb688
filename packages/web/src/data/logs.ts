import type { LogPage, Saved } from '@velvet-reed/contract';
import type { LogSummary } from '@velvet-reed/core/formats';
import useSWRImmutable from 'swr/immutable';
import { getJson } from './api';

type Header = Pick<Saved<'logs'>, 'id' | 'checksum'>;

function isSummary(value: unknown): value is LogSummary {
  return typeof value === 'object' && value !== null && 'buckets' in value && Array.isArray(value.buckets);
}
function isPage(value: unknown): value is LogPage {
  return typeof value === 'object' && value !== null && 'rows' in value && Array.isArray(value.rows);
}
const broken = (): never => {
  throw new Error('The server and this page do not understand each other. Reload the page.');
};

/** A long log at a glance; the rows behind a checksum never change. */
export const useLogSummary = ({ id, checksum }: Header) =>
  useSWRImmutable<LogSummary, Error>(['log summary', checksum, id], async () => {
    const answer = await getJson(`/api/logs/${id}/summary`);
    return isSummary(answer) ? answer : broken();
  });

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
