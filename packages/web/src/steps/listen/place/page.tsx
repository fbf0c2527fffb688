import { lengthText } from '@velvet-reed/core/units';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { Link } from 'react-router';
import { roomOf } from '@velvet-reed/station/derive';
import { spotsSaid } from '@velvet-reed/station/spots';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Accessories } from './accessories';
import { Distances } from './distances';
import { PlaceNotes } from './place-notes';
import { Spots } from './spots';
import { WorldMap } from './world-map';

export default function PlaceRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room title="Place, Listen" verdict={<Verdict data={data} />} margin={<PlaceNotes data={data} />}>
          {/* what is asked stands first until it is said */}
          {!spotsSaid(data) && <Spots data={data} />}
          <WorldMap data={data} />
          {spotsSaid(data) && <Spots data={data} />}
          <Distances data={data} />
          <Accessories data={data} />
        </Room>
      )}
    </StationPage>
  );
}

function Verdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const room = roomOf(data);
  return (
    <>
      {data.station.name}, ITU Region {ituRegionOf(data.station)}: room for {lengthText(room.spanM)} of wire on supports
      of {lengthText(room.heightM)} ({room.from}).{' '}
      <Next>
        {!spotsSaid(data) ? (
          'Next: say below where antennas may hang.'
        ) : data.plotFeatures.some(({ kind }) => kind === 'support') ? (
          <Link to={`/s/${stationId}/choose/ranking`}>Next: see in Choose which antenna fits and hears best.</Link>
        ) : (
          <Link to={`/s/${stationId}/plot/plan`}>Next: draw the place in the Plot, so that nothing is guessed.</Link>
        )}
      </Next>
    </>
  );
}
