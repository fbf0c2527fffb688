import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { overNoise } from '@velvet-reed/core/path';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { figureProvenance, productInk } from '../order-view';
import type { OrderView } from '@velvet-reed/station/verdicts';

/** Stage by stage: gain ahead, noise, what it adds, all carriers and the room they leave, the strongest product made in it. */
export function StageReports({ view }: { readonly view: OrderView }) {
  const { reports, firstOverload } = view.analysis;
  const shown = (formula: string) => figureProvenance(formula, view);
  return (
    <Section
      title={`Order ${view.order}: stage by stage`}
      hint="at the input of each stage, in the wanted band and its bandwidth"
    >
      <Wide label={`Stage by stage in order ${view.order}`}>
        <table className="w-full max-w-5xl">
          <thead>
            <tr>
              <th scope="col">Stage</th>
              <th scope="col">Gain ahead</th>
              <th scope="col">Noise there</th>
              <th scope="col">Share of added noise</th>
              <th scope="col">All carriers</th>
              <th scope="col">Room</th>
              <th scope="col">Strongest product made here</th>
            </tr>
          </thead>
          <tbody>
            {reports.map((report, i) => (
              <tr key={i} className={report === firstOverload ? 'bg-raised' : ''}>
                <th scope="row" className="text-ink">
                  {report.name}
                  {report.freqHz === reports[0].freqHz ? null : (
                    <span className="block text-xs font-normal text-dim">at {frequencyText(report.freqHz, 5)}</span>
                  )}
                </th>
                <td>
                  <Value shown={inDb(report.gainAheadDb)} provenance={shown('sum of the gains of the stages ahead')} />
                </td>
                <td>
                  <Value
                    shown={inDb(report.noiseDbm, 1, 'dBm')}
                    provenance={shown('kT₀B · G · (fa + F − 1), F and G of the stages ahead')}
                  />
                </td>
                <td>
                  <Value
                    strong={report.noiseShare > 0.5}
                    shown={{ digits: fixed(100 * report.noiseShare, 0), unit: '%' }}
                    provenance={shown('(Fᵢ − 1)/Gᵢ over F − 1 of the whole chain')}
                  />
                </td>
                <td>
                  {report.totalDbm === undefined ? (
                    <span className="text-dim">none</span>
                  ) : (
                    <Value shown={inDb(report.totalDbm, 1, 'dBm')} provenance={shown('sum of the powers')} />
                  )}
                </td>
                <td className={report.roomDb !== undefined && report.roomDb < 0 ? 'text-caution' : ''}>
                  {report.roomDb === undefined ? (
                    ''
                  ) : (
                    <Value
                      shown={inDb(report.roomDb, 1)}
                      provenance={shown(
                        i === reports.length - 1
                          ? 'full-scale sine − total power'
                          : '1 dB compression (10 dB under the third-order intercept where nobody measured it) − total power',
                      )}
                    />
                  )}
                </td>
                <td className={productInk(report.product)}>
                  {report.product
                    ? `${report.product.signals.join(' and ')}, ${report.product.label}: ${overNoise(report.product)}`
                    : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}

/** Level of every carrier at the input of each stage. */
export function Carriers({ view, receiverName }: { readonly view: OrderView; readonly receiverName: string }) {
  const { walks, strongest } = view.analysis;
  if (walks.length === 0) return null;
  return (
    <Section title={`Order ${view.order}: carriers at each input`} hint="dBm; the strongest at the receiver in bold">
      <Wide label={`Carriers in order ${view.order}`}>
        <table className="max-w-4xl font-mono text-sm">
          <thead>
            <tr className="font-sans">
              <th scope="col">Carrier</th>
              {[...view.stages.map((stage) => stage.name), receiverName].map((name, i) => (
                <th scope="col" key={`${i} ${name}`}>
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {walks.map((walk) => (
              <tr key={walk.signal.name} className={walk === strongest ? 'font-bold' : ''}>
                <th scope="row" className="font-sans whitespace-nowrap text-ink">
                  {walk.signal.name}{' '}
                  <span className="font-mono font-normal text-dim">{frequencyText(walk.signal.freqHz)}</span>
                </th>
                {walk.levelsDbm.map((level, i) => (
                  <td key={i}>{fixed(level, 0)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}
