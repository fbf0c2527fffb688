import type { LogSummary, SweepData } from '@velvet-reed/core/formats';
import { dipOf, findResonances } from '@velvet-reed/core/sweep';
import {
  type Dated,
  dipCauses,
  lastSeasons,
  sameWeeks,
  seasonName,
  type SeasonShift,
  seasonShift,
  type SeasonCause,
  widthCauses,
} from '@velvet-reed/core/trial';
import { fixed, frequencyText, lengthText } from '@velvet-reed/core/units';
import { latestRevision } from './derive';
import type { StationData } from './record';
import { judgedTrial } from './verdicts';

/** One thing that was measured in two seasons. */
export interface SeasonRow {
  readonly what: string;
  readonly about: string;
  /** "spring 2026" and "spring 2025". */
  readonly now: string;
  readonly then: string;
  /** The same weeks of an earlier year, or just the season before. */
  readonly same: boolean;
  readonly shift: SeasonShift;
  readonly unit: 'Hz' | 'dB' | '1/h';
  /** What lies between and may be why, known from the records; empty: nothing is known. */
  readonly known: readonly string[];
  /** What it means and where to look; absent: no rule. */
  readonly cause?: SeasonCause;
}

interface Series {
  readonly what: string;
  readonly about: string;
  readonly unit: SeasonRow['unit'];
  readonly values: readonly Dated[];
  /** Half width within which one value is known. */
  readonly resolution: number;
  readonly antennaId: number | null;
  readonly look: (shift: number) => SeasonCause | undefined;
}

const dayText = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
const WEATHER = /\b(rain|wet|snow|ice|icy|frost|storm|wind|gale|dry)\w*/i;
const MOST_KNOWN = 3;

/** What the records know of the time between two measurements of an antenna. */
function knownBetween(data: StationData, antennaId: number | null, fromMs: number, toMs: number): readonly string[] {
  const between = (ms: number): boolean => ms > fromMs && ms <= toMs;
  const cuts = data.trimSteps
    .filter((step) => step.antennaId === antennaId)
    .map((step) => ({ ...step, at: step.atMs ?? Date.parse(step.createdAt) }))
    .sort((a, b) => a.at - b.at);
  const cut = cuts.flatMap((step, i) =>
    i > 0 && between(step.at) && step.lengthM !== cuts[i - 1].lengthM
      ? [
          `${step.lengthM < cuts[i - 1].lengthM ? 'cut' : 'lengthened'} to ${lengthText(step.lengthM, 4)} on ${dayText(step.at)}`,
        ]
      : [],
  );
  const revised = data.revisions
    .filter((one) => one.antennaId === antennaId && one.number > 1 && between(Date.parse(one.createdAt)))
    .map((one) => `revision ${one.number} on ${dayText(Date.parse(one.createdAt))}`);
  const told = data.entries
    .filter(
      (one) =>
        between(one.atMs) &&
        one.step === 'notebook' &&
        (one.antennaId === antennaId || one.antennaId === null) &&
        WEATHER.test(one.text),
    )
    .map((one) => `${dayText(one.atMs)}: ${one.text.split(/[.\n]/)[0].slice(0, 90)}`);
  const devices = data.accessories
    .filter(
      (one) => one.sinceMs !== null && between(one.sinceMs) && (one.antennaId === antennaId || one.antennaId === null),
    )
    .map((one) => `${one.name} since ${dayText(one.sinceMs ?? 0)}`);
  return [...cut, ...revised, ...devices, ...told].slice(0, MOST_KNOWN);
}

/** Dips and widths of an antenna, one of each sweep. */
function sweepSeries(data: StationData, samples: ReadonlyMap<number, SweepData>): readonly Series[] {
  return data.antennas.flatMap((antenna): Series[] => {
    const revision = latestRevision(data, antenna.id);
    const found = data.sweeps.flatMap((header) => {
      const sweep = header.antennaId === antenna.id ? samples.get(header.id) : undefined;
      if (!sweep) return [];
      const resonances = findResonances(sweep);
      const dip = revision ? dipOf(resonances, revision.freqHz) : resonances[0];
      const atMs = header.measuredMs ?? Date.parse(header.createdAt);
      const stepHz = (header.stopHz - header.startHz) / Math.max(1, header.points - 1);
      return dip ? [{ atMs, dip, stepHz }] : [];
    });
    if (found.length < 2) return [];
    const resolution = Math.max(...found.map(({ stepHz }) => stepHz));
    const dips: Series = {
      ...{ what: 'dip', about: antenna.name, unit: 'Hz', antennaId: antenna.id, resolution, look: dipCauses },
      values: found.map(({ atMs, dip }) => ({ atMs, value: dip.freqHz })),
    };
    const widths = found.flatMap(({ atMs, dip: { lowEdgeHz, highEdgeHz } }) =>
      lowEdgeHz !== undefined && highEdgeHz !== undefined ? [{ atMs, value: highEdgeHz - lowEdgeHz }] : [],
    );
    const width: Series = {
      ...{ what: 'width of the dip', about: antenna.name, unit: 'Hz', antennaId: antenna.id, values: widths },
      ...{ resolution: 2 * resolution, look: (shift: number) => widthCauses(shift > 0 ? 2 : 0.5) },
    };
    return [dips, width];
  });
}

const causeOf = (cause: SeasonCause | undefined) => (cause ? { cause } : {});
/** What a change can mean and where to look, in a line; empty: no rule. */
export const causeText = ({ cause }: SeasonRow): string =>
  cause ? `${cause.means}: look for ${cause.look.join(', ')}` : '';

/** Hours of a day that are compared with each other. */
const HOURS = 4;
const noLook = (): undefined => undefined;

