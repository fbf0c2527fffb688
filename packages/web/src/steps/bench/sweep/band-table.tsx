import type { Band } from '@velvet-reed/core/spectrum';
import { askedBands, type BandRow, bandTable, type SweepPoint } from '@velvet-reed/core/sweep';
import { bandText, capital, countText, frequencyText } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** Edges, middle and best point of each band that the sweep touches. */
export function BandTable({
  loaded,
  bands,
  cutForHz,
  wanted,
}: {
  readonly loaded: LoadedSweep;
  readonly bands: readonly Band[];
  /** Frequencies that the antenna is cut for. */
  readonly cutForHz: readonly number[];
  readonly wanted: readonly { readonly lowHz: number; readonly highHz: number }[];
}) {
  const { asked, others } = askedBands(bandTable(loaded.sweep, bands), cutForHz, wanted);
  if (asked.length === 0) return null;
  return (
    <Section title="Bands in this sweep" hint={`SWR, from ${loaded.header.name}`}>
      <Rows rows={asked} label="SWR at band edges" />
      {others.length > 0 && (
        <details className="mt-2">
          <summary className="text-plum">
            {capital(countText(others.length, 'band'))} more that it is not cut for and nobody wants
          </summary>
          <Rows rows={others} label="SWR in other bands" />
        </details>
      )}
    </Section>
  );
}

function Rows({ rows, label }: { readonly rows: readonly BandRow[]; readonly label: string }) {
  return (
    <Wide label={label}>
      <table className="w-full max-w-4xl">
        <thead>
          <tr>
            <th scope="col">Band</th>
            <th scope="col">Lower edge</th>
            <th scope="col">Middle</th>
            <th scope="col">Upper edge</th>
            <th scope="col">Best inside</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name + row.lowHz}>
              <th scope="row" className="text-ink">
                {row.name} <span className="block font-mono text-xs text-dim">{bandText(row.lowHz, row.highHz)}</span>
              </th>
              <td>
                <Swr point={row.low} />
              </td>
              <td>
                <Swr point={row.middle} />
              </td>
              <td>
                <Swr point={row.high} />
              </td>
              <td>
                <Swr point={row.best} withFrequency />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

/** SWR at one frequency; "outside" where the sweep does not reach. */
export function Swr({
  point,
  withFrequency = false,
}: {
  readonly point: SweepPoint | undefined;
  readonly withFrequency?: boolean;
}) {
  if (!point) return <span className="text-sm text-dim">outside</span>;
  return (
    <>
      <Value
        shown={{ digits: point.swr === null ? '∞' : point.swr >= 100 ? '> 99' : point.swr.toFixed(2), unit: '' }}
        provenance={{
          origin: 'measured',
          formula: '(1 + |Γ|) / (1 − |Γ|), Γ interpolated between points',
          inputs: [
            ['at', frequencyText(point.freqHz, 5)],
            ['return loss', point.returnLossDb === null ? 'none' : `${point.returnLossDb.toFixed(1)} dB`],
          ],
          source: 'your sweep',
        }}
      />
      {withFrequency && <span className="ml-2 font-mono text-sm text-dim">{frequencyText(point.freqHz)}</span>}
    </>
  );
}
