import { createContext, use } from 'react';
import type { TypedNumbers } from '../../../ui/use-typed-numbers';
import type { DraftState } from '../use-draft';
import type { FeedLineAsked } from './question';
import type { FeedLineState } from './use-feed-line';

/** The study of a room: what was asked, how to ask for another, and what it says. */
export interface Study {
  readonly draft: DraftState;
  readonly typed: TypedNumbers;
  readonly asked: FeedLineAsked | undefined;
  readonly choices: Pick<FeedLineAsked, 'cableId' | 'earthed' | 'sourceId'>;
  readonly choose: (change: Partial<Pick<FeedLineAsked, 'cableId' | 'earthed' | 'sourceId'>>) => void;
  /** The antenna is on the plan, so that its cables and sources can be taken from there. */
  readonly laid: boolean;
  readonly sourceName: string;
  readonly state: FeedLineState;
}

export const StudyContext = createContext<Study | undefined>(undefined);

export function useStudy(): Study {
  const study = use(StudyContext);
  if (!study) throw new Error('The feed line is not studied here.');
  return study;
}