/** Floors by band and hours of the day, from levels and from long logs. */
function floorSeries(data: StationData, summaries: ReadonlyMap<number, LogSummary>): readonly Series[] {
  const groups = new Map<string, Dated[]>();
  const add = (freqHz: number, atMs: number, value: number): void => {
    const from = Math.floor(new Date(atMs).getUTCHours() / HOURS) * HOURS;
    // floors of one megahertz are one band; a dB per hour and megahertz is not told apart by hand-held readings
    const name = `${frequencyText(Math.round(freqHz / 1e6) * 1e6 || freqHz, 2)}, ${from} to ${from + HOURS} h UTC`;
    groups.set(name, [...(groups.get(name) ?? []), { atMs, value }]);
  };
  for (const level of data.levels)
    if (level.kind === 'log' || (level.kind === 'floor' && level.atMs !== null))
      add(level.freqHz, level.atMs ?? 0, level.levelDbm);
  for (const log of data.logs) {
    const summary = log.kind === 'levels' ? summaries.get(log.id) : undefined;
    if (summary && log.freqHz !== null) for (const { at, median } of summary.buckets) add(log.freqHz, at, median);
  }
  const look = (shift: number): SeasonCause | undefined =>
    shift > 0 ? { means: 'louder', look: ['a new device (Own devices and Direction help)'] } : undefined;
  return [...groups].map(([about, values]) => ({
    ...{ what: 'floor', about, unit: 'dB', values, resolution: 1 },
    antennaId: null,
    look,
  }));
}

/** Trials of the same two antennas: the mean that each proved or not, with its own interval. */
function trialSeries(data: StationData): readonly Series[] {
  const groups = new Map<string, { values: Dated[]; resolution: number; antennaId: number }>();
  for (const trial of data.trials) {
    const { names, readings, verdict } = judgedTrial(data, trial);
    const { result, interval } = verdict.snr;
    if (!result || !interval) continue;
    const [first] = readings;
    const about = `${names.b} less ${names.a}, ${frequencyText(trial.freqHz)}`;
    const group = groups.get(about) ?? { values: [], resolution: 0, antennaId: trial.antennaBId };
    group.values.push({ atMs: first?.atMs ?? Date.parse(trial.createdAt), value: result.mean });
    group.resolution = Math.max(group.resolution, (interval.high - interval.low) / 2);
    groups.set(about, group);
  }
  return [...groups].map(([about, group]) => ({ ...group, about, what: 'trial', unit: 'dB', look: noLook }));
}

/** Decodes of an antenna: how many an hour, and their middle SNR, a night each. */
function decodeSeries(data: StationData, summaries: ReadonlyMap<number, LogSummary>): readonly Series[] {
  const nights = data.logs.flatMap((log) => {
    const summary = log.kind === 'decodes' ? summaries.get(log.id) : undefined;
    const hours = (log.last - log.first) / 3_600_000;
    return summary && hours > 0
      ? [{ antennaId: log.antennaId, atMs: log.first, perHour: summary.rows / hours, snr: summary.median }]
      : [];
  });
  return [...new Set(nights.map(({ antennaId }) => antennaId))].flatMap((antennaId): Series[] => {
    const about = data.antennas.find(({ id }) => id === antennaId)?.name ?? 'no antenna said';
    const own = nights.filter((night) => night.antennaId === antennaId);
    const series = (what: string, unit: Series['unit'], pick: (night: (typeof own)[number]) => number): Series => ({
      ...{ what, about, unit, antennaId, resolution: 0, look: noLook },
      values: own.map((night) => ({ atMs: night.atMs, value: pick(night) })),
    });
    return [
      series('decodes an hour', '1/h', ({ perHour }) => perHour),
      series('SNR of decodes', 'dB', ({ snr }) => snr),
    ];
  });
}

/**
 * What was measured in two seasons: the same weeks of an earlier year where there are any, else the season before; what moved first.
 * @param summaries of long logs, by their numbers
 */
export function seasonRows(
  data: StationData,
  samples: ReadonlyMap<number, SweepData>,
  summaries: ReadonlyMap<number, LogSummary>,
): readonly SeasonRow[] {
  const all = [
    ...sweepSeries(data, samples),
    ...floorSeries(data, summaries),
    ...trialSeries(data),
    ...decodeSeries(data, summaries),
  ];
  const rows = all.flatMap(({ what, about, unit, values, resolution, antennaId, look }): SeasonRow[] => {
    const same = sameWeeks(values);
    const periods = same ?? lastSeasons(values);
    if (!periods) return [];
    const shift = seasonShift(periods, resolution);
    const [thenMs, nowMs] = [periods.then, periods.now].map((list) => list.at(-1)?.atMs ?? 0);
    const name = (ms: number): string => seasonName(ms, data.station.latDeg);
    const known = shift.moved ? knownBetween(data, antennaId, thenMs, nowMs) : [];
    return [
      {
        ...{ what, about, unit, shift, known, same: same !== undefined, now: name(nowMs), then: name(thenMs) },
        ...causeOf(shift.moved ? look(shift.shift) : undefined),
      },
    ];
  });
  return rows.sort((a, b) => Number(b.shift.moved) - Number(a.shift.moved));
}

/** A shift as it is told: "−120 kHz", "+2.1 dB". */
export function shiftWords(value: number, unit: SeasonRow['unit']): string {
  const sign = value < 0 ? '−' : '+';
  const size = Math.abs(value);
  if (unit === 'Hz') return `${sign}${fixed(size / 1000, size < 10_000 ? 1 : 0)} kHz`;
  return `${sign}${fixed(size, 1)} ${unit === 'dB' ? 'dB' : 'an hour'}`;
}
