import type { Saved } from '@velvet-reed/contract';
import type { PathAnalysis, PathStage } from '@velvet-reed/core';
import type { StationData } from '../../data/station';

/** Both orders of a path, analysed. */
export interface OrderView {
  readonly order: 1 | 2;
  readonly stored: readonly Saved<'pathStages'>[];
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
}

/** A path with both its orders analysed, as its tables take it. */
export interface PathView {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly receiver: Saved<'receivers'>;
  readonly orders: readonly OrderView[];
}

/** Where a figure of a whole order comes from. */
export const figureProvenance = (formula: string, view: OrderView) =>
  ({
    origin: 'model',
    formula,
    inputs: view.stages.map((stage, i) => [`${i + 1}.`, stage.name] as const),
    source: 'Friis 1944; power-series intermodulation; stages as entered',
  }) as const;

export const lossProvenance = (view: OrderView) =>
  figureProvenance(
    'outside noise against outside noise plus what the chain adds, the strongest in-band product counted as noise',
    view,
  );
