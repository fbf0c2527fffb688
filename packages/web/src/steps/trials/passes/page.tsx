import { SCHEMAS, stationSchema, type Saved } from '@velvet-reed/contract';
import { plotHorizon } from '@velvet-reed/core/plot';
import {
  circularOrbit,
  ELEMENTS_OLD_DAYS,
  elementsEpochMs,
  horizonText,
  LOW_PASS_DEG,
  ratingsByHeight,
  wholePictures,
} from '@velvet-reed/core/site';
import { fixed, frequencyText, lengthText } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useMoment } from '../../../data/moment';
import { plotFeaturesOf } from '@velvet-reed/station/plotted';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useStationId, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Curves } from '../../../ui/curves';
import { momentText } from '../../../ui/moment-text';
import { QuickAnswer } from '../../../ui/quick-answer';
import { RecordForm } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { SkyPlot } from './sky-plot';
import { type SeenPass, usePasses } from './use-passes';

const DAY_MS = 86_400_000;
const clock = (ms: number): string => new Date(ms).toISOString().slice(11, 19);
const minutes = (s: number): string => `${(s / 60).toFixed(1)} min`;

export default function PassesRoom() {
  return <StationPage>{(data) => <Passes data={data} />}</StationPage>;
}

function Passes({ data }: { readonly data: StationData }) {
  const { atMs } = useMoment();
  const stationId = useStationId();
  const { horizon, faults, passes } = usePasses(data, atMs);
  const [chosen, setChosen] = useState<number>();
  const best = passes.reduce<SeenPass | undefined>(
    (top, one) => (one.clearS > (top?.clearS ?? 0) ? one : top),
    undefined,
  );
  const shown = passes.find(({ pass }) => pass.riseMs === chosen) ?? best ?? passes[0];
  const oldDays = shown ? Math.abs(atMs - elementsEpochMs(shown.satellite)) / DAY_MS : 0;
  return (
    <Room
      title="Passes, Trials"
      verdict={
        shown && best ? (
          <>
            {passes.length} passes in the next 24 hours; the longest in view is {best.satellite.name} at{' '}
            {clock(best.pass.riseMs).slice(0, 5)} UTC, {minutes(best.clearS)}, {(best.clearDeg ?? 0).toFixed(0)}° high.{' '}
            <Next>Next: be at the receiver then, and rate what you heard.</Next>
          </>
        ) : (
          <>
            {data.satellites.length === 0 ? 'No satellite is known here.' : 'No pass in the next 24 hours.'}{' '}
            <Next>
              {data.satellites.length === 0
                ? 'Next: paste orbital elements in When.'
                : 'Next: paste fresh elements in When, or choose another day there.'}
            </Next>
          </>
        )
      }
      picker={
        passes.length > 0 && (
          <label className="max-w-full min-w-0 text-sm text-dim">
            Pass
            <select
              className="ml-2 max-w-full text-ink max-sm:ml-0"
              value={shown?.pass.riseMs}
              onChange={(event) => setChosen(Number(event.target.value))}
            >
              {passes.map(({ satellite, pass, clearS, clearDeg }) => (
                <option key={`${satellite.id} ${pass.riseMs}`} value={pass.riseMs}>
                  {clock(pass.riseMs).slice(0, 5)} UTC, {satellite.name},{' '}
                  {clearDeg === undefined ? 'hidden' : `${clearDeg.toFixed(0)}°, ${minutes(clearS)} in view`}
                </option>
              ))}
            </select>
          </label>
        )
      }
      margin={
        <>
          {oldDays > ELEMENTS_OLD_DAYS && (
            <Note title="Old elements">
              <p className="text-caution">
                The elements are {oldDays.toFixed(0)} days from this day: passes can be minutes off. Paste fresh ones.
              </p>
            </Note>
          )}
          {faults.map((fault) => (
            <Note key={fault} title="Not followed">
              <p className="text-caution">{fault}</p>
            </Note>
          ))}
          <Note title="What is computed">
            <p>
              Positions by SGP4 from the elements; refraction is not counted. Doppler is received less sent frequency.
            </p>
          </Note>
        </>
      }
    >
      {shown ? (
        <div className="grid items-start gap-x-8 gap-y-4 lg:grid-cols-[22rem_minmax(0,1fr)]">
          <SkyPlot track={shown.track} horizon={horizon} name={shown.satellite.name} />
          <DopplerTable seen={shown} />
        </div>
      ) : (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>
            Elements are pasted in <Link to={`/s/${stationId}/listen/when`}>When</Link>.
          </Empty>
        </div>
      )}
      {shown && <Pictures seen={shown} />}
      <Rated data={data} seen={shown} />
      <Horizon data={data} />
      <AtBest freqHz={shown?.satellite.freqHz ?? 137.5e6} />
    </Room>
  );
}

