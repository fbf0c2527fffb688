import type { CautionId } from '@velvet-reed/core/safety';
import { createContext } from 'react';

/** What the list of rooms says of the room shown: its usual cautions, and questions on which practitioners disagree with what decides them here. */
export interface RoomNotes {
  readonly cautions: readonly CautionId[];
  readonly schools: readonly (readonly [question: string, decides: string])[];
}
export const RoomNotes = createContext<RoomNotes>({ cautions: [], schools: [] });
