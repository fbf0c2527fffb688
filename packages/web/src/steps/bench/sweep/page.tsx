import type { SweepData } from '@velvet-reed/core/formats';
import type { FeedLine } from '@velvet-reed/core/sweep';
import { trimmedWires } from '@velvet-reed/core/antenna';
import { lengthText } from '@velvet-reed/core/units';
import { lazy, Suspense, useCallback, useRef, useState } from 'react';
import { bandsOf } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { judgedBench } from '@velvet-reed/station/verdicts';
import { Disclosure } from '../../../ui/disclosure';
import { Room } from '../../../ui/room';
import { Empty, Trouble, Waiting } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';
import { useCurves, type Unsaved } from '../curves';
import { saidBench } from '@velvet-reed/station/bench/said';
import { SaidVerdict } from '../../../ui/said';
import { BandTable } from './band-table';
import { HowGood } from './how-good';
import { ImportButton, SweepIntake } from './intake';
import { Measure } from './measure';
import { SweepList } from './sweep-list';
import { Unowned } from './unowned-sweeps';

const SweepChart = lazy(() => import('../sweep-chart'));

export default function SweepRoom() {
  return <StationPage>{(data) => <Sweep data={data} />}</StationPage>;
}

function Sweep({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, headers, samples, loaded, line, design, draft } = bench;
  const [plane, setPlane] = useState<'analyser' | 'antenna'>('analyser');
  const [live, setLive] = useState<Unsaved>();
  const [held, setHeld] = useState<SweepData>();
  const onLive = useCallback((nowLive: Unsaved | undefined, nowHeld: SweepData | undefined) => {
    setLive(nowLive);
    setHeld(nowHeld);
  }, []);
  const { shown, doubts, curves, placed } = useCurves({ loaded, plane, line, live, held });
  const latest = shown.at(-1);
  const cutFor = design ? (trimmedWires(design)?.bandsHz ?? [design.freqHz]) : [];
  const intake = useRef<HTMLInputElement>(null);
  const { verdict, cut, trimName } = judgedBench(data, antenna, latest?.dips, undefined, latest?.header);
  return (
    <Room
      title="Sweep, Bench"
      verdict={
        <SaidVerdict said={saidBench({ verdict, sweep: latest?.header, cut, targetHz: design?.freqHz, trimName })} />
      }
      picker={
        <>
          <BenchPicker bench={bench} />
          <ImportButton intake={intake} />
        </>
      }
      margin={<BenchNotes latest={latest} />}
    >
      {samples.error ? <Trouble error={samples.error} retry={() => void samples.mutate()} /> : null}
      {curves.length > 0 ? (
        <Suspense fallback={<Waiting what="the chart" />}>
          <SweepChart key={antenna?.id} shown={curves} bands={bandsOf(data)} targetHz={design?.freqHz} />
        </Suspense>
      ) : headers.length > 0 ? (
        <Waiting what="the sweep" />
      ) : (
        <Empty>
          No sweep of this antenna yet. Export one from your analyser as a one-port Touchstone (.s1p) or CSV file and
          import it above, or measure it here.
        </Empty>
      )}
      {curves.length > 0 && <ReferencePlane plane={plane} line={line} doubts={doubts} onPlane={setPlane} />}
      <SweepIntake antennaId={antenna?.id} chooser={intake} />
      {antenna && <Unowned data={data} antenna={antenna} />}
      <div className="mb-5">
        <Disclosure label="Measure with an analyser">
          {() => <Measure data={data} antenna={antenna} design={design} onLive={onLive} />}
        </Disclosure>
      </div>
      {headers.length > 0 && <SweepList data={data} headers={headers} loaded={placed} targetHz={design?.freqHz} />}
      {latest && <BandTable loaded={latest} bands={bandsOf(data)} cutForHz={cutFor} wanted={data.targets} />}
      {draft && design && <HowGood data={data} freqHz={design.freqHz} />}
    </Room>
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
