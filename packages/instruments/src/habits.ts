import type { Reply } from './scpi/instrument';
import type { StandIn } from './serve';

/**
 * Ways in which instruments keep to the standard and still surprise: levels in another unit until they are told, spans and bandwidths rounded without a
 * word, answers with units and pairs, a greeting that comes late, a direction that begins anew at north.
 */
export const HABITS = ['watts', 'rounds', 'units', 'greeting', 'wraps'] as const;
export type Habit = (typeof HABITS)[number];

/** Reads "watts,rounds". @returns undefined for a list that names another habit */
export function readHabits(text: string): readonly Habit[] | undefined {
  const names = text.split(',').filter((name) => name !== '');
  const known = names.flatMap((name) => HABITS.filter((habit) => habit === name));
  return known.length === names.length ? known : undefined;
}

/** What a stand-in that greets says to whoever connects, and how long it takes to say so, ms. */
export const GREETING = { text: 'Good day, this is the bench.\r\n', afterMs: 150 };

/** Steps of a span, Hz, and the numbers of points that a rounding instrument has. */
const SPAN_STEP: Readonly<Partial<Record<StandIn, number>>> = { analyser: 100e3, receiver: 100 };
const POINTS = [11, 51, 101, 201, 401, 801, 1601, 20_001];
/** Bandwidths go in steps of one and three. */
const BANDWIDTHS = Array.from({ length: 7 }, (_, decade) => [10 ** decade, 3 * 10 ** decade]).flat();
const atLeast = (steps: readonly number[], value: number): number =>
  steps.find((step) => step >= value) ?? steps[steps.length - 1];

/** A message as an instrument that rounds takes it: spans outward, points and bandwidths up. */
function rounded(name: StandIn, line: string): string {
  const step = SPAN_STEP[name];
  if (step === undefined) return line;
  const number = String.raw`([\d.]+(?:[eE][+-]?\d+)?)`;
  const each = (head: string, round: (value: number) => number) => (text: string) =>
    text.replace(
      new RegExp(`(${head}) ${number}`, 'i'),
      (_, command: string, value: string) => `${command} ${round(Number(value))}`,
    );
  return [
    each('FREQ:STAR', (hz) => step * Math.floor(hz / step)),
    each('FREQ:STOP', (hz) => step * Math.ceil(hz / step)),
    each('SWE:POIN', (count) => atLeast(POINTS, count)),
    each('BAND', (hz) => atLeast(BANDWIDTHS, hz)),
  ].reduce((text, change) => change(text), line);
}

const isText = (reply: Reply): reply is string => typeof reply === 'string';
/** A reply with its unit, or with what else the instrument knows. */
function withUnit(name: StandIn, line: string, reply: Reply, unit: string): Reply {
  if (!isText(reply)) return reply;
  const asks = (what: RegExp): boolean => what.test(line);
  if (name === 'power-meter' && asks(/:MEAS:POW\?$/) && !reply.startsWith('9.9')) return `${reply} ${unit}`;
  if (name === 'lcr-meter' && asks(/:MEAS:IND\?$/)) return `${(1000 * Number(reply)).toExponential(4)} MH,8.50E+01`;
  if (name === 'lcr-meter' && asks(/:MEAS:CAP\?$/)) return `${(1e12 * Number(reply)).toExponential(4)} PF,1.00E-03`;
  if (name === 'turntable' && asks(/:POS:AZIM\?$/)) return `${reply} DEG`;
  if (name === 'antenna-switch' && asks(/:ROUT:CLOS\? /)) return reply === '1' ? 'ON' : 'OFF';
  if (asks(/^:SENS:(FREQ:STAR|FREQ:STOP|BAND)\?$/)) return `${Number(reply) / 1e6} MHZ`;
  return reply;
}

/** A stand-in with habits. */
export function withHabits(
  name: StandIn,
  habits: readonly Habit[],
  answer: (line: string) => readonly Reply[],
): (line: string) => readonly Reply[] {
  const has = (habit: Habit): boolean => habits.includes(habit);
  if (has('watts') && name === 'power-meter') answer(':UNIT:POW W');
  if (has('watts') && name === 'receiver') answer(':UNIT:POW DBUV');
  return (line) => {
    const replies = answer(has('rounds') ? rounded(name, line) : line);
    const unit = has('units') && name === 'power-meter' ? String(answer(':UNIT:POW?')[0]) : '';
    return replies.map((reply) => {
      const turned =
        has('wraps') && name === 'turntable' && isText(reply) && line.endsWith(':POS:AZIM?')
          ? String(((Number(reply) % 360) + 360) % 360)
          : reply;
      return has('units') ? withUnit(name, line, turned, unit) : turned;
    });
  };
}
