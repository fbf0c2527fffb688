import { builtTransfer, type FilterDesign } from '@velvet-reed/core/filter';
import {
  ALIKE_DB,
  analysePath,
  overNoise,
  type PathQuestion,
  type PathReceiver,
  type PathStage,
} from '@velvet-reed/core/path';
import { useMemo } from 'react';
import { Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { lossProvenance, productInk, snrLoss } from '../order-view';

/** The path that a filter is meant for. */
export interface FilterPlace {
  /** In their first order, the antenna's own amplifier left out. */
  readonly stages: readonly PathStage[];
  readonly receiver: PathReceiver;
  readonly question: PathQuestion;
  /** The amplifier inside the antenna: nothing can be put ahead of it. */
  readonly head?: PathStage;
}

/** What a designed filter does to the whole path at every place where it could stand. */
export function InThisPath({ design, place }: { readonly design: FilterDesign; readonly place: FilterPlace }) {
  const rows = useMemo(() => {
    const { stages, receiver, question, head } = place;
    const front = head ? [head] : [];
    const filter = filterStage(design, question);
    const row = (name: string, all: readonly PathStage[]) => ({
      ...{ name, tried: all },
      analysis: analysePath(all, receiver, question),
    });
    return [
      row('without it', [...front, ...stages]),
      ...[...stages, receiver].map((next, i) =>
        row(`ahead of ${next.name}`, [...front, ...stages.slice(0, i), filter, ...stages.slice(i)]),
      ),
    ];
  }, [design, place]);
  const least = Math.min(...rows.map(({ analysis }) => analysis.snrLossWithProductsDb));
  return (
    <Wide label="The filter in this path">
      <table className="my-2 w-full max-w-4xl">
        <thead>
          <tr>
            <th scope="col">In this path, order 1</th>
            <th scope="col">SNR lost, products counted</th>
            <th scope="col">Strongest product</th>
            <th scope="col">First overloaded</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, tried, analysis: { snrLossWithProductsDb, worstProduct, firstOverload } }) => (
            <tr key={name}>
              <th scope="row" className="text-ink">
                {name}
              </th>
              <td>
                <Value
                  strong={snrLossWithProductsDb < least + ALIKE_DB}
                  shown={snrLoss(snrLossWithProductsDb)}
                  provenance={lossProvenance({ stages: tried })}
                />
              </td>
              <td className={productInk(worstProduct)}>
                {worstProduct ? `made in ${worstProduct.madeIn}: ${overNoise(worstProduct)}` : 'none'}
              </td>
              <td className={firstOverload ? 'text-caution' : 'text-dim'}>{firstOverload?.name ?? 'none'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {place.head && (
        <p className="max-w-prose text-sm text-dim">
          Nothing can be put ahead of {place.head.name}: what it makes of strong carriers no filter of this path takes
          away. Only one at its own input would.
        </p>
      )}
    </Wide>
  );
}

/** The filter with real parts as a stage: its loss at the carriers and over the wanted band. */
function filterStage(design: FilterDesign, { lowHz, highHz, signals }: PathQuestion): PathStage {
  const freqsHz = [lowHz, (lowHz + highHz) / 2, highHz, ...signals.map(({ freqHz }) => freqHz)];
  return {
    kind: 'part',
    name: 'the new filter',
    transfer: builtTransfer(design, freqsHz),
  };
}
