import type { Provenance } from '@velvet-reed/station/said';
import { CoreError } from '@velvet-reed/core/errors';
import { planSweep, POINTS_PER_BAND, type SweepPlan } from '@velvet-reed/core/sweep';
import { fixed, frequencyText, significant } from '@velvet-reed/core/units';
import { useState } from 'react';
import { learnedRate } from '../../../data/learned-rate';
import type { StationData } from '@velvet-reed/station/record';
import { Section, Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

const ARITHMETIC: Provenance = {
  origin: 'model',
  formula: 'step = span / (points − 1); time = points · time per point; points in a band = its width / step',
  source: 'arithmetic; the time per point is that of your analyser',
};

/** What a sweep over a span gives, and what segments would give in less time. */
export function SweepPlanner({ data }: { readonly data: StationData }) {
  const [rate] = useState(learnedRate);
  const typed = useTypedNumbers([
    { name: 'start', label: 'Sweep from', dimension: 'frequency', bareUnit: 'MHz', start: '0 MHz' },
    { name: 'stop', label: 'to', dimension: 'frequency', bareUnit: 'MHz', start: '30 MHz' },
    { name: 'points', label: 'Points', dimension: 'plain', start: '1000' },
    {
      name: 'each',
      label: rate.learned ? 'Time per point, as learned' : 'Time per point',
      dimension: 'time',
      bareUnit: 'ms',
      start: `${Number((rate.seconds * 1000).toPrecision(3))} ms`,
    },
    { name: 'lowest', label: 'Analyser begins at', dimension: 'frequency', bareUnit: 'kHz', start: '50 kHz' },
  ]);
  const { plan, fault } = planned(typed, data);
  return (
    <Section title="Plan a sweep" hint="points per wanted band; segments instead of one long sweep">
      {plan && <Plan plan={plan} />}
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
    </Section>
  );
}

function planned(typed: ReturnType<typeof useTypedNumbers>, data: StationData): { plan?: SweepPlan; fault?: string } {
  const [startHz, stopHz, points, secondsPerPoint, lowestHz] = ['start', 'stop', 'points', 'each', 'lowest'].map(
    (name) => typed.value(name),
  );
  if (
    startHz === undefined ||
    stopHz === undefined ||
    points === undefined ||
    secondsPerPoint === undefined ||
    lowestHz === undefined
  )
    return {};
  try {
    const bands = data.targets.map(({ name, lowHz, highHz }) => ({ name, lowHz, highHz }));
    return { plan: planSweep({ startHz, stopHz, points, secondsPerPoint, lowestHz, bands }) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}

function Plan({ plan }: { readonly plan: SweepPlan }) {
  return (
    <>
      {plan.perBand.length > 0 && (
        <Wide evidence label="Points per band">
          <table className="mt-2 text-sm">
            <thead>
              <tr>
                <th scope="col">Band</th>
                <th scope="col">Points in one sweep</th>
                <th scope="col">Segment</th>
              </tr>
            </thead>
            <tbody>
              {plan.perBand.map(({ band, points }, i) => (
                <tr key={`${band.name} ${band.lowHz}`}>
                  <th scope="row" className="text-ink">
                    {band.name}
                  </th>
                  <td>
                    <Value shown={{ digits: fixed(points, 1), unit: '' }} provenance={ARITHMETIC} />
                  </td>
                  <td className="font-mono">
                    {frequencyText(plan.segments[i].startHz)} to {frequencyText(plan.segments[i].stopHz)},{' '}
                    {plan.segments[i].points} points
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <p className="mt-2">
        One sweep: step{' '}
        <Value shown={{ digits: significant(plan.stepHz / 1000, 4), unit: 'kHz' }} provenance={ARITHMETIC} />, takes{' '}
        <Value shown={{ digits: fixed(plan.seconds, 1), unit: 's' }} provenance={ARITHMETIC} />.{' '}
        {plan.segments.length > 0 && (
          <>
            Better: {plan.segments.length} segments of {POINTS_PER_BAND} points,{' '}
            <Value strong shown={{ digits: fixed(plan.segmentSeconds, 2), unit: 's' }} provenance={ARITHMETIC} /> in
            all. A single sweep as fine would need {plan.singlePoints.toLocaleString('en-GB')} points and{' '}
            <Value shown={{ digits: fixed(plan.singleSeconds, 0), unit: 's' }} provenance={ARITHMETIC} />.
          </>
        )}
      </p>
      {plan.remarks.map((remark) => (
        <p key={remark} className="mt-1 text-sm text-caution">
          {remark}
        </p>
      ))}
    </>
  );
}
