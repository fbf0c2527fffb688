import { AIMED_FROM_HZ } from '../site/sky-temperature';
import { capital } from '../units/format';
import { type Cure, cureFor } from './cures';
import { type JudgedOrder, type OrderState, orderState, type PathState, SEVERITY } from './order-state';
import type { PathQuestion, PathReceiver } from './question';

/** What is so of one order: the state and the number that decides it, as data. */
interface OrderVerdict extends OrderState {
  readonly order: number;
}

/** A path as page, table, notebook and report state it. */
export interface PathVerdict {
  readonly better: OrderVerdict;
  /** The best of the orders that do worse; absent when none does. */
  readonly other?: OrderVerdict;
  readonly sentence: string;
  readonly next: string;
  /** Which limit binds, for the margin. */
  readonly limit: string;
  /** An own transmitter may destroy what is connected, and nobody planned for it. */
  readonly threatened: boolean;
  /** Without transmitters nothing is known of overload. */
  readonly overloadJudged: boolean;
  /** What is advised about the chain, and was applied; absent where nothing is. */
  readonly cure?: { readonly kinds: Cure['kinds']; readonly words: string };
}

/** Losses of SNR within this of each other are heard alike, dB. */
export const ALIKE_DB = 0.05;
/** What to do about an order. What is advised was applied in the computation: its figure stands in the sentence. */
function nextOf(one: JudgedOrder, found: OrderState, cure: Cure | undefined, asks: PathAsks): string {
  const { receiver, headName, transmits } = asks;
  switch (found.state) {
    case 'out of reach':
      return one.analysis.outOfReach ?? '';
    case 'alias':
      return 'Raise the sample rate, put a converter into the path, or choose another receiver.';
    case 'no supply':
      return found.because;
    case 'fine':
      return transmits ? 'Nothing must change; check the Guard before transmitting.' : 'Nothing must change.';
    default: {
      if (cure) return cureWords(cure, receiver);
      if (found.culprit !== undefined && found.culprit === headName)
        return 'Nothing behind the antenna’s own amplifier helps: a filter at its input, or another antenna.';
      if (found.state === 'noise')
        return one.stages.some(({ kind }) => kind === 'converter')
          ? // its own noise remains: what is left to do is told with all that comes afterwards
            ''
          : 'Nothing that was tried here takes a decibel off: choose an antenna that hands on more.';
      return 'Nothing that was tried here ends it: choose another antenna or receiver.';
    }
  }
}

/** What one's own transmitter does to what hangs on the antenna. */
const threatWords = ({ name, levelDbm }: { readonly name: string; readonly levelDbm: number }): string =>
  `While ${name} sends, ${levelDbm.toFixed(0)} dBm come down from this antenna: more than a receiver is taken to bear.`;

/** Less than this is told as less, dB: nobody hears it. */
const LITTLE_DB = 0.1;

/** An advice with what it leaves: "Leave booster out: 1.2 dB of SNR are lost then." */
function cureWords({ kinds, does, after, state }: Cure, receiver: PathReceiver): string {
  const gain = after.receiver.name === receiver.name ? '' : `, with ${after.receiver.name}`;
  // what is bought has figures that are usual for it
  const assumed = kinds.some((kind) => kind === 'stop' || kind === 'amplify') ? ' (usual figures assumed)' : '';
  const left =
    state.snrLossDb < LITTLE_DB
      ? `under ${LITTLE_DB} dB of SNR`
      : `${state.snrLossDb.toFixed(snrLossDigits(state.snrLossDb))} dB of SNR`;
  return `${capital(does)}: ${left} ${state.state === 'fine' ? 'lost then' : 'remain lost'}${gain}${assumed}.`;
}

/** Better first: less severe, then less SNR lost. */
const byVerdict = (a: OrderVerdict, b: OrderVerdict): number =>
  SEVERITY[a.state] - SEVERITY[b.state] ||
  (Math.abs(a.snrLossDb - b.snrLossDb) < ALIKE_DB ? a.order - b.order : a.snrLossDb - b.snrLossDb);

/** SNR lost with no more digits than it deserves. */
export const snrLossDigits = (db: number): number => (db < 1 ? 2 : db < 10 ? 1 : 0);

/** How a product stands to the noise. */
export const overNoise = ({ overNoiseDb }: { readonly overNoiseDb: number }): string =>
  `${Math.abs(overNoiseDb).toFixed(0)} dB ${overNoiseDb > 0 ? 'over' : 'under'} the noise`;

/** Which orders serve a target best, out of how many. */
function servesWords(asGood: readonly OrderVerdict[], count: number, targetName: string): string {
  if (count === 1) return `This order serves ${targetName}`;
  if (asGood.length === count) return `${count === 2 ? 'Both' : `All ${count}`} orders serve ${targetName} alike`;
  if (asGood.length === 1) return `Order ${asGood[0].order} serves ${targetName} ${count === 2 ? 'better' : 'best'}`;
  const names = asGood.map(({ order }) => String(order)).sort((a, b) => Number(a) - Number(b));
  return `Orders ${names.slice(0, -1).join(', ')} and ${names[names.length - 1]} serve ${targetName} alike`;
}

