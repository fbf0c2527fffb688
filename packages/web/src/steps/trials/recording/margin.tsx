import { secondsOf } from '@velvet-reed/core/recording';
import { bandText } from '@velvet-reed/core/units';
import { Note } from '../../../ui/section';
import type { useOpened } from './use-opened';

/** What is told beside the recording. */
export function Margin({ opened }: { readonly opened: ReturnType<typeof useOpened> }) {
  const { layout, open, peakDbfs, clipped, other, isDescribed } = opened;
  return (
    <>
      {other && (
        <Note title="Another file">
          <p className="text-caution">
            This file is not the one that was kept: its checksum differs. Its numbers will differ too.
          </p>
        </Note>
      )}
      {layout && open && (
        <Note title="This recording">
          <p>
            {secondsOf(layout).toFixed(1)} s,{' '}
            {bandText(open.centreHz - layout.sampleRateHz / 2, open.centreHz + layout.sampleRateHz / 2)}
            {peakDbfs !== undefined && <>, peak {peakDbfs.toFixed(1).replace('-', '−')} dBFS</>}.
            {clipped !== undefined && clipped > 0 && (
              <span className="text-caution">
                {' '}
                {clipped.toLocaleString('en')} moments reach full scale: turn the gain down.
              </span>
            )}
          </p>
          {isDescribed === false && (
            <p className="mt-1 text-caution">
              The data are not those that were described: their SHA-512 differs. Something changed or cut the file; get
              it again.
            </p>
          )}
          {layout.remarks.map((remark) => (
            <p key={remark} className="mt-1 text-caution">
              {remark}
            </p>
          ))}
          {layout.annotations.slice(0, 5).map(({ text, startS }) => (
            <p key={`${startS} ${text}`} className="mt-1 text-sm text-dim">
              {startS.toFixed(1)} s: {text}
            </p>
          ))}
        </Note>
      )}
      <Note title="How it is read">
        <p>
          Levels are powers against a sine of full scale (dBFS); with the receiver’s full scale they are dBm. The noise
          of the quiet band is taken off the signal. Turns of two antennas are told by the jumps of level and noise; a
          click at the switch counts for neither.
        </p>
      </Note>
      <Note title="Good recordings">
        <p>
          Automatic gain off, one gain for all, no noise reduction, no compressed sound: MP3 takes weak signals away.
        </p>
      </Note>
    </>
  );
}
