import { capital, countText } from '@velvet-reed/core/units';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom } from '../path-room';
import { GainsOfParts } from './gains-of-parts';
import { Shelf } from './shelf';

export default function ShelfRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Shelf, Path"
          verdict={() =>
            data.parts.length === 0 ? (
              <>
                The shelf is empty.{' '}
                <Next>Next: enter an amplifier or filter that you have, or take its .s2p file.</Next>
              </>
            ) : (
              <>
                {capital(countText(data.parts.length, 'part'))} on the shelf; Best order may use them all.{' '}
                <Next>Next: put one into the path, and see in Chain what it does.</Next>
              </>
            )
          }
        >
          {({ path, kept }) => (
            <>
              {data.parts.length > 0 && <GainsOfParts parts={data.parts} />}
              <Shelf data={data} path={path} orders={kept} />
            </>
          )}
        </PathRoom>
      )}
    </StationPage>
  );
}
