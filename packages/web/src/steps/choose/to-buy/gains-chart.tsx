import type { Saved } from '@velvet-reed/contract';
import { frequencyText } from '@velvet-reed/core/units';
import { Curves } from '../../../ui/curves';

/** Gain over frequency of the antennas that could be bought, as their sheets say. */
export function GainsChart({ antennas }: { readonly antennas: readonly Saved<'boughtAntennas'>[] }) {
  const points = antennas.flatMap(({ gains }) => gains);
  const xs = points.map(({ freqHz }) => Math.log10(freqHz));
  const span = [
    Math.floor(Math.min(...xs)),
    Math.max(Math.ceil(Math.max(...xs)), Math.floor(Math.min(...xs)) + 1),
  ] as const;
  const low = 10 * Math.floor(Math.min(...points.map(({ gainDbi }) => gainDbi)) / 10);
  const high = 10 * Math.ceil(Math.max(...points.map(({ gainDbi }) => gainDbi)) / 10 + 0.01);
  const step = Math.max(10, 10 * Math.ceil((high - low) / 60));
  return (
    <>
      <Curves
        evidence
        name="antennas-to-buy"
        x={{ head: 'frequency (Hz)', of: (x) => 10 ** x, decimals: 0 }}
        y={{ head: 'gain (dBi)', decimals: 1 }}
        caption={<>Gain in dBi over frequency, as entered (catalogue).</>}
        label={`Gain over frequency, dBi: ${antennas.map(({ name }) => name).join(', ')}`}
        traces={antennas.map(({ id, name, gains }, look) => ({
          ...{ id: String(id), name, look },
          points: [...gains]
            .sort((a, b) => a.freqHz - b.freqHz)
            .map(({ freqHz, gainDbi }) => ({ x: Math.log10(freqHz), y: gainDbi })),
        }))}
        bands={[]}
        markers={[]}
        visible={span}
        drawn={span}
        range={[low, high]}
        ticks={Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => low + step * i)}
        logarithmic={false}
        below={{
          ticks: Array.from({ length: span[1] - span[0] + 1 }, (_, i) => span[0] + i),
          text: (value) => frequencyText(10 ** value, 1).replace(/\.0+ /, ' '),
        }}
        height={230}
      />
    </>
  );
}
