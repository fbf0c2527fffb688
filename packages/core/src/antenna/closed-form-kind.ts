import { lengthText } from '../units/format';
import type { BuildStep } from './build-plan';
import { dimensionsOf } from './dimensions';
import type { AntennaKind, Design, Dimensions, DraftFigure } from './kind';

type Spec = Omit<AntennaKind, 'draft' | 'fit'> & {
  readonly pieces: (d: Dimensions) => readonly {
    readonly name: string;
    readonly count: number;
    readonly finishedM: number;
    readonly bought?: boolean;
  }[];
  readonly figures: (d: Dimensions, design: Design) => readonly DraftFigure[];
  readonly remarks: (d: Dimensions, design: Design) => readonly string[];
  readonly steps: readonly BuildStep[];
  readonly needsM: (d: Dimensions) => number;
};

/** A kind that is no wire: computed by closed form alone, with its limits said. */
export function closedForm({ pieces, figures, remarks, steps, needsM, ...kind }: Spec): AntennaKind {
  return {
    ...kind,
    draft(design) {
      const d = dimensionsOf(kind.parameters, design);
      const cut = pieces(d).map((piece) => ({ ...piece, cutM: piece.finishedM }));
      return {
        pieces: cut,
        figures: figures(d, design),
        remarks: remarks(d, design),
        steps,
        trimLengthM: cut[0].finishedM,
        trimName: cut[0].name,
      };
    },
    fit(design, room) {
      const needsSpanM = needsM(dimensionsOf(kind.parameters, design));
      const fits = needsSpanM <= room.spanM && needsSpanM <= room.heightM;
      return {
        fits,
        needsSpanM,
        needsHeightM: needsSpanM,
        reason: fits
          ? `it fits, ${lengthText(needsSpanM)} across`
          : `it is ${lengthText(needsSpanM)} across, and the place offers ${lengthText(Math.min(room.spanM, room.heightM))}`,
      };
    },
  };
}

export const figure = (
  label: string,
  value: number,
  dimension: DraftFigure['dimension'],
  formula: string,
  source: string,
  figures = 3,
): DraftFigure => ({ label, value, dimension, figures, origin: 'model', formula, source });

export const step = (id: string, text: string, more: Partial<BuildStep> = {}): BuildStep => ({
  id,
  text,
  waitsFor: [],
  final: false,
  ...more,
});
