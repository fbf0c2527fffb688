import type { Saved } from '@velvet-reed/contract';
import { type Estimate, farField, reflectionRipple, scanPlan, threeAntennas } from '@velvet-reed/core/bearing';
import { patternFileText } from '@velvet-reed/core/formats';
import { fixed, lengthText, listText } from '@velvet-reed/core/units';
import { useRef } from 'react';
import { Button } from '../../../ui/button';
import { saveCsv, saveText } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';
import { type PolarCurve, PolarPlot } from '../../../ui/polar-plot';
import { QuickAnswer } from '../../../ui/quick-answer';
import { Section } from '../../../ui/section';
import { Waiting } from '../../../ui/states';
import { gapsText } from './gaps';
import { MovedByQuarter } from './moved';
import { Agreement, OverModelForm } from './over-model';
import { CUTS, type OverModel } from './use-over-model';
import { SCALES, type ShownPattern } from './use-pattern';

/** A figure with its 95 % interval. */
const ofRange = (estimate: Estimate | undefined, unit: string): string =>
  estimate
    ? `${fixed(estimate.value, 1)}${unit} (95 % ${fixed(estimate.low, 1)} to ${fixed(estimate.high, 1)})`
    : 'not measured there';

/** A curve that went once round meets its beginning. */
const closed = (curve: PolarCurve): PolarCurve => {
  const round = curve.angleDeg[0] + 360;
  const [last, before] = [curve.angleDeg.at(-1) ?? 0, curve.angleDeg.at(-2) ?? 0];
  return round - last > 1.5 * (last - before)
    ? curve
    : { ...curve, angleDeg: [...curve.angleDeg, round], gainDbi: [...curve.gainDbi, curve.gainDbi[0]] };
};

