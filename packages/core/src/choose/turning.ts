import type { PlaceRoom } from '../antenna/kind';
import { lengthText } from '../units/format';
import type { ReadyCandidate } from './candidate';
import type { ForecastPlace, ForecastTarget } from './forecast';
import { choiceVerdict, rankCandidates, type RankRules } from './rank';

/** A single change of circumstances that makes another antenna the best. */
export interface TurningPoint {
  readonly what: 'emitter' | 'noise' | 'line' | 'room';
  readonly sentence: string;
  /** How large the change is, for ordering: factors as dB, dB as they are. */
  readonly sizeDb: number;
  readonly winner: string;
}

const MOST_DB = 40;
const EMITTER_FACTOR = 30;
const STEPS = 12;

/** A change by amount t (0: as it is, ±1: as far as is looked), as conditions and as words. */
interface Turn {
  readonly what: TurningPoint['what'];
  readonly most: number;
  apply(t: number): { readonly place?: ForecastPlace; readonly room?: PlaceRoom };
  say(t: number): string;
}

/** Nearest to zero first: ±1/12, ±2/12, … */
const REACHES = Array.from({ length: STEPS }, (_, i) => (i + 1) / STEPS).flatMap((t) => [t, -t]);

/**
 * What would have to change, one thing at a time, for another candidate to win: how near or far each transmitter, how much quieter or
 * louder the place, how long the line. Smallest changes first. Arithmetic on answers already there: nothing is solved again.
 */
export function turningPoints(...asked: Parameters<typeof turningSteps>): readonly TurningPoint[] {
  const found = [...turningSteps(...asked)].flat();
  return found.sort((a, b) => a.sizeDb - b.sizeDb);
}

/** The same, one circumstance at a step, so that a page can answer in between. */
export function* turningSteps(
  ready: readonly ReadyCandidate[],
  targets: readonly ForecastTarget[],
  place: ForecastPlace,
  rules: RankRules,
): Generator<readonly TurningPoint[], void> {
  const winnerOf = (changed: { readonly place?: ForecastPlace; readonly room?: PlaceRoom }): string | undefined => {
    const ranked = rankCandidates(ready, targets, changed.place ?? place, {
      ...rules,
      room: changed.room ?? rules.room,
    });
    return choiceVerdict(ranked).best?.spec.name;
  };
  const now = winnerOf({});
  if (now === undefined) return;
  const turns: readonly Turn[] = [
    ...place.emitters.map((emitter, i): Turn => {
      const distance = (t: number): number => emitter.distanceM * EMITTER_FACTOR ** t;
      return {
        what: 'emitter',
        most: 20 * Math.log10(EMITTER_FACTOR),
        apply: (t) => ({
          place: {
            ...place,
            emitters: place.emitters.map((one, k) => (k === i ? { ...one, distanceM: distance(t) } : one)),
          },
        }),
        say: (t) => `moving ${emitter.name} from ${lengthText(emitter.distanceM, 2)} to ${lengthText(distance(t), 2)}`,
      };
    }),
    {
      what: 'noise',
      most: MOST_DB,
      apply: (t) => ({ place: { ...place, externalFaDb: (freqHz) => place.externalFaDb(freqHz) + t * MOST_DB } }),
      say: (t) => `outside noise ${Math.abs(t * MOST_DB).toFixed(0)} dB ${t > 0 ? 'higher' : 'lower'} than expected`,
    },
    {
      what: 'line',
      most: 20,
      apply: (t) => ({ place: { ...place, lineLossDb: (freqHz) => place.lineLossDb(freqHz) * 10 ** t } }),
      say: (t) => `a line with ${10 ** t >= 1 ? (10 ** t).toFixed(1) : (10 ** t).toFixed(2)} times the loss`,
    },
    {
      what: 'room',
      most: 20,
      apply: (t) => ({ room: { ...rules.room, spanM: rules.room.spanM * 10 ** t } }),
      say: (t) =>
        `a straight run of ${lengthText(rules.room.spanM * 10 ** t, 2)} instead of ${lengthText(rules.room.spanM, 2)}`,
    },
  ];
  for (const turn of turns) {
    const turned = (t: number): boolean => winnerOf(turn.apply(t)) !== now;
    const at = REACHES.find(turned);
    if (at === undefined) {
      yield [];
      continue;
    }
    const edge = narrowed(at, turned);
    const winner = winnerOf(turn.apply(edge)) ?? 'nothing';
    const said = turn.say(edge);
    yield [
      {
        what: turn.what,
        sizeDb: Math.abs(edge) * turn.most,
        winner,
        sentence: `${said.charAt(0).toUpperCase()}${said.slice(1)} turns this round: then ${winner} comes first.`,
      },
    ];
  }
}

/** Smallest change that still turns it, by halving between the last step that did not and the first that did. */
function narrowed(at: number, turned: (t: number) => boolean): number {
  let [low, high] = [at - Math.sign(at) / STEPS, at];
  for (let i = 0; i < 6; i += 1) {
    const middle = (low + high) / 2;
    if (turned(middle)) high = middle;
    else low = middle;
  }
  return high;
}
