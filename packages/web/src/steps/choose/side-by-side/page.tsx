import { heardText, isJudged, mayStay } from '@velvet-reed/core/choose';
import { numberText } from '@velvet-reed/core/units';
import { useRanking } from '../../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Progress, WithTargets } from '../choose-room';
import { useBeside, useEveryTarget } from '../use-asked';
import { candidateTitle } from '../candidate-title';
import { ComparisonCard } from './comparison-card';

export default function SideBySideRoom() {
  return (
    <StationPage>
      {(data) => (
        <WithTargets data={data} title="Side by side, Choose">
          {() => <Sheet data={data} />}
        </WithTargets>
      )}
    </StationPage>
  );
}

function Sheet({ data }: { readonly data: StationData }) {
  const targets = useEveryTarget(data);
  const ranking = useRanking(data, { targets, view: 'quiet' });
  const { beside, clear } = useBeside();
  const chosen = beside.flatMap((id) => ranking.ranked.find(({ spec }) => spec.id === id) ?? []);
  // until somebody chooses, the first three of the ranking
  const candidates = chosen.length > 0 ? chosen : ranking.ranked.filter(mayStay).slice(0, 3);
  // the order of the ranking is the one order of all rooms
  const best = ranking.ranked.find((one) => candidates.includes(one) && mayStay(one) && isJudged(one));
  return (
    <Room
      title="Side by side, Choose"
      verdict={
        <>
          {best?.heard
            ? `${candidateTitle(best)} stands highest${candidates.length === 1 ? '' : ` of these ${numberText(candidates.length)}`}: ${heardText(best.heard)}.`
            : 'None of these may stand here and is judged.'}{' '}
          <Next>
            {chosen.length > 0
              ? 'Next: draft it in Ranking, or take another beside it.'
              : 'Next: choose others under “Why” in Ranking.'}
          </Next>
        </>
      }
      margin={
        <Note title="Up to four">
          <p>Tick “Side by side” under “Why” in the ranking. The address keeps them: it can be sent or bookmarked.</p>
        </Note>
      }
    >
      <ComparisonCard candidates={candidates} onClear={clear} />
      <Progress ranking={ranking} />
    </Room>
  );
}
