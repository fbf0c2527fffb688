import {
  antennaKind,
  CAUTIONS,
  findResonances,
  frequencyText,
  nextCut,
  showFrequency,
  showLength,
  unphysicalPoints,
  type NextCut,
} from '@velvet-reed/core';
import { lazy, Suspense } from 'react';
import { Link, useSearchParams } from 'react-router';
import { bandsOf, designOf, latestRevision } from '../../data/derive';
import { useSamples, useStationId, useWrite, type StationData } from '../../data/station';
import { AntennaPicker } from '../../ui/antenna-picker';
import { Button } from '../../ui/button';
import { DeleteButton } from '../../ui/record-row';
import { Next, Note, Section, Stage, Wide } from '../../ui/stage';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { Value } from '../../ui/value';
import { BeforeAfter } from './before-after';
import { BandTable } from './band-table';
import { Claims } from './claims';
import { CoilByNoise } from './coil-by-noise';
import { SweepIntake } from './intake';
import { cutProvenance, dipProvenance, type LoadedSweep } from './loaded-sweep';
import { SweepPlanner } from './sweep-planner';
import { TrimDiary } from './trim-diary';
import { WiresTogether } from './wires-together';

const SweepChart = lazy(() => import('./sweep-chart'));

export default function BenchPage() {
  return <StationPage>{(data) => <Bench data={data} />}</StationPage>;
}

