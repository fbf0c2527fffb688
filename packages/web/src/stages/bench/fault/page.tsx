import { lengthText } from '@velvet-reed/core/units';
import { Distance } from './distance';
import type { StationData } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/stage';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker, useBench } from '../bench-room';

export default function FaultRoom() {
  return <StationPage>{(data) => <Fault data={data} />}</StationPage>;
}

function Fault({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { loaded, line } = bench;
  return (
    <Room
      title="Fault distance, Bench"
      verdict={
        loaded.length === 0 ? (
          <>
            A fault along the line is found from one wide sweep with its phase.{' '}
            <Next>Next: sweep the line from its shack end in Sweep, as wide as the analyser goes.</Next>
          </>
        ) : (
          <>
            Where along {lengthText(line.lengthM)} of line something reflects, from a sweep at its near end.{' '}
            <Next>Next: take the highest peak that is no connector.</Next>
          </>
        )
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes latest={loaded.at(-1)} />}
    >
      <Distance loaded={loaded} line={line} />
    </Room>
  );
}
