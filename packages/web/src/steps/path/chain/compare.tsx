import { overNoise, type PathAnalysis } from '@velvet-reed/core/path';
import { fixed, inDb } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { figureProvenance, lossProvenance, productInk, snrLoss } from '../order-view';
import type { OrderView } from '@velvet-reed/station/verdicts';

/** The orders beside each other, figure by figure. */
export function Compare({ orders }: { readonly orders: readonly OrderView[] }) {
  const rows: readonly (readonly [string, (view: OrderView) => React.ReactNode])[] = [
    [
      'Gain',
      (view) => (
        <Value
          shown={inDb(view.analysis.gainDb)}
          provenance={figureProvenance('sum of gains at the middle of the band', view)}
        />
      ),
    ],
    [
      'Noise figure',
      (view) => (
        <Value
          shown={inDb(view.analysis.noiseFigureDb, 2)}
          provenance={figureProvenance('F = F1 + (F2 − 1)/G1 + …; passive stages at 290 K', view)}
        />
      ),
    ],
    [
      'Third-order input intercept',
      (view) =>
        view.analysis.iip3Dbm === null ? (
          'none'
        ) : (
          <Value
            shown={inDb(view.analysis.iip3Dbm, 1, 'dBm')}
            provenance={figureProvenance(
              '1/IIP3 = Σ G/IIP3, products in phase; for signals inside every pass band',
              view,
            )}
          />
        ),
    ],
    [
      'Second-order input intercept',
      (view) =>
        view.analysis.iip2Dbm === null ? (
          'none'
        ) : (
          <Value
            shown={inDb(view.analysis.iip2Dbm, 1, 'dBm')}
            provenance={figureProvenance('1/√IIP2 = Σ √(G/IIP2)', view)}
          />
        ),
    ],
    [
      'All carriers at the converter',
      (view) =>
        view.analysis.totalDbm === null ? (
          'no carriers'
        ) : (
          <Value
            shown={inDb(view.analysis.totalDbm, 1, 'dBm')}
            provenance={figureProvenance(
              'sum of powers after every stage and the receiver’s assumed input filter',
              view,
            )}
          />
        ),
    ],
    [
      'Room to full scale',
      (view) =>
        view.analysis.headroomDb === null ? (
          ''
        ) : (
          <Value
            shown={inDb(view.analysis.headroomDb, 1)}
            provenance={figureProvenance(
              'full-scale sine − total power; what decides is the room at the peaks, below',
              view,
            )}
          />
        ),
    ],
    [
      'Room at the peaks of all carriers',
      (view) =>
        view.analysis.peakHeadroomDb === null ? (
          ''
        ) : (
          <span className={view.analysis.canClip ? 'text-caution' : ''}>
            <Value
              shown={inDb(view.analysis.peakHeadroomDb, 1)}
              provenance={figureProvenance(
                'full-scale peak − sum of all carrier amplitudes (crest); below 0 the converter can clip',
                view,
              )}
            />
          </span>
        ),
    ],
    [
      'First stage overloaded',
      ({ analysis }) =>
        analysis.firstOverload ? (
          <span className="text-caution">
            {analysis.firstOverload.name}: {fixed(analysis.firstOverload.totalDbm ?? 0, 0)} dBm in all,{' '}
            {fixed(-(analysis.firstOverload.roomDb ?? 0), 0)} dB too much
          </span>
        ) : (
          <span className="text-dim">none</span>
        ),
    ],
    [
      'SNR lost to noise',
      (view) => (
        <Value shown={snrLoss(view.analysis.snrLossDb)} provenance={figureProvenance('(fa + F − 1)/fa', view)} />
      ),
    ],
    [
      'SNR lost, products counted',
      (view) => <Value strong shown={snrLoss(view.analysis.snrLossWithProductsDb)} provenance={lossProvenance(view)} />,
    ],
    ['Strongest product in band', (view) => <Product analysis={view.analysis} />],
  ];
  return (
    <Section title="Side by side">
      <Wide label="Orders compared">
        <table className="w-full max-w-4xl" data-testid="compare">
          <thead>
            <tr>
              <th scope="col">At the wanted band</th>
              {orders.map(({ order }) => (
                <th key={order} scope="col">
                  Order {order}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, cell]) => (
              <tr key={name}>
                <th scope="row" className="text-ink">
                  {name}
                </th>
                {orders.map((view) => (
                  <td key={view.order}>{cell(view)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}

function Product({ analysis }: { readonly analysis: PathAnalysis }) {
  const product = analysis.worstProduct;
  if (!product) return <span className="text-dim">none falls here</span>;
  return (
    <span className={productInk(product)}>
      {product.signals.join(' and ')}, {product.label}, made in {product.madeIn}: {overNoise(product)}
    </span>
  );
}
