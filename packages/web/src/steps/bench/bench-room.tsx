import { unphysicalPoints } from '@velvet-reed/core/sweep';
import { frequencyText } from '@velvet-reed/core/units';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useStationId } from '../../data/station';
import { AntennaPicker } from '../../ui/antenna-picker';
import { Note } from '../../ui/section';
import type { StoredSweep } from '@velvet-reed/station/bench/loaded-sweep';
import type { BenchState } from './use-bench';

/** Which antenna is looked at. */
export function BenchPicker({ bench: { data, antenna, pick } }: { readonly bench: BenchState }) {
  const stationId = useStationId();
  return data.antennas.length > 0 ? (
    <AntennaPicker data={data} value={antenna?.id} onPick={pick} />
  ) : (
    <Link className="text-plum underline" to={`/s/${stationId}/choose/ranking`}>
      Choose an antenna first, so that sweeps belong to one.
    </Link>
  );
}

/** What to doubt, and what to mind before climbing. */
export function BenchNotes({
  latest,
  children,
}: {
  readonly latest?: StoredSweep | undefined;
  readonly children?: ReactNode;
}) {
  return (
    <>
      {latest && <TrustNote latest={latest} />}
      {children}
      <Note title="Low SWR is not proof">
        <p>
          A long lossy line makes any antenna look good at the shack. Judge at the feed, or take the line off by
          calculation first.
        </p>
      </Note>
    </>
  );
}

function TrustNote({ latest }: { readonly latest: StoredSweep }) {
  const bad = unphysicalPoints(latest.sweep);
  const stepHz = (latest.header.stopHz - latest.header.startHz) / Math.max(1, latest.header.points - 1);
  return (
    <Note title="Can you trust this sweep?">
      <p>
        {latest.header.points} points, {frequencyText(stepHz, 3)} apart, against {latest.header.referenceOhm} Ω.
      </p>
      {bad > 0 && <p className="mt-1 text-caution">{bad} points reflect more than they receive: calibrate again.</p>}
      {!latest.header.phaseKnown && <p className="mt-1 text-caution">Only SWR was in the file: R and X are unknown.</p>}
    </Note>
  );
}
