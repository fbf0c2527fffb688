import type { KindId } from '@velvet-reed/core/antenna';
import {
  type Candidate,
  type CandidateSpec,
  type ForecastPlace,
  type ForecastTarget,
  hearingKey,
  hearingQuestions,
  kindCandidates,
  rankCandidates,
  type RankRules,
  type RankView,
  readyCandidate,
  type ReadyCandidate,
} from '@velvet-reed/core/choose';
import { groundClass } from '@velvet-reed/core/solver';
import { useEffect, useMemo, useRef, useState } from 'react';
import { boughtCandidates, forecastPlace, ownCandidates, ratesOf, roomOf } from '@velvet-reed/station/derive';
import { useHearings } from './hearings';
import { spotsOf } from '@velvet-reed/station/spots';
import type { StationData } from '@velvet-reed/station/record';

/** Candidates heard by the wire model as far as it has come. */
export interface Heard {
  readonly ready: readonly ReadyCandidate[];
  /** Questions answered and asked. */
  readonly answered: number;
  readonly asked: number;
  readonly complete: boolean;
  /** Time that the answers took, ms; absent while they come. */
  readonly ms?: number;
  readonly stop: () => void;
  readonly stopped: boolean;
  readonly resume: () => void;
}

interface Progress {
  readonly key: string;
  readonly answered: number;
  readonly ms?: number;
  readonly stopped: boolean;
}

/** At most this often a ranking under way is drawn anew, ms. */
const REDRAW_MS = 120;

/** Solves what candidates need for targets and transmitters, with progress, and makes them ready for forecasts. */
export function useHeard(
  specs: readonly CandidateSpec[],
  targets: readonly ForecastTarget[],
  transmittersHz: readonly number[],
  groundId: string,
): Heard {
  const hearings = useHearings();
  const { ground } = groundClass(groundId);
  const questions = useMemo(
    () => hearingQuestions(specs, targets, transmittersHz, ground),
    [specs, targets, transmittersHz, ground],
  );
  const keys = useMemo(() => [...new Set(questions.map(hearingKey))], [questions]);
  const key = useMemo(() => keys.join('\n'), [keys]);
  const [progress, setProgress] = useState<Progress>();
  const halt = useRef<AbortController>(undefined);
  const [again, setAgain] = useState(0);
  useEffect(() => {
    const control = new AbortController();
    const begun = performance.now();
    let drawn = 0;
    const show = (answered: number, end: Partial<Progress> = {}): void => {
      drawn = performance.now();
      setProgress({ key, answered, stopped: false, ...end });
    };
    halt.current = control;
    // nothing to wait for, nothing to tell
    if (keys.every((one) => hearings.known.has(one))) return;
    void (async () => {
      await hearings.ask(
        questions,
        (answered) => {
          if (!control.signal.aborted && performance.now() - drawn > REDRAW_MS) show(answered);
        },
        control.signal,
      );
      const answered = keys.filter((one) => hearings.known.has(one)).length;
      if (control.signal.reason === STOPPED) show(answered, { stopped: true });
      else if (!control.signal.aborted) show(answered, { ms: performance.now() - begun });
    })();
    return () => control.abort();
    // equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, again]);
  const current = progress?.key === key ? progress : undefined;
  // what was stopped may be known by now from other questions
  const answered =
    current && !current.stopped ? current.answered : keys.filter((one) => hearings.known.has(one)).length;
  const ready = useMemo(
    () =>
      specs.map((spec) =>
        readyCandidate(spec, targets, ground, (question) => hearings.known.get(hearingKey(question))),
      ),
    // `answered` stands for what is known by now
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [specs, targets, ground, hearings, answered],
  );
  return {
    ready,
    answered,
    asked: keys.length,
    complete: answered >= keys.length,
    ...(current?.ms === undefined ? {} : { ms: current.ms }),
    stop: () => halt.current?.abort(STOPPED),
    stopped: current?.stopped ?? false,
    resume: () => setAgain(again + 1),
  };
}

const STOPPED = 'stopped by the listener';

/** What a ranking is asked for. */
export interface RankingQuestion {
  readonly targets: readonly ForecastTarget[];
  /** Kinds to compare; own and bought antennas always take part unless `only` says otherwise. */
  readonly kinds?: readonly KindId[];
  /** Ids of candidates that take part; absent: all. */
  readonly only?: ReadonlySet<string>;
  readonly view: RankView;
}

export interface Ranking extends Heard {
  readonly ranked: readonly Candidate[];
  readonly place: ForecastPlace;
  readonly rules: RankRules;
  /** Everything that could take part, for the list of what to compare. */
  readonly specs: readonly CandidateSpec[];
}

/** Everything that can be compared at a station for some targets. */
function useCandidates(data: StationData, targets: readonly ForecastTarget[]): readonly CandidateSpec[] {
  return useMemo(
    () => [
      ...ownCandidates(data),
      ...boughtCandidates(data),
      ...kindCandidates(targets, spotsOf(data), undefined, ratesOf(data)),
    ],
    [data, targets],
  );
}

/** Ranks everything that could serve the targets at this station. */
export function useRanking(data: StationData, { targets, only, view }: RankingQuestion): Ranking {
  const specs = useCandidates(data, targets);
  const compared = useMemo(() => (only ? specs.filter((spec) => only.has(spec.id)) : specs), [specs, only]);
  const place = useMemo(() => forecastPlace(data), [data]);
  const transmittersHz = useMemo(() => place.transmitters.map((transmitter) => transmitter.freqHz), [place]);
  const heard = useHeard(compared, targets, transmittersHz, data.station.groundId);
  const { station } = data;
  const rules = useMemo(
    (): RankRules => ({
      view,
      weights: { price: station.priceWeight, effort: station.effortWeight, sight: station.sightWeight },
      restrictions: station,
      room: roomOf(data),
    }),
    [data, station, view],
  );
  const ranked = useMemo(
    () => rankCandidates(heard.ready, targets, place, rules),
    [heard.ready, targets, place, rules],
  );
  return { ...heard, ranked, place, rules, specs };
}
