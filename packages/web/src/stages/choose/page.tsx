import {
  type Candidate,
  choiceVerdict,
  firstPiece,
  type ForecastTarget,
  type RankView,
} from '@velvet-reed/core/choose';
import { countText, frequencyText, lengthText, showLength } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { wishTargets } from '../../data/derive';
import { useFocus } from '../../data/focus';
import { useMoment } from '../../data/moment';
import { useRanking, type Ranking } from '../../data/ranking';
import { useStationId, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Next, Section, Stage } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { ReceiverByKind } from '../../ui/receiver-by-kind';
import { StationPage } from '../../ui/station-page';
import { Value } from '../../ui/value';
import { BoughtAntennas } from './bought-antennas';
import { ComparisonCard } from './comparison-card';
import { CoverageMap } from './coverage-map';
import { RankingList } from './ranking-list';
import { ChooseNotes } from './choose-notes';
import { Weights } from './weights';

export default function ChoosePage() {
  return <StationPage>{(data) => <Choose data={data} />}</StationPage>;
}

/** The wish that the focus band lies on, if there is one. */
function useAsked(data: StationData) {
  const { band } = useFocus();
  const [asked, setAsked] = useState<number | 'all'>();
  const middle = Math.sqrt(band.lowHz * band.highHz);
  const inFocus = data.targets.find((target) => middle >= target.lowHz && middle <= target.highHz);
  return { asked: asked ?? inFocus?.id ?? 'all', setAsked };
}

function Choose({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  if (data.targets.length === 0)
    return (
      <Stage
        title="Choose"
        verdict={
          <>
            Nothing is wanted yet, so no antenna can be better than another.{' '}
            <Next>
              <Link to={`/s/${stationId}/listen`}>Next: say what you want to hear.</Link>
            </Next>
          </>
        }
      >
        <Empty>The ranking appears here as soon as there is a wish and a receiver.</Empty>
      </Stage>
    );
  return <ChooseSheet data={data} />;
}

function ChooseSheet({ data }: { readonly data: StationData }) {
  const { asked, setAsked } = useAsked(data);
  const { atMs } = useMoment();
  const [view, setView] = useState<RankView>('quiet');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [beside, setBeside] = useState<readonly string[]>([]);
  const wanted = useMemo(
    (): readonly ForecastTarget[] =>
      wishTargets(data, atMs).filter((target) => asked === 'all' || target.id === String(asked)),
    [data, atMs, asked],
  );
  const everything = useRanking(data, { targets: wanted, view });
  // what was taken out of the comparison keeps its place in the list of what could be compared
  const ranking = useMemo(
    (): Ranking => ({
      ...everything,
      ready: everything.ready.filter(({ spec }) => !left.has(spec.id)),
      ranked: everything.ranked.filter(({ spec }) => !left.has(spec.id)),
    }),
    [everything, left],
  );
  return (
    <Stage
      title="Choose"
      verdict={<Verdict ranking={ranking} />}
      margin={<ChooseNotes data={data} ranking={ranking} wanted={wanted} view={view} />}
    >
      <div className="mb-4 flex flex-wrap items-end gap-x-6 gap-y-3">
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
        <Weights data={data} />
      </div>
      {data.receivers.length === 0 && (
        <Section title="Which receiver do you have?" hint="without one nothing can be judged">
          <ReceiverByKind />
        </Section>
      )}
      <Progress ranking={everything} />
      <Section
        title="What fits, best first"
        hint={
          view === 'quiet'
            ? 'SNR against an ideal antenna, −30 to +15 dB; burdens count in the order'
            : 'signal at the receiver against an isotropic antenna, −30 to +15 dB; burdens count in the order'
        }
      >
        <RankingList
          data={data}
          ranked={ranking.ranked}
          view={view}
          waiting={new Set(everything.ready.filter((one) => !one.complete).map((one) => one.spec.id))}
          beside={beside}
          onBeside={(id) =>
            setBeside(beside.includes(id) ? beside.filter((one) => one !== id) : [...beside, id].slice(-4))
          }
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
      </Section>
      {beside.length > 1 && (
        <ComparisonCard
          candidates={beside.flatMap((id) => ranking.ranked.find(({ spec }) => spec.id === id) ?? [])}
          onClear={() => setBeside([])}
        />
      )}
      <BoughtAntennas data={data} />
      <CoverageMap data={data} />
    </Stage>
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

function Progress({ ranking }: { readonly ranking: Ranking }) {
  const { answered, asked, complete, stopped, stop, resume, ms } = ranking;
  if (complete)
    return (
      <p className="mb-2 text-sm text-dim" role="status">
        {asked} computations by the wire model over this ground
        {ms === undefined ? '' : `, ${ms < 300 ? 'all known' : `${(ms / 1000).toFixed(1)} s`}`}.
      </p>
    );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3 text-sm" role="status">
      <progress max={asked} value={answered} aria-label="Wire model" className="h-2 w-48" />
      <span className="font-mono">
        {answered} of {asked}
      </span>
      {stopped ? (
        <>
          <span>Stopped: antennas without an answer stand last.</span>
          <Button look="quiet" onClick={resume}>
            Go on
          </Button>
        </>
      ) : (
        <Button look="quiet" onClick={stop}>
          Stop
        </Button>
      )}
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
        ) : best?.spec.source === 'kind' ? (
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
