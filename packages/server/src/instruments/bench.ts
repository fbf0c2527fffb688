import {
  INSTRUMENT_KINDS,
  type ExerciseTruth,
  type HandsRequest,
  type InstrumentCard,
  type InstrumentKind,
  type ReadingRequest,
  type RouteRequest,
  type SpectrumRequest,
  type SweepRequest,
  type TurnRequest,
} from '@velvet-reed/contract';
import type { Spectrum, SweepData } from '@velvet-reed/core/formats';
import { NotFoundError, RequestError } from '../refusals';
import { InstrumentError } from './scpi-error';
import { type Way, wayText } from './scpi-line';
import { scpiLink, type ScpiLink } from './scpi-link';
import { type Measure, readNumber, saysClosed } from './scpi-numbers';
import type { StandIns } from './stand-ins';

/** A real instrument that the person who started the server allowed. */
export interface AllowedInstrument {
  readonly kind: InstrumentKind;
  readonly way: Way;
}

/** Speed of a serial port for which none is named. Common practice, no source. */
const USUAL_BAUD = 9600;
/** A serial port: a device of this computer, perhaps with its speed. */
const SERIAL = /^(\/dev\/[\w./:+-]+|COM\d{1,3})(?:@(\d{3,7}))?$/i;

/** Reads "analyser=192.168.1.5:5025" or "analyser=/dev/ttyUSB0@115200". @throws RequestError that says how it is written. */
export function readAllowed(text: string): AllowedInstrument {
  const [named, at = ''] = text.trim().split(/=(.*)/s);
  const kind = INSTRUMENT_KINDS.find((one) => one === named);
  const network = /^([A-Za-z0-9.-]+):(\d{1,5})$/.exec(at);
  const serial = SERIAL.exec(at);
  if (kind && network) return { kind, way: { host: network[1], port: Number(network[2]) } };
  if (kind && serial && !at.includes('..'))
    return { kind, way: { path: serial[1], baud: Number(serial[2] ?? USUAL_BAUD) } };
  throw new RequestError(
    `"${text}" names no instrument. Write it as kind=address:port, such as analyser=192.168.1.5:5025, or as kind=serial port, such as power-meter=/dev/ttyUSB0@9600 or power-meter=COM3. Kinds: ${INSTRUMENT_KINDS.join(', ')}.`,
  );
}

/** A reading, and what the instrument could not do for it or did otherwise. */
interface Taken<T> {
  readonly value: T;
  readonly told: readonly string[];
}

/** A spectrum, with the bandwidth that the instrument really used, Hz. */
interface TakenSpectrum extends Taken<Spectrum> {
  readonly bandwidthHz: number;
}

