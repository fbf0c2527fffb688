import type { Duplex } from 'node:stream';
import { InstrumentError, NoReadingError } from './scpi-error';
import { type Line, openLine, type Way, wayText } from './scpi-line';
import { inOwnUnit, type Measure, missingReading, readNumber } from './scpi-numbers';

/** How long things may take, ms. */
interface Patience {
  readonly connectMs: number;
  /** Without a byte for this long an answer counts as lost. */
  readonly silenceMs: number;
  /** So long a fresh connection is listened to: some instruments greet. */
  readonly greetingMs: number;
}

const PATIENCE: Patience = { connectMs: 2000, silenceMs: 8000, greetingMs: 60 };
/** Lines of a greeting at most. */
const LONGEST_GREETING = 12;
/** So long after connecting a greeting may still come in place of an answer, ms. */
const FRESH_MS = 3000;
/** So long a line behind a greeting is waited for, ms. */
const NEXT_LINE_MS = 1000;
/** A longer answer is no answer of an instrument. */
const LONGEST_ANSWER = 8_000_000;

/** One instrument behind a socket or a serial port: one question at a time, a fresh connection after every fault. */
export interface ScpiLink {
  /** Sends commands and queries; every query's answer is waited for. @throws InstrumentError */
  command(line: string): Promise<void>;
  /** A setting that not every instrument has. @returns whether this one has it; its absence is learned and not asked again. */
  optional(line: string): Promise<boolean>;
  ask(line: string): Promise<string>;
  /** A question that not every instrument has. @returns undefined when this one does not answer it; that is learned and not asked again. */
  optionalAsk(line: string): Promise<string | undefined>;
  /** Numbers, as many as are due. @throws InstrumentError, NoReadingError */
  askNumbers(line: string, count: number, as?: Asked): Promise<Float64Array>;
  close(): void;
}

/** What numbers are asked for. */
interface Asked {
  /** Longest silence, ms, for a sweep that takes long; the link's own patience if absent. */
  readonly waitMs?: number;
  readonly measure?: Measure;
  /** Unit of numbers that come without one. */
  readonly unit?: string;
  /** Whether more may come behind what is due: a quality factor, a status. */
  readonly more?: boolean;
}

/** Where an answer stands in what arrived. */
interface Place {
  readonly from: number;
  readonly to: number;
  /** Bytes of a block, not text. */
  readonly block: boolean;
}

/** End of line behind a block: LF, or CR and LF, which may come in pieces. @returns undefined while it is due. */
function ended(bytes: Buffer, to: number): boolean {
  if (bytes.length <= to) return false;
  return bytes[to] === 13 ? bytes.length > to + 1 : true;
}

/**
 * Where the answer that begins here stands, or undefined while more bytes are due. Only what begins with # is a block.
 * @param count numbers that are due: a block without a length (#0) ends with them. @throws InstrumentError for a broken head of a block.
 */
function placeOf(bytes: Buffer, name: string, count: number | undefined): Place | undefined {
  if (bytes.length === 0) return undefined;
  if (bytes[0] !== 35) {
    const end = bytes.indexOf(10);
    return end < 0 ? undefined : { from: 0, to: end, block: false };
  }
  if (bytes.length < 2) return undefined;
  const digits = Number(String.fromCharCode(bytes[1]));
  if (!(digits >= 0 && digits <= 9))
    throw new InstrumentError(`The ${name} sent a block without a length. Nothing was stored; try again.`);
  if (digits === 0) {
    // IEEE 488.2, 8.7.10: the block ends with the message; the numbers due say where that is
    const to = 2 + 8 * (count ?? 0);
    return count !== undefined && ended(bytes, to) ? { from: 2, to, block: true } : undefined;
  }
  if (bytes.length < 2 + digits) return undefined;
  const text = bytes.toString('latin1', 2, 2 + digits);
  const length = Number(text);
  if (!/^\d+$/.test(text) || length > LONGEST_ANSWER)
    throw new InstrumentError(`The ${name} sent a block whose length cannot be read. Nothing was stored; try again.`);
  const from = 2 + digits;
  return ended(bytes, from + length) ? { from, to: from + length, block: true } : undefined;
}

/** What stands behind an answer, without its end of line. */
function afterEnd(bytes: Buffer, to: number): Buffer {
  let from = to;
  if (bytes[from] === 13) from += 1;
  if (bytes[from] === 10) from += 1;
  return bytes.subarray(from);
}

/** One answer without its frame. */
interface Answer {
  readonly bytes: Buffer;
  readonly block: boolean;
}

