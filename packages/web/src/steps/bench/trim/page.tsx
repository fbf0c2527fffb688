import { dipOf } from '@velvet-reed/core/sweep';
import { Link } from 'react-router';
import { useStationId } from '../../../data/station';
import { judgedBench } from '@velvet-reed/station/verdicts';
import { saidBench } from '@velvet-reed/station/bench/said';
import { SaidVerdict } from '../../../ui/said';
import { TrimCurve } from './trim-curve';
import { TrimDiary } from './trim-diary';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BenchNotes, BenchPicker } from '../bench-room';
import { useBench } from '../use-bench';

export default function TrimRoom() {
  return <StationPage>{(data) => <Trim data={data} />}</StationPage>;
}

function Trim({ data }: { readonly data: StationData }) {
  const bench = useBench(data);
  const { antenna, design, draft, loaded } = bench;
  const latest = loaded.at(-1);
  const { verdict, steps, cut, trimName } = judgedBench(data, antenna, latest?.dips, undefined, latest?.header);
  const stationId = useStationId();
  return (
    <Room
      title="Trim, Bench"
      verdict={
        <SaidVerdict said={saidBench({ verdict, sweep: latest?.header, cut, targetHz: design?.freqHz, trimName })} />
      }
      picker={<BenchPicker bench={bench} />}
      margin={<BenchNotes latest={latest} />}
    >
      {antenna && design && draft ? (
        <>
          {steps.length > 0 && <TrimCurve steps={steps} targetHz={design.freqHz} />}
          <p className="mb-3">
            <Link className="text-plum underline" to={`/s/${stationId}/bench/mast?antenna=${antenna.id}`}>
              At the mast: the next cut in large type
            </Link>
          </p>
          <TrimDiary
            key={`diary ${antenna.id}`}
            antenna={antenna}
            steps={steps}
            files={data.attachments}
            targetHz={design.freqHz}
            trimName={trimName}
            measuredHz={latest && dipOf(latest.dips, design.freqHz)?.freqHz}
            startLengthM={draft.pieces[0].cutM}
          />
        </>
      ) : (
        <p>
          <Next>Next: draft an antenna, so that there is a length to cut and a target to reach.</Next>
        </p>
      )}
    </Room>
  );
}
