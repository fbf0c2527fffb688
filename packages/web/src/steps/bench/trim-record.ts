import type { Change, Values } from '@velvet-reed/contract';
import type { LengthReading } from '@velvet-reed/core/sweep';
import { frequencyText, lengthText, slipOf } from '@velvet-reed/core/units';
import { entry } from '@velvet-reed/station/record';

type Step = Values<'trimSteps'>;

/** A step in words, for the notebook. */
export const trimStory = (trimName: string, step: Step): string =>
  `${trimName} ${lengthText(step.lengthM, 4)}, dip ${frequencyText(step.freqHz, 5)}.${step.note ? ` ${step.note}` : ''}${
    step.undoNote ? ` Undo: ${step.undoNote}.` : ''
  }`;

/** A step with its line in the notebook; the photo is named by the batch it comes with. */
export const trimChanges = (
  antennaName: string,
  trimName: string,
  step: Step,
  photo: File | undefined,
): readonly Change[] => [
  { op: 'create', resource: 'trimSteps', values: photo ? { ...step, photoId: { new: 'photo' } } : step },
  entry('bench', `${antennaName}: ${trimStory(trimName, step)}${photo ? ' With a photo.' : ''}`),
];

/** What to ask when a length or a dip lies a factor of ten or a thousand off what was written before, or what the draft expects. */
export function trimDoubt(
  step: Step,
  steps: readonly LengthReading[],
  { targetHz, startLengthM }: { readonly targetHz: number; readonly startLengthM: number },
): string | undefined {
  const length = slipOf(step.lengthM, steps.length > 0 ? steps.map(({ lengthM }) => lengthM) : [startLengthM]);
  if (length)
    return `${lengthText(step.lengthM, 4)} is about ${length.kind} off the ${steps.length > 0 ? 'lengths before' : 'draft'}. Did you mean ${lengthText(length.meant, 4)}?`;
  const freq = slipOf(step.freqHz, [...steps.map(({ freqHz }) => freqHz), targetHz]);
  if (freq)
    return `${frequencyText(step.freqHz, 5)} is about ${freq.kind} off ${steps.length > 0 ? 'the dips before' : 'the target'}. Did you mean ${frequencyText(freq.meant, 5)}?`;
  return undefined;
}
