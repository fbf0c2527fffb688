import { atWorkingGain } from '@velvet-reed/core/path';
import { inputNode } from '@velvet-reed/station/guard/drawing';
import { toPathReceiver } from '@velvet-reed/station/path/stages';
import type { StationData } from '@velvet-reed/station/record';
import { judgedPath } from '@velvet-reed/station/verdicts';

/** SNR that so much loss at an input costs its receiver, by its Path; a receiver without a path loses dB for dB, the worst that can be. */
export function snrCostOf(data: StationData): (receiver: string, lossDb: number) => number {
  return (receiver, lossDb) => {
    const input = data.guardInputs.find(({ id }) => inputNode(id) === receiver);
    const path = data.paths.find(({ receiverId }) => receiverId === input?.receiverId);
    const judged = path && judgedPath(data, path);
    const [order] = judged?.orders ?? [];
    if (!judged || !order) return lossDb;
    const pad = { kind: 'pad' as const, name: 'what is put in', lossDb };
    const { analysis: behind } = atWorkingGain(
      [...order.stages, pad],
      toPathReceiver(judged.receiver),
      judged.asked.question,
    );
    return Math.max(0, behind.snrLossDb - order.analysis.snrLossDb);
  };
}
