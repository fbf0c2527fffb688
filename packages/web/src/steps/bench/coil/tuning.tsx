import { type Design, knownDimensions } from '@velvet-reed/core/antenna';
import { coilNoise, detuned, rodSensitivity, tuningSpan } from '@velvet-reed/core/resonator';
import type { NoisePeak } from '@velvet-reed/core/sweep';
import { fixed, frequencyText, significant } from '@velvet-reed/core/units';
import { typedFrequency, typedNumber } from '../../../ui/typed';
import { QuickAnswer } from '../../../ui/quick-answer';

/** Where neither a recording nor a draft says it: a time signal on a rod of stranded wire. Assumed. */
const USUAL_HZ = 77.5e3;
const USUAL_Q = 80;
/** Usual input noise of a receiver of high impedance; assumed. */
const INPUT_V = 12e-9;

/** What a variable capacitor covers, what a drift costs, and how weak a field the coil still tells from its own noise. */
export function CoilQuestions({
  design,
  peak,
}: {
  readonly design: Design | undefined;
  readonly peak: NoisePeak | undefined;
}) {
  // of the rod that is looked at, as far as it is known
  const rod = design?.kind === 'ferrite-rod' ? knownDimensions(design) : {};
  const freq = typedFrequency(peak?.centreHz ?? design?.freqHz ?? USUAL_HZ);
  const q = typedNumber(Number((peak?.q ?? USUAL_Q).toPrecision(2)));
  return (
    <>
      <QuickAnswer
        title="Tuning range"
        hint="a variable capacitor with its strays, a fixed one across, a pad in series with the variable alone"
        specs={[
          { name: 'l', label: 'Inductance, µH', dimension: 'plain', start: '210' },
          { name: 'least', label: 'Least, pF', dimension: 'plain', start: '15' },
          { name: 'most', label: 'Most, pF', dimension: 'plain', start: '365' },
          { name: 'stray', label: 'Strays, pF', dimension: 'plain', start: '12' },
          { name: 'parallel', label: 'Fixed across, pF', dimension: 'plain', start: '0' },
          { name: 'pad', label: 'Pad in series, pF', dimension: 'plain', start: '', optional: true },
        ]}
        answer={(value, given) => {
          const pad = given('pad');
          const found = tuningSpan({
            ...{ inductanceH: value('l') * 1e-6, leastF: value('least') * 1e-12, mostF: value('most') * 1e-12 },
            ...{ strayF: value('stray') * 1e-12, parallelF: value('parallel') * 1e-12 },
            padF: pad === null ? null : pad * 1e-12,
          });
          return (
            <p>
              {frequencyText(found.lowHz, 4)} to {frequencyText(found.highHz, 4)}, a ratio of {found.ratio.toFixed(2)}{' '}
              (model).
            </p>
          );
        }}
      />
      <QuickAnswer
        title="Drift, and the coil’s own noise"
        hint="heat, rain, a hand; what a receiver of high impedance hears of the coil itself"
        specs={[
          { name: 'f', label: 'Resonance', dimension: 'frequency', bareUnit: 'kHz', start: freq },
          { name: 'q', label: 'Q', dimension: 'plain', start: q },
          { name: 'dl', label: 'Inductance, change in %', dimension: 'plain', start: '1' },
          { name: 'dc', label: 'Capacitance, change in %', dimension: 'plain', start: '0' },
          { name: 'l', label: 'Inductance, mH', dimension: 'plain', start: '9.7' },
        ]}
        answer={(value) => {
          const drift = detuned({
            ...{ resonanceHz: value('f'), q: value('q') },
            ...{ inductancePercent: value('dl'), capacitancePercent: value('dc') },
          });
          const own = coilNoise({
            ...{ inductanceH: value('l') * 1e-3, resonanceHz: value('f'), q: value('q'), inputVoltsPerRootHz: INPUT_V },
          });
          return (
            <p>
              It moves to {frequencyText(drift.newHz, 5)} ({fixed(drift.shiftPercent, 2)} %) and loses{' '}
              {drift.lossDb.toFixed(1)} dB where it was. Its own noise stands {own.riseDb.toFixed(1)} dB over an input
              of 12 nV/√Hz (assumed), {frequencyText(own.widthHz, 3)} wide (model).
            </p>
          );
        }}
      />
      <QuickAnswer
        title="Weakest field"
        hint="of a tuned rod or loop: the field that equals its own noise"
        specs={[
          { name: 'f', label: 'Frequency', dimension: 'frequency', bareUnit: 'kHz', start: freq },
          { name: 'turns', label: 'Turns', dimension: 'plain', start: typedNumber(rod.turns ?? 640) },
          { name: 'area', label: 'Cross-section, mm²', dimension: 'plain', start: '78.5' },
          { name: 'mu', label: 'Permeability of the rod', dimension: 'plain', start: '48' },
          { name: 'l', label: 'Inductance, mH', dimension: 'plain', start: '9.7' },
          { name: 'q', label: 'Q', dimension: 'plain', start: q },
          { name: 'bandwidth', label: 'Bandwidth', dimension: 'frequency', bareUnit: 'Hz', start: '200 Hz' },
        ]}
        answer={(value) => {
          const found = rodSensitivity({
            ...{ freqHz: value('f'), turns: value('turns'), areaM2: value('area') * 1e-6, permeability: value('mu') },
            ...{ inductanceH: value('l') * 1e-3, q: value('q'), fieldVPerM: 1e-6, bandwidthHz: value('bandwidth') },
          });
          return (
            <p>
              Its own noise equals {significant(found.noiseFieldVPerM * 1e6, 2)} µV/m; effective height{' '}
              {significant(found.heightM * 1e3, 3)} mm, and 1 µV/m makes {significant(found.tunedV * 1e6, 2)} µV across
              it (model).
            </p>
          );
        }}
      />
    </>
  );
}
