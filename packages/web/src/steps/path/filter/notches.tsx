import type { Provenance } from '@velvet-reed/station/said';
import { Announced } from '../../../ui/announced';
import { CoreError } from '@velvet-reed/core/errors';
import { coaxStub, notchTrap, type Stub } from '@velvet-reed/core/filter';
import { fixed, frequencyText, showLength, significant, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { LINE_OHM } from '@velvet-reed/core/line';

const TRAP: Provenance = {
  origin: 'model',
  formula: '20 log |1 + Z₀/(2Z)| of a series circuit across the line; Z at the notch is ωL/Q',
  source: 'circuit theory',
};
const COAX: Provenance = {
  origin: 'model',
  formula: '20 log |1 + Z₀/(2Z)|, Z = Z_s coth γl (open) or Z_s tanh γl (shorted)',
  source: 'Pozar, Microwave Engineering, ch. 2; loss of the cable grows with the root of the frequency',
};

/** One carrier taken out: by a series circuit across the line, or by a piece of coax. */
export function Notches({
  wanted,
}: {
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
}) {
  const [kind, setKind] = useState<Stub['kind']>('open quarter');
  const typed = useTypedNumbers([
    { name: 'notch', label: 'Carrier to take out', dimension: 'frequency', bareUnit: 'MHz', start: '97.4 MHz' },
    { name: 'pico', label: 'Capacitor, pF', dimension: 'plain', start: '5.6' },
    { name: 'q', label: 'Q of the coil', dimension: 'plain', start: '150' },
    { name: 'velocity', label: 'Velocity factor of the coax', dimension: 'plain', start: '0.66' },
    { name: 'loss', label: 'its loss there, dB per 100 m', dimension: 'plain', start: '16' },
  ]);
  const found = computed(typed, kind);
  const middle = (wanted.lowHz + wanted.highHz) / 2;
  return (
    <Section title="Notch for one carrier" hint="a series circuit or a coax stub across the line">
      <TypedFields of={typed} />
      <label className="mt-1 block text-sm text-dim">
        Stub
        <select
          className="ml-2 text-ink"
          value={kind}
          onChange={(event) => setKind(event.target.value === 'shorted half' ? 'shorted half' : 'open quarter')}
        >
          <option value="open quarter">a quarter wave, open</option>
          <option value="shorted half">half a wave, shorted</option>
        </select>
      </label>
      {'fault' in found ? (
        <p role="alert" className="mt-1 text-danger">
          {found.fault}
        </p>
      ) : (
        found.trap &&
        found.stub && (
          <Announced className="mt-2 max-w-prose">
            <p>
              Series circuit: coil{' '}
              <Value strong shown={{ digits: significant(found.trap.henry * 1e9, 3), unit: 'nH' }} provenance={TRAP} />,{' '}
              <Value shown={inDb(found.trap.depthDb, 1)} provenance={TRAP} /> deep,{' '}
              {frequencyText(found.trap.widthHz, 3)} wide at 3 dB; {wanted.name} loses{' '}
              <Value shown={inDb(found.trap.lossDb(middle), 2)} provenance={TRAP} />.
            </p>
            <p className="mt-1">
              Stub: cut <Value strong shown={showLength(found.stub.lengthM, 4)} provenance={COAX} /> (longer first, tee
              and plug count along, then trim), <Value shown={inDb(found.stub.depthDb, 1)} provenance={COAX} /> deep,
              again at {frequencyText(found.stub.nextNotchHz, 4)}; {wanted.name} loses{' '}
              <Value shown={inDb(found.stub.lossDb(middle), 2)} provenance={COAX} />.
            </p>
            <p className="mt-1 text-sm text-dim">
              Depth hangs on Q and plugs: measure it. {fixed(LINE_OHM, 0)} Ω on both sides is assumed.
            </p>
          </Announced>
        )
      )}
    </Section>
  );
}

function computed(typed: ReturnType<typeof useTypedNumbers>, kind: Stub['kind']) {
  const [notchHz, pico, q, velocityFactor, dbPer100m] = ['notch', 'pico', 'q', 'velocity', 'loss'].map((name) =>
    typed.value(name),
  );
  if (
    notchHz === undefined ||
    pico === undefined ||
    q === undefined ||
    velocityFactor === undefined ||
    dbPer100m === undefined
  )
    return {};
  try {
    return {
      trap: notchTrap({ notchHz, farad: pico * 1e-12, q, lineOhm: LINE_OHM }),
      stub: coaxStub({ kind, notchHz, velocityFactor, lineOhm: LINE_OHM, stubOhm: LINE_OHM, dbPer100m }),
    };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}
