import { WiresTogether } from './wires-together';
import type { StationData } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function WiresRoom() {
  return <StationPage>{(data) => <Wires data={data} />}</StationPage>;
}

function Wires({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, design } = bench;
  return (
    <Room
      title="Wires together, Bench"
      verdict={
        <>
          Wires on one feed pull at each other: cutting one moves the dips of the others.{' '}
          <Next>Next: enter the dips as they are, and what each should be.</Next>
        </>
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes />}
    >
      <WiresTogether key={`wires ${antenna?.id}`} design={design} groundId={data.station.groundId} />
    </Room>
  );
}
