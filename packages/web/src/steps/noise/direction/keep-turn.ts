import { BLANK, SCHEMAS } from '@velvet-reed/contract';
import { useCallback } from 'react';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';

/** What a turn that was just read is kept with; the rest can be changed in its row. */
export interface ReadTurn {
  readonly name: string;
  readonly xM: number;
  readonly yM: number;
  readonly freqHz: number | null;
  readonly declinationDeg: number;
  readonly readings: readonly (readonly [deg: number, dbm: number])[];
  readonly conditions: string;
}

const present = (): number => Date.now();

/** Keeps a turn of the loop whose null pointed as read. @returns whether it was stored. */
export function useKeepTurn(): (turn: ReadTurn) => Promise<boolean> {
  const { trySave } = useWrite();
  return useCallback(
    async (turn: ReadTurn) => {
      const values = SCHEMAS.nullLogs.cast({
        ...BLANK.nullLogs,
        ...{ ...turn, readings: turn.readings.map((one) => [...one]), sense: [], atMs: present() },
        ...{ meaning: 'null', sigmaDeg: 3, antennaId: null },
      });
      const stored = await trySave(
        [
          { op: 'create', resource: 'nullLogs', values },
          entry('noise', `${turn.name}: a turn of ${turn.readings.length} readings.`),
        ],
        'Kept.',
      );
      return stored !== undefined;
    },
    [trySave],
  );
}
