import { anytimeInterval, findRule, type Factor, plannedInterval } from '../packages/core/src/trial';
import { chanceOf } from '../packages/core/src/recording';
import { printLine } from './print';

const TRIALS = 10_000;
const WATCHED = 60;
const LEAST = 6;

/** Differences of a trial: mean, scatter 2 dB, correlation with the next. */
function trialOf(normal: () => number, n: number, mean: number, rho: number): number[] {
  let last = normal();
  return Array.from({ length: n }, (_, i) => {
    if (i > 0) last = rho * last + Math.sqrt(1 - rho * rho) * normal();
    return mean + 2 * last;
  });
}

/** Whether the watched interval ever excludes zero, looked at after every pair. */
function everProven(differences: readonly number[]): boolean {
  for (let n = LEAST; n <= differences.length; n += 1) {
    const interval = anytimeInterval(differences.slice(0, n));
    if (interval && (interval.low > 0 || interval.high < 0)) return true;
  }
  return false;
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** Kinds of rules that are hidden in made-up stations. */
const KINDS = ['floor', 'hour', 'frequency', 'device', 'weather'] as const;

/** A station whose two antennas change places by one condition, or by none. */
function madeStation(seed: number, hidden: (typeof KINDS)[number] | undefined) {
  const chance = chanceOf(seed);
  const n = 24 + Math.floor(chance.uniform() * 17);
  const values: Readonly<Record<string, readonly number[]>> = {
    floor: Array.from({ length: n }, () => Math.round(-118 + 26 * chance.uniform())),
    hour: Array.from({ length: n }, () => Math.floor(24 * chance.uniform())),
    frequency: Array.from(
      { length: n },
      () => [3.6e6, 6.1e6, 9.65e6, 13.7e6, 17.6e6][Math.floor(5 * chance.uniform())],
    ),
    device: Array.from({ length: n }, () => Number(chance.uniform() < 0.5)),
    weather: Array.from({ length: n }, () => Number(chance.uniform() < 0.4)),
  };
  const turn = { floor: -105, hour: 12, frequency: 8e6, device: 0.5, weather: 0.5 };
  const size = 2 + 2 * chance.uniform();
  const differences = Array.from({ length: n }, (_, i) => {
    const side = hidden === undefined ? 0 : values[hidden][i] >= turn[hidden] ? 1 : -1;
    return side * size + 2 * chance.normal();
  });
  const factors = Object.entries(values).map(([id, list]): Factor =>
    id === 'device' || id === 'weather'
      ? { id, kind: 'flag', values: list.map((one) => one === 1) }
      : { id, kind: 'number', values: list },
  );
  return { differences, factors };
}

/** Verdicts that stay honest while they are looked at: simulated trials of which the truth is known. */
export async function honestyBench(): Promise<void> {
  const { normal } = chanceOf(20261128);
  for (const rho of [0, 0.5]) {
    let proven = 0;
    for (let k = 0; k < TRIALS; k += 1) if (everProven(trialOf(normal, WATCHED, 0, rho))) proven += 1;
    const share = proven / TRIALS;
    printLine(
      `no difference, watched to ${WATCHED} pairs, correlation ${rho}: ever proven`,
      percent(share),
      'at most 5 %',
      share <= 0.05,
    );
  }
  let power = 0;
  for (let k = 0; k < TRIALS; k += 1) if (everProven(trialOf(normal, 20, 3, 0))) power += 1;
  printLine('3 dB, scatter 2 dB: proven by 20 pairs', percent(power / TRIALS), 'at least 80 %', power / TRIALS >= 0.8);
  for (const [n, rho] of [
    [8, 0],
    [20, 0],
    [60, 0],
    [60, 0.5],
    [60, 0.75],
  ] as const) {
    let covered = 0;
    for (let k = 0; k < TRIALS; k += 1) {
      const interval = plannedInterval(trialOf(normal, n, 1, rho));
      if (interval && interval.low <= 1 && interval.high >= 1) covered += 1;
    }
    const share = covered / TRIALS;
    printLine(
      `planned ${n} pairs, correlation ${rho}: interval covers`,
      percent(share),
      '93 to 97 %',
      share >= 0.93 && share <= 0.97,
    );
  }
  let [right, silent] = [0, 0];
  const STATIONS = 1000;
  for (let seed = 0; seed < STATIONS; seed += 1) {
    const kind = KINDS[seed % KINDS.length];
    const found = findRule(...argumentsOf(madeStation(seed, kind)));
    if (found.state === 'rule' && found.rule.factor === kind && found.rule.opposite) right += 1;
    if (findRule(...argumentsOf(madeStation(seed + STATIONS, undefined))).state !== 'rule') silent += 1;
  }
  printLine('the right one of five kinds of rules found', percent(right / STATIONS), '90 %', right / STATIONS >= 0.9);
  printLine('no rule where there is none', percent(silent / STATIONS), '95 %', silent / STATIONS >= 0.95);
}

const argumentsOf = ({ differences, factors }: ReturnType<typeof madeStation>) => [differences, factors] as const;
