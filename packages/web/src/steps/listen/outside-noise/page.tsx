import { noisePowerDbm } from '@velvet-reed/core/site';
import { fixed } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { noiseViewOf, outsideNoise } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { NoiseCurves } from './noise-curves';
import { OutsideNoise } from './outside-noise';

export default function OutsideNoiseRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Outside noise, Listen"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <Note title="Classes are medians">
                <p>
                  ITU-R P.372: half of the places of a class are louder, and a house is loud in its own way. Your own
                  floor counts before the class wherever one was read.
                </p>
              </Note>
              <Note title="Storms">
                <p>
                  Atmospheric noise below some 20 MHz is an order of magnitude only (±15 dB), and changes by the hour.
                </p>
              </Note>
            </>
          }
        >
          <NoiseCurves data={data} />
          <OutsideNoise data={data} />
        </Room>
      )}
    </StationPage>
  );
}

/** What the weightiest target has to stand out from. */
function Verdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const target = [...data.targets].sort((a, b) => b.weight - a.weight).at(0);
  if (!target)
    return (
      <>
        The noise class of the place is {data.station.environment.replace('_', ' ')}.{' '}
        <Next>Next: say in Wanted what you want to hear, and its noise stands here.</Next>
      </>
    );
  const view = noiseViewOf(data, target);
  const noise = outsideNoise(data, (target.lowHz + target.highHz) / 2, view);
  const levelDbm = noisePowerDbm(noise.faDb, target.bandwidthHz);
  return (
    <>
      Noise from outside at {target.name}: {fixed(levelDbm, 1).replace('-', '−')} dBm in its bandwidth (
      {noise.measured
        ? 'your floor, measured'
        : view.seesSky
          ? 'of a dish that looks up, model'
          : 'by the class, catalogue'}
      ); a weaker signal is not heard.{' '}
      <Next>
        {noise.measured ? (
          <Link to={`/s/${stationId}/noise/floor`}>Next: see in Noise who makes it.</Link>
        ) : (
          'Next: enter your own floor, below.'
        )}
      </Next>
    </>
  );
}
