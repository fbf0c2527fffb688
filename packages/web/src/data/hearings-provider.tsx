import { useState, type ReactNode } from 'react';
import { HearingsContext, makeHearings } from './hearings';

/** Keeps the answers of the wire model for every stage below it. */
export function HearingsProvider({ children }: { readonly children: ReactNode }) {
  const [hearings] = useState(makeHearings);
  return <HearingsContext value={hearings}>{children}</HearingsContext>;
}
