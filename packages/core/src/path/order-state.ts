import { frequencyText } from '../units/format';
import type { PathAnalysis } from './plan';
import type { PathReceiver } from './question';
import type { PathStage } from './stages';

/** What decides how a path does, the worst first. */
export type PathState = 'out of reach' | 'alias' | 'no supply' | 'overload' | 'product' | 'blocked' | 'noise' | 'fine';

/** How bad a state is; 0: nothing must change. */
export const SEVERITY: Readonly<Record<PathState, number>> = {
  'out of reach': 7,
  alias: 6,
  'no supply': 5,
  overload: 4,
  blocked: 3,
  product: 2,
  noise: 1,
  fine: 0,
};

/** One order of a path as the verdict takes it. */
export interface JudgedOrder {
  readonly order: number;
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
  /** The receiver at the gain that it is judged at; absent: as it is. */
  readonly receiver?: PathReceiver;
  /** Why something in it does not get its supply. */
  readonly supplyFault?: string;
}

/** The state of one order and what decides it. */
export interface OrderState {
  readonly state: PathState;
  /** What decides, as a clause: "Rx is driven 45 dB over its full scale". */
  readonly because: string;
  /** Stage or receiver that is at fault. */
  readonly culprit?: string;
  readonly snrLossDb: number;
}

/** A stage that takes more than this off the wanted band stands in the way, dB. */
const BLOCKING_DB = 6;
/** A loss of SNR from here on asks for an amplifier or less loss, dB. Common practice, no source. */
const WORTH_MENDING_DB = 3;

const dbText = (db: number, digits = 0): string => `${Math.abs(db).toFixed(digits)} dB`;

/** @param headName name of the antenna's own amplifier, which no filter of the path stands ahead of. */
export function orderState(
  { stages, analysis, supplyFault }: Pick<JudgedOrder, 'stages' | 'analysis' | 'supplyFault'>,
  receiverName: string,
  headName?: string,
): OrderState {
  const snrLossDb = analysis.snrLossWithProductsDb;
  const found = (state: PathState, because: string, more: Partial<OrderState> = {}): OrderState => ({
    ...{ state, because, snrLossDb },
    ...more,
  });
  if (analysis.outOfReach)
    return found(
      'out of reach',
      `${receiverName} does not tune to ${frequencyText(analysis.landsAtHz)}, where it arrives`,
    );
  if (analysis.alias)
    return found(
      'alias',
      `${receiverName} shows it only as an alias at ${frequencyText(analysis.alias.appearsAtHz)}${analysis.alias.mirrored ? ', mirrored' : ''}, over everything else that folds there`,
    );
  if (supplyFault !== undefined) return found('no supply', supplyFault);
  const { firstOverload, canClip, peakHeadroomDb, headroomDb, reports } = analysis;
  const receiver = reports[reports.length - 1];
  const overloaded = firstOverload ?? (canClip ? receiver : undefined);
  if (overloaded) {
    const overDb = firstOverload ? -(firstOverload.roomDb ?? 0) : -(peakHeadroomDb ?? headroomDb ?? 0);
    return found(
      'overload',
      overloaded === receiver
        ? `${overloaded.name} is driven ${dbText(overDb, 1)} over its full scale${firstOverload ? '' : ' at the peaks'}`
        : `${overloaded.name} is driven ${dbText(overDb, 1)} past its compression`,
      { culprit: overloaded.name },
    );
  }
  const blocker = blockerOf(stages, analysis);
  if (blocker)
    return found('blocked', `${blocker.name} takes ${dbText(blocker.lossDb)} off the wanted band`, {
      culprit: blocker.name,
    });
  const { worstProduct } = analysis;
  if (worstProduct && worstProduct.overNoiseDb > 0)
    return found(
      'product',
      `an intermodulation product ${dbText(worstProduct.overNoiseDb)} over the noise is made ${worstProduct.madeIn === headName ? 'inside the antenna, where no filter of this path stands ahead' : `in ${worstProduct.madeIn}`}`,
      { culprit: worstProduct.madeIn },
    );
  return snrLossDb > WORTH_MENDING_DB
    ? found('noise', 'the chain adds more noise than it should')
    : found('fine', 'the noise from outside decides');
}

/** The passive stage that takes most off the wanted band, if it stands in the way. */
function blockerOf(stages: readonly PathStage[], { reports }: PathAnalysis) {
  const losses = stages.map((stage, i) => ({
    name: stage.name,
    kind: stage.kind,
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
