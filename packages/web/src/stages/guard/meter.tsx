import { CAUTIONS } from '@velvet-reed/core/antenna';
import { meterZeroProves } from '@velvet-reed/core/guard';
import { plain, showPower } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '../../data/transmitters';
import { Caution, Section } from '../../ui/stage';
import { inDb, Value } from '../../ui/value';

export function MeterSection({ plan }: { readonly plan: PlannedTransmitter }) {
  const proof = meterZeroProves(plan.powerW, plan.meterResolutionW);
  const inputs = [
    ['power', plain(showPower(plan.powerW))],
    ['smallest step', plain(showPower(plan.meterResolutionW))],
  ] as const;
  return (
    <Section title="What a wattmeter that shows zero proves">
      <p className="max-w-prose">
        An isolation of at least{' '}
        <Value
          strong
          shown={inDb(proof.isolationAtLeastDb, 0)}
          provenance={{
            origin: 'model',
            formula: '10 log (power / smallest step)',
            inputs,
            source: 'a meter shows nothing below its smallest step',
          }}
        />
        , no more. The receiver could still see{' '}
        <Value
          strong
          shown={inDb(proof.receiverCouldSeeDbm, 0, 'dBm')}
          provenance={{
            origin: 'model',
            formula: 'smallest step in dBm',
            inputs,
            source: 'a meter shows nothing below its smallest step',
          }}
        />
        .
      </p>
      <Caution>{CAUTIONS.transmitter}</Caution>
    </Section>
  );
}
