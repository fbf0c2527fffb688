import { loadOf, type ShelfData, type StageKindSpec } from '../stage-kind';
import type { PathStage } from '../stages';

/** A part of which only the supply is known is taken to work down to this share of it. Common practice, no source. */
const LEAST_SHARE = 0.9;

/** A part of the shelf as a stage; what nobody stated is absent. */
export const partStage = (name: string, part: Omit<ShelfData, 'supplyV' | 'currentA'>): PathStage => ({
  ...{ kind: 'part', name, transfer: part.transfer },
  ...(part.noiseFigureDb === null ? {} : { noiseFigureDb: part.noiseFigureDb }),
  ...(part.iip2Dbm === null ? {} : { iip2Dbm: part.iip2Dbm }),
  ...(part.iip3Dbm === null ? {} : { iip3Dbm: part.iip3Dbm }),
  ...(part.p1Dbm === null ? {} : { p1Dbm: part.p1Dbm }),
});

/** A part by its own data. */
export const part: StageKindSpec<'part'> = {
  id: 'part',
  article: 'a part',
  name: 'Part',
  fromShelf: true,
  fields: [],
  // a part that went is a piece of nothing: the list of stages says so
  stage: ({ name, part: data }) => (data ? partStage(name, data) : { kind: 'pad', name, lossDb: 0 }),
  dc({ name, part: data }) {
    if (!data) return { dc: 'unknown', name };
    const { supplyV, currentA, noiseFigureDb } = data;
    const least = supplyV === null ? undefined : LEAST_SHARE * supplyV;
    const load = loadOf(name, least, currentA === null ? undefined : 1000 * currentA, true);
    // something active that takes nothing from the coax has a supply of its own
    return load ?? (noiseFigureDb === null ? { dc: 'unknown', name } : { dc: 'blocked', name, own: true });
  },
};