/** Rows of the table of a pass. */
const ROWS = 9;

/** Where to point and where to tune, minute by minute. */
function DopplerTable({ seen: { satellite, track, pass } }: { readonly seen: SeenPass }) {
  const rows = Array.from(
    { length: Math.min(ROWS, track.length) },
    (_, i) => track[Math.round((i * (track.length - 1)) / (Math.min(ROWS, track.length) - 1))],
  );
  return (
    <Wide label="The pass in figures">
      <table className="w-full max-w-2xl">
        <caption className="text-left text-sm text-dim">
          {satellite.name}, {minutes((pass.setMs - pass.riseMs) / 1000)} above {satellite.leastDeg}°, sent on{' '}
          {frequencyText(satellite.freqHz, 6)} (model)
        </caption>
        <thead>
          <tr>
            <th scope="col">UTC</th>
            <th scope="col">Azimuth</th>
            <th scope="col">Elevation</th>
            <th scope="col">Doppler</th>
            <th scope="col">Distance</th>
          </tr>
        </thead>
        <tbody className="font-mono">
          {rows.map((one) => (
            <tr key={one.atMs}>
              <td>{clock(one.atMs)}</td>
              <td>{one.azimuthDeg.toFixed(0)}°</td>
              <td>
                {one.elevationDeg.toFixed(0)}°{!one.clear && <span className="font-sans text-dim"> hidden</span>}
              </td>
              <td>{fixed((one.dopplerRatio * satellite.freqHz) / 1000, 2)} kHz</td>
              <td>{one.rangeKm.toFixed(0)} km</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

/** Whole pictures that the pass holds. */
const Pictures = ({ seen }: { readonly seen: SeenPass }) => (
  <QuickAnswer
    title="Whole pictures"
    hint="sent one after the other, begun at any moment"
    specs={[
      { name: 'window', label: 'Heard for', dimension: 'time', bareUnit: 's', start: `${seen.clearS.toFixed(0)} s` },
      { name: 'picture', label: 'One picture', dimension: 'time', bareUnit: 's', start: '126 s' },
      { name: 'pause', label: 'Pause between two', dimension: 'time', bareUnit: 's', start: '210 s' },
    ]}
    answer={(value) => {
      const { least, chanceOfMore } = wholePictures(value('window'), value('picture'), value('pause'));
      return least === 0 && chanceOfMore === 0
        ? 'Too short for a whole picture.'
        : `At least ${least} whole picture${least === 1 ? '' : 's'}, and a ${(100 * chanceOfMore).toFixed(0)} % chance of ${least + 1} (model).`;
    }}
  />
);

/** What was heard against how high it stood. */
function Rated({ data, seen }: { readonly data: StationData; readonly seen: SeenPass | undefined }) {
  const { save } = useWrite();
  const traces = useMemo(
    () => [
      {
        ...{ id: 'rated', name: 'passes', look: 0 },
        points: [...data.passes]
          .sort((a, b) => a.highestDeg - b.highestDeg)
          .map((one) => ({ x: one.highestDeg, y: one.rating })),
      },
    ],
    [data.passes],
  );
  const halves = ratedText(data.passes);
  return (
    <Section title="Heard so far" hint="0: nothing, 5: without a fault; against the highest elevation">
      {data.passes.length > 1 && (
        <Curves
          name="passes-rated"
          label="Rating over highest elevation; the numbers stand below"
          x={{ head: 'highest (degrees)', decimals: 0 }}
          y={{ head: 'rating', decimals: 0 }}
          traces={traces}
          bands={[]}
          markers={[]}
          visible={[0, 90]}
          drawn={[0, 90]}
          range={[0, 5]}
          ticks={[0, 1, 2, 3, 4, 5]}
          logarithmic={false}
          height={150}
          caption="degrees; rating (measured)"
        />
      )}
      {halves && <p className="mb-2">{halves}</p>}
      {seen && (
        <RecordForm
          resetAfter
          fields={[
            {
              ...{
                name: 'rating',
                label: `How was ${clock(seen.pass.riseMs).slice(0, 5)} UTC`,
                kind: 'choice',
                numeric: true,
              },
              options: ['0, nothing', '1, traces', '2, broken', '3, usable', '4, good', '5, without a fault'].map(
                (label, i) => ({ value: String(i), label }),
              ),
            },
            { name: 'note', label: 'Note', kind: 'text' },
          ]}
          schema={SCHEMAS.passes}
          fixed={{
            ...{ satelliteId: seen.satellite.id, riseMs: Math.round(seen.pass.riseMs) },
            ...{ highestDeg: Number(seen.pass.highestDeg.toFixed(1)), antennaId: data.antennas.at(-1)?.id ?? null },
          }}
          start={{ rating: '3', note: '' }}
          submit="Rate this pass"
          onSave={(values) => save([{ op: 'create', resource: 'passes', values }], 'Pass rated.')}
        />
      )}
      <ul className="mt-2 list-disc pl-5 text-sm">
        {data.passes.slice(-12).map((one) => (
          <li key={one.id}>
            {momentText(one.riseMs)} UTC, {one.highestDeg.toFixed(0)}° high: {one.rating} of 5{' '}
            {one.note && `, ${one.note}`}{' '}
            <DeleteButton resource="passes" record={one} name={`the pass of ${momentText(one.riseMs)}`} />
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** How low and high passes were rated, where both were heard. */
function ratedText(passes: readonly Saved<'passes'>[]): string | undefined {
  const rated = ratingsByHeight(passes);
  return (
    rated &&
    `Below ${LOW_PASS_DEG}° ${rated.low.count} passes, rated ${rated.low.mean.toFixed(1)}; above, ${rated.high.count} passes, rated ${rated.high.mean.toFixed(1)} (measured).`
  );
}

/** The horizon as the listener sees it from the antenna. */
function Horizon({ data }: { readonly data: StationData }) {
  const { saveStation } = useWrite();
  const { station } = data;
  return (
    <Section title="Horizon" hint="azimuth and elevation in degrees, by commas; empty: flat">
      <RecordForm
        fields={[{ name: 'horizon', label: 'Horizon', kind: 'text', hint: 'as 0 5, 90 12, 180 8' }]}
        schema={stationSchema}
        fixed={stationSchema.cast({ ...station }, { stripUnknown: true })}
        start={{ horizon: station.horizon }}
        submit="Keep the horizon"
        version={station.version}
        onSave={({ horizon }, version) => saveStation(version, { horizon })}
      />
      <FromPlot data={data} />
    </Section>
  );
}

/** The horizon that the houses of the plan make. */
function FromPlot({ data }: { readonly data: StationData }) {
  const { saveStation } = useWrite();
  const { station } = data;
  const laid = data.plotFeatures.filter(({ kind, points }) => kind === 'antenna' && points.length > 0);
  const [antenna] = laid;
  const heightM = antenna?.heightM ?? station.heightM;
  const points = plotHorizon(plotFeaturesOf(data), antenna?.points[0] ?? [0, 0], heightM);
  if (!data.plotFeatures.some(({ kind }) => kind === 'house'))
    return <p className="mt-2 max-w-prose text-sm text-dim">Houses drawn on the Plot can give it by themselves.</p>;
  return (
    <p className="mt-2 flex max-w-prose flex-wrap items-baseline gap-x-3 text-sm text-dim">
      {points.length === 0
        ? 'No house of the Plot stands above the antenna: flat, as far as the plan goes.'
        : `The houses of the Plot, from ${antenna?.name ?? 'the middle of the plan'} at ${lengthText(heightM)}: up to ${Math.max(
            ...points.map(({ elevationDeg }) => elevationDeg),
          ).toFixed(0)}° (model; trees and hills are not on it).`}
      <Button
        look="quiet"
        onClick={() => void saveStation(station.version, { horizon: horizonText(points) }).catch(showTrouble)}
      >
        Take the horizon from the Plot
      </Button>
    </p>
  );
}

/** What a round orbit offers at best, before any elements are at hand. */
const AtBest = ({ freqHz }: { readonly freqHz: number }) => (
  <QuickAnswer
    title="At best"
    hint="a round orbit straight overhead, earth at rest"
    specs={[
      { name: 'altitude', label: 'Height of the orbit, km', dimension: 'plain', start: '420' },
      { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: `${freqHz / 1e6} MHz` },
      { name: 'least', label: 'Least elevation', dimension: 'angle', start: '0°' },
    ]}
    answer={(value) => {
      const leastDeg = value('least');
      const found = circularOrbit(value('altitude'), value('freq'), {
        elevationDeg: leastDeg,
        leastDeg,
        highestDeg: 90,
      });
      return `Round in ${minutes(found.periodS)}, in view for ${minutes(found.durationS)}, Doppler ±${(found.dopplerHz / 1000).toFixed(2)} kHz (model).`;
    }}
  />
);
