import type { Saved } from '@velvet-reed/contract';
import { frequencyText } from '@velvet-reed/core/units';
import { Curves } from '../../../ui/curves';
import { TraceMark } from '../../../ui/trace-chart';

/** Gain over frequency of the parts on the shelf. */
export function GainsOfParts({ parts }: { readonly parts: readonly Saved<'parts'>[] }) {
  const points = parts.flatMap(({ transfer }) => transfer);
  const xs = points.map(({ freqHz }) => Math.log10(freqHz));
  const low = Math.floor(Math.min(...xs));
  const span = [low, Math.max(Math.ceil(Math.max(...xs)), low + 1)] as const;
  const least = 10 * Math.floor(Math.min(...points.map(({ gainDb }) => gainDb), 0) / 10);
  const most = 10 * Math.ceil(Math.max(...points.map(({ gainDb }) => gainDb), 0) / 10 + 0.01);
  const step = Math.max(10, 10 * Math.ceil((most - least) / 60));
  return (
    <>
      <Curves
        evidence
        name="shelf"
        x={{ head: 'frequency (Hz)', of: (x) => 10 ** x, decimals: 0 }}
        y={{ head: 'gain (dB)', decimals: 1 }}
        caption={
          <p className="flex flex-wrap gap-x-4">
            Gain in dB.
            {parts.map(({ id, name }, look) => (
              <span key={id}>
                <TraceMark look={look} /> {name}
              </span>
            ))}
          </p>
        }
        label={`Gain over frequency of the parts on the shelf, dB: ${parts.map(({ name }) => name).join(', ')}`}
        traces={parts.map(({ id, name, transfer }, look) => ({
          ...{ id: String(id), name, look },
          points: (transfer.length === 1
            ? span.map((x) => ({ freqHz: 10 ** x, gainDb: transfer[0].gainDb }))
            : transfer
          ).map(({ freqHz, gainDb }) => ({ x: Math.log10(freqHz), y: gainDb })),
        }))}
        bands={[]}
        markers={[]}
        visible={span}
        drawn={span}
        range={[least, most]}
        ticks={Array.from({ length: Math.floor((most - least) / step) + 1 }, (_, i) => least + step * i)}
        logarithmic={false}
        below={{
          ticks: Array.from({ length: span[1] - span[0] + 1 }, (_, i) => span[0] + i),
          text: (value) => frequencyText(10 ** value, 1).replace(/\.0+ /, ' '),
        }}
        height={220}
      />
    </>
  );
}
