import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes } from '../bench-room';
import { Bridge } from './bridge';
import { Claims } from './claims';
import { Readings } from './readings';
import { SweepPlanner } from './sweep-planner';

export default function InstrumentsRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Instruments, Bench"
          verdict={
            <>
              How many points a band gets, how long a sweep takes, and whether figures that belong together agree.{' '}
              <Next>Next: plan the sweep, then measure it in Sweep.</Next>
            </>
          }
          margin={<BenchNotes />}
        >
          <SweepPlanner data={data} />
          <Readings />
          <Claims />
          <Bridge />
        </Room>
      )}
    </StationPage>
  );
}
