import type { Band, Waterfall } from '@velvet-reed/core/recording';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useMemo } from 'react';
import { BandMark } from './waterfall-picture';
import type { Look } from './view';

const WIDTH = 1000;
const HEIGHT = 100;
/** Room above the strongest and under the weakest, dB. */
const MARGIN_DB = 4;

/** Mean, median and peak over the stretch that is shown, on the same frequencies as the picture above. */
export function SpectrumBelow({
  picture,
  look,
  centreHz,
  fullScaleDbm,
  signal,
  quiet,
}: {
  readonly picture: Waterfall;
  readonly look: Look;
  readonly centreHz: number;
  readonly fullScaleDbm: number | undefined;
  readonly signal: Band | undefined;
  readonly quiet: Band | undefined;
}) {
  const { offsetHz, meanDb, medianDb, peakDb } = picture.spectrum;
  const seen = [...medianDb, ...peakDb].filter((db) => db > -250);
  const [lowDb, highDb] =
    seen.length === 0 ? [-120, 0] : [Math.min(...seen) - MARGIN_DB, Math.max(...seen) + MARGIN_DB];
  const paths = useMemo(() => {
    const x = scaleLinear().domain([look.lowHz, look.highHz]).range([0, WIDTH]);
    const y = scaleLinear().domain([lowDb, highDb]).range([HEIGHT, 0]).clamp(true);
    const draw = (levels: Float32Array): string =>
      line<number>()
        .x((i) => x(offsetHz[i]))
        .y((i) => y(levels[i]))(Array.from(levels, (_, i) => i)) ?? '';
    return { mean: draw(meanDb), median: draw(medianDb), peak: draw(peakDb) };
  }, [look.lowHz, look.highHz, lowDb, highDb, offsetHz, meanDb, medianDb, peakDb]);
  const levels = scaleLinear().domain([lowDb, highDb]);
  const [lowHz, highHz] = [centreHz + look.lowHz, centreHz + look.highHz];
  const places = scaleLinear().domain([lowHz, highHz]);
  const { unit, inUnit } = axisOf(Math.max(Math.abs(lowHz), Math.abs(highHz)), highHz - lowHz);
  const shift = fullScaleDbm ?? 0;
  return (
    <div className="mt-1 grid grid-cols-[3.6rem_minmax(0,1fr)]">
      <div className="relative h-24 text-right font-mono text-xs text-dim" aria-hidden>
        {levels.ticks(3).map((db) => (
          <span
            key={db}
            className="absolute right-1.5 -translate-y-1/2"
            style={{ top: `${(100 * (highDb - db)) / (highDb - lowDb)}%` }}
          >
            {(db + shift).toFixed(0).replace('-', '−')}
          </span>
        ))}
      </div>
      <div className="relative h-24 overflow-hidden border-b border-rule">
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          className="absolute inset-0 h-full w-full"
          role="img"
          aria-label={`Spectrum of what is shown, ${fullScaleDbm === undefined ? 'dBFS' : 'dBm'}: mean, median and peak; the pointer tells values`}
        >
          <path
            d={paths.peak}
            fill="none"
            stroke="var(--dim)"
            strokeWidth="1"
            strokeDasharray="2 3"
            vectorEffect="non-scaling-stroke"
          />
          <path d={paths.median} fill="none" stroke="var(--reed)" strokeWidth="1.2" vectorEffect="non-scaling-stroke" />
          <path d={paths.mean} fill="none" stroke="var(--plum)" strokeWidth="1.8" vectorEffect="non-scaling-stroke" />
        </svg>
        <BandMark look={look} band={signal} name="" solid />
        <BandMark look={look} band={quiet} name="" />
      </div>
      <div className="relative col-start-2 h-4 font-mono text-xs text-dim" aria-hidden>
        {places.ticks(4).map((hz) => (
          <span
            key={hz}
            className="absolute -translate-x-1/2 whitespace-nowrap"
            style={{ left: `${Math.max(4, Math.min(96, (100 * (hz - lowHz)) / (highHz - lowHz)))}%` }}
          >
            {inUnit(hz)}
          </span>
        ))}
      </div>
      <p className="col-start-2 text-xs text-dim">
        {unit} across; {fullScaleDbm === undefined ? 'dBFS' : 'dBm'} upward; thick: mean of power, thin: median, dotted:
        peak; dashed across: turns
      </p>
    </div>
  );
}

/** Unit of the numbers below, and how a frequency reads in it: as exact as a tenth of what is shown. */
function axisOf(mostHz: number, spanHz: number): { readonly unit: string; readonly inUnit: (hz: number) => string } {
  const [unit, size] = mostHz >= 1e9 ? ['MHz', 1e6] : mostHz >= 1e4 ? ['kHz', 1e3] : ['Hz', 1];
  const decimals = Math.max(0, Math.ceil(-Math.log10(spanHz / 10 / size)));
  return { unit, inUnit: (hz) => (hz / size).toFixed(decimals).replace('-', '−') };
}
