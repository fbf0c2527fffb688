import { type AntennaSet, bestSets, type Candidate, type ForecastTarget } from '@velvet-reed/core/choose';
import { capital, listText, midSentence, numberText, inDb } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { candidateTitle } from '../candidate-title';
import { heardProvenance } from '../provenance';

/** The best one, two and three antennas together, and what each adds. */
export function Sets({
  ranked,
  targets,
}: {
  readonly ranked: readonly Candidate[];
  readonly targets: readonly ForecastTarget[];
}) {
  const sets = useMemo(
    () => bestSets(ranked, targets).filter(({ antennas }) => antennas.every((one) => one.targets.length > 0)),
    [ranked, targets],
  );
  if (targets.length < 2 || sets.length < 2) return null;
  return (
    <Section title="One, two or three antennas" hint="each set with what every antenna of it adds">
      <ul aria-label="Sets of antennas">
        {sets.map((set) => (
          <li key={set.antennas.length} className="border-b border-rule py-1 text-sm">
            <SetLine set={set} />
          </li>
        ))}
      </ul>
    </Section>
  );
}

function SetLine({ set: { antennas, heardDb, worthIt } }: { readonly set: AntennaSet }) {
  return (
    <>
      <strong>{capital(numberText(antennas.length))}</strong>,{' '}
      <Value
        shown={inDb(heardDb, 0, 'dB over the noise')}
        provenance={heardProvenance(antennas.flatMap(({ candidate }) => candidate.forecasts))}
      />
      :{' '}
      {antennas
        .map(({ candidate, targets, addsDb }) =>
          antennas.length === 1
            ? candidateTitle(candidate)
            : `${candidateTitle(candidate)} for ${listText(targets.map(({ name }) => midSentence(name)))}, adds ${addsDb.toFixed(0)} dB`,
        )
        .join('; ')}
      .{worthIt ? '' : ' Not worth it.'}
    </>
  );
}
