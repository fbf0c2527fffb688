import { lazy, Suspense } from 'react';
import { bandsOf } from '@velvet-reed/station/derive';
import { Waiting } from '../../../ui/states';
import { AsBuiltPanel } from './as-built';

const SweepChart = lazy(() => import('../sweep-chart'));

import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function AsBuiltRoom() {
  return <StationPage>{(data) => <AsBuilt data={data} />}</StationPage>;
}

function AsBuilt({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, design, loaded, line } = bench;
  return (
    <Room
      title="As built, Bench"
      verdict={
        antenna && design && loaded.length > 0 ? (
          <>
            Which dimensions and ground make the model of {antenna.name} agree with its sweep.{' '}
            <Next>Next: let the fit run, below; what it finds can be saved as a revision.</Next>
          </>
        ) : (
          <>
            A sweep of a drafted antenna is needed: then the model is fitted to it.{' '}
            <Next>Next: import one in Sweep.</Next>
          </>
        )
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes latest={loaded.at(-1)} />}
    >
      {loaded.length > 0 && (
        <Suspense fallback={<Waiting what="the chart" />}>
          <SweepChart key={antenna?.id} shown={loaded.slice(-1)} bands={bandsOf(data)} targetHz={design?.freqHz} />
        </Suspense>
      )}
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
    </Room>
  );
}
