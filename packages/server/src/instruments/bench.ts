import {
  INSTRUMENT_KINDS,
  type ExerciseTruth,
  type HandsRequest,
  type InstrumentCard,
  type InstrumentKind,
  type ReadingRequest,
  type SpectrumRequest,
  type SweepRequest,
} from '@velvet-reed/contract';
import type { Spectrum, SweepData } from '@velvet-reed/core';
import { NotFoundError, RequestError } from '../refusals';
import { InstrumentError, scpiLink, type ScpiLink } from './scpi-link';
import type { StandIns } from './stand-ins';

/** A real instrument that the person who started the server allowed. */
export interface AllowedInstrument {
  readonly kind: InstrumentKind;
  readonly host: string;
  readonly port: number;
}

/** Reads "analyser=192.168.1.5:5025". @throws RequestError that says how it is written. */
export function readAllowed(text: string): AllowedInstrument {
  const match = /^([a-z-]+)=([A-Za-z0-9.-]+):(\d{1,5})$/.exec(text.trim());
  const kind = INSTRUMENT_KINDS.find((one) => one === match?.[1]);
  if (!match || !kind)
    throw new RequestError(
      `"${text}" names no instrument. Write it as kind=address:port, such as analyser=192.168.1.5:5025.`,
    );
  return { kind, host: match[2], port: Number(match[3]) };
}

/** Instruments within reach: stand-ins and those allowed; nothing else is ever connected to. */
export interface Bench {
  list(): readonly InstrumentCard[];
  identify(id: string): Promise<string>;
  sweep(id: string, request: SweepRequest): Promise<SweepData>;
  spectrum(id: string, request: SpectrumRequest): Promise<Spectrum>;
  read(id: string, request: ReadingRequest): Promise<number>;
  /** @returns the frequency that the antenna on the stand-ins is meant for, Hz. */
  hands(id: string, request: HandsRequest): Promise<number>;
  truth(id: string): Promise<ExerciseTruth>;
  close(): void;
}

const STAND_IN = 'stand-in-';
const grid = (startHz: number, stopHz: number, points: number): Float64Array =>
  Float64Array.from({ length: points }, (_, i) => startHz + ((stopHz - startHz) * i) / (points - 1));

/** A reflection larger than this comes from no analyser, calibrated or not. */
const WILDEST = 4;

