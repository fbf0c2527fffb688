import { effectiveNoiseFigureDb, frequencyPlan, type PathStage, reaches } from '@velvet-reed/core/path';
import { arrivalOf } from '@velvet-reed/core/site';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom, type PathState } from '../path-room';
import { Converters } from './converters';
import { Splitters } from './splitters';

export default function ConverterRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom data={data} title="Converter, Path" verdict={(path) => <Verdict path={path} />}>
          {({ path, better, asked, target, receiver }) => {
            const own = converterOf(better.stages);
            const splitters = (
              <Splitters
                key={path.id}
                noiseFigureDb={better.analysis.noiseFigureDb}
                outsideDb={asked.question.externalFaDb}
              />
            );
            return (
              <>
                {own ? null : splitters}
                <Converters
                  key={`converter of ${path.id}`}
                  here={{
                    rfHz: (target.lowHz + target.highHz) / 2,
                    elevationDeg: arrivalOf(target, data.station, Date.parse(data.station.createdAt)).elevationDeg,
                    receiverNoiseFigureDb: effectiveNoiseFigureDb(receiver),
                    environment: data.station.environment,
                    ...(own ? { stage: own } : {}),
                  }}
                />
                {own ? splitters : null}
              </>
            );
          }}
        </PathRoom>
      )}
    </StationPage>
  );
}

/** The converter of a chain, if one stands there. */
const converterOf = (stages: readonly PathStage[]) => stages.find((stage) => stage.kind === 'converter');

/** Where the path's own converter brings what is wanted, and what that leaves; without one, what would be lost by sharing. */
function Verdict({ path: { better, target, receiver } }: { readonly path: PathState }) {
  const { analysis, stages } = better;
  const [conversion] = frequencyPlan(stages, (target.lowHz + target.highHz) / 2);
  if (!conversion)
    return reaches(receiver, target.lowHz, target.highHz) ? (
      <>
        {receiver.name} tunes to {target.name} itself: no converter is needed here.{' '}
        <Next>Next: see below what it costs to share the antenna.</Next>
      </>
    ) : (
      <>
        <span className="text-caution">
          {receiver.name} does not tune to {target.name}, and no converter stands in this path.
        </span>{' '}
        <Next>Next: type its figures below, then add it in Chain.</Next>
      </>
    );
  return (
    <>
      {conversion.name} brings {target.name} to {frequencyText(conversion.outHz, 5)}
      {conversion.mirrored ? ', mirrored' : ''}: {fixed(analysis.snrLossDb, 1)} dB of SNR lost by the whole chain.{' '}
      <Next>
        {analysis.outOfReach === undefined
          ? 'Next: let its oscillator warm up, and read below how far it is off.'
          : `Next: ${analysis.outOfReach.charAt(0).toLowerCase()}${analysis.outOfReach.slice(1)}`}
      </Next>
    </>
  );
}
