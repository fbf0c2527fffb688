import { lazy, Suspense, useState } from 'react';
import { bandsOf } from '@velvet-reed/station/derive';
import { judgedBench } from '@velvet-reed/station/verdicts';
import { Waiting } from '../../../ui/states';
import { saidBench } from '@velvet-reed/station/bench/said';
import { SaidVerdict } from '../../../ui/said';
import { BeforeAfter } from './before-after';

const SweepChart = lazy(() => import('../sweep-chart'));

import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function ChangedRoom() {
  return <StationPage>{(data) => <Changed data={data} />}</StationPage>;
}

function Changed({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, design, loaded } = bench;
  const [fault, setFault] = useState<string>();
  const latest = loaded.at(-1);
  const { verdict, cut, trimName } = judgedBench(data, antenna, latest?.dips, fault, latest?.header);
  return (
    <Room
      title="What changed, Bench"
      verdict={
        loaded.length < 2 ? (
          <>
            Two sweeps of one antenna are needed to say what changed; there {loaded.length === 1 ? 'is one' : 'is none'}
            . <Next>Next: import another in Sweep, from before or after.</Next>
          </>
        ) : (
          <SaidVerdict said={saidBench({ verdict, sweep: latest?.header, cut, targetHz: design?.freqHz, trimName })} />
        )
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes latest={latest} />}
    >
      {latest && (
        <Suspense fallback={<Waiting what="the chart" />}>
          <SweepChart key={antenna?.id} shown={loaded} bands={bandsOf(data)} targetHz={design?.freqHz} />
        </Suspense>
      )}
      {antenna && (
        <BeforeAfter key={`compare ${antenna.id}`} loaded={loaded} antennaName={antenna.name} onFault={setFault} />
      )}
    </Room>
  );
}
