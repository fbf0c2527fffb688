import { fixed, inDb } from '@velvet-reed/core/units';
import { Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { figureProvenance, lossProvenance, snrLoss } from '../order-view';
import type { PathState } from '../path-room';

/** The orders of a path, a row each. */
export function OrdersTable({ path: { orders, better } }: { readonly path: PathState }) {
  return (
    <Wide evidence label="Orders of this path">
      <table className="w-full max-w-4xl">
        <thead>
          <tr>
            <th scope="col">Order</th>
            <th scope="col">SNR lost</th>
            <th scope="col">Noise figure</th>
            <th scope="col">Least room</th>
            <th scope="col">Supply</th>
          </tr>
        </thead>
        <tbody>
          {orders.map((view) => {
            const { analysis, dc, order, stored } = view;
            const tight = analysis.reports
              .filter(({ roomDb }) => roomDb !== undefined)
              .sort((a, b) => (a.roomDb ?? 0) - (b.roomDb ?? 0))
              .at(0);
            const fault = dc.loads.flatMap(({ errors }) => errors)[0];
            return (
              <tr key={order}>
                <th scope="row" className="text-ink">
                  <strong>{order}</strong>
                  {view === better && orders.length > 1 ? ' (best)' : ''}{' '}
                  <span className="block text-sm font-normal">
                    {stored.map(({ name }) => name).join(', ') || 'nothing in between'}
                  </span>
                </th>
                <td>
                  <Value strong shown={snrLoss(analysis.snrLossWithProductsDb)} provenance={lossProvenance(view)} />
                </td>
                <td>
                  <Value
                    shown={inDb(analysis.noiseFigureDb, 2)}
                    provenance={figureProvenance('F₁ + (F₂ − 1)/G₁ + …', view)}
                  />
                </td>
                <td className={(tight?.roomDb ?? 0) < 0 ? 'text-caution' : ''}>
                  {tight ? `${fixed(tight.roomDb ?? 0, 1).replace('-', '−')} dB, ${tight.name}` : 'no limit known'}
                </td>
                <td className={fault === undefined ? '' : 'text-danger'}>
                  {fault ??
                    (dc.loads.length === 0
                      ? 'none over the coax'
                      : dc.loads.map(({ volts }) => (volts === undefined ? '' : `${fixed(volts, 1)} V`)).join(', '))}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}
