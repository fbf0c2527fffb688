import { antennaKind, type Design, type Draft, fitOf } from '@velvet-reed/core/antenna';
import { groundClass } from '@velvet-reed/core/solver';
import { roomOf } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { Note } from '../../ui/section';

export function DraftNotes({
  design,
  draft,
  data,
}: {
  readonly design: Design;
  readonly draft: Draft;
  readonly data: StationData;
}) {
  const room = roomOf(data);
  const fit = fitOf(design, room);
  return (
    <>
      <Note title="Does it fit?">
        <p className={fit.fits ? '' : 'text-caution'}>
          {fit.reason} ({room.from}).
        </p>
      </Note>
      <Note title="How far to trust it">
        {draft.remarks.map((remark) => (
          <p key={remark} className="mb-1">
            {remark}
          </p>
        ))}
        {antennaKind(design.kind).model && (
          <p className="mb-1">
            The model knows wires and the ground ({groundClass(data.station.groundId).name}), but no house and no trees;
            the feed line counts in the room Feed line alone. Expect the dip within 2 %, gains within 1 dB, lower over
            uneven ground.
          </p>
        )}
      </Note>
    </>
  );
}
