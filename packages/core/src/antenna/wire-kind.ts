import type { Ground, WireModel } from '../solver/model';
import { lengthText } from '../units/format';
import { wireBuildPlan, type BuildStep } from './build-plan';
import { dimensionsOf } from './dimensions';
import type { AntennaKind, CutPiece, Design, Dimensions, Draft, DraftFigure, Fit, PlaceRoom } from './kind';

/** What a wire antenna says of itself; the rest is common to all. */
interface WireKindSpec extends Omit<AntennaKind, 'draft' | 'fit' | 'model'> {
  /** Finished pieces; cut lengths get the allowance. `keep` pieces are cut to length (radials, spreaders). */
  readonly pieces: (
    d: Dimensions,
    design: Design,
  ) => readonly (Omit<CutPiece, 'cutM' | 'longer'> & {
    readonly keep?: boolean;
    /** Length by the usual rule: a cut is never shorter, because it cannot be lengthened. */
    readonly ruleM?: number;
    /** What the wire model needs over the closed form at most, ratio, as solved over average ground; counts until the length is set or trimmed. */
    readonly modelNeeds?: number;
  })[];
  readonly figures?: (d: Dimensions, design: Design) => readonly DraftFigure[];
  readonly remarks?: (d: Dimensions, design: Design) => readonly string[];
  /** What is cut and how it goes up, for the build plan; or steps of its own. */
  readonly build:
    | { readonly cuts: string; readonly raise: string; readonly digs?: boolean }
    | ((d: Dimensions) => readonly BuildStep[]);
  /** Ground span and height it takes, metres. */
  readonly needs: (d: Dimensions, design: Design) => { readonly spanM: number; readonly heightM: number };
  /** Its longest stiff piece, turned or held as a whole, m: a boom, an element of tube. */
  readonly stiffM?: (d: Dimensions) => number;
  readonly wires: (d: Dimensions, design: Design) => Omit<WireModel, 'ground'>;
}

/** A boom or an element longer than this is no matter of a mast. Common practice, no source. */
const MOST_STIFF_M = 6;
/** A support as high as this is taken for a tower, a lower one for a mast. Common practice, no source. */
const TOWER_M = 12;

/** A kind from its own part: drafting, fitting and modelling are the same for all wire antennas. */
export function wireKind(spec: WireKindSpec): AntennaKind {
  const dims = (design: Design): Dimensions => dimensionsOf(spec.parameters, design);
  const draft = (design: Design): Draft => {
    const d = dims(design);
    const trim = spec.trim;
    const trimmed = trim !== undefined && design.dimensions[trim.id] !== undefined;
    const pieces = spec.pieces(d, design).map(({ keep, ruleM = 0, modelNeeds = 1, ...piece }): CutPiece => {
      if (keep) return { ...piece, cutM: piece.finishedM };
      const byModelM = piece.finishedM * (trimmed ? 1 : modelNeeds);
      const neededM = Math.max(piece.finishedM, byModelM, ruleM);
      return {
        ...piece,
        cutM: neededM * (1 + design.allowance),
        ...(neededM > piece.finishedM
          ? {
              longer:
                ruleM >= byModelM
                  ? `The usual rule asks for ${lengthText(ruleM, 4)}, the model for ${lengthText(byModelM, 4)}: cut for the longer; it can be shortened, not lengthened.`
                  : `The wire model asks for up to ${lengthText(byModelM, 4)}: cut for that; it can be shortened, not lengthened.`,
            }
          : {}),
      };
    });
    return {
      pieces,
      figures: spec.figures?.(d, design) ?? [],
      remarks: spec.remarks?.(d, design) ?? [],
      steps:
        typeof spec.build === 'function'
          ? spec.build(d)
          : wireBuildPlan(spec.build.cuts, spec.build.raise, spec.build.digs),
      trimLengthM: trim ? d[trim.id] * trim.share : pieces[0].finishedM,
      trimName: trim?.name ?? pieces[0].name,
    };
  };
  const fit = (design: Design, room: PlaceRoom): Fit => {
    const { spanM: needsSpanM, heightM: needsHeightM } = spec.needs(dims(design), design);
    const stiffM = spec.stiffM?.(dims(design)) ?? 0;
    if (stiffM > MOST_STIFF_M && room.heightM < TOWER_M)
      return {
        ...{ fits: false, needsSpanM, needsHeightM },
        reason: `its longest stiff piece is ${lengthText(stiffM)}: over ${MOST_STIFF_M} m it takes a tower, and ${lengthText(room.heightM)} here are taken for a mast`,
      };
    const fits = needsSpanM <= room.spanM && needsHeightM <= room.heightM;
    const reason = fits
      ? `it fits, with ${lengthText(room.spanM - needsSpanM)} of ground to spare`
      : needsSpanM > room.spanM
        ? `it needs ${lengthText(needsSpanM)} along the ground, and the place offers ${lengthText(room.spanM)}`
        : `it reaches ${lengthText(needsHeightM)} up, and the place offers ${lengthText(room.heightM)}`;
    return { fits, reason, needsSpanM, needsHeightM };
  };
  const model = (design: Design, ground: Ground): WireModel => ({
    ...spec.wires(dims(design), design),
    ground: spec.ownGround?.ground ?? ground,
  });
  const {
    pieces: _pieces,
    figures: _figures,
    remarks: _remarks,
    build: _build,
    needs: _needs,
    stiffM: _stiff,
    wires: _wires,
    ...own
  } = spec;
  return { ...own, draft, fit, model };
}

/** Parts that nearly every wire antenna takes. */
export const USUAL_PARTS: readonly string[] = [
  'centre insulator or feed block',
  'end insulators and UV-proof rope',
  'coax with plug, sleeve and heat-shrink',
  'common-mode choke for the feed',
  'self-amalgamating tape',
];
