import { matches, parseMessage, readPattern, type Argument, type Dimension } from './syntax';

/** An answer as it goes onto the wire: a line of text, or a definite-length block of bytes. */
export type Reply = string | Uint8Array;

/** What a command does to a device's state, what it answers, and what it complains of. */
export interface Outcome<S> {
  readonly state: S;
  readonly reply?: Reply;
  readonly fault?: string;
}

/** One command with its pattern as manuals print it. */
export interface Command<S> {
  readonly pattern: string;
  readonly query?: (state: S, args: readonly Argument[]) => Outcome<S>;
  readonly set?: (state: S, args: readonly Argument[]) => Outcome<S>;
}

/** A kind of instrument: who it is, how it stands after *RST, what it understands. */
export interface Device<S> {
  readonly identity: string;
  readonly commands: readonly Command<S>[];
  /** State after *RST; what is plugged in stays plugged in. */
  readonly reset: (state: S) => S;
}

/** A device with its error queue and event register. */
export interface Session<S> {
  readonly state: S;
  readonly errors: readonly string[];
  /** Standard event status register, IEEE 488.2 11.5.1. */
  readonly events: number;
  readonly enabled: number;
  /** Service request enable register, IEEE 488.2 11.3.2. */
  readonly service: number;
  /** Enable and transition registers of the two status structures, SCPI-1999 vol. 1, 9. */
  readonly operation: StatusRegisters;
  readonly questionable: StatusRegisters;
}

interface StatusRegisters {
  readonly enable: number;
  readonly rises: number;
  readonly falls: number;
}
/** After :STATus:PRESet: nothing enabled, every rise is an event (SCPI-1999 vol. 2, 20.7). */
const PRESET: StatusRegisters = { enable: 0, rises: 32767, falls: 0 };

export const openSession = <S>(state: S): Session<S> => ({
  state,
  errors: [],
  events: 128,
  enabled: 0,
  service: 0,
  operation: PRESET,
  questionable: PRESET,
});

const NUMBER_WANTED = '-104,"Data type error"';
const OUT_OF_RANGE = '-222,"Data out of range"';
const UNDEFINED = '-113,"Undefined header"';
const MISSING = '-109,"Missing parameter"';
const NOT_ALLOWED = '-108,"Parameter not allowed"';
const ILLEGAL = '-224,"Illegal parameter value"';
const OVERFLOW = '-350,"Queue overflow"';
const MOST_ERRORS = 16;
/** Bits of the event register by the class of an error: command 5, execution 4, device 3, query 2. */
const eventBit = (fault: string): number => ({ '-1': 32, '-2': 16, '-3': 8, '-4': 4 })[fault.slice(0, 2)] ?? 8;

function complain<S>(session: Session<S>, fault: string): Session<S> {
  const errors =
    session.errors.length < MOST_ERRORS
      ? [...session.errors, fault]
      : [...session.errors.slice(0, MOST_ERRORS - 1), OVERFLOW];
  return { ...session, errors, events: session.events | eventBit(fault) };
}

/** Commands that every instrument of IEEE 488.2 and SCPI-1999 has. */
function common<S>(
  device: Device<S>,
  session: Session<S>,
  header: readonly string[],
  query: boolean,
  args: readonly Argument[],
  waiting: boolean,
): { readonly session: Session<S>; readonly reply?: string } | undefined {
  const status = statusCommand(session, header, query, args);
  if (status) return status;
  const is = (pattern: string): boolean => matches(readPattern(pattern), header);
  if (query) {
    if (is('*IDN')) return { session, reply: device.identity };
    if (is('*OPC')) return { session, reply: '1' };
    if (is('*ESR')) return { session: { ...session, events: 0 }, reply: String(session.events) };
    if (is('*ESE')) return { session, reply: String(session.enabled) };
    if (is('*SRE')) return { session, reply: String(session.service) };
    if (is('*STB')) {
      // error queue, message available, event summary; bit 6 is the master summary of what service is asked for
      const bits =
        (session.errors.length > 0 ? 4 : 0) | (waiting ? 16 : 0) | (session.events & session.enabled ? 32 : 0);
      return { session, reply: String(bits | (bits & session.service ? 64 : 0)) };
    }
    if (is('*TST')) return { session, reply: '0' };
    if (is(':SYSTem:VERSion')) return { session, reply: '1999.0' };
    if (is(':SYSTem:ERRor:COUNt')) return { session, reply: String(session.errors.length) };
    if (is(':SYSTem:ERRor[:NEXT]')) {
      const [first, ...errors] = session.errors;
      return { session: { ...session, errors }, reply: first ?? '0,"No error"' };
    }
    return undefined;
  }
  if (is('*RST')) return { session: { ...session, state: device.reset(session.state) } };
  if (is('*CLS')) return { session: { ...session, errors: [], events: 0 } };
  if (is('*OPC')) return { session: { ...session, events: session.events | 1 } };
  if (is('*WAI')) return { session };
  if (is('*ESE')) return register(session, args, 255, (enabled) => ({ ...session, enabled }));
  // bit 6 cannot be asked to ask for itself
  if (is('*SRE')) return register(session, args, 255, (service) => ({ ...session, service: service & ~64 }));
  return undefined;
}

