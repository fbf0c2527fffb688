import { noiseScatterDb } from '@velvet-reed/core/site';
import { readingMeans } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { QuickAnswer } from '../../../ui/quick-answer';
import { Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { useState } from 'react';

/** How long noise must be averaged to be read to a tenth, and which mean a report gives. */
export function Averaging() {
  const [text, setText] = useState('-81, -92, -78.5, -88, -85, -101');
  const { value: means, fault } = tried(() =>
    readingMeans(
      text
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(Number),
    ),
  );
  return (
    <>
      <QuickAnswer
        title="Averaging time"
        hint="noise itself scatters: a reading is worth its bandwidth times its time"
        specs={[
          { name: 'bandwidth', label: 'Bandwidth', dimension: 'frequency', bareUnit: 'Hz', start: '500 Hz' },
          { name: 'time', label: 'Averaged for', dimension: 'time', bareUnit: 's', start: '1 s' },
        ]}
        answer={(value) => (
          <p>
            A level of noise read so scatters by ±{noiseScatterDb(value('bandwidth'), value('time')).toFixed(2)} dB (1
            σ, model); four times the time halves it.
          </p>
        )}
      />
      <Section
        title="Which mean?"
        hint="readings in dB scatter: the mean of the powers lies above the mean of the decibels"
      >
        <label className="text-sm text-dim">
          Readings, dBm
          <input
            className="mt-1 block w-full max-w-96 font-mono text-ink"
            value={text}
            onChange={(event) => setText(event.target.value)}
            aria-invalid={fault ? true : undefined}
          />
        </label>
        {fault ? (
          <p role="alert" className="mt-1 text-danger">
            {fault}
          </p>
        ) : (
          means && (
            <p className="mt-2">
              Mean of the powers {fixed(means.powerMeanDbm, 1)} dBm, of the decibels {fixed(means.meanDb, 1)} dBm,
              median {fixed(means.medianDbm, 1)} dBm (measured).
            </p>
          )
        )}
      </Section>
    </>
  );
}
