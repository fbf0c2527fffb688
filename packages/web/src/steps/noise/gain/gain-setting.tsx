import { Announced } from '../../../ui/announced';
import { gainByMeasurement, readGainRows, RECOMMENDED_ROOM_DB } from '@velvet-reed/core/path';
import { fixed, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Section } from '../../../ui/section';
import { Curves } from '../../../ui/curves';
import { tried } from '../../../ui/tried';
import { Value } from '../../../ui/value';

/** Rows that show what is to be typed; nothing is advised from them. */
const EXAMPLE = `gain dB, noise dBFS\n0, -100\n5, -99.6\n10, -97\n15, -93.6\n20, -89.4\n25, -84.9`;

/** Gain of a receiver by measurement: how far up, and why not farther. */
export function GainSetting() {
  const [text, setText] = useState(EXAMPLE);
  const [peak, setPeak] = useState('-40');
  const { value: rows, fault } = tried(() => readGainRows(text));
  const peakDbfs = peak.trim() === '' ? undefined : Number(peak.replace('−', '-'));
  const isExample = text === EXAMPLE;
  const advice =
    !isExample && rows && (peakDbfs === undefined || Number.isFinite(peakDbfs))
      ? gainByMeasurement(rows, peakDbfs)
      : undefined;
  return (
    <Section title="Gain by measurement" hint="raise it until the noise follows; no farther">
      {rows && rows.length > 1 && <GainCurve rows={rows} isExample={isExample} />}
      <div className="flex flex-wrap gap-5">
        <label className="text-sm text-dim">
          Gain and noise, a row each (antenna on, quiet frequency)
          <textarea
            className="mt-1 block w-64 font-mono text-ink"
            rows={7}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <label className="text-sm text-dim">
          Strongest signals together at the lowest gain, dBFS
          <input
            className="mt-1 block w-28 font-mono text-ink"
            value={peak}
            onChange={(event) => setPeak(event.target.value)}
          />
        </label>
      </div>
      {!rows ? (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      ) : advice ? (
        <Announced className="mt-1 max-w-prose">
          Leave the gain at{' '}
          <Value
            strong
            shown={inDb(advice.gainDb, 0)}
            provenance={{
              origin: 'measured',
              formula: `lowest gain whose noise follows by 0.85 dB per dB and stands 10 dB over the converter’s own; ${RECOMMENDED_ROOM_DB} dB left for fading`,
              inputs: rows.map((row) => [`${fixed(row.gainDb, 0)} dB`, `${fixed(row.noiseDbfs, 1)} dBFS`] as const),
              source: 'your readings; limits by common practice',
            }}
          />
          : {advice.reason}
        </Announced>
      ) : (
        <p className="mt-1 text-sm text-dim">
          {isExample ? 'These rows are an example. Type yours over them.' : 'Three settings at least.'}
        </p>
      )}
    </Section>
  );
}

/** Noise over gain: flat where the converter's own floor counts, rising 1 dB per dB where the antenna does. */
function GainCurve({
  rows,
  isExample,
}: {
  readonly rows: readonly { readonly gainDb: number; readonly noiseDbfs: number }[];
  readonly isExample: boolean;
}) {
  const sorted = [...rows].sort((a, b) => a.gainDb - b.gainDb);
  const last = sorted[sorted.length - 1];
  const span = [sorted[0].gainDb, Math.max(last.gainDb, sorted[0].gainDb + 1)] as const;
  const low = 5 * Math.floor(Math.min(...sorted.map(({ noiseDbfs }) => noiseDbfs)) / 5) - 5;
  const high = 5 * Math.ceil(Math.max(...sorted.map(({ noiseDbfs }) => noiseDbfs)) / 5) + 5;
  return (
    <Curves
      evidence
      name="noise-over-gain"
      x={{ head: 'gain (dB)', decimals: 1 }}
      y={{ head: 'noise (dBFS)', decimals: 1 }}
      caption={
        <>
          {isExample ? 'An example, not yours. ' : ''}Noise in dBFS over gain in dB. Solid: as read; broken: what the
          antenna alone would do.
        </>
      }
      label="Noise in dBFS over gain in dB, as read, beside a line of 1 dB per dB"
      traces={[
        {
          ...{ id: 'read', name: 'read', look: 0 },
          points: sorted.map(({ gainDb, noiseDbfs }) => ({ x: gainDb, y: noiseDbfs })),
        },
        {
          ...{ id: 'follows', name: '1 dB per dB', look: 1 },
          points: span.map((x) => ({ x, y: last.noiseDbfs - (last.gainDb - x) })),
        },
      ]}
      bands={[]}
      markers={[]}
      visible={span}
      drawn={span}
      range={[low, high]}
      ticks={Array.from({ length: Math.round((high - low) / 5) + 1 }, (_, i) => low + 5 * i)}
      logarithmic={false}
      height={220}
    />
  );
}