function Bench({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const antenna =
    data.antennas.find((one) => one.id === Number(params.get('antenna'))) ??
    data.antennas.find((one) => data.sweeps.some((sweep) => sweep.antennaId === one.id)) ??
    data.antennas.at(-1);
  const headers = data.sweeps.filter((sweep) => sweep.antennaId === (antenna?.id ?? null));
  const samples = useSamples(headers);
  const loaded = headers.flatMap((header, look): LoadedSweep[] => {
    const sweep = samples.data?.get(header.id);
    return sweep ? [{ header, sweep, dips: findResonances(sweep), look }] : [];
  });
  const shown = loaded.filter(({ header }) => header.shown);
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const steps = data.trimSteps.filter((step) => step.antennaId === antenna?.id);
  const cut = design && steps.length > 0 ? nextCut(steps, design.freqHz) : undefined;
  const latest = shown.at(-1);
  const trimName = design ? antennaKind(design.kind).draft(design).trimName : 'the element';
  return (
    <Stage
      title="Bench"
      verdict={<Verdict latest={latest} cut={cut} targetHz={design?.freqHz} trimName={trimName} />}
      margin={
        <>
          {latest && <TrustNote latest={latest} />}
          <Note title="Low SWR is not proof">
            <p>
              A long lossy line makes any antenna look good at the shack. Judge at the feed, or take the line off by
              calculation first.
            </p>
          </Note>
          <Note title="Before you climb">
            <p>{CAUTIONS.height}</p>
            <p className="mt-1">{CAUTIONS.transmitter}</p>
          </Note>
        </>
      }
    >
      <div className="mb-4 flex flex-wrap items-end gap-4">
        {data.antennas.length > 0 ? (
          <AntennaPicker data={data} value={antenna?.id} onPick={(id) => setParams({ antenna: String(id) })} />
        ) : (
          <Link className="text-plum underline" to={`/s/${stationId}/choose`}>
            Choose an antenna first, so that sweeps belong to one.
          </Link>
        )}
      </div>
      <SweepIntake antennaId={antenna?.id} />
      {samples.error ? <Trouble error={samples.error} retry={() => void samples.mutate()} /> : null}
      {headers.length === 0 ? (
        <Empty>
          No sweep of this antenna yet. Export one from your analyser as a one-port Touchstone (.s1p) or CSV file and
          import it above.
        </Empty>
      ) : (
        <>
          {shown.length > 0 ? (
            <Suspense fallback={<Waiting what="the chart" />}>
              <SweepChart key={antenna?.id} shown={shown} bands={bandsOf(data)} targetHz={design?.freqHz} />
            </Suspense>
          ) : (
            <Waiting what="the sweep" />
          )}
          <SweepList loaded={loaded} />
          {latest && <BandTable loaded={latest} bands={bandsOf(data)} />}
        </>
      )}
      {antenna && design && (
        <TrimDiary
          key={`${antenna.id} ${steps.length}`}
          antenna={antenna}
          steps={steps}
          targetHz={design.freqHz}
          trimName={trimName}
          measuredHz={latest?.dips[0]?.freqHz}
          startLengthM={antennaKind(design.kind).draft(design).pieces[0].cutM}
        />
      )}
      {antenna && <BeforeAfter key={antenna.id} loaded={loaded} antennaName={antenna.name} />}
      <details>
        <summary className="mb-3 text-plum">
          More tools: plan a sweep, check figures, several wires, coils by noise
        </summary>
        <SweepPlanner data={data} />
        <Claims />
        <WiresTogether />
        <CoilByNoise />
      </details>
    </Stage>
  );
}

function Verdict({
  latest,
  cut,
  targetHz,
  trimName,
}: {
  readonly latest?: LoadedSweep;
  readonly cut?: NextCut;
  readonly targetHz?: number;
  readonly trimName: string;
}) {
  if (!latest)
    return (
      <>
        Nothing measured yet. <Next>Next: import a sweep of the antenna.</Next>
      </>
    );
  const dip = latest.dips[0];
  if (!dip)
    return (
      <>
        There is no dip inside this sweep.{' '}
        <Next>Next: sweep a wider span; if it stays flat, look for an open or shorted feed.</Next>
      </>
    );
  const off = targetHz === undefined ? undefined : targetHz - dip.freqHz;
  const close = off !== undefined && targetHz !== undefined && Math.abs(off) < targetHz * 0.0005;
  return (
    <>
      The dip sits at <Value strong shown={showFrequency(dip.freqHz, 4)} provenance={dipProvenance(latest)} />
      {off === undefined ? (
        '.'
      ) : close ? (
        ', on target.'
      ) : (
        <>
          ,{' '}
          <Value
            strong
            shown={showFrequency(Math.abs(off), 3)}
            provenance={{
              origin: 'measured',
              formula: 'target − measured dip',
              inputs: [['target', frequencyText(targetHz ?? 0)]],
              source: 'your sweep and the draft',
            }}
          />{' '}
          too {off > 0 ? 'low' : 'high'}.
        </>
      )}{' '}
      <Next>
        {cut?.state === 'cut' ? (
          <>
            Next: cut <Value strong shown={showLength(cut.cutM, 2)} provenance={cutProvenance(cut)} /> off {trimName},
            then sweep again.
          </>
        ) : cut?.state === 'done' ? (
          'Next: seal the feed and compare it on the air.'
        ) : cut?.state === 'too short' ? (
          'It is already too short for its target: do not cut. Lengthen it by a new piece, or accept the band.'
        ) : cut?.state === 'getting worse' ? (
          'The last cut moved it the wrong way: stop, look for another wire or a loose joint.'
        ) : (
          'Next: enter the present length below; the first cut follows from it.'
        )}
      </Next>
    </>
  );
}

function TrustNote({ latest }: { readonly latest: LoadedSweep }) {
  const bad = unphysicalPoints(latest.sweep);
  const stepHz = (latest.header.stopHz - latest.header.startHz) / Math.max(1, latest.header.points - 1);
  return (
    <Note title="Can you trust this sweep?">
      <p>
        {latest.header.points} points, {frequencyText(stepHz, 3)} apart, against {latest.header.referenceOhm} Ω.
      </p>
      {bad > 0 && <p className="mt-1 text-caution">{bad} points reflect more than they receive: calibrate again.</p>}
      {!latest.header.phaseKnown && <p className="mt-1 text-caution">Only SWR was in the file: R and X are unknown.</p>}
    </Note>
  );
}

function SweepList({ loaded }: { readonly loaded: readonly LoadedSweep[] }) {
  const { trySave } = useWrite();
  return (
    <Section title="Sweeps of this antenna">
      <Wide label="Sweeps and their resonances">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Sweep</th>
              <th scope="col">Dip</th>
              <th scope="col">SWR there</th>
              <th scope="col">Z there</th>
              <th scope="col">Width, SWR under 2</th>
              <th scope="col">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {loaded.map((one) => (
              <SweepRow
                key={one.header.id}
                one={one}
                onShow={(shown) =>
                  void trySave([
                    {
                      op: 'update',
                      resource: 'sweeps',
                      id: one.header.id,
                      version: one.header.version,
                      values: { shown },
                    },
                  ])
                }
              />
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}

function SweepRow({ one, onShow }: { readonly one: LoadedSweep; readonly onShow: (shown: boolean) => void }) {
  const dip = one.dips[0];
  const { header } = one;
  const width =
    dip?.lowEdgeHz !== undefined && dip.highEdgeHz !== undefined ? dip.highEdgeHz - dip.lowEdgeHz : undefined;
  const provenance = dipProvenance(one);
  return (
    <tr>
      <th scope="row" className="text-ink">
        {header.name}
      </th>
      <td>{dip ? <Value shown={showFrequency(dip.freqHz, 4)} provenance={provenance} /> : 'none inside'}</td>
      <td>
        {dip?.swr ? (
          <Value
            shown={{ digits: dip.swr.toFixed(2), unit: '' }}
            provenance={{ ...provenance, formula: '(1 + |Γ|) / (1 − |Γ|) at the dip' }}
          />
        ) : (
          ''
        )}
      </td>
      <td className="font-mono whitespace-nowrap">
        {header.phaseKnown && dip?.impedance
          ? `${dip.impedance.re.toFixed(0)} ${dip.impedance.im < 0 ? '−' : '+'} j${Math.abs(dip.impedance.im).toFixed(0)} Ω`
          : ''}
      </td>
      <td>
        {width === undefined ? (
          <span className="text-dim">{dip ? 'beyond the sweep' : ''}</span>
        ) : (
          <Value
            shown={showFrequency(width, 3)}
            provenance={{ ...provenance, formula: 'between the two crossings of SWR 2, interpolated in Γ' }}
          />
        )}
      </td>
      <td className="whitespace-nowrap">
        <Button
          look="quiet"
          aria-pressed={header.shown}
          onClick={() => onShow(!header.shown)}
          aria-label={`${header.shown ? 'Hide' : 'Show'} ${header.name}`}
        >
          {header.shown ? 'Hide' : 'Show'}
        </Button>
        <DeleteButton resource="sweeps" record={header} name={header.name} />
      </td>
    </tr>
  );
}
