import { capital } from '../units/format';
import type { ReadyCandidate } from './candidate';
import type { ForecastPlace, ForecastTarget } from './forecast';
import type { SpotNoise } from './house-noise';
import { rankCandidates, type RankRules } from './rank';
import { choiceVerdict } from './verdict';

/** A single change of circumstances that makes another antenna the best. */
export interface TurningPoint {
  readonly what: 'noise' | 'house' | 'line';
  readonly sentence: string;
  /** How large the change is, for ordering: factors as dB, dB as they are. */
  readonly sizeDb: number;
  readonly winner: string;
}

const MOST_DB = 40;
const STEPS = 12;

/** A change by amount t (0: as it is, ±1: as far as is looked), as a value that a person can try, as conditions and as words. */
interface Turn {
  readonly what: TurningPoint['what'];
  readonly most: number;
  /** The value that t stands for, and back. */
  value(t: number): number;
  amount(value: number): number;
  apply(value: number): ForecastPlace;
  say(value: number): string;
  /** Values are said in steps of this; absent: with two digits. */
  readonly unit?: number;
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
 * What would have to change, one thing at a time, for another candidate to win: only what a listener can change or find out at home. Smallest changes
 * first. Arithmetic on answers already there: nothing is solved again.
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
  const winnerOf = (changed: ForecastPlace) => choiceVerdict(rankCandidates(ready, targets, changed, rules)).best?.spec;
  const now = winnerOf(place)?.id;
  if (now === undefined) return;
  const { noise } = place;
  const turns: readonly Turn[] = [
    {
      what: 'noise',
      unit: 1,
      most: MOST_DB,
      value: (t) => t * MOST_DB,
      amount: (db) => db / MOST_DB,
      apply: (db) => ({
        ...place,
        externalFaDb: (freqHz, time) => place.externalFaDb(freqHz, time) + db,
        ...(noise ? { noise: (ask) => shifted(noise(ask), db) } : {}),
      }),
      say: (db) => `outside noise ${wholeDb(db)} ${db > 0 ? 'higher' : 'lower'} than expected`,
    },
    ...(noise
      ? [
          {
            what: 'house',
            unit: 1,
            most: MOST_DB,
            value: (t: number) => t * MOST_DB,
            amount: (db: number) => db / MOST_DB,
            apply: (db: number) => ({
              ...place,
              noise: (ask: Parameters<typeof noise>[0]) => {
                const found = noise(ask);
                return shifted(found, found.houseDb > 0 ? Math.max(-found.houseDb, db) : 0);
              },
            }),
            say: (db: number) => `noise of your own house ${wholeDb(db)} ${db > 0 ? 'higher' : 'lower'} than assumed`,
          } as const,
        ]
      : []),
    {
      what: 'line',
      most: 20,
      ...factorOn(1, 10),
      apply: (factor) => ({ ...place, lineLossDb: (freqHz) => place.lineLossDb(freqHz) * factor }),
      say: (factor) => `a line with ${Number(factor.toPrecision(2))} times the loss`,
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

const wholeDb = (db: number): string => `${Number(Math.abs(db).toPrecision(2))} dB`;

const shifted = (noise: SpotNoise, db: number): SpotNoise => ({
  ...noise,
  ...{ low: noise.low + db, middle: noise.middle + db, high: noise.high + db, houseDb: noise.houseDb + db },
});

/** A value with two digits that still turns it: a sentence with a rounded number must be true when tried. */
function sayable(turn: Turn, t: number, turned: (t: number) => boolean): number | undefined {
  const [value, from] = [turn.value(t), turn.value(0)];
  const { unit } = turn;
  const rounded =
    unit === undefined
      ? roundedAway(value, from, 2)
      : unit * (value >= from ? Math.ceil(value / unit - 1e-9) : Math.floor(value / unit + 1e-9));
  return turn.say(rounded) !== turn.say(from) && turned(turn.amount(rounded)) ? rounded : undefined;
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
