import type { MeanInterval, TrialResult } from '@velvet-reed/core/trial';
import { pairsForPower, pairsWhenWatched } from '@velvet-reed/core/trial';
import { fixed, inDb } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { DifferencePlot } from './difference-plot';
import { resultProvenance } from '@velvet-reed/station/trials/said';

const TITLE: Readonly<Record<TrialResult['what'], string>> = { snr: 'SNR', level: 'Level', noise: 'Noise' };

export function ThreeResults({
  results,
  worthDb,
}: {
  readonly results: readonly TrialResult[];
  readonly worthDb: number;
}) {
  return (
    <Section
      title="B minus A"
      hint={
        results[0].rule === 'plan'
          ? 'judged once, at the end of its plan; dot: mean, line: the interval that decides'
          : 'judged so that it may be watched; dot: mean, line: the interval that decides'
      }
    >
      <Wide evidence label="Results">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Result</th>
              <th scope="col">Mean</th>
              <th scope="col">95 % interval</th>
              <th scope="col" className="w-44">
                <span className="sr-only">Drawn</span>
              </th>
              <th scope="col">Verdict</th>
              <th scope="col">{results[0].rule === 'plan' ? 'If watched' : 'If planned so'}</th>
            </tr>
          </thead>
          <tbody>
            {results.map((one) => (
              <tr key={one.what}>
                <th scope="row" className="text-ink">
                  {TITLE[one.what]}
                </th>
                <td>
                  {one.result ? <Value strong shown={inDb(one.result.mean)} provenance={resultProvenance(one)} /> : '–'}
                </td>
                <td className="font-mono whitespace-nowrap">{intervalText(one.interval)}</td>
                <td>{one.result && <DifferencePlot mean={one.result.mean} interval={one.interval} />}</td>
                <td className="min-w-36">{verdictOf(one)}</td>
                <td className="font-mono whitespace-nowrap text-dim">
                  {intervalText(one.rule === 'plan' ? one.watched : one.planned)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <PowerNote result={results[0]} worthDb={worthDb} />
    </Section>
  );
}

const intervalText = (interval: MeanInterval | undefined): string =>
  interval ? `${fixed(interval.low, 1)} to ${fixed(interval.high, 1)} dB` : 'none yet';

function verdictOf({ proven, byAHair, morePairs, rule, result }: TrialResult): string {
  if (proven) return byAHair ? 'proven, by a hair' : 'proven';
  const missed = byAHair ? 'not proven, by a hair' : 'not proven';
  if (morePairs === null || morePairs === 0 || !result) return missed;
  return `${missed}, ${rule === 'watch' ? 'about ' : ''}${morePairs} more pair${morePairs === 1 ? '' : 's'}`;
}

/** How many pairs it would take, and the rank test beside the t interval. */
function PowerNote({ result: { result }, worthDb }: { readonly result: TrialResult; readonly worthDb: number }) {
  if (!result?.sd) return null;
  const sizes = [...new Set([1, 2, 3, worthDb])].sort((a, b) => a - b);
  return (
    <p className="mt-2 max-w-prose text-sm text-dim">
      With this scatter of {fixed(result.sd, 2)} dB, pairs in all for an 80 % chance to prove, fixed beforehand
      (watched):{' '}
      {sizes.map((db, i) => {
        const pairs = pairsForPower(result.sd ?? 1, db);
        return (
          <span key={db}>
            {i > 0 && '; '}
            {db} dB:{' '}
            <span className="font-mono text-ink">
              {pairs ?? 'over 2000'} ({pairsWhenWatched(result.sd ?? 1, db) ?? 'over 2000'})
            </span>
          </span>
        );
      })}
      .
    </p>
  );
}
