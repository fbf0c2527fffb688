import { fixed } from '@velvet-reed/core/units';
import type { OrderView } from '@velvet-reed/station/verdicts';
import { Section } from '../../ui/section';

/** What each filter takes from the wanted band and from each carrier, at the frequencies that they have where it stands. */
export function FilterLosses({ view: { stages, analysis } }: { readonly view: OrderView }) {
  const { reports, walks } = analysis;
  const filters = stages.flatMap((stage, i) => (stage.kind === 'filter' ? [{ name: stage.name, i }] : []));
  if (filters.length === 0 || walks.length === 0) return null;
  return (
    <Section title="What the filters take" hint="from type, order and ripple; ideal parts, at most 80 dB">
      <ul>
        {filters.map(({ name, i }) => (
          <li key={i}>
            <strong>{name}</strong>:{' '}
            {[
              { name: 'wanted band', lossDb: reports[i].gainAheadDb - reports[i + 1].gainAheadDb },
              ...walks.map(({ signal, levelsDbm }) => ({ name: signal.name, lossDb: levelsDbm[i] - levelsDbm[i + 1] })),
            ]
              .map((one) => `${one.name} ${fixed(one.lossDb, 1)} dB`)
              .join(', ')}
          </li>
        ))}
      </ul>
    </Section>
  );
}
