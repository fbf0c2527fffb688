import { Announced } from '../../../ui/announced';
import type { FloorReading } from '@velvet-reed/core/formats';
import { classMedians, floorPattern, type FloorStep, floorSteps } from '@velvet-reed/core/noise';
import { type Environment, ENVIRONMENTS } from '@velvet-reed/core/site';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { levelsOf } from '@velvet-reed/station/levels';
import { clockText, momentText } from '../../../ui/moment-text';
import { Button } from '../../../ui/button';
import { TraceChart, TraceMark } from '../../../ui/trace-chart';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;
/** Shorter logs are drawn over minutes. */
const SHORT_MS = 2 * HOUR_MS;

/** A log drawn: its steps, the medians of the noise classes behind it, day and night, weekdays. */
export function FloorChart({
  data,
  readings,
  freqHz,
}: {
  readonly data: StationData;
  readonly readings: readonly FloorReading[];
  readonly freqHz: number;
}) {
  const { trySave } = useWrite();
  const steps = floorSteps(readings, data.station);
  const pattern = floorPattern(readings, data.station);
  const begin = readings[0].atMs;
  const short = readings[readings.length - 1].atMs - begin < SHORT_MS;
  const unitMs = short ? MINUTE_MS : HOUR_MS;
  const points = readings.map(({ atMs, levelDbm }) => ({ x: (atMs - begin) / unitMs, y: levelDbm }));
  const end = Math.max(0.05, points[points.length - 1].x);
  const span = readings.reduce<readonly [number, number]>(
    ([least, most], { levelDbm }) => [Math.min(least, levelDbm), Math.max(most, levelDbm)],
    [Infinity, -Infinity],
  );
  const typed = useTypedNumbers([
    { name: 'width', label: 'Log taken in a bandwidth of', dimension: 'frequency', bareUnit: 'Hz', start: '2.5 kHz' },
  ]);
  const bandwidthHz = typed.value('width') ?? 0;
  const classes = bandwidthHz > 0 ? classMedians(freqHz, bandwidthHz, span) : [];
  const drawn = classes.filter(({ near }) => near);
  const shown = [...span, ...drawn.map(({ levelDbm }) => levelDbm)];
  const low = 10 * Math.floor(Math.min(...shown) / 10);
  const high = 10 * Math.ceil(Math.max(...shown) / 10 + 0.01);
  const ticks = Array.from({ length: Math.round((high - low) / 10) + 1 }, (_, i) => low + 10 * i);
  return (
    <div className="mt-3">
      <Announced>
        {steps.length === 0
          ? 'No lasting step in this log.'
          : steps.map((step) => <StepLine key={step.atMs} step={step} switched={switchedNear(data, step.atMs)} />)}
      </Announced>
      <TraceChart
        label={`Noise floor over ${short ? 'minutes' : 'hours'} since the first reading`}
        traces={[
          { id: 'floor', name: 'floor', points, look: 0 },
          ...drawn.map(({ environment, levelDbm }) => ({
            ...{ id: environment, name: environment, look: lookOf(environment) },
            points: [0, end].map((x) => ({ x, y: levelDbm })),
          })),
        ]}
        bands={[]}
        markers={steps.map((step, i) => ({ name: `step ${i + 1}`, x: (step.atMs - begin) / unitMs }))}
        visible={[0, end]}
        drawn={[0, end]}
        range={[low, high]}
        ticks={ticks}
        logarithmic={false}
        height={200}
      />
      <p className="text-xs text-dim">
        dBm over {short ? 'minutes' : 'hours'} since {momentText(begin)} UTC.
      </p>
      <TypedFields of={typed} />
      {bandwidthHz > 0 && (
        <>
          <p className="mt-1 text-sm">
            Expected on {frequencyText(freqHz)} in {frequencyText(bandwidthHz)} at a lossless antenna without a line, by
            class (ITU-R P.372 medians, ±10 dB; yours in bold):
          </p>
          <ul className="flex flex-wrap gap-x-6 text-sm" aria-label="Medians of the noise classes">
            {classes.map(({ environment, levelDbm, near }) => (
              <li key={environment} className={environment === data.station.environment ? 'font-bold' : ''}>
                {near && <TraceMark look={lookOf(environment)} />} {environment.replace('_', ' ')}{' '}
                <Value
                  shown={inDb(levelDbm, 1, 'dBm')}
                  provenance={{
                    origin: 'catalogue',
                    formula: 'kT₀B + F_a; man-made median, galactic and rough atmospheric noise added as powers',
                    source: 'Recommendation ITU-R P.372',
                  }}
                />
                {near ? '' : ' (outside the drawing)'}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-1 text-sm">
        Medians: {pattern.light.map((one) => `${one.name} ${fixed(one.medianDbm, 1)} dBm (${one.count})`).join(', ')};{' '}
        {pattern.weekdays.map((one) => `${one.name} ${fixed(one.medianDbm, 1)} dBm`).join(', ')}.
      </p>
      {steps.length > 0 && (
        <Button
          className="mt-1"
          onClick={() =>
            void trySave(
              steps.map((step) =>
                entry(
                  'noise',
                  `Floor on ${frequencyText(freqHz)}: step of ${inDb(step.stepDb, 1).digits} dB ${stepStory(step)}`,
                ),
              ),
              'Written into the notebook.',
            )
          }
        >
          Write the steps into the notebook
        </Button>
      )}
    </div>
  );
}

/** Look of a class behind the readings, which have the first. */
const lookOf = (environment: Environment): number => 1 + ENVIRONMENTS.indexOf(environment);

/** When a step came and what it suggests, behind its size. */
const stepStory = ({ atMs, sun, hint }: FloorStep): string =>
  `at ${clockText(atMs)} UTC${sun ? `, ${fixed(Math.abs(sun.minutesAfter), 0)} min ${sun.minutesAfter >= 0 ? 'after' : 'before'} computed ${sun.event}` : ''}: ${hint}.`;

/** A device that was switched this close to a step is named beside it, ms. */
const SWITCHED_MS = 3 * MINUTE_MS;
const switchedNear = (data: StationData, atMs: number): string | undefined =>
  levelsOf(data).devices.find((one) => Math.abs(one.atMs - atMs) <= SWITCHED_MS)?.device;

function StepLine({ step, switched }: { readonly step: FloorStep; readonly switched: string | undefined }) {
  return (
    <span className="block">
      Step of{' '}
      <Value
        strong
        shown={inDb(step.stepDb, 1)}
        provenance={{
          origin: 'measured',
          formula: 'mean level after − before, outliers left out; a step is 2 dB and four scatters at least',
          inputs: [
            ['before', `${fixed(step.beforeDbm, 1)} dBm`],
            ['after', `${fixed(step.afterDbm, 1)} dBm`],
          ],
          source: 'your log; sun by the almanac',
        }}
      />{' '}
      {stepStory(step)}
      {switched ? ` You switched ${switched} within three minutes of it.` : ''}
    </span>
  );
}
