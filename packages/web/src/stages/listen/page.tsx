import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { useStationId, type StationData } from '../../data/station';
import { Next, Stage } from '../../ui/stage';
import { StationPage } from '../../ui/station-page';
import { Accessories } from './accessories';
import { BlockCounts } from './block-counts';
import { Distances } from './distances';
import { Neighbours } from './neighbours';
import { OutsideNoise } from './outside-noise';
import { PlaceNotes } from './place-notes';
import { Receivers } from './receivers';
import { Survey } from './survey';
import { Timetable } from './timetable';
import { Wishes } from './wishes';
import { WorldMap } from './world-map';

export default function ListenPage() {
  return <StationPage>{(data) => <Listen data={data} />}</StationPage>;
}

function Listen({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { station, targets, transmitters } = data;
  return (
    <Stage
      title="Listen"
      verdict={
        targets.length === 0 ? (
          <>
            {station.name} lies in ITU Region {ituRegionOf(station)}.{' '}
            <Next>Next: say what you want to hear, below.</Next>
          </>
        ) : (
          <>
            You want to hear {countText(targets.length, 'service')} from {station.name}, past{' '}
            {countText(transmitters.filter((transmitter) => !transmitter.own).length, 'transmitter')} nearby.{' '}
            <Next>
              {data.receivers.length === 0 ? (
                'Next: say which receiver you have, below; without one nothing can be judged.'
              ) : (
                <>
                  Next: <Link to={`/s/${stationId}/choose`}>see which antenna serves them here.</Link>
                </>
              )}
            </Next>
          </>
        )
      }
      margin={<PlaceNotes data={data} />}
    >
      <Wishes data={data} />
      <Timetable data={data} />
      <Neighbours data={data} />
      <OutsideNoise data={data} />
      <Receivers data={data} />
      <Accessories data={data} />
      <Survey data={data} />
      <Distances data={data} />
      <BlockCounts />
      <WorldMap data={data} />
    </Stage>
  );
}
