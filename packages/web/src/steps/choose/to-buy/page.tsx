import { capital, countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { ProvenWorth } from '../proven-worth';
import { GainsChart } from './gains-chart';
import { BoughtAntennas } from './bought-antennas';

export default function ToBuyRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="To buy, Choose"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <ProvenWorth data={data} />
              <Note title="By its data sheet">
                <p>
                  Gain at a few frequencies is enough. Of an amplified one its intercepts decide whether it overloads
                  near a transmitter.
                </p>
              </Note>
            </>
          }
        >
          {data.boughtAntennas.length > 0 && <GainsChart antennas={data.boughtAntennas} />}
          <BoughtAntennas data={data} />
        </Room>
      )}
    </StationPage>
  );
}

function Verdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  return data.boughtAntennas.length === 0 ? (
    <>
      No antenna to buy is entered. <Next>Next: enter one by its data sheet, below; it joins the ranking.</Next>
    </>
  ) : (
    <>
      {capital(countText(data.boughtAntennas.length, 'antenna'))} to buy: judged like those you could build.{' '}
      <Next>
        <Link to={`/s/${stationId}/choose/ranking`}>Next: see in Ranking where it stands.</Link>
      </Next>
    </>
  );
}
