import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom } from '../path-room';
import { Converters } from './converters';
import { Splitters } from './splitters';

export default function ConverterRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Converter, Path"
          verdict={() => (
            <>
              Where a converter puts a band, what it does to the noise, and what it costs to share one antenna.{' '}
              <Next>Next: type yours; add it to the chain when it pays.</Next>
            </>
          )}
        >
          {({ path, better, asked }) => (
            <>
              <Splitters
                key={path.id}
                noiseFigureDb={better.analysis.noiseFigureDb}
                outsideDb={asked.question.externalFaDb}
              />
              <Converters />
            </>
          )}
        </PathRoom>
      )}
    </StationPage>
  );
}
