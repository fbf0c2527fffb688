/** What a suffix measures. */
export type Dimension = 'frequency' | 'time' | 'ratio' | 'level' | 'angle' | 'resistance';

/** One parameter of a command as it was written. */
export type Argument =
  | {
      readonly kind: 'number';
      readonly value: number;
      /** Dimension of the suffix; absent without one. */ readonly unit?: Dimension;
    }
  | { readonly kind: 'word'; readonly value: string }
  | { readonly kind: 'text'; readonly value: string }
  /** A channel list of one channel, "(@2)" (SCPI-1999 vol. 1, 8.3.2). */
  | { readonly kind: 'channel'; readonly value: number };

/** One command or query of a program message. */
interface Unit {
  /** Mnemonics in capitals, such as ["SENS", "FREQ", "STAR"]; a common command is one, such as ["*IDN"]. */
  readonly header: readonly string[];
  readonly query: boolean;
  readonly args: readonly Argument[];
}

/** A faulty unit keeps its place: units before it are still carried out, units after it are not. */
export type Parsed = Unit | { readonly fault: string };

const SYNTAX = '-102,"Syntax error"';
const SUFFIX = '-131,"Invalid suffix"';

const SUFFIXES: Readonly<Record<string, readonly [factor: number, unit: Dimension]>> = {
  HZ: [1, 'frequency'],
  KHZ: [1e3, 'frequency'],
  MHZ: [1e6, 'frequency'], // in SCPI the suffix MHZ means mega, not milli: SCPI-1999 vol. 1, 7.4.2
  MAHZ: [1e6, 'frequency'],
  GHZ: [1e9, 'frequency'],
  S: [1, 'time'],
  MS: [1e-3, 'time'],
  DB: [1, 'ratio'],
  DBM: [1, 'level'],
  DEG: [1, 'angle'],
  OHM: [1, 'resistance'],
};
/** Numbers that are not decimal: #H, #Q and #B (IEEE 488.2, 7.7.4). */
const BASES: Readonly<Record<string, readonly [digits: RegExp, base: number]>> = {
  H: [/^[0-9A-F]{1,12}$/, 16],
  Q: [/^[0-7]{1,16}$/, 8],
  B: [/^[01]{1,48}$/, 2],
};

/** Splits at a separator outside quotes. @returns undefined when a quote stays open. */
function splitOutside(text: string, separator: string): string[] | undefined {
  const parts: string[] = [];
  let start = 0;
  let quote = '';
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i];
    if (quote) {
      if (c === quote) quote = '';
    } else if (c === '"' || c === "'") quote = c;
    else if (c === separator) {
      parts.push(text.slice(start, i));
      start = i + 1;
    }
  }
  if (quote) return undefined;
  parts.push(text.slice(start));
  return parts;
}

function readArgument(raw: string): Argument | { readonly fault: string } {
  const text = raw.trim();
  const quote = text[0];
  if (quote === '"' || quote === "'") {
    if (text.length < 2 || text[text.length - 1] !== quote) return { fault: SYNTAX };
    return { kind: 'text', value: text.slice(1, -1).replaceAll(quote + quote, quote) };
  }
  const channel = /^\(\s*@\s*(\d{1,4})\s*\)$/.exec(text);
  if (channel) return { kind: 'channel', value: Number(channel[1]) };
  const number = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE]\s*[+-]?\d+)?)\s*([A-Za-z]*)$/.exec(text);
  if (number) {
    const suffix = number[2] === '' ? undefined : SUFFIXES[number[2].toUpperCase()];
    if (number[2] !== '' && suffix === undefined) return { fault: SUFFIX };
    const value = Number(number[1].replace(/\s/g, '')) * (suffix?.[0] ?? 1);
    if (!Number.isFinite(value)) return { fault: '-123,"Exponent too large"' };
    return suffix ? { kind: 'number', value, unit: suffix[1] } : { kind: 'number', value };
  }
  const other = /^#([HQB])([0-9A-F]+)$/.exec(text.toUpperCase());
  if (other) {
    const [digits, base] = BASES[other[1]];
    return digits.test(other[2])
      ? { kind: 'number', value: Number.parseInt(other[2], base) }
      : { fault: '-121,"Invalid character in number"' };
  }
  return /^[A-Za-z][A-Za-z0-9_]*$/.test(text) ? { kind: 'word', value: text.toUpperCase() } : { fault: SYNTAX };
}

/**
 * Reads one program message of IEEE 488.2 (1992), 7.3: units between semicolons; a unit without a leading colon goes on in the
 * subsystem of the one before it (SCPI-1999 vol. 1, 6.2.4).
 */
export function parseMessage(line: string): readonly Parsed[] {
  const units = splitOutside(line, ';');
  if (!units) return [{ fault: '-151,"Invalid string data"' }];
  const parsed: Parsed[] = [];
  let path: readonly string[] = [];
  for (const [i, raw] of units.entries()) {
    const text = raw.trim();
    if (text === '') {
      // a semicolon that ends the message is allowed for; an empty unit between others is not
      if (units.length > 1 && (i < units.length - 1 || parsed.length === 0)) parsed.push({ fault: SYNTAX });
      continue;
    }
    const match = /^(\*[A-Za-z]+|:?[A-Za-z][A-Za-z0-9]*(?::[A-Za-z][A-Za-z0-9]*)*)(\?)?(?:\s+(\S.*))?$/s.exec(text);
    if (!match) {
      parsed.push({ fault: SYNTAX });
      return parsed;
    }
    const [, name, mark, rest] = match;
    const common = name.startsWith('*');
    const words = name.replace(/^:/, '').toUpperCase().split(':');
    const header = common ? [name.toUpperCase()] : name.startsWith(':') ? words : [...path, ...words];
    if (!common) path = header.slice(0, -1);
    const args: Argument[] = [];
    for (const one of rest === undefined ? [] : (splitOutside(rest, ',') ?? [])) {
      const read = readArgument(one);
      if ('fault' in read) {
        parsed.push(read);
        return parsed;
      }
      args.push(read);
    }
    parsed.push({ header, query: mark === '?', args });
  }
  return parsed;
}

/** A node of a command: its long form with the short form in capitals, and whether it may be left out. */
interface Node {
  readonly short: string;
  readonly long: string;
  readonly optional: boolean;
}

/** Reads a pattern as manuals print it: "[:SENSe]:FREQuency:STARt". */
export function readPattern(pattern: string): readonly Node[] {
  return [...pattern.matchAll(/(\[)?:?(\*?[A-Za-z0-9]+)(\])?/g)].map(([, open, word]) => ({
    short: word.replace(/[a-z]/g, ''),
    long: word.toUpperCase(),
    optional: open !== undefined,
  }));
}

/** Whether a header names a command, in short or long form, with optional nodes left out or not. */
export function matches(nodes: readonly Node[], header: readonly string[]): boolean {
  const [node, ...rest] = nodes;
  if (!node) return header.length === 0;
  if (header.length > 0 && (header[0] === node.short || header[0] === node.long) && matches(rest, header.slice(1)))
    return true;
  return node.optional && matches(rest, header);
}
