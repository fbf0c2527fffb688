import type { Saved } from '@velvet-reed/contract';
import { fixed, type DcPath, type PathAnalysis, type PathProduct, type PathStage } from '@velvet-reed/core';
import type { StationData } from '../../data/station';
import { inDb } from '../../ui/value';

/** One order of a path, analysed: what is heard, and the DC on its coax. */
export interface OrderView {
  readonly order: 1 | 2;
  readonly stored: readonly Saved<'pathStages'>[];
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
  readonly dc: DcPath;
}

/** A path with both its orders analysed, as its tables take it. */
export interface PathView {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly receiver: Saved<'receivers'>;
  readonly orders: readonly OrderView[];
}

/** Why something in this order does not get its supply; undefined when everything does. */
export const supplyFault = ({ dc }: OrderView): string | undefined => dc.loads.flatMap(({ errors }) => errors)[0];

/** A loss of SNR with no more digits than it deserves: outside noise is known to some dB, small differences decide between orders. */
export const snrLoss = (lossDb: number) => inDb(lossDb, lossDb < 1 ? 2 : lossDb < 10 ? 1 : 0);

/** How a product stands to the noise. */
export const overNoise = ({ overNoiseDb }: PathProduct): string =>
  `${fixed(Math.abs(overNoiseDb), 0)} dB ${overNoiseDb > 0 ? 'over' : 'under'} the noise`;

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
