import { capital, frequencyText } from '../units/format';
import type { PathAnalysis } from './plan';
import type { PathStage } from './stages';

/** What decides how a path does, the worst first. */
type PathState = 'out of reach' | 'alias' | 'no supply' | 'overload' | 'product' | 'blocked' | 'noise' | 'fine';

/** One order of a path as the verdict takes it. */
export interface JudgedOrder {
  readonly order: number;
  /** Names of its stages, antenna first. */
  readonly names: readonly string[];
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
  /** Why something in it does not get its supply. */
  readonly supplyFault?: string;
}

/** What is so of one order: the state and the number that decides it, as data. */
interface OrderVerdict {
  readonly order: number;
  readonly state: PathState;
  /** What decides, as a clause: "Rx is driven 45 dB over its full scale". */
  readonly because: string;
  readonly next: string;
  readonly snrLossDb: number;
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
  /** Without transmitters nothing is known of overload. */
  readonly overloadJudged: boolean;
}

/** Losses of SNR within this of each other are heard alike, dB. */
export const ALIKE_DB = 0.05;
/** A stage that takes more than this off the wanted band stands in the way, dB. */
const BLOCKING_DB = 6;
/** A loss of SNR from here on asks for an amplifier or less loss, dB. Common practice, no source. */
const WORTH_MENDING_DB = 3;

const dbText = (db: number, digits = 0): string => `${Math.abs(db).toFixed(digits)} dB`;
const SEVERITY: Readonly<Record<PathState, number>> = {
  'out of reach': 7,
  alias: 6,
  'no supply': 5,
  overload: 4,
  blocked: 3,
  product: 2,
  noise: 1,
  fine: 0,
};

/** The state of one order. @param headName name of the antenna's own amplifier, which no filter of the path stands ahead of. */
function orderVerdict(
  { order, stages, analysis, supplyFault }: JudgedOrder,
  receiverName: string,
  { headName, transmits }: { readonly headName?: string; readonly transmits: boolean },
): OrderVerdict {
  const snrLossDb = analysis.snrLossWithProductsDb;
  const verdict = (state: PathState, because: string, next: string): OrderVerdict => ({
    order,
    state,
    because,
    next,
    snrLossDb,
  });
  if (analysis.outOfReach)
    return verdict(
      'out of reach',
      `${receiverName} does not tune to ${frequencyText(analysis.landsAtHz)}, where it arrives`,
      analysis.outOfReach,
    );
  if (analysis.alias)
    return verdict(
      'alias',
      `${receiverName} shows it only as an alias at ${frequencyText(analysis.alias.appearsAtHz)}${analysis.alias.mirrored ? ', mirrored' : ''}, over everything else that folds there`,
      'Raise the sample rate, put a converter into the path, or choose another receiver.',
    );
  if (supplyFault !== undefined) return verdict('no supply', supplyFault, supplyFault);
  const { firstOverload, canClip, peakHeadroomDb, headroomDb } = analysis;
  const overloaded = firstOverload ?? (canClip ? analysis.reports[analysis.reports.length - 1] : undefined);
  if (overloaded) {
    const isReceiver = overloaded === analysis.reports[analysis.reports.length - 1];
    const overDb = firstOverload ? -(firstOverload.roomDb ?? 0) : -(peakHeadroomDb ?? headroomDb ?? 0);
    const what = isReceiver
      ? `${overloaded.name} is driven ${dbText(overDb, 1)} over its full scale${firstOverload ? '' : ' at the peaks'}`
      : `${overloaded.name} is driven ${dbText(overDb, 1)} past its compression`;
    const byHead = overloaded.name === headName;
    return verdict(
      'overload',
      what,
      byHead
        ? 'The antenna’s own amplifier overloads, and nothing behind it helps: a filter at its input, or another antenna.'
        : `Put a filter or pad of at least ${Math.ceil(overDb)} dB at the strong transmitters ahead of ${overloaded.name}.`,
    );
  }
  const blocker = blockerOf(stages, analysis);
  if (blocker)
    return verdict(
      'blocked',
      `${blocker.name} takes ${dbText(blocker.lossDb)} off the wanted band`,
      `Take ${blocker.name} out, or give it other edges: it is meant for another frequency than ${frequencyText(blocker.atHz)}.`,
    );
  const { worstProduct } = analysis;
  // a filter takes the product away and leaves the noise
  const remains =
    analysis.snrLossDb > WORTH_MENDING_DB
      ? ` Without the product ${dbText(analysis.snrLossDb, snrLossDigits(analysis.snrLossDb))} remain lost to noise: less loss, or an amplifier behind the filter.`
      : '';
  if (worstProduct && worstProduct.overNoiseDb > 0)
    return verdict(
      'product',
      `an intermodulation product ${dbText(worstProduct.overNoiseDb)} over the noise is made ${worstProduct.madeIn === headName ? 'inside the antenna, where no filter of this path stands ahead' : `in ${worstProduct.madeIn}`}`,
      worstProduct.madeIn === headName
        ? 'The antenna’s own amplifier makes a product that no filter behind it takes off: one at its input, or another antenna.'
        : `Put a filter ahead of ${worstProduct.madeIn}.${remains}`,
    );
  if (snrLossDb > WORTH_MENDING_DB)
    return verdict(
      'noise',
      'the chain adds more noise than it should',
      'Reduce the loss, or put an amplifier before the line.',
    );
  return verdict(
    'fine',
    'the noise from outside decides',
    transmits ? 'Nothing must change; check the Guard before transmitting.' : 'Nothing must change.',
  );
}