export function openBench(allowed: readonly AllowedInstrument[], shipped: StandIns): Bench {
  const links = new Map<string, { readonly port: number; readonly link: ScpiLink }>();
  const cards: readonly InstrumentCard[] = [
    ...allowed.map(({ kind, host, port }, i) => ({
      id: `${kind}-${i + 1}`,
      kind,
      address: `${host}:${port}`,
      standIn: false,
    })),
    ...INSTRUMENT_KINDS.map((kind) => ({ id: STAND_IN + kind, kind, address: 'this computer', standIn: true })),
  ];
  const card = (id: string): InstrumentCard => {
    const found = cards.find((one) => one.id === id);
    if (!found) throw new NotFoundError('instrument');
    return found;
  };
  const wanted = (id: string, ...kinds: readonly InstrumentKind[]): InstrumentCard => {
    const found = card(id);
    if (!kinds.includes(found.kind))
      throw new RequestError(`The ${found.kind} cannot do that. Choose another instrument.`);
    return found;
  };
  const linkTo = async (id: string): Promise<ScpiLink> => {
    const { kind, standIn } = card(id);
    const real = allowed[cards.findIndex((one) => one.id === id)];
    const host = standIn ? '127.0.0.1' : real.host;
    const port = standIn ? ((await shipped.ports())[kind] ?? 0) : real.port;
    const known = links.get(id);
    if (known?.port === port) return known.link;
    known?.link.close(); // the stand-ins were started again, on other ports
    const link = scpiLink(kind.replace('-', ' '), host, port);
    links.set(id, { port, link });
    return link;
  };
  return {
    list: () => cards,
    identify: async (id) => (await linkTo(id)).ask('*IDN?'),
    async sweep(id, { startHz, stopHz, points, averages }) {
      const { kind } = wanted(id, 'analyser');
      const link = await linkTo(id);
      const values = await link.askNumbers(
        `:SENS:FREQ:STAR ${startHz};STOP ${stopHz};:SENS:SWE:POIN ${points};:SENS:AVER:COUN ${averages};:FORM REAL,64;:FORM:BORD NORM;:READ?`,
        2 * points,
      );
      if (values.some((value) => Math.abs(value) > WILDEST))
        throw new InstrumentError(
          `The ${kind} sent reflections that no antenna gives. Nothing was stored; check its settings and try again.`,
        );
      const part = (offset: number): Float64Array =>
        Float64Array.from({ length: points }, (_, i) => values[2 * i + offset]);
      return { freqHz: grid(startHz, stopHz, points), re: part(0), im: part(1), referenceOhm: 50 };
    },
    async spectrum(id, { startHz, stopHz, points, bandwidthHz }) {
      wanted(id, 'receiver');
      const link = await linkTo(id);
      const levelDb = await link.askNumbers(
        `:SENS:FREQ:STAR ${startHz};STOP ${stopHz};:SENS:SWE:POIN ${points};:SENS:BAND ${bandwidthHz};:FORM REAL,64;:FORM:BORD NORM;:READ?`,
        points,
      );
      return { freqHz: grid(startHz, stopHz, points), levelDb };
    },
    async read(id, { what, freqHz, turnToDeg }) {
      const kind = {
        power: 'power-meter',
        inductance: 'lcr-meter',
        capacitance: 'lcr-meter',
        azimuth: 'turntable',
      } as const;
      wanted(id, kind[what]);
      const link = await linkTo(id);
      const query = { power: ':MEAS:POW?', inductance: ':MEAS:IND?', capacitance: ':MEAS:CAP?', azimuth: ':POS:AZIM?' }[
        what
      ];
      const turn = what === 'azimuth' && turnToDeg !== null ? `:POS:AZIM ${turnToDeg};` : '';
      const at =
        freqHz === null
          ? ''
          : what === 'power'
            ? `:SENS:FREQ ${freqHz};`
            : what === 'azimuth'
              ? ''
              : `:SOUR:FREQ ${freqHz};`;
      const [value] = await link.askNumbers(`${turn}${at}${query}`, 1);
      return value;
    },
    async hands(id, { connect, noise, exercise, state, design }) {
      if (!card(id).standIn)
        throw new RequestError('Only a stand-in is plugged by a button. Plug the real one by hand.');
      const parts = [
        ...(exercise === undefined ? [] : [`:STAN:EXER ${exercise}`]),
        ...(design === undefined ? [] : [`:STAN:ANT '${designText(design)}'`]),
        ...(state === undefined ? [] : [`:STAN:STAT ${state === 'after' ? 'AFT' : 'BEF'}`]),
        ...(connect === undefined
          ? []
          : [`:STAN:CONN ${connect === 'short' ? 'SHOR' : connect === 'antenna' ? 'ANT' : connect.toUpperCase()}`]),
        ...(noise === undefined ? [] : [`:STAN:NOIS ${noise ? 'ON' : 'OFF'}`]),
      ];
      const link = await linkTo(id);
      if (parts.length > 0) await link.command(parts.join(';'));
      return Number(await link.ask(':STAN:EXER?'));
    },
    async truth(id) {
      if (!card(id).standIn) throw new RequestError('Only an exercise has a truth that can be told.');
      const [fault = '', ...numbers] = (await (await linkTo(id)).ask(':STAN:TRUT?')).split(',');
      const [lengthFactor, lossFactor, lineLengthM] = numbers.map(Number);
      return { fault, lengthFactor, lossFactor, lineLengthM };
    },
    close() {
      links.forEach(({ link }) => link.close());
      shipped.close();
    },
  };
}

/** A design in the words of the stand-ins: kind, frequency, conductor, ground, cable and its length, named dimensions. */
function designText({
  kind,
  freqHz,
  diameterM,
  groundId,
  cableId,
  lineLengthM,
  dimensions,
}: NonNullable<HandsRequest['design']>): string {
  const named = Object.entries(dimensions).filter(([name]) => /^[A-Za-z0-9]+$/.test(name));
  return [
    kind,
    freqHz,
    diameterM,
    groundId,
    cableId,
    lineLengthM,
    ...named.map(([name, value]) => `${name}=${value}`),
  ].join(' ');
}
