import { countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { CoverageMap } from './coverage-map';

export default function CoverageRoom() {
  const stationId = useStationId();
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Coverage, Choose"
          verdict={
            data.antennas.length === 0 ? (
              <>
                No antenna of yours is drafted yet, so there is nothing to cover a band with.{' '}
                <Next>
                  <Link to={`/s/${stationId}/choose/ranking`}>Next: choose one.</Link>
                </Next>
              </>
            ) : (
              <>
                What {countText(data.antennas.length, 'antenna')} of yours reach, band by band, and the gaps in words
                below. <Next>Next: fill the gap that holds something you want.</Next>
              </>
            )
          }
          margin={
            <Note title="What the words mean">
              <p>
                How far a usual station of the band stands over your noise. Well: 10 dB and more. Weak: up to 10 dB. Not
                heard: under the noise.
              </p>
            </Note>
          }
        >
          {data.antennas.length === 0 ? <Empty>Bands and gaps appear here.</Empty> : <CoverageMap data={data} />}
        </Room>
      )}
    </StationPage>
  );
}
