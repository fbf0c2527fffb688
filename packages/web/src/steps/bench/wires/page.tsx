import { trimmedWires } from '@velvet-reed/core/antenna';
import { WiresTogether } from './wires-together';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';
import { useKeptFigures } from '../use-kept-figures';

export default function WiresRoom() {
  return <StationPage>{(data) => <Wires data={data} />}</StationPage>;
}

function Wires({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, design } = bench;
  const kept = useKeptFigures(data, antenna, 'wires ');
  return (
    <Room
      title="Wires together, Bench"
      verdict={
        <>
          Wires on one feed pull at each other: cutting one moves the dips of the others.{' '}
          <Next>
            Next: cut a little off each wire and enter what it moved
            {design && trimmedWires(design) ? ', or take that from the model.' : '.'}
          </Next>
        </>
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes />}
    >
      <WiresTogether key={`wires ${antenna?.id}`} design={design} groundId={data.station.groundId} kept={kept} />
    </Room>
  );
}
