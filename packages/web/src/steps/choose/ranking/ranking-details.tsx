import { type Candidate, filterAdvice, type TargetForecast } from '@velvet-reed/core/choose';
import { countText, frequencyText, inDb } from '@velvet-reed/core/units';
import { Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { gainProvenance, marginProvenance, targetProvenance } from '../provenance';

export function Details({ candidate }: { readonly candidate: Candidate }) {
  return (
    <Wide label={`${candidate.spec.name}, each target`}>
      <table className="mt-2 w-full max-w-5xl text-sm">
        <thead>
          <tr>
            <th scope="col">Target</th>
            <th scope="col">A usual station</th>
            <th scope="col">Noise here</th>
            <th scope="col">Gain toward it</th>
            <th scope="col">Pattern wins</th>
            <th scope="col">Margin</th>
            <th scope="col">SNR lost to the chain</th>
            <th scope="col">Strongest product</th>
            <th scope="col">Room to full scale</th>
          </tr>
        </thead>
        <tbody>
          {candidate.forecasts.map((forecast) => (
            <TargetRow key={forecast.target.id} forecast={forecast} />
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

function TargetRow({ forecast }: { readonly forecast: TargetForecast }) {
  const { target, marginDb, snrLossDb, patternDb, headroomDb, reception, worstProduct, heard, noise } = forecast;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {target.name}
        {forecast.remarks.map((remark) => (
          <p key={remark} className="max-w-72 text-xs text-caution">
            {remark}
          </p>
        ))}
      </th>
      <td>
        {heard === undefined ? (
          'not judged'
        ) : (
          <>
            <Value strong shown={inDb(heard.middle, 0, 'dB over noise')} provenance={targetProvenance(forecast)} />
            <span className="block text-xs whitespace-nowrap text-dim">
              {heard.low.toFixed(0).replace('-', '−')} to {heard.high.toFixed(0).replace('-', '−')}
            </span>
          </>
        )}
      </td>
      <td>
        <Value shown={inDb(noise.middle, 0, 'dB over kT₀')} provenance={targetProvenance(forecast)} />
        {noise.houseDb >= 0.5 && (
          <span className="block text-xs whitespace-nowrap text-dim">house {noise.houseDb.toFixed(0)} dB of it</span>
        )}
      </td>
      <td>
        {reception.validity === 'outside' ? (
          'not computed'
        ) : (
          <Value shown={inDb(reception.realisedGainDbi, 1, 'dBi')} provenance={gainProvenance(forecast)} />
        )}
      </td>
      <td>
        {patternDb === undefined ? (
          ''
        ) : (
          <Value
            shown={inDb(patternDb, 1)}
            provenance={{
              ...gainProvenance(forecast),
              formula: 'gain toward the target over the average in all directions: SNR won against evenly spread noise',
            }}
          />
        )}
      </td>
      <td>
        {marginDb === undefined ? (
          'not computed'
        ) : (
          <Value shown={inDb(marginDb, 0)} provenance={marginProvenance(forecast)} />
        )}
      </td>
      <td>
        {snrLossDb === undefined ? (
          ''
        ) : (
          <Value
            shown={inDb(snrLossDb, 1)}
            provenance={{
              ...marginProvenance(forecast),
              formula: '10 log (1 + chain noise / outside noise), products counted',
            }}
          />
        )}
      </td>
      <td>{worstProduct ? <Product forecast={forecast} /> : <span className="text-dim">none falls here</span>}</td>
      <td>
        {headroomDb === undefined ? (
          ''
        ) : (
          <Value
            shown={inDb(headroomDb, 0)}
            provenance={{
              origin: 'model',
              formula:
                'full-scale sine − sum of all registered transmitters at the converter, behind an assumed input filter (18 dB per octave outside the tuning range, at most 60 dB)',
              source: 'free-space fields; your own transmitter is left to Guard',
            }}
          />
        )}
      </td>
    </tr>
  );
}

function Product({ forecast }: { readonly forecast: TargetForecast }) {
  const product = forecast.worstProduct;
  if (!product) return null;
  return (
    <>
      {product.transmitters.join(' and ')}, {product.label} at {frequencyText(product.freqHz)}, in the {product.madeIn}:{' '}
      <Value
        shown={inDb(product.levelDbm, 1, 'dBm')}
        provenance={{
          origin: 'model',
          formula: product.order === 2 ? 'P1 + P2 − IIP2' : '2·P1 + P2 − 2·IIP3',
          inputs: product.transmitters.map(
            (name, i) => [name, `${product.tonesDbm[i]?.toFixed(1) ?? '?'} dBm`] as const,
          ),
          source: 'power series to third order; free-space fields',
        }}
      />
      ,{' '}
      <Value
        shown={inDb(product.overNoiseDb, 0, 'dB over the noise')}
        provenance={{
          origin: 'model',
          formula: 'product − noise in the target’s bandwidth at the same place',
          inputs: [['product level', `${product.levelDbm.toFixed(1)} dBm`]],
          source: 'power series to third order; free-space fields',
        }}
      />
      {forecast.products.length > 1 && (
        <details>
          <summary className="text-xs text-plum">{countText(forecast.products.length - 1, 'weaker product')}</summary>
          <ul className="text-xs">
            {forecast.products.slice(1, 9).map((one) => (
              <li key={`${one.label} ${one.transmitters.join()}`}>
                {one.transmitters.join(' and ')}, {one.label}: {one.overNoiseDb.toFixed(0)} dB over the noise (model)
              </li>
            ))}
          </ul>
        </details>
      )}
      {product.overNoiseDb > 0 && <p className="max-w-96 text-xs text-caution">{filterAdvice(product)}</p>}
    </>
  );
}
