import type { Saved } from '@velvet-reed/contract';
import { useMemo } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { Curves } from '../../../ui/curves';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import type { RecordedLevels } from '../../../workers/recording-jobs';
import { IntoTrial } from './into-trial';
import { pairsOf } from './pairs-of';
import { levelText, timeText } from './view';

/** Points of the curve of levels. */
const MOST_POINTS = 400;

/** Means of a long series, dB, over even stretches. */
function thinned(power: Float64Array, startS: number, stepS: number, shiftDb: number) {
  const size = Math.max(1, Math.ceil(power.length / MOST_POINTS));
  return Array.from({ length: Math.floor(power.length / size) }, (_, i) => {
    let sum = 0;
    for (let k = i * size; k < (i + 1) * size; k += 1) sum += power[k];
    return { x: startS + (i + 0.5) * size * stepS, y: 10 * Math.log10(Math.max(1e-30, sum / size)) + shiftDb };
  });
}

/** Levels over time, and what they say of two antennas. */
export function Levels({
  data,
  levels,
  fullScaleDbm,
  names,
  record,
  startMs,
}: {
  readonly data: StationData;
  readonly levels: RecordedLevels;
  readonly fullScaleDbm: number | undefined;
  readonly names: { readonly a: string; readonly b: string };
  readonly record: Saved<'recordings'> | undefined;
  readonly startMs: number | null;
}) {
  const { series, switched } = levels;
  const unit = fullScaleDbm === undefined ? 'dBFS' : 'dBm';
  const shift = fullScaleDbm ?? 0;
  const traces = useMemo(
    () => [
      {
        id: 'signal',
        name: 'signal and noise',
        look: 0,
        points: thinned(series.signal, series.startS, series.stepS, shift),
      },
      { id: 'noise', name: 'noise', look: 1, points: thinned(series.noise, series.startS, series.stepS, shift) },
    ],
    [series, shift],
  );
  const lastS = series.startS + series.signal.length * series.stepS;
  const ys = traces.flatMap(({ points }) => points.map(({ y }) => y));
  const range = [Math.floor(Math.min(...ys) / 10) * 10, Math.ceil(Math.max(...ys) / 10) * 10] as const;
  const turnsOfB = (switched?.turns ?? []).filter(({ antenna }) => antenna === 'B');
  return (
    <Section
      title="Level and noise over time"
      hint="power in the signal’s band, and in the quiet band at the same width"
    >
      <Curves
        name="levels-of-recording"
        label="Level and noise over time; the numbers stand below"
        x={{ head: 'time (s)', decimals: 2 }}
        y={{ head: `level (${unit})`, decimals: 1 }}
        traces={traces}
        bands={turnsOfB.map(({ startS, stopS }) => ({ name: 'B', low: startS, high: stopS }))}
        markers={[]}
        visible={[0, lastS]}
        drawn={[0, lastS]}
        range={range}
        ticks={[range[0], (range[0] + range[1]) / 2, range[1]]}
        logarithmic={false}
        height={190}
        caption={`seconds; ${unit}${turnsOfB.length > 0 ? '; shaded: turns of B' : ''}`}
      />
      {!switched && (
        <p className="mb-3 max-w-prose text-sm text-dim">
          Over all: signal{' '}
          <Measured db={levels.levelDbfs} scale={fullScaleDbm} what="mean of power in the band, less the noise" />,
          noise <Measured db={levels.noiseDbfs} scale={fullScaleDbm} what="mean of power in the quiet band" />. In the
          band, tenths {levelText(levels.signal.lowDbfs, fullScaleDbm)} to{' '}
          {levelText(levels.signal.highDbfs, fullScaleDbm)}, median {levelText(levels.signal.medianDbfs, fullScaleDbm)}.
        </p>
      )}
      {switched && (
        <>
          {!switched.seen && (
            <p className="mb-2 max-w-prose text-caution">
              No jump of level or noise shows where the turns change: these times rest on the plan alone. If the
              antennas were switched by hand, type the time of a turn; if not at all, leave it empty.
            </p>
          )}
          <Turns levels={levels} names={names} scale={fullScaleDbm} />
          <IntoTrial pairs={pairsOf(levels)} {...{ data, names, record, startMs, fullScaleDbm }} />
        </>
      )}
    </Section>
  );
}

function Measured({
  db,
  scale,
  what,
}: {
  readonly db: number | null;
  readonly scale: number | undefined;
  readonly what: string;
}) {
  if (db === null) return <>not above the noise</>;
  const [digits, unit] = levelText(db, scale).split(' ');
  return <Value shown={{ digits, unit }} provenance={{ origin: 'measured', formula: what, source: 'the recording' }} />;
}

function Turns({
  levels: { switched, turnS = 0, turnFound },
  names,
  scale,
}: {
  readonly levels: RecordedLevels;
  readonly names: { readonly a: string; readonly b: string };
  readonly scale: number | undefined;
}) {
  const show = (db: number | null): string => (db === null ? 'not heard' : levelText(db, scale).split(' ')[0]);
  return (
    <Wide label="Turns of the antennas">
      <table className="w-full max-w-3xl">
        <caption className="text-left text-sm text-dim">
          Turns of about {turnS.toFixed(1)} s, {turnFound ? 'found from the jumps' : 'as you say'}; clicks left out;{' '}
          {scale === undefined ? 'dBFS' : 'dBm'}
        </caption>
        <thead>
          <tr>
            <th scope="col">Antenna</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">Signal</th>
            <th scope="col">Noise</th>
            <th scope="col">SNR, dB</th>
          </tr>
        </thead>
        <tbody>
          {(switched?.turns ?? []).map((turn) => (
            <tr key={turn.startS}>
              <th scope="row" className="text-ink">
                {turn.antenna === 'A' ? names.a : names.b}
              </th>
              <td className="font-mono whitespace-nowrap">{timeText(turn.startS)}</td>
              <td className="font-mono whitespace-nowrap">{timeText(turn.stopS)}</td>
              <td className="font-mono">{show(turn.levelDbfs)}</td>
              <td className="font-mono">{show(turn.noiseDbfs)}</td>
              <td className="font-mono">{turn.snrDb === null ? '–' : turn.snrDb.toFixed(1).replace('-', '−')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
