import { inDb } from '@velvet-reed/core/units';
import type { Saved } from '@velvet-reed/contract';
import { type PathProduct, snrLossDigits } from '@velvet-reed/core/path';
import type { StationData } from '@velvet-reed/station/record';
import type { OrderView } from '@velvet-reed/station/verdicts';

/** A path with both its orders analysed, as its tables take it. */
export interface PathView {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly receiver: Saved<'receivers'>;
  readonly orders: readonly OrderView[];
}

/** A loss of SNR with no more digits than it deserves: outside noise is known to some dB, small differences decide between orders. */
export const snrLoss = (lossDb: number) => inDb(lossDb, snrLossDigits(lossDb));

/** Ink of a cell that tells of a product. */
export const productInk = (product: PathProduct | undefined): string =>
  product && product.overNoiseDb > 0 ? 'text-caution' : 'text-dim';

/** Where a figure of a whole order comes from. */
export const figureProvenance = (formula: string, view: Pick<OrderView, 'stages'>) =>
  ({
    origin: 'model',
    formula,
    inputs: view.stages.map((stage, i) => [`${i + 1}.`, stage.name] as const),
    source: 'Friis 1944; power-series intermodulation; stages as entered',
  }) as const;

export const lossProvenance = (view: Pick<OrderView, 'stages'>) =>
  figureProvenance(
    'outside noise against outside noise plus what the chain adds, the strongest in-band product counted as noise',
    view,
  );
