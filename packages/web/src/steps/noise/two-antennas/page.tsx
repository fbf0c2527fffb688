import { cancellation, combining, diversityGain } from '@velvet-reed/core/bearing';
import { type Feature, featureConflicts } from '@velvet-reed/core/path';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { QuickAnswer } from '../../../ui/quick-answer';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { CancelHere } from './cancel-here';
import { Steering } from './steering';

export default function TwoAntennasRoom() {
  return <StationPage>{(data) => <TwoAntennas data={data} />}</StationPage>;
}

function TwoAntennas({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const evenings = eveningsOf(data);
  return (
    <Room
      title="Two antennas, Noise"
      verdict={
        <>
          Two antennas set against each other cancel one source as deep as you set them: 1 dB and 5° leave{' '}
          {fixed(-(cancellation(1, 5, 20).depthDb ?? 0), 0)} dB (model).{' '}
          <Next>
            {evenings.length > 0
              ? 'Next: look below what adding them would have given on your evenings.'
              : 'Next: log both antennas in turn, to see what adding them would give.'}
          </Next>
        </>
      }
      margin={
        <>
          <Note title="What it takes away">
            <p>
              A null toward the noise is one toward every station behind it, and on the other side of the axis too. It
              holds for one frequency; a turn of the source breaks it.
            </p>
          </Note>
          <Note title="Adding">
            <p>
              Adding gains only where the noise of the two is independent. Noise of the same charger in both antennas
              adds as the signal does: cancel it first.
            </p>
          </Note>
        </>
      }
    >
      <Steering data={data} />
      <CancelHere />
      <QuickAnswer
        title="Cancel one source"
        hint="how it arrives on antenna 2 against antenna 1, and how exact the setting is"
        specs={[
          { name: 'level', label: 'Level on 2 against 1', dimension: 'gain', start: '-4.5 dB' },
          { name: 'phase', label: 'Phase on 2 against 1', dimension: 'angle', start: '63°' },
          { name: 'offDb', label: 'Set within', dimension: 'gain', start: '0.5 dB' },
          { name: 'offDeg', label: 'and within', dimension: 'angle', start: '4°' },
          { name: 'depth', label: 'Depth wanted', dimension: 'gain', start: '30 dB' },
        ]}
        answer={(value) => {
          const found = cancellation(value('offDb'), value('offDeg'), Math.abs(value('depth')));
          const phase = ((((180 - value('phase') + 180) % 360) + 360) % 360) - 180;
          return `Set ${fixed(-value('level'), 1)} dB and ${fixed(phase, 0)}° on antenna 2. ${
            found.depthDb === null ? 'Nothing is left.' : `So exact, ${fixed(-found.depthDb, 1)} dB is left.`
          } For ${fixed(Math.abs(value('depth')), 0)} dB it must be exact to ${found.amplitudeNeededDb.toFixed(2)} dB and ${found.phaseNeededDeg.toFixed(1)}° (model).`;
        }}
      />
      <QuickAnswer
        title="Add what both hear"
        hint="SNR of each alone; independent noise"
        specs={[
          { name: 'one', label: 'SNR on antenna 1', dimension: 'gain', start: '12 dB' },
          { name: 'two', label: 'SNR on antenna 2', dimension: 'gain', start: '7 dB' },
        ]}
        answer={(value) => {
          const found = combining([value('one'), value('two')]);
          return `By the best weights ${fixed(found.maximumRatioDb, 1)} dB, with equal gain ${fixed(found.equalGainDb, 1)} dB, by switching ${fixed(found.selectionDb, 1)} dB (model).`;
        }}
      />
      <CanItBe />
      <Section title="On your evenings" hint="trials whose pairs hold the SNR of both antennas (measured)">
        {evenings.length === 0 ? (
          <p className="text-sm text-dim">
            None yet: <Link to={`/s/${stationId}/trials/pairs`}>log pairs</Link>.
          </p>
        ) : (
          <Wide label="What adding would have given">
            <table className="w-full max-w-4xl">
              <thead>
                <tr>
                  <th scope="col">Trial</th>
                  <th scope="col">Pairs</th>
                  <th scope="col">Better alone</th>
                  <th scope="col">Switching adds</th>
                  <th scope="col">Equal gain adds</th>
                  <th scope="col">Best weights add</th>
                </tr>
              </thead>
              <tbody>
                {evenings.map(({ name, names, found }) => (
                  <tr key={name}>
                    <th scope="row" className="text-ink">
                      {name}
                    </th>
                    <td className="font-mono">{found.pairs}</td>
                    <td>{names[found.better]}</td>
                    {found.ways.map((way) => (
                      <td key={way.name} className="font-mono whitespace-nowrap">
                        {fixed(way.meanDb, 1)} dB
                        {way.interval && (
                          <span className="block text-sm text-dim">
                            {fixed(way.interval.low, 1)} to {fixed(way.interval.high, 1)}
                          </span>
                        )}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
        )}
      </Section>
    </Room>
  );
}

/** Ways of feeding the second receiver that bear on adding two antennas. */
const FEEDS = [
  ['its own antenna', []],
  ['a splitter from the same antenna', ['splitter']],
  ['the IF tap of the radio', ['IF tap']],
] as const satisfies readonly (readonly [string, readonly Feature[]])[];

/** Whether the second antenna reaches the second receiver at all, by how that is fed. */
function CanItBe() {
  const [chosen, setChosen] = useState(0);
  const conflicts = featureConflicts(['diversity', ...FEEDS[chosen][1]]);
  return (
    <Section title="Can it be added at all?" hint="how the second receiver gets its signal">
      <div className="flex flex-wrap gap-x-4 gap-y-1" role="radiogroup" aria-label="The second receiver hangs on">
        {FEEDS.map(([name], i) => (
          <label key={name} className="flex items-center gap-1.5">
            <input type="radio" name="second receiver" checked={chosen === i} onChange={() => setChosen(i)} />
            {name}
          </label>
        ))}
      </div>
      {conflicts.length === 0 ? (
        <p className="mt-1 max-w-prose">
          Yes, if both receivers run on one clock; else their phases drift apart, and only switching is left.
        </p>
      ) : (
        conflicts.map(({ verdict, reason }) => (
          <p key={reason} className={`mt-1 max-w-prose ${verdict === 'impossible' ? 'text-danger' : 'text-caution'}`}>
            {verdict === 'impossible' ? 'Impossible' : 'With care'}: {reason}
          </p>
        ))
      )}
    </Section>
  );
}

/** Trials with the SNR of both antennas, and what adding them would have given. */
function eveningsOf(data: StationData) {
  const name = (id: number): string => data.antennas.find((one) => one.id === id)?.name ?? 'deleted antenna';
  return data.trials.flatMap((trial) => {
    const pairs = data.readings.flatMap((one): [number, number][] =>
      one.trialId !== trial.id ||
      one.levelADbm === null ||
      one.noiseADbm === null ||
      one.levelBDbm === null ||
      one.noiseBDbm === null
        ? []
        : [[one.levelADbm - one.noiseADbm, one.levelBDbm - one.noiseBDbm]],
    );
    return pairs.length < 2
      ? []
      : [{ name: trial.name, names: [name(trial.antennaAId), name(trial.antennaBId)], found: diversityGain(pairs) }];
  });
}
