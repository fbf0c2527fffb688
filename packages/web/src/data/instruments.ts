import {
  INSTRUMENT_KINDS,
  unpackCalibration,
  unpackSamples,
  unpackSpectrum,
  type ExerciseTruth,
  type HandsRequest,
  type InstrumentCard,
  type ReadingRequest,
  type Saved,
  type SpectrumRequest,
  type SweepRequest,
  type TurnRequest,
} from '@velvet-reed/contract';
import type { Spectrum, SweepData } from '@velvet-reed/core/formats';
import type { Calibration } from '@velvet-reed/core/sweep';
import useSWR from 'swr';
import { askBytes, getBytes, getJson, RefusedError, sendJson } from './api';

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;
const isCard = (value: unknown): value is InstrumentCard =>
  isRecord(value) && typeof value.id === 'string' && INSTRUMENT_KINDS.some((kind) => kind === value.kind);

const misfit = (): never => {
  throw new RefusedError(0, {
    code: 'MISFIT',
    message: 'The server sent something that this page does not understand. Reload the page.',
  });
};

/** Instruments within reach. */
export const useInstruments = () =>
  useSWR<readonly InstrumentCard[], Error>(
    '/api/instruments',
    async (path: string): Promise<readonly InstrumentCard[]> => {
      const value = await getJson(path);
      return Array.isArray(value) && value.every(isCard) ? value : misfit();
    },
    { revalidateOnFocus: false },
  );

const at = (id: string, what: string): string => `/api/instruments/${id}/${what}`;

/** One pass over one stretch. @throws RefusedError with the sentence of what went wrong. */
export async function sweepOnce(
  id: string,
  request: SweepRequest,
  signal?: AbortSignal,
): Promise<{ readonly sweep: SweepData; readonly told: string }> {
  const { bytes, told } = await askBytes(at(id, 'sweep'), request, signal);
  return { sweep: unpackSamples(bytes, 50), told };
}

/** A spectrum as it was recorded: what the instrument did otherwise than asked, and the bandwidth that it used, Hz. */
interface Recorded extends Spectrum {
  readonly told: string;
  readonly bandwidthHz: number;
}
export async function recordSpectrum(id: string, request: SpectrumRequest): Promise<Recorded> {
  const { bytes, told, bandwidthHz } = await askBytes(at(id, 'spectrum'), request);
  return { ...unpackSpectrum(bytes), told, bandwidthHz: bandwidthHz ?? request.bandwidthHz };
}

/** A single reading, and what the instrument did otherwise. @throws RefusedError, NO_READING when it answered that it has none. */
export async function readInstrument(
  id: string,
  request: ReadingRequest,
): Promise<{ readonly value: number; readonly told: string }> {
  const reply = await sendJson('POST', at(id, 'reading'), request);
  return isRecord(reply) && typeof reply.value === 'number'
    ? { value: reply.value, told: typeof reply.told === 'string' ? reply.told : '' }
    : misfit();
}

/** One of several readings: NaN for one that the instrument dropped. @throws RefusedError for everything else */
export const readOrDropped = (id: string, request: ReadingRequest): Promise<number> =>
  readInstrument(id, request).then(
    ({ value }) => value,
    (error: unknown) => {
      if (error instanceof RefusedError && error.refusal.code === 'NO_READING') return NaN;
      throw error;
    },
  );

/** Turns a table and waits until it stands. @returns where, degrees. @throws RefusedError; the table was then told to stop. */
export async function turnTable(id: string, request: TurnRequest, signal?: AbortSignal): Promise<number> {
  const reply = await sendJson('POST', at(id, 'turn'), request, signal ? { signal } : {});
  return isRecord(reply) && typeof reply.value === 'number' ? reply.value : misfit();
}
export const stopTable = (id: string): Promise<unknown> => sendJson('POST', at(id, 'stop'), {});

/** Closes one antenna of a switch onto the receiver. */
export const closeRoute = (id: string, channel: number): Promise<unknown> =>
  sendJson('POST', at(id, 'route'), { channel });

/** What hands do at a stand-in. @returns the frequency that the antenna on it is meant for, Hz. */
export async function plug(id: string, request: HandsRequest): Promise<number> {
  const reply = await sendJson('POST', at(id, 'hands'), request);
  return isRecord(reply) && typeof reply.aboutHz === 'number' ? reply.aboutHz : misfit();
}

export async function exerciseTruth(id: string): Promise<ExerciseTruth> {
  const reply = await sendJson('POST', at(id, 'truth'), {});
  return isRecord(reply) &&
    typeof reply.fault === 'string' &&
    typeof reply.lengthFactor === 'number' &&
    typeof reply.lossFactor === 'number' &&
    typeof reply.lineLengthM === 'number' &&
    typeof reply.sourceEastM === 'number' &&
    typeof reply.sourceNorthM === 'number'
    ? {
        fault: reply.fault,
        lengthFactor: reply.lengthFactor,
        lossFactor: reply.lossFactor,
        lineLengthM: reply.lineLengthM,
        sourceEastM: reply.sourceEastM,
        sourceNorthM: reply.sourceNorthM,
      }
    : misfit();
}

/** Readings of a stored calibration; they never change. */
export const useCalibration = (header: Saved<'calibrations'> | undefined) =>
  useSWR<Calibration, Error>(
    header ? ['calibration', header.id, header.checksum] : null,
    async (): Promise<Calibration> => {
      if (!header) return misfit();
      const { openFarad, openDelayS, shortHenry, shortDelayS, loadOhm } = header;
      return {
        ...unpackCalibration(await getBytes(`/api/calibrations/${header.id}/samples?sum=${header.checksum}`)),
        standards: { openFarad, openDelayS, shortHenry, shortDelayS, loadOhm },
      };
    },
    { revalidateOnFocus: false },
  );

/** Levels of stored spectra, by id; they never change. */
export const useSpectra = (headers: readonly Saved<'spectra'>[]) =>
  useSWR<ReadonlyMap<number, Spectrum>, Error>(
    headers.length > 0 ? ['spectra', ...headers.map(({ id, checksum }) => `${id} ${checksum}`)] : null,
    async (): Promise<ReadonlyMap<number, Spectrum>> =>
      new Map(
        await Promise.all(
          headers.map(
            async ({ id, checksum }) =>
              [id, unpackSpectrum(await getBytes(`/api/spectra/${id}/samples?sum=${checksum}`))] as const,
          ),
        ),
      ),
    { keepPreviousData: true, revalidateOnFocus: false, compare: Object.is },
  );
