import type { Saved } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import type { NextCut, Resonance } from '@velvet-reed/core/sweep';
import { frequencyText, lengthText } from '@velvet-reed/core/units';

/** What is known of a sweep, stored or not. */
export type SweepHeader = Pick<
  Saved<'sweeps'>,
  'id' | 'name' | 'points' | 'startHz' | 'stopHz' | 'phaseKnown' | 'correction'
>;

/** A sweep with its samples and what stands in them. */
export interface LoadedSweep<H extends SweepHeader = SweepHeader> {
  readonly header: H;
  readonly sweep: SweepData;
  readonly dips: readonly Resonance[];
  /** 0-based look of its curve. */
  readonly look: number;
}

/** One that is kept. */
export type StoredSweep = LoadedSweep<Saved<'sweeps'>>;

/** Where a dip's figures come from. */
export const dipProvenance = (sweep: Pick<SweepHeader, 'name' | 'points'>) =>
  ({
    origin: 'measured',
    formula: 'deepest |Γ|, by a parabola through the three lowest points',
    inputs: [
      ['sweep', sweep.name],
      ['points', String(sweep.points)],
    ],
    source: 'your sweep',
  }) as const;

/** How far a millimetre moves the dip: "−15.8 MHz/mm", never with a power of ten. */
export const slopeText = (slopeHzPerM: number): string =>
  `${slopeHzPerM < 0 ? '−' : ''}${frequencyText(Math.abs(slopeHzPerM) / 1000, 3)}/mm`;

/** Formula and inputs behind a proposed cut. */
export const cutProvenance = (cut: NextCut) =>
  ({
    origin: cut.method === 'proportional' ? 'model' : 'measured',
    formula: `half of the way left to ${lengthText(cut.targetLengthM, 4)}, by the ${cut.method === 'proportional' ? 'proportional rule f·l = const' : cut.method}; never past the target`,
    inputs: [
      ['slope', slopeText(cut.slopeHzPerM)],
      ['still to go', frequencyText(cut.remainingHz, 3)],
      ...(cut.straightLineTargetM === undefined
        ? []
        : [['straight line aims at', lengthText(cut.straightLineTargetM, 4)] as const]),
    ],
    source: 'your trim diary',
  }) as const;
