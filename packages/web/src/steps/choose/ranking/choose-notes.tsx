import {
  candidateName,
  choiceVerdict,
  type ForecastTarget,
  inView,
  type RankView,
  schoolsSentence,
  type TurningPoint,
  turningSteps,
} from '@velvet-reed/core/choose';
import { useEffect, useMemo, useState } from 'react';
import { outsideNoise } from '../../../data/derive';
import type { Ranking } from '../../../data/ranking';
import type { StationData } from '../../../data/station';
import { Note } from '../../../ui/section';
import { NoiseParts } from '../../../ui/noise-parts';
import { useChanges } from './changes';
import { RulesNote } from '../../../ui/rules-note';
import { ProvenWorth } from '../proven-worth';

/** The ranking itself is drawn before anything is varied, ms. */
const AFTER_DRAWING_MS = 150;

/** What would turn the choice round; worked out in pauses, because a ranking is drawn at once and this can follow. */
function useTurns(ranking: Ranking, wanted: readonly ForecastTarget[]): readonly TurningPoint[] | undefined {
  const { ready, place, rules, complete } = ranking;
  const [found, setFound] = useState<{ readonly of: unknown; readonly points: readonly TurningPoint[] }>();
  const key = useMemo(() => ({ ready, wanted, place, rules }), [ready, wanted, place, rules]);
  useEffect(() => {
    if (!complete) return;
    const steps = turningSteps(key.ready, key.wanted, key.place, key.rules);
    const points: TurningPoint[] = [];
    let timer = 0;
    const next = (): void => {
      const step = steps.next();
      if (step.done) setFound({ of: key, points: points.sort((a, b) => a.sizeDb - b.sizeDb) });
      else {
        points.push(...step.value);
        timer = window.setTimeout(next, 0);
      }
    };
    timer = window.setTimeout(next, AFTER_DRAWING_MS);
    return () => window.clearTimeout(timer);
  }, [key, complete]);
  return found?.of === key ? found.points : undefined;
}

/** Why this one, what would turn it round, what changed, and what is assumed. */
export function ChooseNotes({
  data,
  ranking,
  wanted,
  view,
}: {
  readonly data: StationData;
  readonly ranking: Ranking;
  readonly wanted: readonly ForecastTarget[];
  readonly view: RankView;
}) {
  const { ranked, complete } = ranking;
  const { best, runnerUp, sentence } = choiceVerdict(ranked, complete);
  const turns = useTurns(ranking, wanted);
  const schools = useMemo(() => {
    const first = (side: RankView) => choiceVerdict(side === view ? ranked : inView(ranked, side)).best;
    return complete ? schoolsSentence(first('quiet'), first('signal')) : undefined;
  }, [complete, ranked, view]);
  const changes = useChanges(data, ranking, wanted, view);
  const centre = wanted.length === 1 ? (wanted[0].lowHz + wanted[0].highHz) / 2 : undefined;
  return (
    <>
      {changes && (
        <Note title="What changed">
          <ul className="list-disc pl-4">
            {changes.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Note>
      )}
      <Note title="Why this one">
        <p>{best ? best.reason : sentence}</p>
        {runnerUp && (
          <p className="mt-1">
            Next best: {candidateName(runnerUp)}. {runnerUp.reason}
          </p>
        )}
      </Note>
      {turns && (
        <Note title="What would turn it round">
          {turns.length === 0 ? (
            <p>No single change of a transmitter’s distance, of the noise, the line or the room within reason does.</p>
          ) : (
            <ul className="list-disc pl-4">
              {turns.slice(0, 3).map(({ sentence }) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          )}
        </Note>
      )}
      {schools && (
        <Note title="Two ways to rank">
          <p>{schools}</p>
        </Note>
      )}
      {centre !== undefined && (
        <Note title="Noise expected from outside">
          <NoiseParts noise={outsideNoise(data, centre)} />
        </Note>
      )}
      <RulesNote data={data} />
      <ProvenWorth data={data} />
      <Note title="Assumed">
        <p>
          Quiet first: outside noise comes evenly from all sides, so directivity toward the target counts. Signal first:
          only the level at the receiver counts. Kinds not yet on the Plot are turned toward the target they are cut
          for; where a target has no place, the mean over all bearings stands. Room:{' '}
          {data.plotFeatures.length > 0 ? 'from the Plot' : 'as entered'}. Prices and hours are assumed.
        </p>
      </Note>
    </>
  );
}
