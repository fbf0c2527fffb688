import type { Saved } from '@velvet-reed/contract';
import { type Design, tryDraft } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { arrivalOf, USUAL_ARRIVAL_DEG } from '@velvet-reed/core/site';
import { lengthText } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { bandsOf, designOf, designValues, ownDimensions } from '@velvet-reed/station/derive';
import { useFocus } from '../../data/focus';
import { modelOf, questionOf, useModel } from '../../data/model';
import { useMoment } from '../../data/moment';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../data/station';
import { useEditing } from './editing';

/** The question for the solver, when the wires can be drawn at all. */
function tryModel(design: Design, groundId: string, band: { lowHz: number; highHz: number }, arrivalDeg: number) {
  try {
    return questionOf(modelOf(design, groundId), design.freqHz, band, arrivalDeg);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return undefined;
  }
}

/** An antenna being drafted: its dimensions, what the model says of them, and how to keep them. Every room of the step reads the same. */
export function useDraft(data: StationData, antenna: Saved<'antennas'>, revision: Saved<'revisions'>) {
  const { trySave } = useWrite();
  const { band } = useFocus();
  const { atMs } = useMoment();
  const editing = useEditing(designOf(data, revision), `${data.station.id} ${antenna.id} ${revision.number}`);
  const { design } = editing;
  const [groundId, setGroundId] = useState(data.station.groundId);
  const { draft, fault } = tryDraft(design);
  const targets = useMemo(
    () => data.targets.map((target) => ({ ...target, arrival: arrivalOf(target, data.station, atMs) })),
    [data, atMs],
  );
  const own = targets.find((target) => target.id === antenna.targetId);
  // the pattern begins at the angle of the target that the antenna is for
  const [arrivalDeg, setArrivalDeg] = useState(() =>
    own ? Math.round(own.arrival.elevationDeg * 10) / 10 : USUAL_ARRIVAL_DEG,
  );
  const question = useMemo(() => tryModel(design, groundId, band, arrivalDeg), [design, groundId, band, arrivalDeg]);
  const state = useModel(question);
  const bands = useMemo(() => bandsOf(data), [data]);
  const revisions = data.revisions
    .filter((one) => one.antennaId === antenna.id)
    .map((one) => ({ ...one, dimensions: designOf(data, one).dimensions }));
  const keep = async (): Promise<void> => {
    const made = tryDraft(design).draft;
    await trySave(
      [
        {
          op: 'create',
          resource: 'revisions',
          values: {
            ...designValues(design),
            dimensions: ownDimensions(data, revision, design),
            antennaId: antenna.id,
            number: revision.number + 1,
          },
        },
        entry(
          'draft',
          `${antenna.name}, revision ${revision.number + 1}: ${made?.pieces.map((one) => `${one.count} × ${one.name} ${lengthText(one.cutM, 4)}`).join(', ') ?? ''}.`,
        ),
      ],
      'Revision saved.',
    );
  };
  return {
    ...{ data, antenna, revision, revisions, editing, design, draft, fault, groundId, setGroundId },
    ...{ targets, setArrivalDeg, question, state, bands, band, keep },
  };
}
export type DraftState = ReturnType<typeof useDraft>;
