import { Announced } from '../../../ui/announced';
import type { DistancePlot, FeedLine } from '@velvet-reed/core/sweep';
import { fixed, showLength } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Section } from '../../../ui/section';
import { Curves } from '../../../ui/curves';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';
import { distancesOf } from './distances';

const TICKS = [0, 0.25, 0.5, 0.75, 1];

/** Where along the line something reflects, from a sweep. */
export function Distance({ loaded, line }: { readonly loaded: readonly LoadedSweep[]; readonly line: FeedLine }) {
  const [id, setId] = useState(0);
  const typed = useTypedNumbers([
    { name: 'velocity', label: 'Velocity factor of the line', dimension: 'plain', start: String(line.velocityFactor) },
    { name: 'length', label: 'Line length as known', dimension: 'length', bareUnit: 'm', start: `${line.lengthM} m` },
  ]);
  if (loaded.length === 0) return null;
  const one = loaded.find(({ header }) => header.id === id) ?? loaded.at(-1);
  const [velocityFactor, lengthM] = [typed.value('velocity'), typed.value('length')];
  const { plot, fault } =
    velocityFactor !== undefined && lengthM !== undefined ? distancesOf(one, { ...line, velocityFactor, lengthM }) : {};
  return (
    <Section title="Distance to a fault" hint="where along the line something reflects">
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {plot && <Plot plot={plot} lengthM={lengthM ?? line.lengthM} />}
      <label className="text-sm text-dim">
        From
        <select
          className="ml-2 text-ink"
          value={one?.header.id}
          onChange={(event) => setId(Number(event.target.value))}
        >
          {loaded.map(({ header }) => (
            <option key={header.id} value={header.id}>
              {header.name}
            </option>
          ))}
        </select>
      </label>
      <TypedFields of={typed} />
    </Section>
  );
}

function Plot({ plot, lengthM }: { readonly plot: DistancePlot; readonly lengthM: number }) {
  const far = Math.min(
    plot.reachM * 0.95,
    Math.max(1.6 * lengthM, 1.3 * Math.max(0, ...plot.echoes.map((echo) => echo.distanceM)), 12 * plot.resolutionM),
  );
  const points = Array.from(plot.distanceM, (x, i) => ({ x, y: plot.level[i] })).filter(({ x }) => x <= far);
  const measured = {
    origin: 'measured',
    formula:
      'impulse response of the sweep (Kaiser window, β = 6); distance = velocity factor · c · delay / 2; loss there and back taken off',
    source: 'your sweep; Harris, Proc. IEEE 66 (1978) 51',
  } as const;
  return (
    <Announced>
      <Curves
        evidence
        name="distance"
        x={{ head: 'distance (m)', decimals: 2 }}
        y={{ head: 'share that comes back', decimals: 3 }}
        caption={<>m along the line; share of the wave (ratio)</>}
        label="Share of the wave that comes back, over distance in metres"
        traces={[{ id: 'distance', name: 'returned share', points, look: 0 }]}
        bands={[]}
        markers={[{ name: 'line end', x: lengthM }]}
        visible={[0, far]}
        drawn={[0, far]}
        range={[0, 1]}
        ticks={TICKS}
        logarithmic={false}
        height={200}
      />
      <p className="mt-2">
        {2 * plot.resolutionM > lengthM ? (
          'This sweep is too narrow to tell places on this line apart.'
        ) : plot.echoes.length === 0 ? (
          'Nothing along the line reflects: it ends in something that takes the power.'
        ) : (
          <>
            Strongest at <Value strong shown={showLength(plot.echoes[0].distanceM, 3)} provenance={measured} />,
            returning{' '}
            <Value
              shown={{ digits: fixed(100 * Math.min(1, plot.echoes[0].reflection), 0), unit: '%' }}
              provenance={measured}
            />{' '}
            of the wave
            {plot.echoes.length > 1 ? '; weaker at ' : ''}
            {plot.echoes.slice(1).map((echo, i) => (
              <span key={echo.distanceM}>
                {i > 0 ? ', ' : ''}
                <Value shown={showLength(echo.distanceM, 3)} provenance={measured} /> (
                {fixed(100 * Math.min(1, echo.reflection), 0)} %)
              </span>
            ))}
            .
          </>
        )}{' '}
        Two places closer than{' '}
        <Value
          shown={showLength(2 * plot.resolutionM, 2)}
          provenance={{ ...measured, origin: 'model', formula: 'velocity factor · c / span, the window counted in' }}
        />{' '}
        look like one.
      </p>
      {plot.remarks.map((remark) => (
        <p key={remark} className="text-sm text-caution">
          {remark}
        </p>
      ))}
    </Announced>
  );
}
