import { CoilByNoise } from './coil-by-noise';
import { CoilQuestions } from './tuning';
import { Link } from 'react-router';
import { useStationId, type StationData } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function CoilRoom() {
  return <StationPage>{(data) => <Coil data={data} />}</StationPage>;
}

function Coil({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const stationId = useStationId();
  const { antenna } = bench;
  return (
    <Room
      title="Coil by noise, Bench"
      verdict={
        <>
          A coil tuned to the noise of the air or of a noise source shows its resonance and its Q without an analyser.{' '}
          <Next>Next: record a spectrum with the coil in it, below.</Next>
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
      <CoilByNoise key={`coil ${antenna?.id}`} data={data} antenna={antenna} />
      <CoilQuestions />
    </Room>
  );
}
