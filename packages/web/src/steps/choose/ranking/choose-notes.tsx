import {
  type AntennaSet,
  candidateName,
  choiceVerdict,
  type ForecastTarget,
  inView,
  mendsFor,
  type RankView,
  schoolsSentence,
  sizeWords,
  type TurningPoint,
  turningSteps,
} from '@velvet-reed/core/choose';
import { capital, countText } from '@velvet-reed/core/units';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { outsideNoise } from '@velvet-reed/station/derive';
import type { Ranking } from '../../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
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

/** One antenna of a set: what it is for and what it hears there. */
function memberText({ candidate, targets, addsDb }: AntennaSet['antennas'][number]): string {
  const its = candidate.forecasts.filter(({ target }) => targets.includes(target));
  const heard = its
    .flatMap((forecast) => forecast.heard?.middle.toFixed(0) ?? [])
    .sort((a, b) => Number(a) - Number(b));
  const range =
    heard.length === 0
      ? 'nothing of its own'
      : `${heard[0] === heard.at(-1) ? '' : `${heard[0]} to `}${heard.at(-1)} dB over the noise on ${countText(its.length, 'target')}`;
  return `${candidate.spec.name}: ${range}; without it ${addsDb.toFixed(0)} dB are lost.`;
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
  const { best, runnerUp, sentence, set } = choiceVerdict(ranked, complete);
  const turns = useTurns(ranking, wanted);
  const schools = useMemo(() => {
    const first = (side: RankView) => choiceVerdict(side === view ? ranked : inView(ranked, side)).best;
    return complete ? schoolsSentence(first('quiet'), first('signal')) : undefined;
  }, [complete, ranked, view]);
  const changes = useChanges(data, ranking, wanted, view);
  const stationId = useStationId();
  const chosen =
    best && ranking.ready.find(({ spec }) => spec.id === best.spec.id && sizeWords(spec) === sizeWords(best.spec));
  const mends = chosen ? mendsFor(chosen, wanted, ranking.place) : [];
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
        {set ? (
          <ul className="list-disc pl-4">
            {set.antennas.map((member) => (
              <li key={member.candidate.spec.id}>{memberText(member)}</li>
            ))}
          </ul>
        ) : (
          <p>{best ? best.reason : sentence}</p>
        )}
        {runnerUp && (
          <p className="mt-1">
            Next best: {candidateName(runnerUp)}. {runnerUp.reason}
          </p>
        )}
      </Note>
      {mends.length > 0 && (
        <Note title="What would help most">
          <p>Cheapest first; the ranges are common practice until you measure.</p>
          <ul className="list-disc pl-4">
            {mends.map(({ what, sentence }) => (
              <li key={what}>{capital(sentence)}.</li>
            ))}
            <li>
              <Link className="text-plum underline" to={`/s/${stationId}/noise/floor`}>
                Measure the floor through it
              </Link>
              : then your own figure counts there.
            </li>
          </ul>
        </Note>
      )}
      {turns && (
        <Note title="What would turn it round">
          {turns.length === 0 ? (
            <p>No single change of the noise, of the house or of the line within reason does.</p>
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
          Usual stations, the noise of a house by spot, prices and hours are assumed; each row says how. Kinds are taken
          with a choke. A kind not yet on the Plot is turned toward the target that it is cut for; where a target has no
          place, the mean over all bearings stands. Quiet first: what stands over the noise counts. Signal first: only
          the level at the receiver counts.
        </p>
      </Note>
    </>
  );
}
