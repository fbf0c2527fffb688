import { SCHEMAS } from '@velvet-reed/contract';
import {
  choiceVerdict,
  countText,
  expectedNoise,
  frequencyText,
  lengthText,
  midSentence,
  overallLossDb,
  rankCandidates,
  showLength,
  type Candidate,
  type ForecastTarget,
  type TargetForecast,
} from '@velvet-reed/core';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { forecastPlace } from '../../data/derive';
import { useFocus } from '../../data/focus';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Next, Note, Section, Stage, Wide } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { inDb, Value, type Provenance } from '../../ui/value';

export default function ChoosePage() {
  return <StationPage>{(data) => <Choose data={data} />}</StationPage>;
}

/** The wish that the focus band lies on, if there is one. */
function useAsked(data: StationData) {
  const { band } = useFocus();
  const [asked, setAsked] = useState<number | 'all'>();
  const middle = Math.sqrt(band.lowHz * band.highHz);
  const inFocus = data.targets.find((target) => middle >= target.lowHz && middle <= target.highHz);
  return { asked: asked ?? inFocus?.id ?? 'all', setAsked };
}

function Choose({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { asked, setAsked } = useAsked(data);
  const wanted = useMemo(
    (): readonly ForecastTarget[] =>
      data.targets
        .filter((target) => asked === 'all' || target.id === asked)
        .map((target) => ({ ...target, id: String(target.id) })),
    [data.targets, asked],
  );
  const ranked = useMemo(() => rankCandidates(wanted, data.station, forecastPlace(data)), [wanted, data]);
  if (data.targets.length === 0)
    return (
      <Stage
        title="Choose"
        verdict={
          <>
            Nothing is wanted yet, so no antenna can be better than another.{' '}
            <Next>
              <Link to={`/s/${stationId}/listen`}>Next: say what you want to hear.</Link>
            </Next>
          </>
        }
      >
        <Empty>The ranking appears here as soon as there is a wish and a receiver.</Empty>
      </Stage>
    );
  return (
    <Stage
      title="Choose"
      verdict={<Verdict ranked={ranked} wanted={wanted} />}
      margin={<Margin data={data} ranked={ranked} wanted={wanted} />}
    >
      <label className="mb-5 block text-sm text-dim">
        Ranked for
        <select
          className="ml-2 text-ink"
          value={asked}
          onChange={(event) => setAsked(event.target.value === 'all' ? 'all' : Number(event.target.value))}
        >
          <option value="all">everything wanted, by weight</option>
          {data.targets.map((target) => (
            <option key={target.id} value={target.id}>
              {target.name}
            </option>
          ))}
        </select>
      </label>
      <Ranking data={data} ranked={ranked} single={wanted.length === 1} />
    </Stage>
  );
}

const lossProvenance = (forecasts: readonly TargetForecast[]): Provenance => ({
  origin: 'model',
  formula:
    'SNR loss = 10 log (1 + own noise / outside noise), products counted as noise; mean over the wishes by weight, 30 dB where unheard or outside the formulas',
  inputs: forecasts.map(
    ({ target, snrLossDb }) =>
      [target.name, snrLossDb === undefined ? 'not computed' : `${snrLossDb.toFixed(1)} dB`] as const,
  ),
  source: 'ITU-R P.372 medians, induced-EMF impedance, Friis',
});

const marginProvenance = (forecast: TargetForecast): Provenance => ({
  origin: 'model',
  formula: 'outside noise through the antenna ÷ noise that antenna, line and receiver add',
  inputs: [
    ['outside noise Fa', `${forecast.externalFaDb.toFixed(0)} dB over kT₀`],
    ['gain as fed', `${forecast.reception.realisedGainDbi.toFixed(1)} dBi`],
    ['receiver', forecast.receiver?.name ?? 'none'],
    ['formulas', { holds: 'hold here', rough: 'rough here', outside: 'do not hold here' }[forecast.reception.validity]],
  ],
  source: 'ITU-R P.372 (median, ±10 dB); induced-EMF impedance (Balanis ch. 8); Friis 1944',
});

function Verdict({
  ranked,
  wanted,
}: {
  readonly ranked: readonly Candidate[];
  readonly wanted: readonly ForecastTarget[];
}) {
  const { best } = choiceVerdict(ranked);
  if (!best)
    return (
      <>
        Nothing of the four kinds both fits here and hears this.{' '}
        <Next>Next: look at the reasons below; a longer run or a receiver for that band may change it.</Next>
      </>
    );
  const piece = best.kind.draft(best.design).pieces[0];
  const only = best.forecasts.length === 1 ? best.forecasts[0] : undefined;
  const length = showLength(piece.cutM);
  return (
    <>
      The{' '}
      <span className="underline decoration-reed decoration-3 underline-offset-4">{midSentence(best.kind.name)}</span>{' '}
      {only?.marginDb !== undefined ? (
        <>
          hears {only.target.name} best here: outside noise arrives{' '}
          <Value strong shown={inDb(Math.abs(only.marginDb), 0)} provenance={marginProvenance(only)} />{' '}
          {only.marginDb >= 0 ? 'above' : 'below'} what the receiver adds.
        </>
      ) : (
        <>
          serves {countText(wanted.length, 'target')} best here: it loses{' '}
          <Value strong shown={inDb(best.lossDb, 0)} provenance={lossProvenance(best.forecasts)} /> of SNR on the
          weighted average.
        </>
      )}{' '}
      <Next>
        Next: draft {countText(piece.count, piece.name)} of{' '}
        <Value
          strong
          shown={length}
          provenance={{
            origin: 'model',
            formula: `finished ${lengthText(piece.finishedM)} plus trim allowance`,
            inputs: [['cut for', frequencyText(best.design.freqHz)]],
            source: 'see Draft for the formula of each dimension',
          }}
        />
        .
      </Next>
    </>
  );
}

/** Bars run from −20 to +40 dB. */
const BAR_LOW = -20;
const BAR_HIGH = 40;
const barX = (db: number): number =>
  (100 * (Math.min(BAR_HIGH, Math.max(BAR_LOW, db)) - BAR_LOW)) / (BAR_HIGH - BAR_LOW);

function Ranking({
  data,
  ranked,
  single,
}: {
  readonly data: StationData;
  readonly ranked: readonly Candidate[];
  readonly single: boolean;
}) {
  return (
    <Section
      title="What fits, least lost first"
      hint={
        single
          ? 'bar: outside noise above what the receiver adds, −20 to +40 dB'
          : 'weighted SNR loss; open a row for each wish'
      }
    >
      <ol className="border-t border-rule">
        {ranked.map((candidate) => (
          <Row key={candidate.kind.id} data={data} candidate={candidate} />
        ))}
      </ol>
    </Section>
  );
}

function Row({ data, candidate }: { readonly data: StationData; readonly candidate: Candidate }) {
  const stationId = useStationId();
  const navigate = useNavigate();
  const { trySave } = useWrite();
  const { kind, design, fit, forecasts, reason } = candidate;
  const spoilt = forecasts.some((forecast) => (forecast.worstProduct?.overNoiseDb ?? -99) > 0);
  const only = forecasts.length === 1 ? forecasts[0] : undefined;
  const pick = async (): Promise<void> => {
    const name = `${kind.name} for ${frequencyText(design.freqHz, 3)}`;
    const target = data.targets.find((one) => design.freqHz >= one.lowHz && design.freqHz <= one.highHz);
    const made = await trySave(
      [
        { op: 'create', resource: 'antennas', as: 'antenna', values: { name, targetId: target?.id ?? null } },
        {
          op: 'create',
          resource: 'revisions',
          values: {
            ...SCHEMAS.revisions.cast({ ...design, antennaId: 1, number: 1, gates: [], done: [] }),
            antennaId: { new: 'antenna' },
          },
        },
        entry('choose', `Chose ${name}. ${reason}`),
      ],
      `${name} is on the Draft.`,
    );
    if (made) await navigate(`/s/${stationId}/draft?antenna=${made[0]}`);
  };
  return (
    <li className={`border-b border-rule py-3 ${fit.fits ? '' : 'opacity-90'}`}>
      <div className="grid grid-cols-[1fr_auto] items-center gap-x-6 gap-y-1 md:grid-cols-[minmax(15rem,1.1fr)_1fr_auto_auto]">
        <div>
          <h3 className="font-semibold">
            {kind.name}, {frequencyText(design.freqHz, 3)}
          </h3>
          <p className="text-sm text-dim">{fit.reason}</p>
        </div>
        <div className="max-md:order-3 max-md:col-span-2">
          {only ? <Bar marginDb={only.marginDb} /> : <Bar marginDb={undefined} lossDb={overallLossDb(forecasts)} />}
        </div>
        <div className="text-right">
          {only ? (
            only.marginDb === undefined ? (
              <span className="text-sm text-dim">not computed</span>
            ) : (
              <Value strong shown={inDb(only.marginDb, 0)} provenance={marginProvenance(only)} />
            )
          ) : (
            <Value strong shown={inDb(candidate.lossDb, 0, 'dB lost')} provenance={lossProvenance(forecasts)} />
          )}
        </div>
        <Button onClick={() => void pick()} disabled={!fit.fits} aria-label={`Draft the ${kind.name}`}>
          Draft it
        </Button>
      </div>
      <p className={`mt-1 max-w-prose text-sm ${!fit.fits || spoilt ? 'text-caution' : ''}`}>{reason}</p>
      <details className="mt-1">
        <summary className="text-sm text-plum">Each wish, and what could overload</summary>
        <Details candidate={candidate} />
      </details>
    </li>
  );
}

function Bar({ marginDb, lossDb }: { readonly marginDb?: number; readonly lossDb?: number }) {
  const zero = barX(0);
  if (lossDb !== undefined)
    return (
      <svg viewBox="0 0 100 8" className="h-3 w-full" preserveAspectRatio="none" aria-hidden>
        <rect x="0" y="3" width={(100 * lossDb) / 30} height="2.5" fill="var(--caution)" />
        <line x1="0" x2="0.4" y1="0" y2="8" stroke="var(--dim)" />
      </svg>
    );
  if (marginDb === undefined) return null;
  const end = barX(marginDb);
  return (
    <svg viewBox="0 0 100 8" className="h-3 w-full" preserveAspectRatio="none" aria-hidden>
      <rect
        x={Math.min(zero, end)}
        y="2.5"
        width={Math.abs(end - zero)}
        height="3"
        fill={marginDb >= 0 ? 'var(--reed)' : 'var(--caution)'}
      />
      <rect x={zero - 0.2} y="0" width="0.4" height="8" fill="var(--dim)" />
    </svg>
  );
}

function Details({ candidate }: { readonly candidate: Candidate }) {
  return (
    <Wide label={`${candidate.kind.name}, each wish`}>
      <table className="mt-2 w-full max-w-4xl text-sm">
        <thead>
          <tr>
            <th scope="col">Wish</th>
            <th scope="col">Margin</th>
            <th scope="col">SNR lost</th>
            <th scope="col">Strongest product</th>
            <th scope="col">Room to full scale</th>
          </tr>
        </thead>
        <tbody>
          {candidate.forecasts.map((forecast) => (
            <tr key={forecast.target.id}>
              <th scope="row" className="text-ink">
                {forecast.target.name}
                {forecast.remarks.map((remark) => (
                  <p key={remark} className="max-w-72 text-xs text-caution">
                    {remark}
                  </p>
                ))}
              </th>
              <td>
                {forecast.marginDb === undefined ? (
                  'not computed'
                ) : (
                  <Value shown={inDb(forecast.marginDb, 0)} provenance={marginProvenance(forecast)} />
                )}
              </td>
              <td className="font-mono">
                {forecast.snrLossDb === undefined ? '' : `${forecast.snrLossDb.toFixed(1)} dB`}
              </td>
              <td>
                {forecast.worstProduct ? (
                  <Product forecast={forecast} />
                ) : (
                  <span className="text-dim">none falls here</span>
                )}
              </td>
              <td>
                {forecast.headroomDb === undefined ? (
                  ''
                ) : (
                  <Value
                    shown={inDb(forecast.headroomDb, 0)}
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
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

function Product({ forecast }: { readonly forecast: TargetForecast }) {
  const product = forecast.worstProduct;
  if (!product) return null;
  return (
    <>
      {product.emitters.join(' and ')}, {product.label} at {frequencyText(product.freqHz)}, in the {product.madeIn}:{' '}
      <Value
        shown={inDb(product.overNoiseDb, 0, 'dB over the noise')}
        provenance={{
          origin: 'model',
          formula: 'P1 + P2 − IIP2, or 2·P1 + P2 − 2·IIP3, against the noise in the wish’s bandwidth at the same place',
          inputs: [['product level', `${product.levelDbm.toFixed(0)} dBm`]],
          source: 'power series to third order; free-space fields',
        }}
      />
    </>
  );
}

function Margin({
  data,
  ranked,
  wanted,
}: {
  readonly data: StationData;
  readonly ranked: readonly Candidate[];
  readonly wanted: readonly ForecastTarget[];
}) {
  const { best, runnerUp, turnsAtDb } = choiceVerdict(ranked);
  const centre = wanted.length === 1 ? (wanted[0].lowHz + wanted[0].highHz) / 2 : undefined;
  const noise =
    centre === undefined ? undefined : expectedNoise(data.station.environment, centre, data.station.noiseOffsetDb);
  return (
    <>
      <Note title="Why this one">
        <p>{best ? best.reason : 'Nothing fits and hears at once.'}</p>
        {runnerUp && (
          <p className="mt-1">
            Next best: {midSentence(runnerUp.kind.name)}. {runnerUp.reason}
          </p>
        )}
      </Note>
      {turnsAtDb !== undefined && (
        <Note title="What would turn it round">
          <p>
            Outside noise <span className="font-mono">{turnsAtDb.toFixed(0)} dB</span> lower than expected: then the
            receiver would add as much as arrives.
          </p>
        </Note>
      )}
      {noise && (
        <Note title="Noise expected from outside">
          <ul>
            {noise.parts.map((part) => (
              <li key={part.source}>
                {part.source}:{' '}
                <Value
                  shown={inDb(part.faDb, 0, 'dB over kT₀')}
                  provenance={{
                    origin: part.origin,
                    formula:
                      part.source === 'atmospheric'
                        ? 'rough anchors for mid latitudes, the lower of day and night'
                        : 'Fam = c − d · log f(MHz)',
                    source:
                      part.source === 'atmospheric'
                        ? 'order of magnitude only, ±15 dB; not ITU-R P.372'
                        : 'ITU-R P.372, median; deciles about ±10 dB',
                  }}
                />
                {part.remark && <span className="text-sm text-caution"> {part.remark}</span>}
              </li>
            ))}
          </ul>
          {noise.remarks.map((remark) => (
            <p key={remark} className="mt-1 text-sm text-caution">
              {remark}
            </p>
          ))}
        </Note>
      )}
      <Note title="Assumed">
        <p>
          {data.station.environment.replace('_', ' ')} noise class, not yet measured; the antenna&apos;s lobe toward the
          arriving wave is not counted here. What does not fit ranks below whatever does.
        </p>
      </Note>
    </>
  );
}
