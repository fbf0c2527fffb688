import { Announced } from '../../../ui/announced';
import { heardAt, type SideBand } from '@velvet-reed/core/path';
import { showFrequency } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** A tone in the audio as a frequency: the dial of a receiver is not where its signals are. */
export function DialAndTone() {
  const [side, setSide] = useState<SideBand>('upper');
  const [mirrored, setMirrored] = useState(false);
  const typed = useTypedNumbers([
    { name: 'dial', label: 'Dial', dimension: 'frequency', bareUnit: 'kHz', start: '136.0 kHz' },
    { name: 'tone', label: 'Tone in the audio', dimension: 'frequency', bareUnit: 'Hz', start: '1500 Hz' },
    {
      name: 'oscillator',
      label: 'Oscillator of a converter (empty: none)',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: '',
      optional: true,
    },
  ]);
  const [dialHz, toneHz, oscillatorHz] = ['dial', 'tone', 'oscillator'].map((name) => typed.value(name));
  const heardHz =
    dialHz === undefined || toneHz === undefined || dialHz <= 0 || toneHz <= 0
      ? undefined
      : heardAt(dialHz, toneHz, side, oscillatorHz === undefined ? undefined : { oscillatorHz, mirrored });
  return (
    <Section title="Dial and tone" hint="where something is that you hear as a tone">
      <TypedFields of={typed} />
      <label className="mt-1 block text-sm text-dim">
        Side band
        <select
          className="ml-2 text-ink"
          value={side}
          onChange={(event) => setSide(event.target.value === 'lower' ? 'lower' : 'upper')}
        >
          <option value="upper">upper</option>
          <option value="lower">lower</option>
        </select>
      </label>
      {oscillatorHz !== undefined && (
        <label className="mt-1 flex min-h-11 items-center gap-2 sm:min-h-0">
          <input
            type="checkbox"
            className="size-6"
            checked={mirrored}
            onChange={(event) => setMirrored(event.target.checked)}
          />
          its oscillator lies above the signal (mirrored)
        </label>
      )}
      {heardHz !== undefined && (
        <Announced className="mt-1">
          It is at{' '}
          <Value
            strong
            shown={showFrequency(heardHz, 7)}
            provenance={{
              origin: 'model',
              formula:
                'dial + tone (upper side band), dial − tone (lower); behind a converter its oscillator plus that, or less that where it mirrors',
              source: 'single side band; mixing',
            }}
          />
          .
        </Announced>
      )}
    </Section>
  );
}
