import { meterZeroProves } from '@velvet-reed/core/guard';
import { fixed, plain, showPower, inDb } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Caution, Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';

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
          shown={inDb(proof.isolationAtLeastDb, 1)}
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
          shown={inDb(proof.receiverCouldSeeDbm, 1, 'dBm')}
          provenance={{
            origin: 'model',
            formula: 'smallest step in dBm',
            inputs,
            source: 'a meter shows nothing below its smallest step',
          }}
        />
        .
      </p>
      <Caution of="transmitter" />
    </Section>
  );
}

/** Steps of usual meters, W. */
const STEPS_W = [1, 0.1, 0.01, 0.001, 1e-6];

/** What a reading of zero proves, by the step of the meter. */
export function Resolutions({ plan }: { readonly plan: PlannedTransmitter }) {
  const steps = [...new Set([...STEPS_W, plan.meterResolutionW])]
    .filter((step) => step < plan.powerW)
    .sort((a, b) => b - a);
  return (
    <Wide evidence label="What zero proves, by the step of the meter">
      <table className="w-full max-w-2xl">
        <thead>
          <tr>
            <th scope="col">Smallest step</th>
            <th scope="col">Isolation, at least</th>
            <th scope="col">The receiver could see</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step) => {
            const { isolationAtLeastDb, receiverCouldSeeDbm } = meterZeroProves(plan.powerW, step);
            return (
              <tr key={step} className={step === plan.meterResolutionW ? 'font-semibold' : ''}>
                <th scope="row" className="text-ink">
                  {plain(showPower(step))}
                  {step === plan.meterResolutionW ? ', yours' : ''}
                </th>
                <td className="font-mono">{fixed(isolationAtLeastDb, 1)} dB</td>
                <td className="font-mono">{fixed(receiverCouldSeeDbm, 1).replace('-', '−')} dBm</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}