/** Opens nothing yet: the first question connects. @param name as the listener knows the instrument ("analyser"). */
export function scpiLink(name: string, way: Way, patience = PATIENCE): ScpiLink {
  let line: Line | undefined;
  let closed: Promise<void> = Promise.resolve();
  let tail: Promise<unknown> = Promise.resolve();
  /** What arrived behind an answer: the next one, where two were asked for. */
  let rest: Buffer = Buffer.alloc(0);
  let since = 0;
  const drop = (): void => {
    if (line) closed = line.close();
    line = undefined;
  };

  const open = async (): Promise<Duplex> => {
    if (line?.isOpen()) return line.stream;
    await closed;
    line = await openLine(name, way, patience.connectMs);
    const { stream } = line;
    // a greeting is read and forgotten: taken for an answer it would shift all that follow
    const forget = (): void => undefined;
    stream.on('data', forget);
    since = performance.now();
    await new Promise((resolve) => setTimeout(resolve, patience.greetingMs));
    stream.off('data', forget);
    await inStep(stream);
    return stream;
  };

  /** A greeting may come late: until a known question (IEEE 488.2, 10.18) is answered as it must be, every line is part of it. */
  const inStep = async (on: Duplex): Promise<void> => {
    rest = Buffer.alloc(0);
    on.write('*OPC?\n');
    for (let lines = 0; lines < LONGEST_GREETING; lines += 1)
      if (/^\s*\+?1\s*$/.test((await answer(on)).bytes.toString('latin1'))) return;
    throw new InstrumentError(
      `What answers as ${name} at ${wayText(way)} does not speak SCPI. See whether ${'path' in way ? 'the port and its speed' : 'address and port'} are those of the instrument.`,
    );
  };

  /** Bytes of one answer. */
  const answer = (from: Duplex, count?: number, silenceMs = patience.silenceMs): Promise<Answer> =>
    new Promise((resolve, reject) => {
      let bytes = Buffer.alloc(0);
      const chunks: Buffer[] = [];
      let waiting = 0;
      const end = (fault?: Error): void => {
        clearTimeout(timer);
        from.off('data', take);
        from.off('close', vanished);
        if (fault) reject(fault);
      };
      const half = (): string => (waiting > 0 ? ' in the middle of its answer' : '');
      const lost = (): void =>
        end(new InstrumentError(`The ${name} fell silent${half()}. Nothing was stored; try again.`));
      const vanished = (): void =>
        end(new InstrumentError(`The ${name} vanished${half()}. Nothing was stored. Connect it again, then repeat.`));
      let timer = setTimeout(lost, silenceMs);
      const take = (chunk: Buffer): void => {
        clearTimeout(timer);
        timer = setTimeout(lost, silenceMs);
        chunks.push(chunk);
        waiting += chunk.length;
        if (waiting > LONGEST_ANSWER)
          return end(new InstrumentError(`The ${name} does not stop talking. Nothing was stored; try again.`));
        // blocks are joined when they can be whole: joining at every chunk would cost the square of their number
        if (chunks.length > 1 && bytes.length > 0 && bytes[0] === 35 && waiting < expected(bytes)) return;
        bytes = Buffer.concat(chunks);
        chunks.splice(0, chunks.length, bytes);
        try {
          const place = placeOf(bytes, name, count);
          if (!place) return;
          end();
          rest = afterEnd(bytes, place.to);
          resolve({ bytes: bytes.subarray(place.from, place.to), block: place.block });
        } catch (error) {
          end(error instanceof Error ? error : new Error(String(error)));
        }
      };
      from.on('data', take);
      from.once('close', vanished);
      const [already] = [rest];
      rest = Buffer.alloc(0);
      if (already.length > 0) take(already);
    });

  /** One exchange after the other; a fault drops the connection, so that a late answer never meets the next question. */
  const exchange = <T>(work: (on: Duplex) => Promise<T>): Promise<T> => {
    const run = tail.then(async () => {
      try {
        const on = await open();
        // what came unasked answers nothing
        rest = Buffer.alloc(0);
        return await work(on);
      } catch (error) {
        drop();
        throw error;
      }
    });
    tail = run.catch(() => undefined);
    return run;
  };

  /** The number of a complaint, 0 for none; undefined for a line that is none. */
  const complaintIn = (text: string): number | undefined => {
    const number = /^([+-]?\d+)\s*(,|$)/.exec(text)?.[1];
    return number === undefined ? undefined : Number(number);
  };
  const textOf = ({ bytes }: Answer): string => bytes.toString('latin1').trim();
  /** An answer that must fit; on a fresh connection one line of a late greeting may stand before it. */
  const fitting = async (
    on: Duplex,
    fits: (one: Answer) => boolean,
    count?: number,
    waitMs?: number,
  ): Promise<Answer> => {
    const found = await answer(on, count, waitMs);
    if (fits(found) || performance.now() - since > FRESH_MS) return found;
    return answer(on, count, Math.min(NEXT_LINE_MS, patience.silenceMs)).catch(() => found);
  };
  /** The oldest complaint of the instrument: its number, 0 for none, and its text. */
  const complaint = async (on: Duplex): Promise<{ readonly number: number; readonly text: string }> => {
    on.write(':SYST:ERR?\n');
    const text = textOf(await fitting(on, (one) => complaintIn(textOf(one)) !== undefined));
    const number = complaintIn(text);
    if (number === undefined)
      throw new InstrumentError(
        `The ${name} answered with something that cannot be read. Nothing was stored; see whether it speaks SCPI.`,
      );
    return { number, text };
  };
  const refuse = ({ number, text }: { readonly number: number; readonly text: string }): void => {
    if (number !== 0)
      throw new InstrumentError(
        `The ${name} refused: ${text.replace(/[^\x20-\x7e]/g, '').slice(0, 120)}. Nothing was stored; change the settings.`,
      );
  };
  /** It becomes the refusal. */
  const checkErrors = async (on: Duplex): Promise<void> => refuse(await complaint(on));

  const asked = async (
    on: Duplex,
    line: string,
    fits: (one: Answer) => boolean = () => true,
    count?: number,
    waitMs?: number,
  ): Promise<Answer> => {
    on.write('*CLS\n');
    on.write(`${line}\n`);
    const found = await fitting(on, fits, count, waitMs);
    await checkErrors(on);
    return found;
  };
  /** Settings and questions that this instrument does not have. */
  const missing = new Set<string>();
  const headOf = (line: string): string => line.split(' ')[0];

  return {
    command: (line) =>
      exchange(async (on) => {
        on.write('*CLS\n');
        on.write(`${line}\n`);
        await checkErrors(on);
      }),
    optional: (line) =>
      missing.has(headOf(line))
        ? Promise.resolve(false)
        : exchange(async (on) => {
            on.write('*CLS\n');
            on.write(`${line}\n`);
            const { number } = await complaint(on);
            if (number !== 0) missing.add(headOf(line));
            return number === 0;
          }),
    ask: (line) => exchange(async (on) => textOf(await asked(on, line))),
    optionalAsk: (line) =>
      missing.has(headOf(line))
        ? Promise.resolve(undefined)
        : exchange(async (on) => {
            on.write('*CLS\n');
            on.write(`${line}\n`);
            // one that does not know the question answers nothing: then the complaint comes first
            on.write(':SYST:ERR?\n');
            const first = textOf(await answer(on));
            if (/^[+-]?\d+\s*,\s*"/.test(first)) {
              missing.add(headOf(line));
              return undefined;
            }
            const text = textOf(await answer(on));
            refuse({ number: complaintIn(text) ?? 0, text });
            return first;
          }),
    askNumbers: (line, count, { waitMs, measure = 'plain', unit = '', more = false } = {}) =>
      exchange(async (on) => {
        const most = more ? count : Infinity;
        const numbersOf = (one: Answer): Float64Array => numbersIn(one, most, measure, unit);
        const isNumeric = (one: Answer): boolean => one.block || !numbersOf(one).some(Number.isNaN);
        const values = numbersOf(await asked(on, line, isNumeric, count, waitMs));
        if (values.length !== count)
          throw new InstrumentError(
            `The ${name} sent ${values.length} numbers where ${count} were due. Nothing was stored; see its settings.`,
          );
        if (values.some(Number.isNaN))
          throw new InstrumentError(
            `The ${name} sent something that is not a number. Nothing was stored; see whether it is the instrument that was named.`,
          );
        const absent = values.find((value) => missingReading(value) !== undefined);
        if (absent !== undefined) {
          const why = missingReading(absent);
          // what is above or below the range is no reading that was dropped by chance: the next one will be no better
          throw new (why === 'not a number' ? NoReadingError : InstrumentError)(noReading(name, why));
        }
        return values;
      }),
    close: drop,
  };
}

