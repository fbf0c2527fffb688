import type { Saved } from '@velvet-reed/contract';
import { type AntennaState, holdsFor, type Scope } from '@velvet-reed/core/evidence';
import { stateOfAntenna } from './guard/evidence';
import type { StationData } from './record';

/** Whether a record still speaks for its antennas as they stand: it does, it does not and why, or nobody wrote down what it was taken on. */
export type AntennaHolding =
  { readonly state: 'holds' } | { readonly state: 'stretched' | 'not' | 'not written down'; readonly sentence: string };

/** @param ids of the antennas that the record names. @param place false: where they hung is no matter, as of a pattern. */
export function antennaHolding(
  data: StationData,
  takenOn: Scope,
  ids: readonly (number | null)[],
  place = true,
): AntennaHolding {
  const asPlaced = ({ runs, ...state }: AntennaState): AntennaState => (place && runs ? { ...state, runs } : state);
  const antennas = ids.flatMap((id) => (id === null ? [] : (stateOfAntenna(data, id) ?? []))).map(asPlaced);
  if (antennas.length === 0) return { state: 'holds' };
  if (takenOn.antennas === undefined)
    return { state: 'not written down', sentence: 'On which revision, and where it hung, nobody wrote down.' };
  const holding = holdsFor(
    { value: undefined, origin: 'measured', scope: { antennas: takenOn.antennas.map(asPlaced) }, atMs: null },
    { antennas },
  );
  switch (holding.state) {
    case 'covers':
      return { state: 'holds' };
    case 'stretched':
      return { state: 'stretched', sentence: `Stretched: ${holding.because}.` };
    case 'not':
      return { state: 'not', sentence: `It does not hold for the antenna as it stands: ${holding.reason}.` };
  }
}

/** Why a level does not hold for its antenna as it stands; undefined: it does, as far as anybody wrote down. */
export function staleLevel(data: StationData, { takenOn, antennaId }: Saved<'levels'>): string | undefined {
  const holding = antennaHolding(data, takenOn, [antennaId]);
  return holding.state === 'not' ? holding.sentence : undefined;
}
