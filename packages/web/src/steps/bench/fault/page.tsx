import { lengthText } from '@velvet-reed/core/units';
import { Distance } from './distance';
import { distancesOf } from './distances';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function FaultRoom() {
  return <StationPage>{(data) => <Fault data={data} />}</StationPage>;
}

function Fault({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { loaded, line } = bench;
  const { plot } = distancesOf(loaded.at(-1), line);
  const strongest = plot && 2 * plot.resolutionM <= line.lengthM ? plot.echoes.at(0) : undefined;
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
            {strongest
              ? `The strongest reflection is ${lengthText(strongest.distanceM, 3)} away, on ${lengthText(line.lengthM, 3)} of line.`
              : 'This sweep is too narrow, or too clean, to find a place along the line.'}{' '}
            <Next>
              {strongest
                ? 'Next: look there, unless it is the antenna itself.'
                : 'Next: sweep wider, from the shack end.'}
            </Next>
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
