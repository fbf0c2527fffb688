import type { PlaceRoom } from '../antenna/kind';
import { capital, lengthText } from '../units/format';
import type { ReadyCandidate } from './candidate';
import type { ForecastPlace, ForecastTarget } from './forecast';
import { rankCandidates, type RankRules } from './rank';
import { choiceVerdict } from './verdict';

/** A single change of circumstances that makes another antenna the best. */
export interface TurningPoint {
  readonly what: 'transmitter' | 'noise' | 'line' | 'room';
  readonly sentence: string;
  /** How large the change is, for ordering: factors as dB, dB as they are. */
  readonly sizeDb: number;
  readonly winner: string;
}

const MOST_DB = 40;
const TRANSMITTER_FACTOR = 30;
const STEPS = 12;

/** A change by amount t (0: as it is, ±1: as far as is looked), as a value that a person can try, as conditions and as words. */
interface Turn {
  readonly what: TurningPoint['what'];
  readonly most: number;
  /** The value that t stands for, and back. */
  value(t: number): number;
  amount(value: number): number;
  apply(value: number): { readonly place?: ForecastPlace; readonly room?: PlaceRoom };
  say(value: number): string;
}

/** A factor on a base, of at most `most` either way. */
const factorOn = (base: number, most: number) => ({
  value: (t: number): number => base * most ** t,
  amount: (value: number): number => Math.log(value / base) / Math.log(most),
});

/** A value with so many digits, rounded away from where it began, so that what is said still turns it. */
function roundedAway(value: number, from: number, digits: number): number {
  const unit = 10 ** (Math.floor(Math.log10(Math.abs(value))) - digits + 1);
  const steps = value >= from ? Math.ceil(value / unit - 1e-9) : Math.floor(value / unit + 1e-9);
  return Number((steps * unit).toPrecision(digits));
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
  const winnerOf = (changed: { readonly place?: ForecastPlace; readonly room?: PlaceRoom }) => {
    const ranked = rankCandidates(ready, targets, changed.place ?? place, {
      ...rules,
      room: changed.room ?? rules.room,
    });
    return choiceVerdict(ranked).best?.spec;
  };
  const now = winnerOf({})?.id;
  if (now === undefined) return;
  const turns: readonly Turn[] = [
    ...place.transmitters.map((transmitter, i): Turn => ({
      what: 'transmitter',
      most: 20 * Math.log10(TRANSMITTER_FACTOR),
      ...factorOn(transmitter.distanceM, TRANSMITTER_FACTOR),
      apply: (distanceM) => ({
        place: { ...place, transmitters: place.transmitters.map((one, k) => (k === i ? { ...one, distanceM } : one)) },
      }),
      say: (distanceM) =>
        `moving ${transmitter.name} from ${lengthText(transmitter.distanceM)} to ${lengthText(distanceM)}`,
    })),
    {
      what: 'noise',
      most: MOST_DB,
      value: (t) => t * MOST_DB,
      amount: (db) => db / MOST_DB,
      apply: (db) => ({ place: { ...place, externalFaDb: (freqHz) => place.externalFaDb(freqHz) + db } }),
      say: (db) =>
        `outside noise ${Number(Math.abs(db).toPrecision(3))} dB ${db > 0 ? 'higher' : 'lower'} than expected`,
    },
    {
      what: 'line',
      most: 20,
      ...factorOn(1, 10),
      apply: (factor) => ({ place: { ...place, lineLossDb: (freqHz) => place.lineLossDb(freqHz) * factor } }),
      say: (factor) => `a line with ${Number(factor.toPrecision(3))} times the loss`,
    },
    {
      what: 'room',
      most: 20,
      ...factorOn(rules.room.spanM, 10),
      apply: (spanM) => ({ room: { ...rules.room, spanM } }),
      say: (spanM) => `a straight run of ${lengthText(spanM)} instead of ${lengthText(rules.room.spanM)}`,
    },
  ];
  for (const turn of turns) {
    const turned = (t: number): boolean => winnerOf(turn.apply(turn.value(t)))?.id !== now;
    const at = REACHES.find(turned);
    const found = at === undefined ? undefined : sayable(turn, narrowed(at, turned), turned);
    if (found === undefined) {
      yield [];
      continue;
    }
    const winner = winnerOf(turn.apply(found));
    const said = turn.say(found);
    yield [
      {
        what: turn.what,
        sizeDb: Math.abs(turn.amount(found)) * turn.most,
        winner: winner?.name ?? 'nothing',
        sentence: `${capital(said)} turns this round: ${winner ? `then ${winner.name} comes first` : 'then nothing is left that could be recommended'}.`,
      },
    ];
  }
}

/** A value with two or three digits that still turns it: a sentence with a rounded number must be true when tried. */
function sayable(turn: Turn, t: number, turned: (t: number) => boolean): number | undefined {
  const [value, from] = [turn.value(t), turn.value(0)];
  for (const digits of [2, 3]) {
    const rounded = roundedAway(value, from, digits);
    if (turn.say(rounded) !== turn.say(from) && turned(turn.amount(rounded))) return rounded;
  }
  return undefined;
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
