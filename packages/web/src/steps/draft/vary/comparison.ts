import type { Saved } from '@velvet-reed/contract';
import { antennaKind, checkDesign, type Design, knownDimensions } from '@velvet-reed/core/antenna';
import { groundClass } from '@velvet-reed/core/solver';
import { useMemo } from 'react';
import type { FocusBand } from '../../../data/focus';
import { modelOf, questionOf, useModels, type NamedQuestion } from '../../../data/model';
import { shownValue } from '../editing';
import type { ModelCurves } from '../model-figures';

/** Curves beside the drafted one: at most this many. */
export const MOST_CURVES = 3;
/** Factors of a family around the present value. */
const FACTORS = [0.5, 0.75, 1.5];
const GROUND_FAMILY = ['poor', 'good', 'sea'];

/** What is laid over the drafted antenna. */
export type Comparison =
  | { readonly by: 'nothing' | 'ground' | 'conductor' }
  | { readonly by: 'parameter'; readonly id: string }
  | { readonly by: 'revisions'; readonly ids: readonly number[] };

/** Designs that a comparison asks for; those that cannot be built are left out. */
export function family(
  comparison: Comparison,
  design: Design,
  groundId: string,
  revisions: readonly Saved<'revisions'>[],
): readonly { readonly name: string; readonly design: Design; readonly groundId: string }[] {
  const sound = (one: Design): boolean => {
    try {
      checkDesign(one);
      return true;
    } catch {
      return false;
    }
  };
  switch (comparison.by) {
    case 'nothing':
      return [];
    case 'ground':
      return GROUND_FAMILY.filter((id) => id !== groundId).map((id) => ({
        name: groundClass(id).name.split(/[:(]/)[0].trim(),
        design,
        groundId: id,
      }));
    case 'conductor':
      return FACTORS.map((factor) => ({ ...design, diameterM: design.diameterM * factor ** 2 }))
        .filter(sound)
        .map((one) => ({ name: `${shownValue(one.diameterM, 'length')} conductor`, design: one, groundId }));
    case 'parameter': {
      const kind = antennaKind(design.kind);
      const parameter = kind.parameters.find((one) => one.id === comparison.id);
      if (!parameter) return [];
      const value = knownDimensions(design)[parameter.id];
      if (value === undefined) return [];
      return FACTORS.map((factor) => {
        const raw = Math.min(parameter.most, Math.max(parameter.least, value * factor));
        return parameter.whole ? Math.round(raw) : Number(raw.toPrecision(3));
      })
        .map((next) => ({ next, design: { ...design, dimensions: { ...design.dimensions, [parameter.id]: next } } }))
        .filter((one) => sound(one.design))
        .map((one) => ({
          name: `${parameter.label.toLowerCase()} ${shownValue(one.next, parameter.dimension)}`,
          design: one.design,
          groundId,
        }));
    }
    case 'revisions':
      return revisions
        .filter((revision) => comparison.ids.includes(revision.id))
        .slice(0, MOST_CURVES)
        .map((revision) => ({ name: `revision ${revision.number}`, design: revision, groundId }));
  }
}

/** Solves what a comparison asks for; curves with the looks 1 to 3. */
export function useComparison(
  comparison: Comparison,
  design: Design,
  groundId: string,
  band: FocusBand,
  revisions: readonly Saved<'revisions'>[],
): readonly ModelCurves[] {
  const questions = useMemo(
    (): readonly NamedQuestion[] =>
      family(comparison, design, groundId, revisions).map((one) => ({
        name: one.name,
        question: { ...questionOf(modelOf(one.design, one.groundId), design.freqHz, band) },
      })),
    [comparison, design, groundId, band, revisions],
  );
  const states = useModels(questions);
  return useMemo(() => states.map(({ name, spot, sweep }, i) => ({ name, look: i + 1, spot, sweep })), [states]);
}
