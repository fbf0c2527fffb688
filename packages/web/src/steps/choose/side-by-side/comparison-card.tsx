import { SIGHT_WORDS } from '@velvet-reed/core/antenna';
import { type Candidate, sizeWords, type TargetForecast } from '@velvet-reed/core/choose';
import { lengthText, inDb } from '@velvet-reed/core/units';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { heardProvenance, targetProvenance, weaknessProvenance } from '../provenance';

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
                <th scope="row">{target.name}, over the noise</th>
                {candidates.map(({ spec, forecasts }) => (
                  <td key={spec.id}>
                    <OverNoise forecast={forecasts[i]} />
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <th scope="row">Over the noise, weighted</th>
              {candidates.map(({ spec, heard, forecasts }) => (
                <td key={spec.id}>
                  {heard === undefined ? (
                    'not judged'
                  ) : (
                    <Value shown={inDb(heard.middle, 0)} provenance={heardProvenance(forecasts)} />
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
            {plain('Where and how large', ({ spec }) => sizeWords(spec))}
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

function OverNoise({ forecast }: { readonly forecast: TargetForecast }) {
  if (!forecast.heard) return 'not judged';
  return <Value shown={inDb(forecast.heard.middle, 0)} provenance={targetProvenance(forecast)} />;
}
