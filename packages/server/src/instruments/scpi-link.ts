import { connect, type Socket } from 'node:net';
import { CoreError } from '@velvet-reed/core/errors';

/** An instrument did not answer as it should; nothing of its answer is kept. */
export class InstrumentError extends CoreError {
  readonly code = 'INSTRUMENT';
}

/** How long things may take, ms. */
interface Patience {
  readonly connectMs: number;
  /** Without a byte for this long an answer counts as lost. */
  readonly silenceMs: number;
  /** So long a fresh connection is listened to: some instruments greet. */
  readonly greetingMs: number;
}

const PATIENCE: Patience = { connectMs: 2000, silenceMs: 8000, greetingMs: 60 };
/** A longer answer is no answer of an instrument. */
const LONGEST_ANSWER = 8_000_000;

/** One instrument behind a TCP socket: one question at a time, a fresh connection after every fault. */
export interface ScpiLink {
  /** Sends commands and queries; every query's answer is waited for. @throws InstrumentError */
  command(line: string): Promise<void>;
  /** A setting that not every instrument has. @returns whether this one has it; its absence is learned and not asked again. */
  optional(line: string): Promise<boolean>;
  ask(line: string): Promise<string>;
  /** @param waitMs longest silence, for a sweep that takes long; the link's own patience if absent. */
  askNumbers(line: string, count: number, waitMs?: number): Promise<Float64Array>;
  close(): void;
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

/** One answer without its frame. */
interface Answer {
  readonly bytes: Buffer;
  readonly block: boolean;
}

/** Opens nothing yet: the first question connects. @param name as the listener knows the instrument ("analyser"). */
export function scpiLink(name: string, host: string, port: number, patience = PATIENCE): ScpiLink {
  let socket: Socket | undefined;
  let tail: Promise<unknown> = Promise.resolve();
  const drop = (): void => {
    socket?.destroy();
    socket = undefined;
  };

  const open = (): Promise<Socket> =>
    new Promise((resolve, reject) => {
      if (socket && !socket.destroyed) return resolve(socket);
      const made = connect({ host, port });
      const fail = (why: string): void => {
        made.destroy();
        reject(
          new InstrumentError(
            `The ${name} at ${host}:${port} ${why}. See whether it is switched on and connected, then try again.`,
          ),
        );
      };
      const timer = setTimeout(() => fail('does not answer'), patience.connectMs);
      made.once('error', () => {
        clearTimeout(timer);
        fail('cannot be reached');
      });
      made.once('connect', () => {
        clearTimeout(timer);
        made.removeAllListeners('error');
        made.on('error', () => made.destroy());
        made.setNoDelay(true);
        socket = made;
        // a greeting is read and forgotten: taken for an answer it would shift all that follow
        const forget = (): void => undefined;
        made.on('data', forget);
        setTimeout(() => {
          made.off('data', forget);
          resolve(made);
        }, patience.greetingMs);
      });
    });

  /** Bytes of one answer. */
  const answer = (from: Socket, count?: number, silenceMs = patience.silenceMs): Promise<Answer> =>
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
          resolve({ bytes: bytes.subarray(place.from, place.to), block: place.block });
        } catch (error) {
          end(error instanceof Error ? error : new Error(String(error)));
        }
      };
      from.on('data', take);
      from.once('close', vanished);
    });

  /** One exchange after the other; a fault drops the connection, so that a late answer never meets the next question. */
  const exchange = <T>(work: (on: Socket) => Promise<T>): Promise<T> => {
    const run = tail.then(async () => {
      try {
        return await work(await open());
      } catch (error) {
        drop();
        throw error;
      }
    });
    tail = run.catch(() => undefined);
    return run;
  };

  /** The oldest complaint of the instrument: its number, 0 for none, and its text. */
  const complaint = async (on: Socket): Promise<{ readonly number: number; readonly text: string }> => {
    on.write(':SYST:ERR?\n');
    const text = (await answer(on)).bytes.toString('latin1').trim();
    const number = /^([+-]?\d+)\s*(,|$)/.exec(text)?.[1];
    if (number === undefined)
      throw new InstrumentError(
        `The ${name} answered with something that cannot be read. Nothing was stored; try again.`,
      );
    return { number: Number(number), text };
  };
  /** It becomes the refusal. */
  const checkErrors = async (on: Socket): Promise<void> => {
    const { number, text } = await complaint(on);
    if (number !== 0)
      throw new InstrumentError(
        `The ${name} refused: ${text.replace(/[^\x20-\x7e]/g, '').slice(0, 120)}. Change the settings and try again.`,
      );
  };

  const asked = async (on: Socket, line: string, count?: number, waitMs?: number): Promise<Answer> => {
    on.write('*CLS\n');
    on.write(`${line}\n`);
    const found = await answer(on, count, waitMs);
    await checkErrors(on);
    return found;
  };
  /** Settings that this instrument does not have. */
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
    ask: (line) => exchange(async (on) => (await asked(on, line)).bytes.toString('latin1').trim()),
    askNumbers: (line, count, waitMs) =>
      exchange(async (on) => {
        const values = numbersIn(await asked(on, line, count, waitMs));
        if (values.length !== count)
          throw new InstrumentError(
            `The ${name} sent ${values.length} numbers where ${count} were due. Nothing was stored; try again.`,
          );
        if (values.some((value) => !Number.isFinite(value)))
          throw new InstrumentError(`The ${name} sent something that is not a number. Nothing was stored; try again.`);
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

/** Numbers of an answer: 8-byte floats, big end first, of a block; else text between commas. */
function numbersIn({ bytes, block }: Answer): Float64Array {
  if (block) return Float64Array.from({ length: bytes.length >> 3 }, (_, i) => bytes.readDoubleBE(8 * i));
  const text = bytes.toString('latin1').trim();
  return text === ''
    ? new Float64Array()
    : Float64Array.from(text.split(','), (one) => (one.trim() === '' ? NaN : Number(one)));
}
