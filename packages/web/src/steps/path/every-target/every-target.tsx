import type { Saved } from '@velvet-reed/contract';
import { ALIKE_DB, bandsAtWorkingGain, overNoise, type PathAnalysis } from '@velvet-reed/core/path';
import { frequencyText } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { askPath } from '@velvet-reed/station/path/question';
import { toPathReceiver } from '@velvet-reed/station/path/stages';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { lossProvenance, productInk, snrLoss, type PathView } from '../order-view';

/** Every order on every target, not only the one that the path is judged on. */
export function EveryTarget({ data, path, receiver, orders }: PathView) {
  const rows = useMemo(() => {
    const asked = data.targets.map((target) => ({ target, end: askPath(data, path, target) }));
    const judged = asked.flatMap(({ target, end }) => (end.state === 'judged' ? [{ target, ...end }] : []));
    // targets that meet the same carriers are analysed together: those of the evening come only on short wave
    const groups = [true, false]
      .map((evening) => judged.filter(({ question }) => question.signals.some(({ assumed }) => assumed) === evening))
      .filter((group) => group.length > 0);
    const found = new Map<Saved<'targets'>, PathAnalysis[]>();
    for (const { stages } of orders)
      for (const group of groups) {
        const bands = group.map(({ question }) => question);
        bandsAtWorkingGain(stages, toPathReceiver(receiver), bands, bands[0].signals).forEach(({ analysis }, i) => {
          const { target } = group[i];
          found.set(target, [...(found.get(target) ?? []), analysis]);
        });
      }
    return asked.map(({ target, end }) => ({
      target,
      analyses: found.get(target),
      why: end.state === 'judged' ? '' : end.because,
    }));
  }, [data, path, receiver, orders]);
  const losses = (analyses: readonly PathAnalysis[]) =>
    analyses.map(({ snrLossWithProductsDb }) => snrLossWithProductsDb);
  return (
    <Section
      title="On every target"
      hint="SNR lost between antenna and receiver, the strongest product counted as noise"
    >
      <Wide evidence label="Every order on every target">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Target</th>
              {orders.map(({ order }) => (
                <th key={order} scope="col">
                  Order {order}
                </th>
              ))}
              <th scope="col">Strongest product, better order</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const { target } = row;
              if (row.analyses === undefined)
                return (
                  <tr key={target.id}>
                    <th scope="row" className="text-ink">
                      {target.name}
                    </th>
                    <td colSpan={orders.length + 1} className="text-caution">
                      Not judged. {row.why}
                    </td>
                  </tr>
                );
              const { analyses } = row;
              const least = Math.min(...losses(analyses));
              const product = analyses[losses(analyses).indexOf(least)].worstProduct;
              const [{ outOfReach, landsAtHz }] = analyses;
              return (
                <tr key={target.id}>
                  <th scope="row" className="text-ink">
                    {target.name}
                  </th>
                  {outOfReach ? (
                    <td colSpan={orders.length + 1} className="text-dim">
                      {frequencyText(landsAtHz)} is outside what {receiver.name} hears
                    </td>
                  ) : (
                    <>
                      {analyses.map((analysis, i) => (
                        <td key={orders[i].order}>
                          <Value
                            strong={analysis.snrLossWithProductsDb < least + ALIKE_DB}
                            shown={snrLoss(analysis.snrLossWithProductsDb)}
                            provenance={lossProvenance(orders[i])}
                          />
                        </td>
                      ))}
                      <td className={productInk(product)}>
                        {product
                          ? `${product.signals.join(' and ')}, ${product.label}, in ${product.madeIn}: ${overNoise(product)}`
                          : 'none'}
                      </td>
                    </>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}
