import type { Saved } from '@velvet-reed/contract';
import { type PathStage, reachesThrough } from '@velvet-reed/core/path';
import { ordersOf } from './orders';
import { toPathStage } from './stages';
import type { StationData } from '../record';

/** Stages of the first order of a path; those that nobody put in order stand as they were made. */
const firstStages = (data: StationData, path: Saved<'paths'>): readonly PathStage[] =>
  (ordersOf(data, path.id)[0]?.stages ?? data.pathStages.filter(({ pathId }) => pathId === path.id)).map((stage) =>
    toPathStage(data, stage),
  );

/** Whether the receiver of a path shows a band, which a converter of that path may bring there. */
export function reachesByPath(data: StationData, path: Saved<'paths'>, lowHz: number, highHz: number): boolean {
  const receiver = data.receivers.find(({ id }) => id === path.receiverId);
  return receiver !== undefined && reachesThrough(firstStages(data, path), receiver, lowHz, highHz);
}
