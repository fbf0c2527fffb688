import { coilVerdict } from '@velvet-reed/core/sweep';
import { CoilByNoise } from './coil-by-noise';
import { CoilQuestions } from './tuning';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';
import { useNoisePeak } from './use-noise-peak';

export default function CoilRoom() {
  return <StationPage>{(data) => <Coil data={data} />}</StationPage>;
}

function Coil({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const stationId = useStationId();
  const { antenna, design } = bench;
  const noise = useNoisePeak(data, antenna?.id);
  const verdict = coilVerdict({
    recorded: { on: noise.picked('on') !== undefined, off: noise.picked('off') !== undefined },
    ...(noise.peak ? { peak: noise.peak } : {}),
    ...(noise.fault === undefined ? {} : { fault: noise.fault }),
    ...(design ? { targetHz: design.freqHz } : {}),
  });
  return (
    <Room
      title="Coil by noise, Bench"
      verdict={
        <>
          <span className={verdict.state === 'unclear' && noise.fault !== undefined ? 'text-caution' : ''}>
            {verdict.sentence}
          </span>{' '}
          <Next>
            Next: {verdict.next.charAt(0).toLowerCase()}
            {verdict.next.slice(1)}
          </Next>
        </>
      }
      picker={<BenchPicker bench={bench} />}
      margin={
        <>
          <Note title="From two recordings">
            <p>
              One with the noise source on and one with it off:{' '}
              <Link to={`/s/${stationId}/trials/recording`}>Recording</Link> reads the resonance and gives both spectra
              to this room.
            </p>
          </Note>
          <BenchNotes />
        </>
      }
    >
      <CoilByNoise key={`coil ${antenna?.id}`} data={data} antenna={antenna} noise={noise} />
      <CoilQuestions key={`questions ${antenna?.id}`} design={design} peak={noise.peak} />
    </Room>
  );
}
