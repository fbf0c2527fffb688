import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes } from '../bench-room';
import { Practice } from './practice';

export default function PracticeRoom() {
  return (
    <StationPage>
      {() => (
        <Room
          title="Practice, Bench"
          verdict={
            <>
              A stand-in antenna with a hidden fault, to learn the measuring on.{' '}
              <Next>Next: begin an exercise, below.</Next>
            </>
          }
          margin={<BenchNotes />}
        >
          <Practice />
        </Room>
      )}
    </StationPage>
  );
}
