import type { Provenance } from '@velvet-reed/station/said';
import { Announced } from '../../../ui/announced';
import { CoreError } from '@velvet-reed/core/errors';
import { dcFeed, type DcStage } from '@velvet-reed/core/path';
import { fixed, showLength } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Caution, Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

const OHM: Provenance = {
  origin: 'model',
  formula: 'U − I · (loop ohm per metre) · length',
  source: 'Ohm; loop resistance is centre and shield together',
};
/** What else can stand between feed and amplifier. */
const BARRIERS: readonly { readonly id: string; readonly name: string; readonly parts: readonly DcStage[] }[] = [
  { id: 'none', name: 'nothing else', parts: [] },
  { id: 'pad', name: 'a resistive 20 dB pad', parts: [{ dc: 'pad', name: '20 dB pad', lossDb: 20 }] },
  { id: 'star', name: 'a resistive splitter', parts: [{ dc: 'resistive splitter', name: 'Resistive splitter' }] },
  { id: 'leg', name: 'the splitter leg without DC', parts: [{ dc: 'leg without DC', name: 'Splitter' }] },
  { id: 'block', name: 'a DC block', parts: [{ dc: 'blocked', name: 'DC block' }] },
];

/** DC for an amplifier along the coax: what arrives, and what must not stand in its way. */
export function DcFeed() {
  const [barrier, setBarrier] = useState(BARRIERS[0]);
  const [reversed, setReversed] = useState(false);
  const typed = useTypedNumbers([
    { name: 'supply', label: 'Supply, V', dimension: 'plain', start: '5.0' },
    { name: 'current', label: 'Current, mA', dimension: 'plain', start: '120' },
    { name: 'least', label: 'Amplifier works down to, V', dimension: 'plain', start: '4.3' },
    { name: 'limit', label: 'Injector gives at most, mA', dimension: 'plain', start: '200' },
    { name: 'length', label: 'Line', dimension: 'length', bareUnit: 'm', start: '35 m' },
    { name: 'ohm', label: 'Loop resistance, Ω per m', dimension: 'plain', start: '0.12' },
  ]);
  const found = dcResult(typed, barrier.parts, reversed);
  return (
    <Section title="DC along the coax" hint="voltage at the amplifier, polarity, parts that burn or block">
      <Caution of={['coaxDc', 'battery']} />
      <TypedFields of={typed} />
      <div className="mt-1 flex flex-wrap items-center gap-4">
        <label className="text-sm text-dim">
          Between injector and amplifier also
          <select
            className="ml-2 text-ink"
            value={barrier.id}
            onChange={(event) => setBarrier(BARRIERS.find(({ id }) => id === event.target.value) ?? BARRIERS[0])}
          >
            {BARRIERS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-h-11 items-center gap-2 sm:min-h-0">
          <input type="checkbox" checked={reversed} onChange={(event) => setReversed(event.target.checked)} />
          the amplifier wants the other polarity
        </label>
      </div>
      {'fault' in found ? (
        <p role="alert" className="mt-1 text-danger">
          {found.fault}
        </p>
      ) : (
        found.dc && (
          <Announced className="mt-2 max-w-prose">
            <p>
              At the amplifier{' '}
              <Value strong shown={{ digits: fixed(found.dc.atLoadV, 2), unit: 'V' }} provenance={OHM} />
              {found.dc.limitLengthM === undefined ? (
                ''
              ) : (
                <>
                  ; the line may be <Value shown={showLength(found.dc.limitLengthM, 3)} provenance={OHM} /> long
                </>
              )}
              . {found.dc.fine ? 'Fine.' : ''}
            </p>
            {found.dc.errors.map((one) => (
              <p key={one} className="text-danger">
                {one}
              </p>
            ))}
            {found.dc.warnings.map((one) => (
              <p key={one} className="text-caution">
                {one}
              </p>
            ))}
          </Announced>
        )
      )}
    </Section>
  );
}

function dcResult(typed: ReturnType<typeof useTypedNumbers>, barrier: readonly DcStage[], reversed: boolean) {
  const [supplyV, current, leastV, limit, lengthM, loopOhmPerM] = [
    'supply',
    'current',
    'least',
    'limit',
    'length',
    'ohm',
  ].map((name) => typed.value(name));
  if (
    supplyV === undefined ||
    current === undefined ||
    leastV === undefined ||
    limit === undefined ||
    lengthM === undefined ||
    loopOhmPerM === undefined
  )
    return {};
  try {
    return {
      dc: dcFeed({
        supplyV,
        currentA: current / 1000,
        leastV,
        limitA: limit / 1000,
        centrePositive: true,
        wantsPositive: !reversed,
        parts: [{ dc: 'line', name: 'Line', lengthM, ohmPerM: loopOhmPerM }, ...barrier],
      }),
    };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}