/** Instruments within reach: stand-ins and those allowed; nothing else is ever connected to. */
export interface Bench {
  list(): readonly InstrumentCard[];
  identify(id: string): Promise<string>;
  sweep(id: string, request: SweepRequest): Promise<Taken<SweepData>>;
  spectrum(id: string, request: SpectrumRequest): Promise<TakenSpectrum>;
  read(id: string, request: ReadingRequest): Promise<Taken<number>>;
  /** Turns there and waits until it stands; a fault, or a caller that left, stops it. @returns where it stands, degrees. */
  turn(id: string, request: TurnRequest, left: AbortSignal): Promise<number>;
  stopTurning(id: string): Promise<void>;
  /** Closes one antenna onto the receiver; it is asked whether it stands there. */
  route(id: string, request: RouteRequest): Promise<void>;
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

/** Longest silence that is waited for while an instrument sweeps, s; a request may ask for more. */
const USUAL_WAIT_S = 60;
const waitMs = (seconds: number | undefined): number => 1000 * (seconds ?? USUAL_WAIT_S);

/** Asks for 8-byte blocks; without them numbers come as text, slower and just as right. */
async function binary(link: ScpiLink): Promise<string[]> {
  const real = await link.optional(':FORM REAL,64');
  // without a byte order to choose, the standard's own holds: big end first
  if (real) await link.optional(':FORM:BORD NORM');
  return real ? [] : ['It sends numbers as text only, which takes longer.'];
}

/** What a setting stands at now; undefined when the instrument does not tell. @throws InstrumentError for an answer that is no number. */
async function standsAt(link: ScpiLink, head: string, measure: Measure): Promise<number | undefined> {
  const text = await link.optionalAsk(`${head}?`);
  if (text === undefined) return undefined;
  const value = readNumber(text, measure);
  if (Number.isNaN(value))
    throw new InstrumentError(
      `The instrument answered "${text.slice(0, 60)}" when it was asked how ${head} stands. Nothing was stored; see whether it is the kind that was named.`,
    );
  return value;
}

/** Two settings that differ by less than this share are the same. */
const SAME = 1e-6;
const differs = (a: number, b: number): boolean => Math.abs(a - b) > SAME * Math.max(Math.abs(a), Math.abs(b));
const mega = (hz: number): string => `${Number((hz / 1e6).toPrecision(9))} MHz`;

/** Sets a stretch and its points and reads them back: instruments round, and only what they did is true. */
async function setSpan(
  link: ScpiLink,
  { startHz, stopHz, points }: { readonly startHz: number; readonly stopHz: number; readonly points: number },
  told: string[],
): Promise<{ readonly startHz: number; readonly stopHz: number; readonly points: number }> {
  await link.command(`:SENS:FREQ:STAR ${startHz};:SENS:FREQ:STOP ${stopHz};:SENS:SWE:POIN ${points}`);
  const start = await standsAt(link, ':SENS:FREQ:STAR', 'frequency');
  const stop = await standsAt(link, ':SENS:FREQ:STOP', 'frequency');
  const count = await standsAt(link, ':SENS:SWE:POIN', 'plain');
  if (start === undefined || stop === undefined || count === undefined)
    told.push('It does not tell which span and points it took: those that were asked for are assumed.');
  const now = { startHz: start ?? startHz, stopHz: stop ?? stopHz, points: count ?? points };
  const overlapHz = Math.min(now.stopHz, stopHz) - Math.max(now.startHz, startHz);
  if (
    !(now.startHz < now.stopHz) ||
    !(overlapHz > 0.5 * (stopHz - startHz)) ||
    !(now.points >= 2 && now.points <= 200_001)
  )
    throw new InstrumentError(
      `It was asked for ${mega(startHz)} to ${mega(stopHz)}, ${points} points, and stands at ${mega(now.startHz)} to ${mega(now.stopHz)}, ${now.points} points. Nothing was stored; choose a span that it has.`,
    );
  if (differs(now.startHz, startHz) || differs(now.stopHz, stopHz) || now.points !== points)
    told.push(
      `It measured ${mega(now.startHz)} to ${mega(now.stopHz)} in ${now.points} points, not ${mega(startHz)} to ${mega(stopHz)} in ${points}: what it measured is what is kept.`,
    );
  return now;
}

/** Has levels in dBm where the instrument can choose. @returns the unit of numbers that come without one. */
async function levelUnit(link: ScpiLink, told: string[]): Promise<string> {
  const set = await link.optional(':UNIT:POW DBM');
  const unit = (set ? await link.optionalAsk(':UNIT:POW?') : undefined)?.trim();
  if (unit === undefined || unit === '') {
    told.push('It does not tell the unit of its levels: a level without a unit is taken for dBm (assumed).');
    return '';
  }
  if (unit.toUpperCase() !== 'DBM')
    told.push(`It keeps to its own unit (${unit.slice(0, 12)}): levels are converted, in 50 Ω.`);
  return unit;
}

export function openBench(allowed: readonly AllowedInstrument[], shipped: StandIns): Bench {
  const links = new Map<string, { readonly at: string; readonly link: ScpiLink }>();
  const cards: readonly InstrumentCard[] = [
    ...allowed.map(({ kind, way }, i) => ({
      id: `${kind}-${i + 1}`,
      kind,
      address: wayText(way),
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
    const way = standIn ? { host: '127.0.0.1', port: (await shipped.ports())[kind] ?? 0 } : real.way;
    const at = wayText(way);
    const known = links.get(id);
    if (known?.at === at) return known.link;
    known?.link.close(); // the stand-ins were started again, on other ports
    const link = scpiLink(kind.replace('-', ' '), way);
    links.set(id, { at, link });
    return link;
  };
  return {
    list: () => cards,
    identify: async (id) => (await linkTo(id)).ask('*IDN?'),
    async sweep(id, { startHz, stopHz, points, averages, waitS }) {
      const { kind } = wanted(id, 'analyser');
      const link = await linkTo(id);
      const told: string[] = [];
      const span = await setSpan(link, { startHz, stopHz, points }, told);
      told.push(...(await binary(link)));
      if (await link.optional(`:SENS:AVER:COUN ${averages}`)) {
        const really = await standsAt(link, ':SENS:AVER:COUN', 'plain');
        if (really !== undefined && really !== averages)
          told.push(`It averages ${really} times, not ${averages} times.`);
      } else if (averages > 1) told.push('It does not average by itself: one pass was read.');
      const values = await link.askNumbers(':READ?', 2 * span.points, { waitMs: waitMs(waitS) });
      if (values.some((value) => Math.abs(value) > WILDEST))
        throw new InstrumentError(
          `The ${kind} sent reflections that no antenna gives. Nothing was stored; see that it measures reflection, as real and imaginary part.`,
        );
      const part = (offset: number): Float64Array =>
        Float64Array.from({ length: span.points }, (_, i) => values[2 * i + offset]);
      return {
        value: { freqHz: grid(span.startHz, span.stopHz, span.points), re: part(0), im: part(1), referenceOhm: 50 },
        told,
      };
    },
    async spectrum(id, { startHz, stopHz, points, bandwidthHz, waitS }) {
      wanted(id, 'receiver');
      const link = await linkTo(id);
      const told: string[] = [];
      const span = await setSpan(link, { startHz, stopHz, points }, told);
      told.push(...(await binary(link)));
      const unit = await levelUnit(link, told);
      let really: number | undefined;
      if (await link.optional(`:SENS:BAND ${bandwidthHz}`)) {
        really = await standsAt(link, ':SENS:BAND', 'frequency');
        if (really !== undefined && differs(really, bandwidthHz))
          told.push(
            `Its bandwidth is ${Number(really.toPrecision(6))} Hz, not ${bandwidthHz} Hz: that is what is kept.`,
          );
      } else told.push('Its bandwidth cannot be set from here: set it by hand, and enter the same.');
      const asked = { waitMs: waitMs(waitS), measure: 'level', unit } as const;
      const levelDb = await link.askNumbers(':READ?', span.points, asked);
      const value = { freqHz: grid(span.startHz, span.stopHz, span.points), levelDb };
      return { value, told, bandwidthHz: really ?? bandwidthHz };
    },
    async read(id, { what, freqHz }) {
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
      const at =
        freqHz === null
          ? ''
          : what === 'power'
            ? `:SENS:FREQ ${freqHz};`
            : what === 'azimuth'
              ? ''
              : `:SOUR:FREQ ${freqHz};`;
      const measure = (
        { power: 'level', inductance: 'inductance', capacitance: 'capacitance', azimuth: 'angle' } as const
      )[what];
      const told: string[] = [];
      const unit = what === 'power' ? await levelUnit(link, told) : '';
      const [value] = await link.askNumbers(`${at}${query}`, 1, { measure, unit, more: true });
      return { value, told };
    },
    async turn(id, { toDeg, lowDeg, highDeg }, left) {
      wanted(id, 'turntable');
      const link = await linkTo(id);
      if (toDeg !== null && (toDeg < lowDeg || toDeg > highDeg))
        throw new RequestError(
          `${toDeg}° lies past the cable's limit of ${lowDeg}° to ${highDeg}°. Choose a direction within, or give the cable more slack first.`,
        );
      return turnTo(link, toDeg, left);
    },
    async stopTurning(id) {
      wanted(id, 'turntable');
      await (await linkTo(id)).command(':POS:STOP');
    },
    async route(id, { channel }) {
      wanted(id, 'antenna-switch');
      const link = await linkTo(id);
      await link.command(`:ROUT:CLOS (@${channel})`);
      if (!saysClosed(await link.ask(`:ROUT:CLOS? (@${channel})`), channel))
        throw new InstrumentError(`The antenna switch does not stand on channel ${channel}. Look at it, then go on.`);
    },
    async hands(id, { connect, noise, exercise, state, design, distantHz, transmit, loopAt, box }) {
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
        ...(transmit === undefined ? [] : [`:STAN:TRAN ${transmit.powerW},${transmit.padDb}`]),
        ...(loopAt === undefined ? [] : [`:STAN:PLAC ${loopAt.eastM},${loopAt.northM}`]),
        ...(box === undefined
          ? []
          : [`:STAN:BOX ${box.through.slice(0, 4).toUpperCase()},${box.gainDb},${box.phaseDeg}`]),
        ...(distantHz === undefined ? [] : [`:STAN:DIST ${distantHz}`]),
      ];
      const link = await linkTo(id);
      if (parts.length > 0) await link.command(parts.join(';'));
      return Number(await link.ask(':STAN:EXER?'));
    },
    async truth(id) {
      if (!card(id).standIn) throw new RequestError('Only an exercise has a truth that can be told.');
      const [fault = '', ...numbers] = (await (await linkTo(id)).ask(':STAN:TRUT?')).split(',');
      const [lengthFactor, lossFactor, lineLengthM, sourceEastM, sourceNorthM] = numbers.map(Number);
      return { fault, lengthFactor, lossFactor, lineLengthM, sourceEastM, sourceNorthM };
    },
    close() {
      links.forEach(({ link }) => link.close());
      shipped.close();
    },
  };
}

/** So near it stands where it was sent, degrees. */
const STANDS_WITHIN_DEG = 0.6;
/** So little it moves from question to question when it stands, degrees, for so many questions. */
const STILL_DEG = 0.05;
const STILL_ASKS = 12;
/** A difference of directions, −180° to 180°, and its size. */
const signedOnCircle = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;
const onCircle = (deg: number): number => Math.abs(signedOnCircle(deg));
/** A table that came no nearer for this long is held by something, ms; and how often it is asked. */
const HELD_MS = 10_000;
const ASKED_EVERY_MS = 40;

/** Turns a table, or sends it home (null), and watches it until it stands. Whatever goes wrong, it is told to stop. */
async function turnTo(link: ScpiLink, toDeg: number | null, left: AbortSignal): Promise<number> {
  const stop = (): Promise<unknown> => link.command(':POS:STOP').catch(() => undefined);
  const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS));
  try {
    if (toDeg === null && !(await link.optional(':POS:HOME')))
      throw new InstrumentError(
        'This turntable does not find its mark by itself. Turn it to the mark by hand, set its zero there, and say so here.',
      );
    if (toDeg !== null) await link.command(`:POS:AZIM ${toDeg}`);
    let [nearest, nearestRaw] = [Infinity, Infinity];
    let before = NaN;
    let still = 0;
    for (let since = performance.now(); ; await pause()) {
      if (left.aborted) throw new InstrumentError('The turn was left. The turntable was told to stop.');
      if (toDeg === null && Number(await link.ask(':POS:HOME?')) === 1) return 0;
      const [stands] = await link.askNumbers(':POS:AZIM?', 1, { measure: 'angle', more: true });
      const off = onCircle(stands - (toDeg ?? 0));
      // a table that tells its place on the circle says 5° at 365° too: there it stands when it has stood still
      still = Math.abs(stands - before) < STILL_DEG ? still + 1 : 0;
      before = stands;
      const isThere = Math.abs(stands - (toDeg ?? 0)) <= STANDS_WITHIN_DEG || still >= STILL_ASKS;
      if (toDeg !== null && off <= STANDS_WITHIN_DEG && isThere) return toDeg + signedOnCircle(stands - toDeg);
      // it comes nearer on its scale, or on the circle when its scale begins anew at north
      const raw = Math.abs(stands - (toDeg ?? 0));
      if (off < nearest - 0.2 || raw < nearestRaw - 0.2) since = performance.now();
      [nearest, nearestRaw] = [Math.min(off, nearest), Math.min(raw, nearestRaw)];
      if (performance.now() - since > HELD_MS)
        throw new InstrumentError(
          `The turntable stands at ${Math.round(stands)}° and does not come to ${toDeg ?? 0}°. It was told to stop: see what holds it, and whether the cable is free.`,
        );
    }
  } catch (error) {
    await stop();
    throw error;
  }
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
