import { useEffect, useMemo, useSyncExternalStore } from 'react';
import './couplings-store';
import { JobLeft, JobRefused, runJob } from '../workers/pool';
import {
  type CouplingAsk,
  couplingKey,
  couplingsVersion,
  keepCoupling,
  knownCoupling,
  listenToCouplings,
} from '@velvet-reed/station/guard/couplings';

const asked = new Set<string>();

async function compute(ask: CouplingAsk): Promise<void> {
  const key = couplingKey(ask);
  if (knownCoupling(ask) || asked.has(key)) return;
  asked.add(key);
  try {
    const { answer } = await runJob('coupling', ask, { background: true });
    keepCoupling(key, { coupling: answer });
  } catch (error) {
    const said = error instanceof Error ? error.message : 'The computation met a fault.';
    if (error instanceof JobRefused) keepCoupling(key, { refusal: said });
    else if (!(error instanceof JobLeft)) keepCoupling(key, { fault: said });
  } finally {
    asked.delete(key);
  }
}

/** Has the wire model compute what is missing, and draws again with each answer. @returns how many are still to come. */
export function useCouplings(asks: readonly CouplingAsk[]): number {
  const version = useSyncExternalStore(listenToCouplings, couplingsVersion);
  const keys = useMemo(() => asks.map(couplingKey).join('\n'), [asks]);
  useEffect(() => {
    for (const ask of asks) void compute(ask);
    // asked anew when what is asked for has changed, or when a fault was let go of, not with every drawing
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [keys, version]);
  return asks.filter((ask) => !knownCoupling(ask)).length;
}
