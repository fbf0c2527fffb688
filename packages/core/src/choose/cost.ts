import { knownDimensions, tryDraft } from '../antenna/attempt';
import type { Burden, Design } from '../antenna/kind';
import { antennaKind } from '../antenna/kinds';
import { rememberedOf } from './remembered';

/** What a metre and a post cost here, in the listener's currency. Assumed; each can be changed. */
export interface PriceRates {
  readonly wirePerM: number;
  /** Tube or rod that holds itself. */
  readonly tubePerM: number;
  /** Mast above head height. */
  readonly mastPerM: number;
  /** Post, pole or rope over a branch that holds a wire up. */
  readonly perPost: number;
}
export const USUAL_RATES: PriceRates = { wirePerM: 0.8, tubePerM: 4, mastPerM: 12, perPost: 15 };

/** A conductor this thick holds itself, m. */
const TUBE_FROM_M = 0.006;
/** A wire is held up at least so often, m. Common practice, no source. */
const POST_EVERY_M = 25;
/** Reached from the ground or a short ladder, m. */
const HEAD_M = 3;
/** What a kind states is for wire of this length; more is counted by the metre. */
const INCLUDED_M = 20;
/** Hours for ten metres of wire or tube, a post, and a metre of mast. Common practice, no source. */
const HOURS = { perTenM: 0.3, perPost: 0.3, perMastM: 0.2 };

/** How much of it there is: conductor, posts, mast, m. */
const amounts = rememberedOf((design: Design) => {
  const kind = antennaKind(design.kind);
  const pieces = tryDraft(design).draft?.pieces ?? [];
  const conductorM = pieces.reduce((sum, one) => sum + (one.bought ? 0 : one.count * one.finishedM), 0);
  const { heightM = 0 } = knownDimensions(design);
  const fine = design.diameterM < 0.001; // the wire of a coil is no matter of metres
  const overM = fine ? 0 : Math.max(0, conductorM - INCLUDED_M);
  const tube = design.diameterM >= TUBE_FROM_M;
  const lies = kind.burden.onLawn === true;
  return {
    ...{ overM, tube },
    posts: lies || tube || fine || kind.burden.mast ? 0 : Math.floor(conductorM / POST_EVERY_M),
    mastM: kind.burden.mast ? Math.max(0, Math.min(heightM, 30) - HEAD_M) : 0,
  };
});

/** What a design costs in money and hours: what its kind takes at least, and more as wire, posts and mast grow. */
export function burdenOf(design: Design, rates: PriceRates = USUAL_RATES, supported = false): Burden {
  const { burden } = antennaKind(design.kind);
  const { overM, tube, posts, mastM } = amounts(design);
  // a roof, a tree or a balcony is the mast
  const ownMastM = supported ? 0 : mastM;
  const price =
    burden.price + overM * (tube ? rates.tubePerM : rates.wirePerM) + posts * rates.perPost + ownMastM * rates.mastPerM;
  const hours = burden.hours + (overM / 10) * HOURS.perTenM + posts * HOURS.perPost + ownMastM * HOURS.perMastM;
  return { ...burden, price: Math.round(price), hours: Math.round(2 * hours) / 2 };
}