/** Bytes that a block with this head takes in all. */
function expected(bytes: Buffer): number {
  const digits = Number(String.fromCharCode(bytes[1] ?? 48));
  const length = Number(bytes.toString('latin1', 2, 2 + digits));
  return Number.isFinite(length) ? 2 + digits + length + 1 : 0;
}

/** Why there is no reading, and what helps. */
function noReading(name: string, why: string | undefined): string {
  if (why === 'overflow')
    return `The ${name} says overflow: its input is above its range. Nothing was stored; attenuate what goes in, or choose a higher range.`;
  if (why === 'underflow')
    return `The ${name} says underflow: its input is below its range. Nothing was stored; choose a lower range.`;
  return `The ${name} says that it has no reading (not a number). Nothing was stored; read once more.`;
}

/** Numbers of an answer: 8-byte floats, big end first, of a block; else text between commas, each perhaps with its unit. */
function numbersIn({ bytes, block }: Answer, most: number, measure: Measure, unit: string): Float64Array {
  if (block)
    return Float64Array.from({ length: bytes.length >> 3 }, (_, i) => {
      const value = bytes.readDoubleBE(8 * i);
      return missingReading(value) === undefined ? (inOwnUnit(value, unit, measure) ?? value) : value;
    });
  const text = bytes.toString('latin1').trim();
  return text === ''
    ? new Float64Array()
    : Float64Array.from(text.split(',').slice(0, most), (one) => readNumber(one, measure, unit));
}
