import { Room } from '../../../ui/room';
import { Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { ListenVerdict } from '../listen-verdict';
import { Targets } from './targets';

export default function WantedRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Wanted, Listen"
          verdict={<ListenVerdict data={data} />}
          margin={
            <>
              <Note title="Weight">
                <p>The heavier a target weighs, the more it decides in Choose, Path and the report.</p>
              </Note>
              <Note title="Arrival angle">
                <p>
                  From distance and layer height where a place is given; else what is usual for the band. Type your own
                  where you know it.
                </p>
              </Note>
            </>
          }
        >
          <Targets data={data} />
        </Room>
      )}
    </StationPage>
  );
}