/** The passive stage that takes most off the wanted band, if it stands in the way. */
function blockerOf(stages: readonly PathStage[], { reports }: PathAnalysis) {
  const losses = stages.map((stage, i) => ({
    name: stage.name,
    kind: stage.kind,
    atHz: reports[i].freqHz,
    // what a filter loses everywhere is no fault of its edges
    lossDb:
      reports[i].gainAheadDb -
      reports[i + 1].gainAheadDb -
      (stage.kind === 'filter' ? stage.filter.insertionLossDb : 0),
  }));
  return losses
    .filter(
      ({ kind, lossDb }) => (kind === 'filter' || kind === 'part' || kind === 'converter') && lossDb > BLOCKING_DB,
    )
    .sort((a, b) => b.lossDb - a.lossDb)[0];
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

/** The verdict of a path on a target from its orders. */
export function pathVerdict(
  orders: readonly JudgedOrder[],
  {
    targetName,
    receiverName,
    headName,
    transmitters,
    transmits,
  }: {
    readonly targetName: string;
    readonly receiverName: string;
    readonly headName?: string;
    /** How many were counted. */
    readonly transmitters: number;
    /** Whether the station has a transmitter of its own. */
    readonly transmits: boolean;
  },
): PathVerdict {
  const ranked = orders
    .map((one) => orderVerdict(one, receiverName, { ...(headName === undefined ? {} : { headName }), transmits }))
    .sort(byVerdict);
  const [better] = ranked;
  const overloadJudged = transmitters > 0;
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
        return `${serves}: ${lost(better)} lost${against}.`;
    }
  })();
  const calm = better.state === 'fine' || better.state === 'noise';
  return {
    better,
    ...(other ? { other } : {}),
    sentence,
    next:
      calm && !overloadJudged
        ? 'Enter the transmitters nearby in Listen: without them overload is not judged.'
        : better.next,
    limit: calm
      ? overloadJudged
        ? 'Noise, not overload: as little loss as possible ahead of the first amplifier.'
        : 'Noise, as far as is known: no transmitter is entered, so overload is not judged.'
      : `${capital(better.because).replace(/\.$/, '')}.`,
    overloadJudged,
  };
}
