import { Announced } from '../../../ui/announced';
import { couplingWinding, tuningRange, windingFor } from '@velvet-reed/core/resonator';
import { fixed, frequencyText, lengthText, significant } from '@velvet-reed/core/units';
import { Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

const PICO = 1e-12;

/** Turns for an inductance, on a core and in air. */
export function Winding() {
  const typed = useTypedNumbers([
    { name: 'micro', label: 'Inductance, µH', dimension: 'plain', start: '10' },
    { name: 'al', label: 'Core, nH per turn²', dimension: 'plain', start: '12' },
    { name: 'diameter', label: 'Former in air, diameter', dimension: 'length', bareUnit: 'mm', start: '40 mm' },
    { name: 'pitch', label: 'Turn to turn', dimension: 'length', bareUnit: 'mm', start: '1.2 mm' },
  ]);
  const [micro, al, diameter, pitch] = ['micro', 'al', 'diameter', 'pitch'].map(typed.value);
  const { value: found, fault } = tried(() =>
    micro !== undefined && al !== undefined && diameter !== undefined && pitch !== undefined
      ? windingFor(micro * 1e-6, { alHenry: al * 1e-9, diameterM: diameter, pitchM: pitch })
      : undefined,
  );
  return (
    <Section title="Coil" hint="turns for an inductance, on a core and in one layer in air">
      <TypedFields of={typed} />
      <Answer fault={fault}>
        {found &&
          `On the core ${found.coreTurns} turns (${found.coreError >= 0 ? '+' : '−'}${fixed(Math.abs(100 * found.coreError), 1)} % off, whole turns); in air ${fixed(found.airTurns, 1)} turns over ${lengthText(found.airLengthM)} (model: Nagaoka's current sheet).`}
      </Answer>
    </Section>
  );
}

/** Coil and fixed capacitor so that a variable one covers a range. */
export function TuningRange() {
  const typed = useTypedNumbers([
    { name: 'least', label: 'Variable from, pF', dimension: 'plain', start: '12' },
    { name: 'most', label: 'to, pF', dimension: 'plain', start: '365' },
    { name: 'stray', label: 'Strays, pF', dimension: 'plain', start: '15' },
    { name: 'low', label: 'Range from', dimension: 'frequency', bareUnit: 'kHz', start: '520 kHz' },
    { name: 'high', label: 'to', dimension: 'frequency', bareUnit: 'kHz', start: '1620 kHz' },
  ]);
  const [least, most, stray, low, high] = ['least', 'most', 'stray', 'low', 'high'].map(typed.value);
  const { value: found, fault } = tried(() =>
    typed.sound
      ? tuningRange({
          leastF: (least ?? 0) * PICO,
          mostF: (most ?? 0) * PICO,
          strayF: (stray ?? 0) * PICO,
          lowHz: low ?? 0,
          highHz: high ?? 0,
        })
      : undefined,
  );
  return (
    <Section title="Tuning range of a capacitor" hint="which coil, and which fixed capacitor beside it">
      <TypedFields of={typed} />
      <Answer fault={fault}>
        {found &&
          (found.possible
            ? `A coil of ${significant(found.inductanceH * 1e6, 4)} µH with ${fixed(found.parallelF / PICO, 1)} pF across the variable covers ${frequencyText(low ?? 0)} to ${frequencyText(high ?? 0)} exactly (model).`
            : `This capacitor does not reach so far in one range: it takes ${found.bands} ranges of equal ratio.`)}
      </Answer>
    </Section>
  );
}

/** Turns that couple a tuned coil to its load. */
export function Coupling() {
  const typed = useTypedNumbers([
    { name: 'freq', label: 'At', dimension: 'frequency', bareUnit: 'kHz', start: '7.1 MHz' },
    { name: 'micro', label: 'Coil, µH', dimension: 'plain', start: '2.5' },
    { name: 'q', label: 'Its Q', dimension: 'plain', start: '200' },
    { name: 'turns', label: 'Its turns', dimension: 'plain', start: '12' },
    { name: 'load', label: 'Load, Ω', dimension: 'plain', start: '50' },
  ]);
  const [freq, micro, q, turns, load] = ['freq', 'micro', 'q', 'turns', 'load'].map(typed.value);
  const { value: found, fault } = tried(() =>
    typed.sound
      ? couplingWinding({
          freqHz: freq ?? 0,
          inductanceH: (micro ?? 0) * 1e-6,
          q: q ?? 0,
          turns: turns ?? 0,
          loadOhm: load ?? 0,
        })
      : undefined,
  );
  return (
    <Section title="Coupling turns" hint="for most power out of a tuned coil">
      <TypedFields of={typed} />
      <Answer fault={fault}>
        {found &&
          `${found.couplingTurns} turns; Q under load ${fixed(found.loadedQ, 0)}; whole turns cost ${fixed(found.mismatchLossDb, 2)} dB (model).`}
      </Answer>
    </Section>
  );
}

function Answer({ fault, children }: { readonly fault: string | undefined; readonly children: React.ReactNode }) {
  return fault ? (
    <p role="alert" className="mt-1 text-danger">
      {fault}
    </p>
  ) : (
    <Announced className="mt-1 max-w-prose">{children}</Announced>
  );
}
