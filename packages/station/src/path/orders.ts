import { createOf, type Change, type Saved, updateOf } from '@velvet-reed/contract';
import { cableRunM } from '@velvet-reed/core/plot';
import type { StationData } from '../record';

type Stage = Saved<'pathStages'>;

/** One order of a path's stages, antenna first. */
export interface StageOrder {
  readonly record: Saved<'pathOrders'>;
  readonly stages: readonly Stage[];
  readonly places: readonly Saved<'orderPlaces'>[];
  /** Stages of the path that this order does without. */
  readonly leftOut: readonly Stage[];
}

/** Length of a cable run on the plan; undefined without one. */
function runLengthM(data: StationData, plotFeatureId: number | null): number | undefined {
  const run = data.plotFeatures.find((feature) => feature.id === plotFeatureId);
  return run && cableRunM(run);
}

/** All stages of a path, whatever order; a line along a run of the plan is as long as the run. */
const stagesOf = (data: StationData, pathId: number): readonly Stage[] =>
  data.pathStages
    .filter((stage) => stage.pathId === pathId)
    .map((stage) => ({ ...stage, lengthM: runLengthM(data, stage.plotFeatureId) ?? stage.lengthM }));

/** The orders of a path by their number. */
export function ordersOf(data: StationData, pathId: number): readonly StageOrder[] {
  const all = stagesOf(data, pathId);
  return data.pathOrders
    .filter((order) => order.pathId === pathId)
    .sort((a, b) => a.number - b.number)
    .map((record): StageOrder => {
      const places = data.orderPlaces
        .filter(({ orderId }) => orderId === record.id)
        .sort((a, b) => a.place - b.place || a.id - b.id);
      const stages = places.flatMap(({ stageId }) => all.filter(({ id }) => id === stageId));
      return { record, places, stages, leftOut: all.filter(({ id }) => !stages.some((stage) => stage.id === id)) };
    });
}

/** The stages of a path in its first order. */
export const firstOrder = (data: StationData, pathId: number): readonly Stage[] =>
  ordersOf(data, pathId)[0]?.stages ?? [];

type Reference = number | { readonly new: string };

/** The first place behind the last stage of an order. */
const endOf = ({ places }: StageOrder): number => 1 + Math.max(-1, ...places.map(({ place }) => place));

/** Puts a stage at the receiver's end of every order. */
export const placeAtEnd = (orders: readonly StageOrder[], stageId: Reference): readonly Change[] =>
  orders.map((order) => createOf('orderPlaces', { orderId: order.record.id, stageId, place: endOf(order) }));

/** Puts the stages of an order into another sequence. */
export const moveStage = (order: StageOrder, stageIds: readonly number[]): readonly Change[] =>
  stageIds.flatMap((id, place) => {
    const row = order.places.find(({ stageId }) => stageId === id);
    return row && row.place !== place ? [updateOf('orderPlaces', row, { place })] : [];
  });

/** A new order of a path with stages in a row. */
export const newOrder = (pathId: Reference, number: number, stageIds: readonly Reference[]): readonly Change[] => [
  createOf('pathOrders', { pathId, number }, `order ${number}`),
  ...stageIds.map((stageId, place) => createOf('orderPlaces', { orderId: { new: `order ${number}` }, stageId, place })),
];
