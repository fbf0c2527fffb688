import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Spurs } from './spurs';

export default function SpursRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Spurs and pad, Noise"
          verdict={
            <>
              A signal that should not be there is made by strong ones, in the receiver or ahead of it; a pad tells
              where. <Next>Next: put a pad in, and read both levels.</Next>
            </>
          }
          margin={
            <>
              <Note title="Why a pad tells">
                <p>
                  A true signal falls by the pad. A product of the third order made behind it falls by three times as
                  much.
                </p>
              </Note>
            </>
          }
        >
          <Spurs data={data} />
        </Room>
      )}
    </StationPage>
  );
}
