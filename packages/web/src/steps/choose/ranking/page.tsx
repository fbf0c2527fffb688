import { type Candidate, choiceVerdict, firstPiece, type RankView } from '@velvet-reed/core/choose';
import { countText, frequencyText, lengthText, showLength } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useRanking, type Ranking } from '../../../data/ranking';
import { spotsSaid } from '@velvet-reed/station/spots';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Button } from '../../../ui/button';
import { HomeChoice } from '../../../ui/home-choice';
import { ReceiverByKind } from '../../../ui/receiver-by-kind';
import { Room } from '../../../ui/room';
import { Next, Section } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Value } from '../../../ui/value';
import { Progress, WithTargets } from '../choose-room';
import { useAsked, useBeside } from '../use-asked';
import { ChooseNotes } from './choose-notes';
import { RankingList } from './ranking-list';
import { Sets } from './sets';
import { Weights } from './weights';

export default function RankingRoom() {
  return (
    <StationPage>
      {(data) => (
        <WithTargets data={data} title="Ranking, Choose">
          {() => <RankingSheet data={data} />}
        </WithTargets>
      )}
    </StationPage>
  );
}

function RankingSheet({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { asked, setAsked, wanted } = useAsked(data);
  const [view, setView] = useState<RankView>('quiet');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { beside, toggle } = useBeside();
  const everything = useRanking(data, { targets: wanted, view });
  // what was taken out of the comparison keeps its place in the list of what could be compared
  const ranking = useMemo(
    (): Ranking =>
      left.size === 0
        ? everything
        : {
            ...everything,
            ready: everything.ready.filter(({ spec }) => !left.has(spec.id)),
            ranked: everything.ranked.filter(({ spec }) => !left.has(spec.id)),
          },
    [everything, left],
  );
  return (
    <Room
      title="Ranking, Choose"
      verdict={<Verdict ranking={ranking} />}
      margin={<ChooseNotes data={data} ranking={ranking} wanted={wanted} view={view} />}
      picker={
        <>
          <label className="block text-sm text-dim">
            Ranked for
            <select
              className="ml-2 text-ink"
              value={asked}
              onChange={(event) => setAsked(event.target.value === 'all' ? 'all' : Number(event.target.value))}
            >
              <option value="all">everything wanted, by weight</option>
              {data.targets.map((target) => (
                <option key={target.id} value={target.id}>
                  {target.name}
                </option>
              ))}
            </select>
          </label>
          <ViewChoice view={view} onView={setView} />
        </>
      }
    >
      {data.receivers.length === 0 && (
        <Section title="Which receiver do you have?" hint="without one nothing can be judged">
          <ReceiverByKind />
        </Section>
      )}
      {!spotsSaid(data) && (
        <Section title="Where may antennas hang?" hint="the noise of your own house decides more than the antenna">
          <HomeChoice data={data} />
        </Section>
      )}
      <Section
        title="What fits, best first"
        hint={
          view === 'quiet'
            ? 'how far a usual station stands over your noise, less what price, work and looks count, dB'
            : 'signal against an isotropic antenna, less what price, work and looks count, dB'
        }
      >
        <RankingList
          data={data}
          ranked={ranking.ranked}
          view={view}
          waiting={new Set(everything.ready.filter((one) => !one.complete).map((one) => one.spec.id))}
          beside={beside}
          onBeside={toggle}
          onLeave={(id) => setLeft(new Set([...left, id]))}
        />
        {left.size > 0 && (
          <p className="mt-2 text-sm">
            {countText(left.size, 'antenna')} left out.{' '}
            <Button look="quiet" onClick={() => setLeft(new Set())}>
              Compare all again
            </Button>
          </p>
        )}
        {beside.length > 1 && (
          <p className="mt-2">
            <Link
              className="text-plum underline"
              to={{ pathname: `/s/${stationId}/choose/side-by-side`, search: `beside=${beside.join(',')}` }}
            >
              Side by side: {countText(beside.length, 'antenna')}
            </Link>
          </p>
        )}
      </Section>
      <Sets ranked={ranking.ranked} targets={wanted} />
      <Progress ranking={everything} />
      <Section title="What else counts" hint="in the sum above, besides reception">
        <Weights data={data} />
      </Section>
    </Room>
  );
}

function ViewChoice({ view, onView }: { readonly view: RankView; readonly onView: (view: RankView) => void }) {
  return (
    <div role="group" aria-label="What counts first" className="flex gap-1">
      <Button
        look={view === 'quiet' ? 'main' : 'plain'}
        aria-pressed={view === 'quiet'}
        onClick={() => onView('quiet')}
      >
        Quiet first
      </Button>
      <Button
        look={view === 'signal' ? 'main' : 'plain'}
        aria-pressed={view === 'signal'}
        onClick={() => onView('signal')}
      >
        Signal first
      </Button>
    </div>
  );
}

/** The choice as the core states it; numbers of its sentence open their origin in the list below. */
function Verdict({ ranking }: { readonly ranking: Ranking }) {
  const verdict = choiceVerdict(ranking.ranked, ranking.complete);
  const stationId = useStationId();
  const { best, step } = verdict;
  const next = `Next: ${verdict.next.charAt(0).toLowerCase()}${verdict.next.slice(1)}`;
  return (
    <>
      {verdict.sentence}{' '}
      <Next>
        {!ranking.complete ? (
          'The wire model is still at work.'
        ) : best?.spec.source === 'kind' && step === 'draft' ? (
          <NextPiece best={best} />
        ) : step === 'choose' ? (
          next
        ) : (
          <Link
            to={`/s/${stationId}/${step}${best?.spec.source === 'own' ? `?antenna=${best.spec.id.replace('own-', '')}` : ''}`}
          >
            {next}
          </Link>
        )}
      </Next>
    </>
  );
}

function NextPiece({ best }: { readonly best: Candidate }) {
  const piece = firstPiece(best);
  if (!piece || best.spec.source === 'bought') return <>Next: draft it.</>;
  return (
    <>
      Next: draft {countText(piece.count, piece.name)} of{' '}
      <Value
        strong
        shown={showLength(piece.cutM)}
        provenance={{
          origin: 'model',
          formula: `finished ${lengthText(piece.finishedM)} plus trim allowance`,
          inputs: [['cut for', frequencyText(best.spec.design.freqHz)]],
          source: 'see Draft for the formula of each dimension',
        }}
      />
      .
    </>
  );
}
