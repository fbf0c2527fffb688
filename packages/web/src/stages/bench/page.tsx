import { CAUTIONS, tryDraft } from '@velvet-reed/core/antenna';
import type { SweepData } from '@velvet-reed/core/formats';
import { dipOf, type FeedLine, unphysicalPoints } from '@velvet-reed/core/sweep';
import { frequencyText, lengthText } from '@velvet-reed/core/units';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { bandsOf, designOf, feedLineOf, latestRevision } from '../../data/derive';
import { useSamples } from '../../data/samples';
import { useStationId, type StationData } from '../../data/station';
import { judgedBench } from '../../data/verdicts';
import { AntennaPicker } from '../../ui/antenna-picker';
import { Disclosure } from '../../ui/disclosure';
import { Note, Stage } from '../../ui/stage';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { AsBuiltPanel } from './as-built';
import { BeforeAfter } from './before-after';
import { BandTable } from './band-table';
import { useCurves, useLoaded, type Unsaved } from './curves';
import { Claims } from './claims';
import { CoilByNoise } from './coil-by-noise';
import { Distance } from './distance';
import { SweepIntake } from './intake';
import type { StoredSweep } from './loaded-sweep';
import { Measure } from './measure';
import { Practice } from './practice';
import { Readings } from './readings';
import { SweepList } from './sweep-list';
import { SweepPlanner } from './sweep-planner';
import { TrimDiary } from './trim-diary';
import { WiresTogether } from './wires-together';
import { Verdict } from './verdict';
import { Unowned } from './unowned-sweeps';

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
  const samples = useSamples(headers.filter(({ shown: seen }) => seen));
  const loaded = useLoaded(headers, samples.data);
  const [plane, setPlane] = useState<'analyser' | 'antenna'>('analyser');
  const [live, setLive] = useState<Unsaved>();
  const [held, setHeld] = useState<SweepData>();
  const line = useMemo(() => feedLineOf(data.station), [data.station]);
  const onLive = useCallback((nowLive: Unsaved | undefined, nowHeld: SweepData | undefined) => {
    setLive(nowLive);
    setHeld(nowHeld);
  }, []);
  const { shown, doubts, curves, placed } = useCurves({ loaded, plane, line, live, held });
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const { draft } = design ? tryDraft(design) : {};
  const latest = shown.at(-1);
  const [fault, setFault] = useState<string>();
  const { verdict, steps, cut, trimName } = judgedBench(data, antenna, latest?.dips, fault);
  return (
    <Stage
      title="Bench"
      verdict={<Verdict verdict={verdict} latest={latest} cut={cut} targetHz={design?.freqHz} trimName={trimName} />}
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
        {antenna && (
          <Link className="py-2 text-plum underline" to={`/s/${stationId}/mast?antenna=${antenna.id}`}>
            At the mast: the next cut in large type
          </Link>
        )}
      </div>
      <SweepIntake antennaId={antenna?.id} />
      {antenna && <Unowned data={data} antenna={antenna} />}
      {samples.error ? <Trouble error={samples.error} retry={() => void samples.mutate()} /> : null}
      <div className="mb-5">
        <Disclosure label="Measure with an analyser">
          {() => <Measure data={data} antenna={antenna} design={design} onLive={onLive} />}
        </Disclosure>
      </div>
      {headers.length === 0 && curves.length === 0 ? (
        <Empty>
          No sweep of this antenna yet. Export one from your analyser as a one-port Touchstone (.s1p) or CSV file and
          import it above, or measure it here.
        </Empty>
      ) : (
        <>
          <ReferencePlane plane={plane} line={line} doubts={doubts} onPlane={setPlane} />
          {curves.length > 0 ? (
            <Suspense fallback={<Waiting what="the chart" />}>
              <SweepChart key={antenna?.id} shown={curves} bands={bandsOf(data)} targetHz={design?.freqHz} />
            </Suspense>
          ) : (
            <Waiting what="the sweep" />
          )}
          <SweepList data={data} headers={headers} loaded={placed} targetHz={design?.freqHz} />
          {latest && <BandTable loaded={latest} bands={bandsOf(data)} />}
        </>
      )}
      {antenna && design && draft && (
        <TrimDiary
          key={`diary ${antenna.id}`}
          antenna={antenna}
          steps={steps}
          targetHz={design.freqHz}
          trimName={trimName}
          measuredHz={latest && dipOf(latest.dips, design.freqHz)?.freqHz}
          startLengthM={draft.pieces[0].cutM}
        />
      )}
      {antenna && (
        <BeforeAfter key={`compare ${antenna.id}`} loaded={loaded} antennaName={antenna.name} onFault={setFault} />
      )}
      <details>
        <summary className="mb-3 text-plum">
          More tools: distance to a fault, as built, plan a sweep, check figures, several wires, coils by noise,
          instruments, practice
        </summary>
        <Distance loaded={loaded} line={line} />
        {antenna && design && (
          <AsBuiltPanel
            key={`built ${antenna.id}`}
            loaded={loaded}
            design={design}
            groundId={data.station.groundId}
            line={line}
            antennaName={antenna.name}
          />
        )}
        <SweepPlanner data={data} />
        <Claims />
        <WiresTogether key={`wires ${antenna?.id}`} design={design} groundId={data.station.groundId} />
        <CoilByNoise key={`coil ${antenna?.id}`} data={data} antenna={antenna} />
        <Readings />
        <Practice />
      </details>
    </Stage>
  );
}

/** Where the readings count: at the analyser, or at the antenna with the line taken off. */
function ReferencePlane({
  plane,
  line,
  doubts,
  onPlane,
}: {
  readonly plane: 'analyser' | 'antenna';
  readonly line: FeedLine;
  readonly doubts: readonly string[];
  readonly onPlane: (plane: 'analyser' | 'antenna') => void;
}) {
  return (
    <div className="mb-3 text-sm">
      <label className="text-dim">
        Readings hold at
        <select
          className="ml-2 text-ink"
          value={plane}
          onChange={(event) => onPlane(event.target.value === 'antenna' ? 'antenna' : 'analyser')}
        >
          <option value="analyser">the analyser, as measured</option>
          <option value="antenna">the antenna, {lengthText(line.lengthM, 3)} of line taken off (model)</option>
        </select>
      </label>
      {doubts.map((doubt) => (
        <p key={doubt} className="mt-1 text-caution">
          {doubt}
        </p>
      ))}
    </div>
  );
}

function TrustNote({ latest }: { readonly latest: StoredSweep }) {
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