/** A register of bits from one number; kept as it was when the number is none. */
function register<S>(
  session: Session<S>,
  args: readonly Argument[],
  most: number,
  write: (bits: number) => Session<S>,
): { readonly session: Session<S> } {
  const [one] = args;
  if (one?.kind !== 'number') return { session: complain(session, one ? NUMBER_WANTED : MISSING) };
  if (args.length > 1) return { session: complain(session, NOT_ALLOWED) };
  return one.value >= 0 && one.value <= most
    ? { session: write(Math.round(one.value)) }
    : { session: complain(session, OUT_OF_RANGE) };
}

const STRUCTURES = [
  [':STATus:OPERation', 'operation'],
  [':STATus:QUEStionable', 'questionable'],
] as const;
const REGISTERS = [
  ['ENABle', 'enable'],
  ['PTRansition', 'rises'],
  ['NTRansition', 'falls'],
] as const;

/** The status structures that SCPI-1999 (vol. 1, 4.2.1) makes mandatory; a stand-in has no conditions, so no events come of them. */
function statusCommand<S>(
  session: Session<S>,
  header: readonly string[],
  query: boolean,
  args: readonly Argument[],
): { readonly session: Session<S>; readonly reply?: string } | undefined {
  const is = (pattern: string): boolean => matches(readPattern(pattern), header);
  if (!query && is(':STATus:PRESet')) return { session: { ...session, operation: PRESET, questionable: PRESET } };
  for (const [path, structure] of STRUCTURES) {
    if (query && (is(`${path}[:EVENt]`) || is(`${path}:CONDition`))) return { session, reply: '0' };
    for (const [name, field] of REGISTERS) {
      if (!is(`${path}:${name}`)) continue;
      if (query) return { session, reply: String(session[structure][field]) };
      return register(session, args, 65_535, (bits) => ({
        ...session,
        [structure]: { ...session[structure], [field]: bits & 32_767 },
      }));
    }
  }
  return undefined;
}

/** What a device does with a command; a fault of its own is a device error, and the instrument lives on. */
function safely<S>(
  act: (state: S, args: readonly Argument[]) => Outcome<S>,
  state: S,
  args: readonly Argument[],
): Outcome<S> {
  try {
    return act(state, args);
  } catch {
    return { state, fault: '-300,"Device-specific error"' };
  }
}

/**
 * Answers one program message. Pure: sockets are elsewhere. Faults wait in the error queue (:SYSTem:ERRor?); a fault in the syntax ends the
 * message there.
 */
export function respond<S>(
  device: Device<S>,
  first: Session<S>,
  line: string,
): { readonly session: Session<S>; readonly replies: readonly Reply[] } {
  let session = first;
  const replies: Reply[] = [];
  for (const unit of parseMessage(line)) {
    if ('fault' in unit) {
      session = complain(session, unit.fault);
      break;
    }
    const shared = common(device, session, unit.header, unit.query, unit.args, replies.length > 0);
    if (shared) {
      session = shared.session;
      if (shared.reply !== undefined) replies.push(shared.reply);
      continue;
    }
    const command = device.commands.find((one) => matches(readPattern(one.pattern), unit.header));
    const act = unit.query ? command?.query : command?.set;
    if (!act) {
      session = complain(session, UNDEFINED);
      continue;
    }
    const outcome = safely(act, session.state, unit.args);
    session = { ...session, state: outcome.state };
    if (outcome.fault) session = complain(session, outcome.fault);
    if (outcome.reply !== undefined) replies.push(outcome.reply);
  }
  return { session, replies };
}

/** Limits of a setting, its value after *RST, and what its suffix may measure; without a dimension no suffix is taken. */
export interface NumberLimits {
  readonly least: number;
  readonly most: number;
  readonly standard: number;
  readonly unit?: Dimension;
}

/** A setting that holds one number: queried and set, with its limits; MINimum, MAXimum and DEFault stand for theirs. */
export function numberSetting<S>(
  pattern: string,
  read: (state: S) => number,
  write: (state: S, value: number) => S,
  { least, most, standard, unit }: NumberLimits,
): Command<S> {
  const named: Readonly<Record<string, number>> = {
    ...{ MIN: least, MINIMUM: least, MAX: most, MAXIMUM: most, DEF: standard, DEFAULT: standard },
  };
  return {
    pattern,
    query: (state, args) => {
      const [one] = args;
      if (args.length > 1) return { state, fault: NOT_ALLOWED };
      if (!one) return { state, reply: String(read(state)) };
      const limit = one.kind === 'word' ? named[one.value] : undefined;
      return limit === undefined ? { state, fault: ILLEGAL } : { state, reply: String(limit) };
    },
    set: (state, args) => {
      const [one] = args;
      if (!one) return { state, fault: MISSING };
      if (args.length > 1) return { state, fault: NOT_ALLOWED };
      const limit = one.kind === 'word' ? named[one.value] : undefined;
      if (one.kind !== 'number' && limit === undefined)
        return { state, fault: one.kind === 'word' ? ILLEGAL : NUMBER_WANTED };
      if (one.kind === 'number' && one.unit !== undefined && one.unit !== unit)
        return { state, fault: unit === undefined ? '-138,"Suffix not allowed"' : '-131,"Invalid suffix"' };
      const value = limit ?? (one.kind === 'number' ? one.value : NaN);
      if (!(value >= least && value <= most)) return { state, fault: OUT_OF_RANGE };
      return { state: write(state, value) };
    },
  };
}

