import { type Candidate, choiceVerdict, type ForecastTarget, poorlyHeard } from '@velvet-reed/core/choose';
import { listText, midSentence } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { useFocus } from '../../../data/focus';
import { useRanking } from '../../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Progress, WithTargets } from '../choose-room';
import { useEveryTarget } from '../use-asked';
import { Matrix } from './matrix';

export default function EveryTargetRoom() {
  return (
    <StationPage>
      {(data) => (
        <WithTargets data={data} title="Every target, Choose">
          {() => <Sheet data={data} />}
        </WithTargets>
      )}
    </StationPage>
  );
}

function Sheet({ data }: { readonly data: StationData }) {
  const targets = useEveryTarget(data);
  const ranking = useRanking(data, { targets, view: 'quiet' });
  const { band } = useFocus();
  const middle = Math.sqrt(band.lowHz * band.highHz);
  const focus = targets.find(({ lowHz, highHz }) => middle >= lowHz && middle <= highHz);
  return (
    <Room
      title="Every target, Choose"
      verdict={<Verdict ranked={ranking.ranked} targets={targets} complete={ranking.complete} />}
      margin={
        <>
          <Note title="Reading it">
            <p>
              How far a usual station stands over the noise of your place through each antenna. From 10 dB it is heard
              well, below 0 dB it is under the noise.
            </p>
          </Note>
          <Note title="The framed column">
            <p>is the target that the focus band of the Reed lies on.</p>
          </Note>
        </>
      }
    >
      <Matrix ranked={ranking.ranked} targets={targets} focusId={focus?.id} />
      <Progress ranking={ranking} />
    </Room>
  );
}

function Verdict({
  ranked,
  targets,
  complete,
}: {
  readonly ranked: readonly Candidate[];
  readonly targets: readonly ForecastTarget[];
  readonly complete: boolean;
}) {
  const stationId = useStationId();
  const poor = poorlyHeard(ranked, targets);
  if (!complete) return <>The wire model is still at work; what it knows stands below already.</>;
  return (
    <>
      {choiceVerdict(ranked).sentence}{' '}
      {poor.length > 0 && `Nothing here hears ${listText(poor.map(({ name }) => midSentence(name)))} well. `}
      <Next>
        <Link to={`/s/${stationId}/choose/ranking`}>Next: see in Ranking why.</Link>
      </Next>
    </>
  );
}
