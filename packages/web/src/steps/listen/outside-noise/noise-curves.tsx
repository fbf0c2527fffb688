import { ENVIRONMENTS, insideStatedRange, medianFaDb } from '@velvet-reed/core/site';
import { fixed } from '@velvet-reed/core/units';
import { outsideNoise } from '@velvet-reed/station/derive';
import { levelsOf } from '@velvet-reed/station/levels';
import type { StationData } from '@velvet-reed/station/record';
import { Curves } from '../../../ui/curves';

/** 100 kHz to 3 GHz, as decades of Hz. */
const DECADES = [5, 9.5] as const;
const STEPS = 90;
const AT = Array.from({ length: STEPS + 1 }, (_, i) => DECADES[0] + ((DECADES[1] - DECADES[0]) * i) / STEPS);
const TICKS = [5, 6, 7, 8, 9];
const WORDS: Readonly<Record<number, string>> = { 5: '100 kHz', 6: '1 MHz', 7: '10 MHz', 8: '100 MHz', 9: '1 GHz' };
const HIGHEST_DB = 110;

/** Noise from outside over frequency: the classes, the sky, what counts here, and the floors of one's own. */
export function NoiseCurves({ data }: { readonly data: StationData }) {
  const own = data.station.environment;
  const curve = (fa: (freqHz: number) => number | null) =>
    AT.map((x) => {
      const value = fa(10 ** x);
      return { x, y: value === null ? null : Math.min(HIGHEST_DB, value) };
    });
  const stated = (one: (typeof ENVIRONMENTS)[number] | 'galactic') =>
    curve((freqHz) => (insideStatedRange(one, freqHz) ? medianFaDb(one, freqHz) : null));
  const { floors } = levelsOf(data);
  return (
    <>
      <Curves
        evidence
        name="outside-noise"
        x={{ head: 'frequency (Hz)', of: (x) => 10 ** x, decimals: 0 }}
        y={{ head: 'noise (dB over kT₀)', decimals: 1 }}
        caption={
          <>
            dB over kT₀. Solid: what counts here ({own.replace('_', ' ')} class
            {floors.length > 0 ? ', with your floors' : ''}); at 10 MHz {fixed(outsideNoise(data, 10e6).faDb, 1)} dB.
            Broken lines, top down: city, residential, rural, quiet rural medians without your class, and the sky.
          </>
        }
        label={`Noise from outside in dB over kT₀, 100 kHz to 3 GHz: medians of the classes, the sky, and what counts here with ${floors.length} floors of your own`}
        traces={[
          { id: 'here', name: 'counts here', look: 0, points: curve((freqHz) => outsideNoise(data, freqHz).faDb) },
          ...ENVIRONMENTS.filter((one) => one !== own).map((one, i) => ({
            ...{ id: one, name: one.replace('_', ' '), look: i + 1, points: stated(one) },
          })),
          { id: 'sky', name: 'sky', look: 5, points: stated('galactic') },
        ]}
        bands={[]}
        markers={floors.map(({ id, freqHz }) => ({ name: `own floor ${id}`, x: Math.log10(freqHz) }))}
        visible={DECADES}
        drawn={DECADES}
        range={[0, HIGHEST_DB]}
        ticks={[0, 20, 40, 60, 80, 100]}
        logarithmic={false}
        below={{ ticks: TICKS, text: (value) => WORDS[value] ?? '' }}
        height={270}
      />
    </>
  );
}
