import { broughtUpToDate, stationOf, type StationData } from '@velvet-reed/station/record';
import { RefusedError } from './api';

/** A reply that does not fit the contract: client and server of different versions. */
export function misfit(): never {
  throw new RefusedError(0, {
    code: 'MISFIT',
    message:
      'The server sent something that this page does not understand. Reload the page; if it stays, restart the server.',
  });
}

/** A station as the server tells it whole. @throws RefusedError */
export const wholeStation = (value: Readonly<Record<string, unknown>>): StationData => stationOf(value) ?? misfit();

/** A station brought up to date by what the server says has changed since. @throws RefusedError */
export const mergedStation = (known: StationData, delta: unknown): StationData =>
  broughtUpToDate(known, delta) ?? misfit();
