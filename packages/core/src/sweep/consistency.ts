import { requireRange } from '../errors';
import { gammaOfSwr, reflectionOf, returnLossDb, swrOf } from '../line/reflection';
import { complex, magnitude } from '../numeric/complex';
import { capital } from '../units/format';

/** What somebody read or was told of one antenna at one frequency; what is absent was not read. */
export interface ClaimedMatch {
  readonly swr?: number;
  readonly returnLossDb?: number;
  readonly resistanceOhm?: number;
  readonly reactanceOhm?: number;
}

/** One claim expressed as SWR, so that claims can be compared. */
interface ClaimAsSwr {
  readonly by: 'SWR' | 'return loss' | 'impedance';
  readonly swr: number | null;
}

/** SWR readings of two instruments differ by this much without anything being wrong, ratio. Common practice, no source. */
const SWR_SPREAD = 0.1;

/**
 * Whether claims of one match can all be true on a 50 Ω reference.
 * @returns every claim as SWR, and a sentence for each pair that cannot be true together.
 */
export function checkClaims(claimed: ClaimedMatch, referenceOhm = 50) {
  const claims: ClaimAsSwr[] = [];
  if (claimed.swr !== undefined) {
    requireRange(claimed.swr, 'SWR', 1);
    claims.push({ by: 'SWR', swr: claimed.swr });
  }
  if (claimed.returnLossDb !== undefined) {
    // S11 in dB is negative, return loss positive: both are meant
    const loss = Math.abs(claimed.returnLossDb);
    claims.push({ by: 'return loss', swr: swrOf(10 ** (-loss / 20)) });
  }
  if (claimed.resistanceOhm !== undefined) {
    requireRange(claimed.resistanceOhm, 'Resistance (ohm)', 0);
    const z = complex(claimed.resistanceOhm, claimed.reactanceOhm ?? 0);
    claims.push({ by: 'impedance', swr: swrOf(magnitude(reflectionOf(z, referenceOhm))) });
  }
  const text = (swr: number | null): string => (swr === null ? 'infinite' : swr.toFixed(2));
  const conflicts = claims.flatMap((a, i) =>
    claims.slice(i + 1).flatMap((b) => {
      const apart =
        a.swr === null || b.swr === null
          ? a.swr !== b.swr
          : Math.abs(a.swr - b.swr) > SWR_SPREAD * Math.min(a.swr, b.swr);
      return apart
        ? [
            `${capital(a.by)} says SWR ${text(a.swr)}, ${b.by} says ${text(b.swr)}: one of them was read at another place, frequency or reference.`,
          ]
        : [];
    }),
  );
  return { claims, conflicts };
}

/** The best SWR that anything at the far end of a lossy line can show at its near end: an open end, there and back. */
export function disguisedSwr(matchedLossDb: number): number {
  requireRange(matchedLossDb, 'Line loss (dB)', 0);
  const gamma = 10 ** (-matchedLossDb / 10);
  return gamma >= 1 ? Infinity : (1 + gamma) / (1 - gamma);
}

/** Return loss at the shack of an antenna's SWR, dB: its own plus the line twice. null for a perfect match. */
export const shackReturnLossDb = (antennaSwr: number, matchedLossDb: number): number | null => {
  const own = returnLossDb(gammaOfSwr(antennaSwr));
  return own === null ? null : own + 2 * matchedLossDb;
};
