import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../data/station';
import { Next } from '../../ui/section';

/** What is wanted, past how many transmitters, and what comes next. */
export function ListenVerdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { station, targets, transmitters, receivers } = data;
  const nearby = transmitters.filter(({ own }) => !own).length;
  if (targets.length === 0)
    return (
      <>
        {station.name} lies in ITU Region {ituRegionOf(station)}. <Next>Next: say what you want to hear, below.</Next>
      </>
    );
  return (
    <>
      You want to hear {countText(targets.length, 'target')} from {station.name};{' '}
      {nearby === 0 ? 'no transmitter nearby is entered' : `${countText(nearby, 'transmitter')} nearby may disturb`}.{' '}
      <Next>
        {receivers.length === 0 ? (
          <Link to={`/s/${stationId}/choose/ranking`}>
            Next: say which receiver you have; the ranking of antennas follows at once.
          </Link>
        ) : (
          <Link to={`/s/${stationId}/choose/ranking`}>Next: see which antenna serves them here.</Link>
        )}
      </Next>
    </>
  );
}
