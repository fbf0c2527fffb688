import type { Saved } from '@velvet-reed/contract';
import { lightAt, wantedPosition } from '@velvet-reed/core/site';
import { type ConditionRule, type Factor, findRule, type RuleFinding, snrDifference } from '@velvet-reed/core/trial';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import type { StationData } from '../record';

/** One pair with what is known of the hour in which it was read; the difference is the second antenna's SNR less the first's. */
interface Occasion {
  readonly trialId: number;
  readonly round: number;
  readonly differenceDb: number;
  readonly atMs: number | null;
}

/** All that was ever compared of two antennas, in all their trials, and what the difference hangs on. */
export interface Comparison {
  readonly antennaAId: number;
  readonly antennaBId: number;
  readonly names: { readonly a: string; readonly b: string };
  readonly trialNames: ReadonlyMap<number, string>;
  readonly occasions: readonly Occasion[];
  readonly factors: readonly NamedFactor[];
  readonly finding: RuleFinding;
}

/** A factor with its words. */
export interface NamedFactor {
  readonly factor: Factor;
  readonly name: string;
  /** How its near and far side read; a number's threshold is put in. */
  readonly near: (threshold: string) => string;
  readonly far: (threshold: string) => string;
  readonly valueText: (value: number) => string;
  /** What it will be at a moment; absent for what nobody knows beforehand. */
  readonly at?: (atMs: number) => number | boolean | null;
}

const HOUR_MS = 3_600_000;

/** Words of the conditions of a trial and of a pair, as typed between commas. */
const tagsOf = (...texts: readonly string[]): readonly string[] =>
  texts.flatMap((text) =>
    text
      .split(/[,;]/)
      .map((one) => one.trim().toLowerCase())
      .filter((one) => one !== '' && !one.startsWith('from the recording')),
  );

interface Row {
  readonly trial: Saved<'trials'>;
  readonly reading: Saved<'readings'>;
  readonly sign: 1 | -1;
  readonly differenceDb: number;
}

const flag = (
  id: string,
  name: string,
  near: string,
  far: string,
  values: readonly (boolean | null)[],
  at?: NamedFactor['at'],
): NamedFactor => ({
  ...(at ? { at } : {}),
  ...{ name, factor: { id, kind: 'flag', values } },
  ...{ near: () => near, far: () => far, valueText: (value) => (value === 0 ? near : far) },
});

const number = (
  id: string,
  name: string,
  values: readonly (number | null)[],
  valueText: (value: number) => string,
  near: (threshold: string) => string,
  far = 'above it',
  at?: NamedFactor['at'],
): NamedFactor => ({
  ...{ name, factor: { id, kind: 'number', values }, valueText, ...(at ? { at } : {}) },
  near,
  far: () => far,
});

function factorsOf(data: StationData, rows: readonly Row[]): readonly NamedFactor[] {
  const { station } = data;
  const darkAt = (atMs: number): boolean => lightAt(station, atMs) !== 'day';
  const bothAt = (freqHz: number, atMs: number): boolean | null => {
    const target = data.targets.find(({ lowHz, highHz }) => freqHz >= lowHz && freqHz <= highHz);
    const place = target && wantedPosition(target);
    return place ? darkAt(atMs) && lightAt(place, atMs) !== 'day' : null;
  };
  const timed = <T>(row: Row, at: (atMs: number) => T): T | null =>
    row.reading.atMs === null ? null : at(row.reading.atMs);
  const hourAt = (atMs: number): number => (atMs % (24 * HOUR_MS)) / HOUR_MS;
  const dark = rows.map((row) => timed(row, darkAt));
  const both = rows.map((row) => timed(row, (atMs) => bothAt(row.trial.freqHz, atMs)));
  const tags = [...new Set(rows.flatMap(({ trial, reading }) => tagsOf(trial.conditions, reading.conditions)))];
  // of conditions that part the pairs alike the first one is named: what is measured, then what the listener said, the clock last
  return [
    number(
      'floor',
      'noise',
      rows.map(({ reading, sign }) =>
        reading.scale === 'dBm' ? (sign === 1 ? reading.noiseADbm : reading.noiseBDbm) : null,
      ),
      (dbm) => `${fixed(dbm, 1)} dBm`,
      (threshold) => `below ${threshold} of noise`,
    ),
    ...tags.map((tag) =>
      flag(
        `tag ${tag}`,
        tag,
        `without “${tag}”`,
        `with “${tag}”`,
        rows.map(({ trial, reading }) => tagsOf(trial.conditions, reading.conditions).includes(tag)),
      ),
    ),
    flag('dark', 'darkness here', 'in daylight', 'in the dark', dark, darkAt),
    flag(
      'dark at both ends',
      'darkness at both ends',
      'unless both ends are dark',
      'with both ends in the dark',
      both,
      (atMs) => bothAt(rows[0].trial.freqHz, atMs),
    ),
    number(
      'frequency',
      'frequency',
      rows.map(({ trial }) => trial.freqHz),
      (hz) => frequencyText(hz, 4),
      (threshold) => `below ${threshold}`,
    ),
    number(
      'hour',
      'hour (UTC)',
      rows.map((row) => timed(row, hourAt)),
      (hour) => `${Math.floor(hour)}:${String(Math.floor((hour % 1) * 60)).padStart(2, '0')} UTC`,
      (threshold) => `before ${threshold}`,
      'after it',
      hourAt,
    ),
  ].filter(({ factor }) => new Set(factor.values.filter((one) => one !== null)).size > 1);
}

const found = new WeakMap<StationData, readonly Comparison[]>();

