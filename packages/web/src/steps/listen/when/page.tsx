import { clockText } from '../../../ui/moment-text';
import { daylightOf, lightAt, listeningWindows } from '@velvet-reed/core/site';
import { listText, midSentence } from '@velvet-reed/core/units';
import { useState } from 'react';
import { heardMarks } from '@velvet-reed/station/heard';
import { useMoment } from '../../../data/moment';
import { useNow } from '../../../data/now';
import type { StationData } from '@velvet-reed/station/record';
import { RulesNote } from '../../../ui/rules-note';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Button } from '../../../ui/button';
import { clashText, keptBetween } from './appointments';
import { Timetable } from './timetable';

export default function WhenRoom() {
  return <StationPage>{(data) => <When data={data} />}</StationPage>;
}

const SPANS = [
  [24, '24 hours'],
  [168, '7 days'],
] as const;

function When({ data }: { readonly data: StationData }) {
  const [hours, setHours] = useState<number>(24);
  const { atMs, day, choose } = useMoment();
  const shown = new Date(atMs).toISOString().slice(0, 10);
  return (
    <Room
      title="When, Listen"
      verdict={<Verdict data={data} hours={hours} />}
      picker={
        <>
          <div role="group" aria-label="How far ahead" className="flex gap-1">
            {SPANS.map(([span, label]) => (
              <Button
                key={span}
                look={span === hours ? 'main' : 'plain'}
                aria-pressed={span === hours}
                onClick={() => setHours(span)}
              >
                {label}
              </Button>
            ))}
          </div>
          <label className="text-sm text-dim">
            Day (UTC)
            <input
              type="date"
              className="ml-2 text-ink"
              value={day ?? shown}
              onChange={(event) => choose(event.target.value)}
            />
          </label>
          {day && (
            <Button look="quiet" onClick={() => choose('')}>
              Back to today
            </Button>
          )}
        </>
      }
      margin={
        <>
          <RulesNote data={data} />
          <SunNote data={data} />
          <Note title="A rule of thumb">
            <p>
              By distance, frequency, month and the sun on the way, at moderate solar activity; your hours and passes.
              Days differ by 30 %: it is no forecast of the ionosphere. Hours in which you heard a target on three days
              open by your own records: trials and recordings.
            </p>
          </Note>
          <Note title="Filled and open">
            <p>
              Filled: good. Open: fair. Grey behind: night at the station. Rounded: kept free by an appointment, with a
              mark for each transmission of a timed mode; dashed below it: a clash. Dots: hours in which you heard it.
            </p>
          </Note>
          <Note title="How these are known">
            <p>Sun times by solar position with refraction (0.833°), within 2 minutes; hills are not known.</p>
          </Note>
        </>
      }
    >
      <Timetable data={data} hours={hours} />
    </Room>
  );
}

/** The next good window, or when there is none the next fair one. */
function Verdict({ data, hours }: { readonly data: StationData; readonly hours: number }) {
  const { atMs, day } = useMoment();
  const nowMs = useNow();
  const targets = data.targets.map((target) => ({ ...target, id: String(target.id) }));
  const all = listeningWindows(targets, [], data.station, atMs, 24, heardMarks(data));
  const isWhole = ({ fromMs, toMs }: (typeof all)[number]): boolean => toMs - fromMs >= 86_400_000;
  const everyHour = all.filter((one) => isWhole(one) && one.quality === 'good');
  const windows = all.filter((one) => !isWhole(one));
  const good = windows
    .filter(({ quality, toMs }) => quality === 'good' && (day !== undefined || toMs > nowMs))
    .sort((a, b) => b.weight - a.weight || a.fromMs - b.fromMs);
  const [next] = good;
  if (data.targets.length === 0)
    return (
      <>
        Nothing is wanted yet, so there is no hour to wait for. <Next>Next: say in Wanted what you want to hear.</Next>
      </>
    );
  const [clash] = keptBetween(data, atMs, atMs + hours * 3_600_000).clashes;
  if (clash)
    return (
      <>
        Clash: {clashText(clash)}. <Next>Next: move one of them, or give it another receiver.</Next>
      </>
    );
  const always = everyHour.map(({ name }) => midSentence(name));
  if (!next && always.length > 0)
    return (
      <>
        At any hour: {listText(always)}. No other target opens{' '}
        {day === undefined ? 'in the next 24 hours' : `on ${day}`}.
      </>
    );
  if (!next)
    return (
      <>
        {day === undefined ? 'In the next 24 hours' : `On ${day}`} no target opens by distance, frequency, month and
        hour.
      </>
    );
  // another day has no now
  const running = day === undefined && next.fromMs <= nowMs;
  const { why } = next;
  return (
    <>
      {running
        ? `${next.name} is at its best now, until `
        : day === undefined
          ? `${next.name} is next at its best from `
          : `On ${day} ${next.name} is at its best from `}
      <span className="font-mono">{clockText(running ? next.toMs : next.fromMs)}</span>
      {day === undefined ? (
        ''
      ) : (
        <>
          {' '}
          to <span className="font-mono">{clockText(next.toMs)}</span>
        </>
      )}{' '}
      UTC{why.startsWith('open') ? '' : `: ${why.split(':')[0]}`}.
      {good[1] && good[1].id !== next.id && (
        <>
          {' '}
          <Next>
            Then: {good[1].name}, <span className="font-mono">{clockText(good[1].fromMs)}</span> to{' '}
            <span className="font-mono">{clockText(good[1].toMs)}</span>.
          </Next>
        </>
      )}
    </>
  );
}

/** A time of the UTC day that is looked at, to the nearest minute, not cut off; the day before or after says so. */
function dayClock(ms: number | undefined, day: string): string {
  if (ms === undefined) return 'not within that UTC day';
  const rounded = new Date(ms + 30_000).toISOString();
  const its = rounded.slice(0, 10);
  const other = its === day ? '' : its > day ? ', the next UTC day' : ', the UTC day before';
  return `${rounded.slice(11, 16)} UTC${other}`;
}

function SunNote({ data }: { readonly data: StationData }) {
  const { station } = data;
  const { atMs } = useMoment();
  const sun = daylightOf(station, atMs);
  const shown = new Date(atMs).toISOString().slice(0, 10);
  return (
    <Note title="Sun and day">
      <p>
        Sunrise <span className="font-mono">{dayClock(sun.riseMs, shown)}</span>, sunset{' '}
        <span className="font-mono">{dayClock(sun.setMs, shown)}</span>; civil twilight{' '}
        <span className="font-mono">{dayClock(sun.dawnMs, shown)}</span> to{' '}
        <span className="font-mono">{dayClock(sun.duskMs, shown)}</span>.
      </p>
      <p>
        At {clockText(atMs)} UTC it is {lightAt(station, atMs)} here; arrival angles are for that hour.
      </p>
    </Note>
  );
}
