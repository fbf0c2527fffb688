import { noiseRiseDb } from '@velvet-reed/core/sweep';
import { frequencyText } from '@velvet-reed/core/units';
import { Curves } from '../../../ui/curves';
import { TraceMark } from '../../../ui/trace-chart';
import type { NoiseOfCoil } from './use-noise-peak';

/** What a coil well lifted by a noise source shows, until it is recorded. */
const ASSUMED_RISE_DB = 15;
const ASSUMED_HZ = 198e3;
const POINTS = 241;
/** Half of the span drawn, in widths of the resonance. */
const WIDTHS = 8;

/** Levels with the noise source on and off as recorded, or the curve to expect of a coil. */
export function CoilPicture({
  noise,
  targetHz = ASSUMED_HZ,
  q,
}: {
  readonly noise: NoiseOfCoil;
  readonly targetHz: number | undefined;
  readonly q: number;
}) {
  const recorded = noise.levels.map(({ name, spectrum }, look) => ({
    ...{ id: name, name, look },
    points: Array.from(spectrum.freqHz, (freq, i) => ({ x: freq / 1e3, y: spectrum.levelDb[i] })),
  }));
  const half = Math.min(0.5, WIDTHS / (2 * q)) * targetHz;
  const expected = {
    ...{ id: 'expected', name: `expected at Q ${q} (model)`, look: 0 },
    points: Array.from({ length: POINTS }, (_, i) => {
      const freqHz = targetHz - half + (2 * half * i) / (POINTS - 1);
      return { x: freqHz / 1e3, y: noiseRiseDb(freqHz, { centreHz: targetHz, q, riseDb: ASSUMED_RISE_DB }) };
    }),
  };
  const traces = recorded.length > 0 ? recorded : [expected];
  const points = traces.flatMap((trace) => trace.points);
  const xs = points.map(({ x }) => x);
  const span = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))] as const;
  const ys = points.map(({ y }) => y).filter((y) => Number.isFinite(y));
  const [low, high] = [
    5 * Math.floor(ys.reduce((a, b) => Math.min(a, b), Infinity) / 5),
    5 * Math.ceil(ys.reduce((a, b) => Math.max(a, b), -Infinity) / 5 + 0.01),
  ];
  const step = 5 * Math.max(1, Math.ceil((high - low) / 30));
  return (
    <div className="mb-4">
      <Curves
        evidence
        name="coil-by-noise"
        x={{ head: 'frequency (kHz)', decimals: 3 }}
        y={{ head: 'level (dB)', decimals: 1 }}
        caption={
          <p className="flex flex-wrap gap-x-4">
            {recorded.length > 0
              ? 'dB over kHz, measured.'
              : `dB over the background, over kHz, around ${frequencyText(targetHz)}; nothing is recorded yet.`}
            {traces.map(({ id, name, look }) => (
              <span key={id}>
                <TraceMark look={look} /> {name}
              </span>
            ))}
          </p>
        }
        label={`${traces.map(({ name }) => name).join(', ')}: dB over kHz; the peak's values stand below`}
        traces={traces}
        bands={[]}
        markers={noise.peak ? [{ name: 'resonance', x: noise.peak.centreHz / 1e3 }] : []}
        visible={span}
        drawn={span}
        range={[low, high]}
        ticks={Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => low + step * i)}
        logarithmic={false}
        height={220}
      />
    </div>
  );
}