/** Every two antennas that were compared, whatever the trial and its order; looked at once for each state of the records. */
export function comparisonsOf(data: StationData): readonly Comparison[] {
  const known = found.get(data);
  if (known) return known;
  const name = (id: number): string => data.antennas.find((antenna) => antenna.id === id)?.name ?? 'deleted antenna';
  const couples = new Map<string, Row[]>();
  for (const trial of data.trials) {
    const [a, b] = [trial.antennaAId, trial.antennaBId].sort((x, y) => x - y);
    const rows = couples.get(`${a} ${b}`) ?? [];
    for (const reading of data.readings) {
      if (reading.trialId !== trial.id) continue;
      const difference = snrDifference(reading);
      if (difference === null) continue;
      const sign = trial.antennaAId === a ? 1 : -1;
      rows.push({ trial, reading, sign, differenceDb: sign * difference });
    }
    couples.set(`${a} ${b}`, rows);
  }
  const all = [...couples].flatMap(([key, rows]): Comparison[] => {
    if (rows.length === 0) return [];
    const [antennaAId, antennaBId] = key.split(' ').map(Number);
    const factors = factorsOf(data, rows);
    return [
      {
        ...{ antennaAId, antennaBId, factors },
        names: { a: name(antennaAId), b: name(antennaBId) },
        trialNames: new Map(rows.map(({ trial }) => [trial.id, trial.name])),
        occasions: rows.map(({ trial, reading, differenceDb }) => ({
          ...{ trialId: trial.id, round: reading.round, differenceDb, atMs: reading.atMs },
        })),
        finding: findRule(
          rows.map(({ differenceDb }) => differenceDb),
          factors.map(({ factor }) => factor),
        ),
      },
    ];
  });
  found.set(data, all);
  return all;
}

/** The comparison that a trial belongs to. */
export const comparisonOf = (data: StationData, trial: Saved<'trials'>): Comparison | undefined =>
  comparisonsOf(data).find(
    ({ antennaAId, antennaBId }) =>
      [antennaAId, antennaBId].includes(trial.antennaAId) && [antennaAId, antennaBId].includes(trial.antennaBId),
  );

/** The antenna that a rule names for a moment; undefined where there is no rule, or what it hangs on is not known beforehand. */
export function antennaAt(comparison: Comparison, atMs: number): number | undefined {
  const { finding, factors, antennaAId, antennaBId } = comparison;
  if (finding.state !== 'rule' || !finding.rule.opposite) return undefined;
  const { rule } = finding;
  const value = factors.find(({ factor }) => factor.id === rule.factor)?.at?.(atMs) ?? null;
  if (value === null) return undefined;
  const far = typeof value === 'boolean' ? value : value >= (rule.threshold?.at ?? Infinity);
  return (far ? rule.far : rule.near).meanDb >= 0 ? antennaBId : antennaAId;
}

/** Step in which a day is looked through. */
const LOOK_MS = 10 * 60_000;

/** Stretches of time in which a rule names one antenna. */
export function antennaTurns(
  comparison: Comparison,
  fromMs: number,
  toMs: number,
): readonly { readonly fromMs: number; readonly toMs: number; readonly antennaId: number }[] {
  const turns: { fromMs: number; toMs: number; antennaId: number }[] = [];
  for (let atMs = fromMs; atMs < toMs; atMs += LOOK_MS) {
    const antennaId = antennaAt(comparison, atMs);
    const last = turns.at(-1);
    if (antennaId === undefined) continue;
    if (last?.antennaId === antennaId && last.toMs === atMs) last.toMs = Math.min(toMs, atMs + LOOK_MS);
    else turns.push({ fromMs: atMs, toMs: Math.min(toMs, atMs + LOOK_MS), antennaId });
  }
  return turns;
}

/** A rule in words: what holds on either side of it. */
function ruleSentence({ names, factors }: Comparison, rule: ConditionRule): string {
  const named = factors.find(({ factor }) => factor.id === rule.factor);
  const threshold = rule.threshold && named ? named.valueText(rule.threshold.at) : '';
  const ahead = ({ meanDb }: ConditionRule['near']): string => (meanDb >= 0 ? names.b : names.a);
  const size = ({ meanDb }: ConditionRule['near']): string => `by ${fixed(Math.abs(meanDb), 1)} dB`;
  const [near, far] = [named?.near(threshold) ?? 'on one side', named?.far(threshold) ?? 'on the other'];
  return `${ahead(rule.near)} is better ${size(rule.near)} ${near}, ${rule.opposite ? `${ahead(rule.far)} ` : ''}${size(rule.far)} ${far}.`;
}

/** What the conditions say of two antennas, and what comes next. */
export function conditionVerdict(comparison: Comparison): { readonly sentence: string; readonly next: string } {
  const { finding, factors, occasions } = comparison;
  if (finding.state === 'rule')
    return {
      sentence: ruleSentence(comparison, finding.rule),
      next: finding.rule.opposite
        ? 'Next: switch by this rule.'
        : 'Next: log the weaker side, to know how far it goes.',
    };
  if (finding.state === 'too few') {
    const named = factors.find(({ factor }) => factor.id === finding.factor);
    const side = finding.side === 'near' ? named?.near('') : named?.far('');
    return {
      sentence: `No rule yet: ${occasions.length} pairs, too few of them ${side ?? 'on one side'}.`,
      next: `Next: ${finding.missing} more pair${finding.missing === 1 ? '' : 's'} ${side ?? ''}.`,
    };
  }
  return {
    sentence:
      factors.length === 0
        ? 'No rule yet: all pairs were read under the same conditions.'
        : `No rule: over ${occasions.length} pairs nothing looked at decides between the two.`,
    next: 'Next: log pairs at another hour, on another evening, in other weather.',
  };
}