/** What a path is judged for. */
interface PathAsks {
  readonly targetName: string;
  /** At its lowest gain. */
  readonly receiver: PathReceiver;
  readonly question: PathQuestion;
  readonly headName?: string;
  /** An own transmitter that puts more on the antenna than what is connected is taken to bear, and that nobody planned for. */
  readonly threat?: { readonly name: string; readonly levelDbm: number };
  /** Whether the station has a transmitter of its own. */
  readonly transmits: boolean;
  /** What a common-mode choke would bring at this antenna, where it has none or nobody said, as a clause. */
  readonly choke?: string;
}

/** A receiver that ends here is a sound card. */
const SOUND_CARD_MOST_HZ = 200e3;
const AIM = 'aim for the greatest signal, then let the oscillator warm up and read its drift';
const ISOLATE = 'keep the hum out by an isolating transformer between cable and sound card';

/** What comes after the chain itself is in order: what it alone needs, then what nobody knows yet. */
function afterwards(one: JudgedOrder, { question, receiver, choke }: PathAsks): readonly string[] {
  const aimed = one.stages.some(({ kind }) => kind === 'converter') && question.lowHz >= AIMED_FROM_HZ;
  return [
    ...(aimed ? [AIM] : []),
    ...(receiver.maxHz <= SOUND_CARD_MOST_HZ ? [ISOLATE] : []),
    ...(choke === undefined ? [] : [`try ${choke} less noise (assumed)`]),
    ...(question.signals.some(({ assumed }) => !assumed) || aimed
      ? []
      : ['enter the transmitters nearby in Listen: without them overload is not judged']),
  ];
}
/** States that a change of the chain may end. */
const CURABLE: readonly PathState[] = ['overload', 'product', 'blocked', 'noise'];
/** So many steps are told at once. */
const STEPS_TOLD = 2;

/** The verdict of a path on a target from its orders. */
export function pathVerdict(orders: readonly JudgedOrder[], asks: PathAsks): PathVerdict {
  const { targetName } = asks;
  const receiverOf = (one: JudgedOrder | undefined): string => one?.receiver?.name ?? asks.receiver.name;
  const ranked = orders
    .map((one): OrderVerdict => ({ order: one.order, ...orderState(one, receiverOf(one), asks.headName) }))
    .sort(byVerdict);
  const overloadJudged = asks.question.signals.some(({ assumed }) => !assumed);
  const [better] = ranked;
  const asGood = ranked.filter(
    (one) => one.state === better.state && Math.abs(one.snrLossDb - better.snrLossDb) < ALIKE_DB,
  );
  const other = ranked.find((one) => !asGood.includes(one));
  const lost = (one: OrderVerdict): string => `${one.snrLossDb.toFixed(snrLossDigits(one.snrLossDb))} dB of SNR`;
  const serves = servesWords(asGood, ranked.length, targetName);
  const against = !other
    ? ''
    : other.state === 'fine' || other.state === 'noise' || other.state === 'product'
      ? ` against ${other.snrLossDb.toFixed(snrLossDigits(other.snrLossDb))} dB`
      : `; ${other.state === 'no supply' ? `order ${other.order} fails:` : `in order ${other.order}`} ${other.because.split('. ')[0]}`;
  const working = receiverOf(orders.find(({ order }) => order === better.order));
  const atGain = working === asks.receiver.name ? '' : `, with ${working}`;
  const sentence = ((): string => {
    switch (better.state) {
      case 'out of reach':
      case 'alias':
        return `${targetName} is not heard like this: ${better.because}.`;
      case 'no supply':
        return `${['This order does not feed', 'Neither order feeds'][ranked.length - 1] ?? 'No order feeds'} what needs a supply: ${better.because}`;
      case 'overload':
      case 'blocked':
        return `${targetName} is not served like this: ${better.because}.`;
      case 'product':
        return `${serves}: ${lost(better)} lost${against}, because ${better.because}.`;
      default:
        return `${serves}: ${lost(better)} lost${against}${atGain}.`;
    }
  })();
  const judged = orders.find(({ order }) => order === better.order);
  const { receiver, question, headName } = asks;
  const cure =
    judged && CURABLE.includes(better.state)
      ? cureFor({ stages: judged.stages, receiver, question, ...(headName === undefined ? {} : { headName }) })
      : undefined;
  const first = judged ? nextOf(judged, better, cure, asks) : '';
  const calm = better.state === 'fine' || better.state === 'noise';
  const more = judged && calm ? afterwards(judged, asks) : [];
  // what is in order already needs no sentence of its own where something else is to be done
  const all = more.length > 0 && better.state === 'fine' && !asks.transmits ? more : [first, ...more];
  const steps = all.filter((step) => step !== '').slice(0, STEPS_TOLD);
  const next = steps.map((step, i) => (i === 0 ? capital(step) : `Then ${step}`).replace(/\.?$/, '.')).join(' ');
  return {
    better,
    ...(other ? { other } : {}),
    sentence: asks.threat ? `${threatWords(asks.threat)} ${sentence}` : sentence,
    next: asks.threat ? 'Plan it in Guard before you transmit, with this receiver.' : next,
    limit: calm
      ? overloadJudged
        ? 'Noise, not overload: as little loss as possible ahead of the first amplifier.'
        : 'Noise, as far as is known: no transmitter is entered, so overload is not judged.'
      : `${capital(better.because).replace(/\.$/, '')}.`,
    threatened: asks.threat !== undefined,
    overloadJudged,
    ...(cure ? { cure: { kinds: cure.kinds, words: cureWords(cure, receiver) } } : {}),
  };
}