/** Start, stop, centre and span of a sweep, which move each other (SCPI-1999 vol. 2, 18.10). */
export function spanSettings<S extends { readonly startHz: number; readonly stopHz: number }>(
  write: (state: S, change: { readonly startHz?: number; readonly stopHz?: number }) => S,
  limits: Readonly<Record<'start' | 'stop', NumberLimits>>,
): readonly Command<S>[] {
  const { least, most } = limits.start;
  const inside = (value: number): number => Math.min(most, Math.max(least, value));
  const centre = (state: S): number => (state.startHz + state.stopHz) / 2;
  const span = (state: S): number => state.stopHz - state.startHz;
  const around = (state: S, middleHz: number, wideHz: number): S =>
    write(state, { startHz: inside(middleHz - wideHz / 2), stopHz: inside(middleHz + wideHz / 2) });
  const [first, last] = [limits.start.standard, limits.stop.standard];
  return [
    numberSetting(
      '[:SENSe]:FREQuency:STARt',
      (s: S) => s.startHz,
      (s, startHz) => write(s, { startHz }),
      limits.start,
    ),
    numberSetting(
      '[:SENSe]:FREQuency:STOP',
      (s: S) => s.stopHz,
      (s, stopHz) => write(s, { stopHz }),
      limits.stop,
    ),
    numberSetting('[:SENSe]:FREQuency:CENTer', centre, (s, middleHz) => around(s, middleHz, span(s)), {
      ...limits.start,
      standard: (first + last) / 2,
    }),
    numberSetting('[:SENSe]:FREQuency:SPAN', span, (s, wideHz) => around(s, centre(s), wideHz), {
      least: 0,
      most: most - least,
      standard: last - first,
      unit: 'frequency',
    }),
  ];
}

/** A setting that is one of a few words. */
export function wordSetting<S, W extends string>(
  pattern: string,
  words: Readonly<Record<string, W>>,
  read: (state: S) => W,
  write: (state: S, value: W) => S,
): Command<S> {
  return {
    pattern,
    query: (state) => ({ state, reply: read(state) }),
    set: (state, args) => {
      const [one] = args;
      if (!one) return { state, fault: MISSING };
      const value = one.kind === 'word' ? words[one.value] : undefined;
      return value === undefined ? { state, fault: ILLEGAL } : { state: write(state, value) };
    },
  };
}

/** How numbers are sent: readable, or as 8-byte floats, big end first (NORMal) or last (SWAPped). */
export interface NumberFormat {
  readonly data: 'ASC' | 'REAL';
  readonly border: 'NORM' | 'SWAP';
}

export const PLAIN: NumberFormat = { data: 'ASC', border: 'NORM' };

/** Commands for the format of numbers. */
export const formatCommands = <S extends { readonly format: NumberFormat }>(): readonly Command<S>[] => [
  {
    pattern: ':FORMat[:DATA]',
    query: (state) => ({ state, reply: state.format.data === 'REAL' ? 'REAL,64' : 'ASC,0' }),
    set: (state, args) => {
      const [word, width] = args;
      if (word?.kind !== 'word') return { state, fault: word ? NUMBER_WANTED : MISSING };
      const data = ({ ASC: 'ASC', ASCII: 'ASC', REAL: 'REAL' } as const)[word.value];
      if (!data || (data === 'REAL' && width && !(width.kind === 'number' && width.value === 64)))
        return { state, fault: ILLEGAL };
      return { state: { ...state, format: { ...state.format, data } } };
    },
  },
  wordSetting(
    ':FORMat:BORDer',
    { NORM: 'NORM', NORMAL: 'NORM', SWAP: 'SWAP', SWAPPED: 'SWAP' },
    (state: S) => state.format.border,
    (state, border) => ({ ...state, format: { ...state.format, border } }),
  ),
];

/** Numbers as a reply: a comma-separated line or an IEEE 488.2 definite-length block (8.7.9). */
export function numbersReply(values: Float64Array, format: NumberFormat): Reply {
  if (format.data === 'ASC') return Array.from(values, (value) => value.toExponential(9)).join(',');
  const head = `#${String(values.length * 8).length}${values.length * 8}`;
  const bytes = new Uint8Array(head.length + values.length * 8);
  for (let i = 0; i < head.length; i += 1) bytes[i] = head.charCodeAt(i);
  const view = new DataView(bytes.buffer);
  values.forEach((value, i) => view.setFloat64(head.length + 8 * i, value, format.border === 'SWAP'));
  return bytes;
}
