import { choiceVerdict, type ForecastTarget, type RankView, usable } from '@velvet-reed/core/choose';
import { groundClass } from '@velvet-reed/core/solver';
import { fixed, frequencyText, lengthText } from '@velvet-reed/core/units';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { levelsOf } from '@velvet-reed/station/levels';
import { roomOf } from '@velvet-reed/station/derive';
import type { Ranking } from '../../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { sessionStore } from '../../../data/browser-store';
import { ofThisFile } from '../../../data/data-file';

/** What a ranking rested on and what it said, as texts that can be compared. */
interface Snapshot {
  readonly inputs: Readonly<Record<string, string>>;
  readonly numbers: Readonly<Record<string, number>>;
  readonly winner: string;
  /** Candidates that may be recommended. */
  readonly usable: readonly string[];
}
interface Kept {
  readonly before?: Snapshot;
  readonly now: Snapshot;
}

const EVENT = 'velvet-reed:ranking';
const subscribe = (onChange: () => void): (() => void) => {
  window.addEventListener(EVENT, onChange);
  return () => window.removeEventListener(EVENT, onChange);
};

function inputsOf(data: StationData): Record<string, string> {
  const { station } = data;
  const room = roomOf(data);
  return {
    ground: groundClass(station.groundId).name,
    cable: station.cableId,
    'cable length': lengthText(station.lineLengthM),
    'noise class': `${station.environment.replace('_', ' ')}, ${fixed(station.noiseOffsetDb, 0)} dB offset`,
    'longest run': lengthText(room.spanM),
    'support height': lengthText(room.heightM),
    ...Object.fromEntries(
      data.transmitters.map((one) => [
        one.name,
        `${frequencyText(one.freqHz)}, ${Number(one.powerW.toPrecision(4))} W ${one.powerKind}${one.distanceM === null ? '' : ` at ${lengthText(one.distanceM)}`}`,
      ]),
    ),
    ...Object.fromEntries(data.receivers.map((one) => [one.name, `noise figure ${fixed(one.noiseFigureDb, 1)} dB`])),
    ...Object.fromEntries(
      levelsOf(data).floors.map((one) => [
        `measured floor at ${frequencyText(one.freqHz)}`,
        `${fixed(one.levelDbm, 1)} dBm`,
      ]),
    ),
  };
}

const isKept = (value: unknown): value is Kept => typeof value === 'object' && value !== null && 'now' in value;

function read(key: string): Kept | undefined {
  try {
    const value: unknown = JSON.parse(sessionStore.getItem(key) ?? 'null');
    return isKept(value) ? value : undefined;
  } catch {
    return undefined;
  }
}

/** Names that one list has and the other has not. */
function fellSentence(what: string, from: readonly string[] = [], to: readonly string[] = []): readonly string[] {
  const gone = from.filter((name) => !to.includes(name));
  return gone.length === 0 ? [] : [`${what}: ${gone.join(', ')}.`];
}

/** Sentences: which input changed, how many numbers moved and which most, and whether the choice did. */
function describe({ before, now }: Kept): readonly string[] | undefined {
  if (!before) return undefined;
  const names = [...new Set([...Object.keys(before.inputs), ...Object.keys(now.inputs)])];
  const inputs = names
    .filter((name) => before.inputs[name] !== now.inputs[name])
    .map((name) => `${name}: ${before.inputs[name] ?? 'not there'} → ${now.inputs[name] ?? 'gone'}.`);
  if (inputs.length === 0) return undefined;
  const moves = Object.entries(now.numbers)
    .flatMap(([name, value]) => (name in before.numbers ? [{ name, from: before.numbers[name], to: value }] : []))
    .map((move) => ({ ...move, by: move.to - move.from }))
    .filter(({ by }) => Math.abs(by) >= 0.05);
  const most = [...moves].sort((a, b) => Math.abs(b.by) - Math.abs(a.by))[0];
  return [
    ...inputs,
    most
      ? `${moves.length} of ${Object.keys(now.numbers).length} margins moved; most: ${most.name}, ${fixed(most.from, 1)} → ${fixed(most.to, 1)} dB.`
      : 'No margin moved by as much as 0.05 dB.',
    ...fellSentence('No longer usable', before.usable, now.usable),
    ...fellSentence('Usable now', now.usable, before.usable),
    before.winner === now.winner
      ? `The choice stays: ${now.winner}.`
      : `The choice turned from ${before.winner} to ${now.winner}.`,
  ];
}

/** What changed in this ranking since it was last complete with other inputs; kept while the browser's tab lives. */
export function useChanges(
  data: StationData,
  ranking: Ranking,
  wanted: readonly ForecastTarget[],
  view: RankView,
): readonly string[] | undefined {
  const key = ofThisFile(`velvet-reed.ranking.${data.station.id}.${view}.${wanted.map((one) => one.id).join(',')}`);
  const { complete, ranked } = ranking;
  const now = useMemo((): Snapshot | undefined => {
    if (!complete) return undefined;
    return {
      inputs: inputsOf(data),
      numbers: Object.fromEntries(
        ranked.flatMap(({ spec, forecasts }) =>
          forecasts.flatMap(({ target, marginDb }) =>
            marginDb === undefined ? [] : [[`${spec.name} on ${target.name}`, Number(marginDb.toFixed(2))] as const],
          ),
        ),
      ),
      winner: choiceVerdict(ranked).best?.spec.name ?? 'nothing',
      usable: ranked.filter(usable).map(({ spec }) => spec.name),
    };
  }, [complete, data, ranked]);
  useEffect(() => {
    if (!now) return;
    const kept = read(key);
    const same = kept && JSON.stringify(kept.now.inputs) === JSON.stringify(now.inputs);
    const next: Kept = same ? { ...kept, now } : { ...(kept ? { before: kept.now } : {}), now };
    sessionStore.setItem(key, JSON.stringify(next));
    window.dispatchEvent(new Event(EVENT));
  }, [key, now]);
  const stored = useSyncExternalStore(subscribe, () => sessionStore.getItem(key));
  return useMemo(() => {
    const kept = stored === null ? undefined : read(key);
    return kept && describe(kept);
  }, [stored, key]);
}
