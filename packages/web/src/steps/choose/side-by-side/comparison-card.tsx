import { SIGHT_WORDS } from '@velvet-reed/core/antenna';
import type { Candidate } from '@velvet-reed/core/choose';
import { lengthText } from '@velvet-reed/core/units';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { inDb, Value } from '../../../ui/value';
import { lossProvenance, marginProvenance, weaknessProvenance } from '../provenance';

/** Up to four antennas side by side: each target, then everything that is not hearing. */
export function ComparisonCard({
  candidates,
  onClear,
}: {
  readonly candidates: readonly Candidate[];
  readonly onClear: () => void;
}) {
  const targets = candidates[0]?.forecasts ?? [];
  const plain = (title: string, text: (candidate: Candidate) => string) => (
    <tr key={title}>
      <th scope="row">{title}</th>
      {candidates.map((candidate) => (
        <td key={candidate.spec.id}>{text(candidate)}</td>
      ))}
    </tr>
  );
  return (
    <Section
      title="Side by side"
      actions={
        <Button look="quiet" onClick={onClear}>
          Clear
        </Button>
      }
    >
      <Wide evidence label="Side by side">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">
                <span className="sr-only">What</span>
              </th>
              {candidates.map(({ spec }) => (
                <th key={spec.id} scope="col" className="text-ink">
                  {spec.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {targets.map(({ target }, i) => (
              <tr key={target.id}>
                <th scope="row">{target.name}, margin</th>
                {candidates.map(({ spec, forecasts }) => (
                  <td key={spec.id}>
                    {forecasts[i].marginDb === undefined ? (
                      'not computed'
                    ) : (
                      <Value shown={inDb(forecasts[i].marginDb, 0)} provenance={marginProvenance(forecasts[i])} />
                    )}
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <th scope="row">SNR lost, weighted</th>
              {candidates.map(({ spec, lossDb, forecasts }) => (
                <td key={spec.id}>
                  {lossDb === undefined ? (
                    'not judged'
                  ) : (
                    <Value shown={inDb(lossDb, 1)} provenance={lossProvenance(forecasts)} />
                  )}
                </td>
              ))}
            </tr>
            <tr>
              <th scope="row">Signal at the receiver, weighted</th>
              {candidates.map(({ spec, weaknessDb, forecasts }) => (
                <td key={spec.id}>
                  {weaknessDb === undefined ? (
                    'not judged'
                  ) : (
                    <Value shown={inDb(-weaknessDb, 0)} provenance={weaknessProvenance(forecasts)} />
                  )}
                </td>
              ))}
            </tr>
            {plain('Ground it takes', ({ fit }) => lengthText(fit.needsSpanM, 2))}
            {plain('Fits', ({ fit, withdrawn }) => withdrawn ?? fit.reason)}
            {plain('Looks', ({ spec }) => SIGHT_WORDS[spec.burden.sight])}
            {plain('Price, assumed', ({ spec }) => (spec.source === 'own' ? 'paid' : String(spec.burden.price)))}
            {plain('Work, assumed', ({ spec }) => (spec.source === 'own' ? 'done' : `${spec.burden.hours} h`))}
            {plain('Why', ({ reason }) => reason)}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}
