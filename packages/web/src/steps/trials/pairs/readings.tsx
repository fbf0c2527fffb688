import type { Saved } from '@velvet-reed/contract';
import { signedRank, snrDifference } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { useFew } from '../../../ui/few';
import type { FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';

/** So many pairs stand in the list until all are asked for. */
const FEW = 40;

const show = (value: number | null): string => (value === null ? '–' : fixed(value, 1));

const pairFields = (names: { a: string; b: string }, freqHz: number): readonly FieldSpec[] =>
  (
    [
      ['levelADbm', `Level, ${names.a}`],
      ['noiseADbm', `Noise, ${names.a}`],
      ['levelBDbm', `Level, ${names.b}`],
      ['noiseBDbm', `Noise, ${names.b}`],
    ] as const
  )
    .map(([name, label]): FieldSpec => ({
      ...{ name, label, kind: 'quantity', dimension: 'level', bareUnit: 'dBm', optional: true, freqHz },
    }))
    .concat([
      { name: 'differenceDb', label: 'or SNR, B less A', kind: 'quantity', dimension: 'gain', optional: true },
      {
        name: 'bandwidthHz',
        label: 'Bandwidth',
        kind: 'quantity',
        dimension: 'frequency',
        bareUnit: 'Hz',
        optional: true,
      },
      { name: 'conditions', label: 'Conditions', kind: 'text' },
    ]);

export function Readings({
  readings,
  names,
  freqHz,
}: {
  readonly readings: readonly Saved<'readings'>[];
  readonly names: { a: string; b: string };
  readonly freqHz: number;
}) {
  const differences = readings.map(snrDifference).filter((one) => one !== null);
  const ranks = differences.length > 0 ? signedRank(differences) : undefined;
  const { rows, more } = useFew(readings, FEW, 'pairs');
  return (
    <Section title="Pairs logged" hint="levels in dBm, or of a receiver’s full scale where dBFS stands">
      {readings.length === 0 ? (
        <Empty>No pair yet. Six are the least that can prove anything.</Empty>
      ) : (
        <Wide label="Pairs logged">
          <table className="w-full max-w-3xl font-mono">
            <thead>
              <tr className="font-sans">
                <th scope="col">Round</th>
                <th scope="col">{names.a}: level</th>
                <th scope="col">noise</th>
                <th scope="col">{names.b}: level</th>
                <th scope="col">noise</th>
                <th scope="col">SNR, B less A</th>
                <th scope="col">Conditions</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((reading) => (
                <tr key={reading.id}>
                  <td className="whitespace-nowrap">
                    {reading.round + 1}
                    {reading.scale === 'dBFS' && <span className="text-dim"> dBFS</span>}
                  </td>
                  <td>{show(reading.levelADbm)}</td>
                  <td>{show(reading.noiseADbm)}</td>
                  <td>{show(reading.levelBDbm)}</td>
                  <td>{show(reading.noiseBDbm)}</td>
                  <td>{show(snrDifference(reading))}</td>
                  <td className="font-sans text-sm text-dim">{reading.conditions}</td>
                  <td className="font-sans">
                    <ChangeButton
                      resource="readings"
                      record={reading}
                      name={`Pair ${reading.round + 1}`}
                      fields={pairFields(names, freqHz)}
                    />
                    <DeleteButton resource="readings" record={reading} name={`Pair ${reading.round + 1}`} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      {more}
      {ranks && ranks.pTwoSided !== null && (
        <p className="mt-2 text-sm text-dim">
          Rank test beside it (needs no normal scatter): typical difference{' '}
          <span className="font-mono">{fixed(ranks.hodgesLehmann, 1)} dB</span>, p{' '}
          <span className="font-mono">{ranks.pTwoSided.toPrecision(2)}</span> (Wilcoxon, {ranks.used} pairs).
        </p>
      )}
    </Section>
  );
}
