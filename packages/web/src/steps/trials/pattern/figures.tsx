import type { Saved } from '@velvet-reed/contract';
import {
  farField,
  type LevelScale,
  measuredPattern,
  reflectionRipple,
  scaleDoubtful,
  scanPlan,
  threeAntennas,
} from '@velvet-reed/core/bearing';
import { fixed, lengthText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { useLogPage } from '../../../data/logs';
import { PolarPlot } from '../../../ui/polar-plot';
import { QuickAnswer } from '../../../ui/quick-answer';
import { Section } from '../../../ui/section';
import { Waiting } from '../../../ui/states';
import { tried } from '../../../ui/tried';

const SCALES: readonly (readonly [LevelScale, string])[] = [
  ['dB', 'decibels'],
  ['amplitude', 'amplitude (voltage)'],
  ['power', 'power'],
];
/** Rows of a pattern that are read: ten turns of a degree each are more than anybody measures. */
const MOST_ROWS = 1000;
const STORE = 'velvet-reed.pattern-scale';

function scaleOf(checksum: string): LevelScale | undefined {
  try {
    const kept = localStorage.getItem(`${STORE}.${checksum}`);
    return SCALES.find(([id]) => id === kept)?.[0];
  } catch {
    return undefined;
  }
}

/** What a measured pattern comes to. What its levels are is asked where they look like shares of the largest. */
export function PatternFiguresOf({ log }: { readonly log: Saved<'logs'> }) {
  const { data: page, error } = useLogPage(log, 0, MOST_ROWS);
  const [said, setSaid] = useState<LevelScale | undefined>(() => scaleOf(log.checksum));
  if (error)
    return (
      <p role="alert" className="text-danger">
        {error.message}
      </p>
    );
  if (!page) return <Waiting what="the pattern" />;
  const rows = page.rows.flatMap(([angle, level]) =>
    typeof angle === 'number' && typeof level === 'number' ? [{ angleDeg: angle, level }] : [],
  );
  const doubtful = scaleDoubtful(rows.map(({ level }) => level));
  const scale = said ?? (doubtful ? undefined : 'dB');
  const { value: found, fault } = tried(() => (scale ? measuredPattern(rows, scale) : undefined));
  const choose = (next: LevelScale): void => {
    setSaid(next);
    try {
      localStorage.setItem(`${STORE}.${log.checksum}`, next);
    } catch {
      // a browser that keeps nothing asks again
    }
  };
  const {
    widthDeg = null,
    peakDeg = 0,
    frontToBackDb = 0,
    frontToRearDb = 0,
    sideLobeDb = null,
  } = found?.figures ?? {};
  const side = found && Math.round(90 / found.stepDeg);
  const at = (i: number): number => {
    const all = found?.levelsDb ?? [];
    const peak = Math.round(peakDeg / (found?.stepDeg ?? 1));
    return all[(((peak + i) % all.length) + all.length) % all.length];
  };
  return (
    <Section title="What it comes to" hint={`${log.name}, against its peak`}>
      <fieldset className="mb-3 flex flex-wrap items-center gap-x-4">
        <legend className="float-left mr-3 text-dim">Its levels are</legend>
        {SCALES.map(([id, label]) => (
          <label key={id} className="flex items-center gap-1.5">
            <input type="radio" name={`scale ${log.id}`} checked={scale === id} onChange={() => choose(id)} />
            {label}
          </label>
        ))}
      </fieldset>
      {!scale && (
        <p role="status" className="max-w-prose text-caution">
          These levels lie between 0 and 10: are they amplitude, power, or decibels? The width hangs on it.
        </p>
      )}
      {fault && (
        <p role="alert" className="max-w-prose text-danger">
          {fault}
        </p>
      )}
      {found && side !== undefined && (
        <div className="grid items-start gap-x-8 gap-y-3 md:grid-cols-[20rem_minmax(0,1fr)]">
          <PolarPlot
            label={`Pattern of ${log.name}; its figures stand beside`}
            shape="compass"
            unit="dB"
            curves={[
              {
                ...{ name: log.name, look: 0 },
                angleDeg: found.levelsDb.map((_, i) => i * found.stepDeg),
                gainDbi: found.levelsDb,
              },
            ]}
          />
          <ul className="list-disc pl-5">
            <li>Strongest at {fixed(peakDeg, 0)}° (measured).</li>
            <li>
              {widthDeg === null
                ? 'It never falls by 3 dB.'
                : `3 dB width ${fixed(widthDeg, 1)}°${found.widthHalfDeg === undefined ? '' : ` ± ${found.widthHalfDeg.toFixed(1)}° (95 %, ${found.turns} turns)`}.`}
            </li>
            <li>
              Front to back {fixed(frontToBackDb, 1)} dB, to the worst behind {fixed(frontToRearDb, 1)} dB, to the sides{' '}
              {fixed(-Math.max(at(side), at(-side)), 1)} dB.
            </li>
            <li>{sideLobeDb === null ? 'No side lobe.' : `Highest side lobe ${fixed(sideLobeDb, 1)} dB.`}</li>
            <li>
              Directivity about {fixed(found.rotationalDbi, 1)} dBi: an estimate, as if it looked the same from all
              sides.
            </li>
            {found.driftDb !== undefined && (
              <li className={Math.abs(found.driftDb) > 1 ? 'text-caution' : ''}>
                It drifted by {fixed(found.driftDb, 1)} dB between beginning and return; that is taken out.
              </li>
            )}
          </ul>
        </div>
      )}
    </Section>
  );
}

/** Questions before and after a turn on the table. */
export function PatternQuestions() {
  return (
    <>
      <QuickAnswer
        title="Plan of a turn"
        hint="and back to zero at its end: what differs then has drifted"
        specs={[
          { name: 'step', label: 'Step', dimension: 'angle', start: '5°' },
          { name: 'dwell', label: 'Time at each direction', dimension: 'time', bareUnit: 's', start: '8 s' },
          { name: 'turns', label: 'Turns', dimension: 'plain', start: '1' },
        ]}
        answer={(value) => {
          const { points, minutes } = scanPlan(value('step'), value('dwell'), Math.max(1, Math.round(value('turns'))));
          return `${points} points, ${minutes.toFixed(1)} min; then once more at zero.`;
        }}
      />
      <QuickAnswer
        title="Far enough, and alone?"
        hint="where a pattern holds, and the ray that a ripple betrays"
        specs={[
          { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '2.4 GHz' },
          { name: 'size', label: 'Longest extent', dimension: 'length', bareUnit: 'm', start: '0.15 m' },
          { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '2 m' },
          { name: 'ripple', label: 'Ripple seen', dimension: 'gain', start: '2 dB' },
        ]}
        answer={(value) => {
          const far = farField(value('freq'), value('size'), value('distance'));
          const ray = reflectionRipple(-20, Math.abs(value('ripple')));
          return (
            <p className={far.enough ? '' : 'text-caution'}>
              2D²/λ is {lengthText(far.farFieldM, 2)}; {lengthText(far.recommendedM, 2)} are recommended
              {far.enough ? '' : ', go farther'}. A ripple of {fixed(Math.abs(value('ripple')), 1)} dB comes of a ray{' '}
              {fixed(ray.reflectedDb, 1)} dB down, and makes every level ±{fixed(Math.abs(value('ripple')) / 2, 1)} dB
              uncertain (model). Move the antenna by λ/4: what changes is the room.
            </p>
          );
        }}
      />
      <QuickAnswer
        title="Gain by three antennas"
        hint="none of them known: three transmissions over one distance"
        specs={[
          { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '868 MHz' },
          { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '6 m' },
          { name: 'ab', label: 'First to second', dimension: 'gain', start: '' },
          { name: 'ac', label: 'First to third', dimension: 'gain', start: '' },
          { name: 'bc', label: 'Second to third', dimension: 'gain', start: '' },
        ]}
        answer={(value) => {
          const s21Db = { ab: value('ab'), ac: value('ac'), bc: value('bc') };
          const found = threeAntennas(value('freq'), value('distance'), s21Db);
          return `${fixed(found.gainADbi, 1)}, ${fixed(found.gainBDbi, 1)} and ${fixed(found.gainCDbi, 1)} dBi; free space loses ${fixed(found.pathLossDb, 1)} dB (measured; levels are received over sent, as −38 dB).`;
        }}
      />
    </>
  );
}