/** What a measured pattern comes to, over the model of its antenna. */
export function PatternFiguresOf({
  log,
  pattern,
  over,
  others,
}: {
  readonly log: Saved<'logs'>;
  readonly pattern: ShownPattern;
  readonly over: OverModel;
  /** Further patterns of the station. */
  readonly others: readonly Saved<'logs'>[];
}) {
  const picture = useRef<HTMLElement>(null);
  const { scale, choose, found, fault, error, read } = pattern;
  if (error)
    return (
      <p role="alert" className="text-danger">
        {error.message}
      </p>
    );
  if (!read) return <Waiting what="the pattern" />;
  const { overlay, chosen, freqHz } = over;
  const measured = (found?.levelsDb ?? []).flatMap((db, i) =>
    db === undefined ? [] : [{ deg: i * (found?.stepDeg ?? 0), db }],
  );
  const [angles, levels] = [measured.map(({ deg }) => deg), measured.map(({ db }) => db)];
  const file = log.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
  const saveJson = (): void => {
    if (!found) return;
    const model =
      overlay && chosen && freqHz !== undefined
        ? {
            ...{ antenna: chosen.antenna.name, freqHz, rotationDeg: overlay.rotationDeg },
            ...{ levelDb: overlay.modelDb, rmsDb: overlay.rmsDb },
          }
        : undefined;
    const vertical = over.cut !== 'azimuth';
    const shown = overlay?.points ?? { angleDeg: angles, levelDb: levels };
    saveText(
      `${file}.json`,
      patternFileText({
        ...{ name: log.name, cut: vertical ? 'elevation' : 'azimuth', turns: found.turns },
        ...{ angleDeg: shown.angleDeg, levelDb: shown.levelDb, driftDb: found.driftDb ?? null },
        ...(model ? { model } : {}),
      }),
      'application/json',
    );
  };
  const saveTable = (): void => {
    if (!found) return;
    saveCsv(
      `${file}.csv`,
      ['angle_deg', 'level_dB', 'model_dB', 'difference_dB'],
      (overlay?.points.angleDeg ?? angles).map((deg, i) => [
        ...[deg, overlay ? overlay.points.levelDb[i] : levels[i]],
        ...[overlay?.modelDb[i], overlay?.residualDb[i]],
      ]),
    );
  };
  return (
    <Section title="What it comes to" hint={`${log.name}, against its peak`}>
      <fieldset className="mb-2 flex flex-wrap items-center gap-x-4">
        <legend className="float-left mr-3 text-dim">Its levels are</legend>
        {SCALES.map(([id, label]) => (
          <label key={id} className="flex items-center gap-1.5">
            <input type="radio" name={`scale ${log.id}`} checked={scale === id} onChange={() => choose(id)} />
            {label}
          </label>
        ))}
      </fieldset>
      <fieldset className="mb-2 flex flex-wrap items-center gap-x-4">
        <legend className="float-left mr-3 text-dim">Its angles are</legend>
        {CUTS.map(([id, label]) => (
          <label key={id} className="flex items-center gap-1.5">
            <input
              type="radio"
              name={`cut ${log.id}`}
              checked={over.cutSaid && over.cut === id}
              onChange={() => over.setCut(id)}
            />
            {label}
          </label>
        ))}
        {!over.cutSaid && <span className="text-caution">not said: taken as azimuth</span>}
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
      {found && (
        <div className="grid items-start gap-x-8 gap-y-3 md:grid-cols-[20rem_minmax(0,1fr)]">
          <figure ref={picture} data-evidence>
            <PolarPlot
              label={`Pattern of ${log.name}${overlay ? ' over its model' : ''}; its figures stand beside`}
              shape="compass"
              unit="dB"
              curves={[
                closed({ name: 'measured', look: 0, angleDeg: angles, gainDbi: levels }),
                ...(overlay
                  ? [closed({ name: 'model', look: 1, angleDeg: overlay.points.angleDeg, gainDbi: overlay.modelDb })]
                  : []),
              ]}
            />
            <figcaption className="flex flex-wrap items-center text-sm">
              Measured{overlay ? ' (full line), model (dashed)' : ''}
              <ExportButtons of={picture} name={file} onCsv={saveTable} />
              <Button look="quiet" aria-label="JSON of the pattern" onClick={saveJson}>
                JSON
              </Button>
            </figcaption>
          </figure>
          <ul className="list-disc pl-5">
            <Agreement over={over} />
            <li>
              Strongest at {fixed(found.peakDeg.value, 0)}° (measured); one reading scatters by{' '}
              {found.sigmaDb.toFixed(1)} dB.
            </li>
            <li>
              {found.widthDeg
                ? `3 dB width ${ofRange(found.widthDeg, '°')}.`
                : 'No 3 dB width: the main lobe does not fall so far, or its readings scatter too much.'}
            </li>
            <li>
              Front to back {ofRange(found.frontToBackDb, ' dB')}, to the worst behind{' '}
              {ofRange(found.frontToRearDb, ' dB')}, to the sides {ofRange(found.frontToSideDb, ' dB')}.
            </li>
            <li>
              {found.sideLobeDb === undefined
                ? 'Side lobes: not all directions were measured.'
                : found.sideLobeDb === null
                  ? 'No side lobe stands out of the scatter.'
                  : `Highest side lobe ${ofRange(found.sideLobeDb, ' dB')}.`}
            </li>
            <li>
              {found.rotationalDbi === undefined
                ? 'Directivity: not all directions were measured.'
                : `Directivity about ${fixed(found.rotationalDbi, 1)} dBi: an estimate, as if it looked the same from all sides.`}
            </li>
            {found.gapsDeg.length > 0 && <li className="text-caution">Nothing was measured {gapsText(found)}.</li>}
            {found.deadDeg.length > 0 && (
              <li className="text-caution">
                Left out as dead: the {found.deadDeg.length === 1 ? 'reading' : 'readings'} at{' '}
                {listText(found.deadDeg.slice(0, 6).map((deg) => `${fixed(deg, 0)}°`))}
                {found.deadDeg.length > 6 ? ` and ${found.deadDeg.length - 6} more` : ''}.
              </li>
            )}
            {found.driftDb !== undefined && (
              <li className={Math.abs(found.driftDb) > 1 ? 'text-caution' : ''}>
                It drifted by {fixed(found.driftDb, 1)} dB between beginning and return; that is taken out.
              </li>
            )}
          </ul>
        </div>
      )}
      {found && (
        <OverModelForm over={over}>
          <MovedByQuarter found={found} others={others} over={over} />
        </OverModelForm>
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
          { name: 'scatter', label: 'Scatter of each', dimension: 'gain', start: '0.5 dB' },
          { name: 'off', label: 'Distance known within', dimension: 'length', bareUnit: 'm', start: '0.1 m' },
        ]}
        answer={(value) => {
          // received over sent is below nothing: a loss that was typed as a positive number is meant so
          const s21Db = { ab: -Math.abs(value('ab')), ac: -Math.abs(value('ac')), bc: -Math.abs(value('bc')) };
          const found = threeAntennas(value('freq'), value('distance'), s21Db, {
            ...{ scatterDb: Math.abs(value('scatter')), distanceErrorM: Math.abs(value('off')) },
          });
          return `${fixed(found.gainADbi, 1)}, ${fixed(found.gainBDbi, 1)} and ${fixed(found.gainCDbi, 1)} dBi, each ± ${(2 * found.sigmaDb).toFixed(1)} dB (95 %); free space loses ${fixed(found.pathLossDb, 1)} dB (measured; levels are received over sent, as −38 dB).`;
        }}
      />
    </>
  );
}
