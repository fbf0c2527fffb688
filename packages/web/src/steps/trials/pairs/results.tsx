import { pairsForPower, type TrialResult } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { inDb, Value } from '../../../ui/value';
import { DifferencePlot } from './difference-plot';
import { provenanceOf } from './result-provenance';

const TITLE: Readonly<Record<TrialResult['what'], string>> = { snr: 'SNR', level: 'Level', noise: 'Noise' };

export function ThreeResults({
  results,
  worthDb,
}: {
  readonly results: readonly TrialResult[];
  readonly worthDb: number;
}) {
  return (
    <Section title="B minus A" hint="three results; dot: mean, line: 95 % interval">
      <Wide evidence label="Results">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Result</th>
              <th scope="col">Mean</th>
              <th scope="col">95 % interval</th>
              <th scope="col" className="w-64">
                <span className="sr-only">Drawn</span>
              </th>
              <th scope="col">Verdict</th>
            </tr>
          </thead>
          <tbody>
            {results.map((one) => (
              <tr key={one.what}>
                <th scope="row" className="text-ink">
                  {TITLE[one.what]}
                </th>
                <td>
                  {one.result ? <Value strong shown={inDb(one.result.mean)} provenance={provenanceOf(one)} /> : '–'}
                </td>
                <td className="font-mono whitespace-nowrap">
                  {one.result?.ciLow == null || one.result.ciHigh == null
                    ? 'needs two pairs'
                    : `${fixed(one.result.ciLow, 1)} to ${fixed(one.result.ciHigh, 1)} dB`}
                </td>
                <td>{one.result && <DifferencePlot result={one.result} />}</td>
                <td>
                  {one.proven
                    ? 'proven'
                    : one.morePairs === null
                      ? 'not proven'
                      : `not proven, ${one.morePairs} more pair${one.morePairs === 1 ? '' : 's'}`}
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

/** How many pairs it would take, and the rank test beside the t interval. */
function PowerNote({ result: { result }, worthDb }: { readonly result: TrialResult; readonly worthDb: number }) {
  if (!result?.sd) return null;
  const sizes = [...new Set([1, 2, 3, worthDb])].sort((a, b) => a - b);
  return (
    <p className="mt-2 max-w-prose text-sm text-dim">
      With this scatter of {fixed(result.sd, 2)} dB, pairs needed in all for an 80 % chance to prove{' '}
      {sizes.map((db, i) => {
        const pairs = pairsForPower(result.sd ?? 1, db);
        return (
          <span key={db}>
            {i > 0 && '; '}
            {db} dB: <span className="font-mono text-ink">{pairs ?? 'over 2000'}</span>
          </span>
        );
      })}
      .
    </p>
  );
}
