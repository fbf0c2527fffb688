import type { Saved } from '@velvet-reed/contract';
import { antennaKind, type Design, knownDimensions, parametersInUse } from '@velvet-reed/core/antenna';
import { reflectionOf, swrOf } from '@velvet-reed/core/line';
import { magnitude } from '@velvet-reed/core/numeric';
import { significant, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { saveCsv } from '../../../ui/export';
import { Section, Wide } from '../../../ui/section';
import { TraceMark } from '../../../ui/trace-chart';
import { Value } from '../../../ui/value';
import { MOST_CURVES, type Comparison } from './comparison';
import { modelProvenance, type ModelCurves } from '../model-figures';

/** Chooses what is laid over the drafted antenna, and tells the numbers apart. */
export function ComparePanel({
  comparison,
  onCompare,
  design,
  curves,
  revisions,
}: {
  readonly comparison: Comparison;
  readonly onCompare: (comparison: Comparison) => void;
  readonly design: Design;
  readonly curves: readonly ModelCurves[];
  readonly revisions: readonly Saved<'revisions'>[];
}) {
  const kind = antennaKind(design.kind);
  const [picked, setPicked] = useState<readonly number[]>([]);
  const value = comparison.by === 'parameter' ? `p ${comparison.id}` : comparison.by;
  return (
    <Section
      title="Compare"
      hint="curves are laid over the model above"
      actions={
        curves.length > 0 && (
          <Button
            look="quiet"
            onClick={() =>
              saveCsv(
                'comparison.csv',
                ['curve', 'R_ohm', 'X_ohm', 'gain_dBi', 'elevation_deg'],
                curves.flatMap(({ name, spot }) =>
                  spot ? [[name, spot.impedance.re, spot.impedance.im, spot.peak.gainDbi, spot.peak.elevationDeg]] : [],
                ),
              )
            }
          >
            CSV
          </Button>
        )
      }
    >
      <label className="text-sm text-dim">
        Vary
        <select
          className="ml-2 text-ink"
          value={value}
          onChange={(event) => {
            const by = event.target.value;
            if (by.startsWith('p ')) onCompare({ by: 'parameter', id: by.slice(2) });
            else if (by === 'revisions') onCompare({ by: 'revisions', ids: picked });
            else onCompare({ by: by === 'ground' ? 'ground' : by === 'conductor' ? 'conductor' : 'nothing' });
          }}
        >
          <option value="nothing">nothing</option>
          {parametersInUse(kind.parameters, knownDimensions(design))
            .filter((one) => !one.whole && one.dimension !== 'frequency')
            .map((one) => (
              <option key={one.id} value={`p ${one.id}`}>
                {one.label.toLowerCase()}
              </option>
            ))}
          {!kind.ownGround && <option value="ground">the ground</option>}
          <option value="conductor">the conductor</option>
          {revisions.length > 1 && <option value="revisions">saved revisions</option>}
        </select>
      </label>
      {comparison.by === 'revisions' && (
        <fieldset className="mt-2 flex flex-wrap gap-4">
          <legend className="sr-only">Revisions to compare, up to three</legend>
          {revisions.map((revision) => (
            <label key={revision.id} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={picked.includes(revision.id)}
                disabled={!picked.includes(revision.id) && picked.length >= MOST_CURVES}
                onChange={() => {
                  const next = picked.includes(revision.id)
                    ? picked.filter((id) => id !== revision.id)
                    : [...picked, revision.id];
                  setPicked(next);
                  onCompare({ by: 'revisions', ids: next });
                }}
              />
              revision {revision.number}
            </label>
          ))}
        </fieldset>
      )}
      {curves.length > 0 && (
        <Wide label="Comparison">
          <table className="mt-2 text-sm">
            <thead>
              <tr>
                <th scope="col">Curve</th>
                <th scope="col">Impedance</th>
                <th scope="col">SWR</th>
                <th scope="col">Largest gain</th>
                <th scope="col">at</th>
              </tr>
            </thead>
            <tbody>
              {curves.map((curve) => (
                <tr key={curve.name}>
                  <th scope="row" className="text-ink">
                    <TraceMark look={curve.look} /> {curve.name}
                  </th>
                  {curve.spot ? (
                    <>
                      <td className="font-mono whitespace-nowrap">
                        {significant(curve.spot.impedance.re, 3)} {curve.spot.impedance.im < 0 ? '−' : '+'} j
                        {significant(Math.abs(curve.spot.impedance.im), 3)} Ω
                      </td>
                      <td className="font-mono">
                        {significant(swrOf(magnitude(reflectionOf(curve.spot.impedance, 50))) ?? 99, 3)}
                      </td>
                      <td>
                        <Value
                          shown={inDb(curve.spot.peak.gainDbi, 1, 'dBi')}
                          provenance={modelProvenance({ spot: curve.spot }, 'largest power gain')}
                        />
                      </td>
                      <td className="font-mono">{curve.spot.peak.elevationDeg.toFixed(0)}°</td>
                    </>
                  ) : (
                    <td colSpan={4} className="text-dim">
                      computing…
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}
