import type { BenchVerdict, NextCut } from '@velvet-reed/core/sweep';
import { frequencyText, showFrequency, showLength } from '@velvet-reed/core/units';
import { Link, useLocation } from 'react-router';
import { useStationId } from '../../data/station';
import { Next } from '../../ui/section';
import { Value } from '../../ui/value';
import { cutProvenance, dipProvenance, type StoredSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** The room that holds the trim diary. */
const TRIM = '/bench/trim';

/** The Bench's verdict as the core states it; its two deciding numbers open their origin. */
export function Verdict({
  verdict,
  latest,
  cut,
  targetHz,
  trimName,
}: {
  readonly verdict: BenchVerdict;
  readonly latest?: StoredSweep;
  readonly cut?: NextCut;
  readonly targetHz?: number;
  readonly trimName: string;
}) {
  const stationId = useStationId();
  const { pathname, search } = useLocation();
  const { state, dipHz, offHz, cutM } = verdict;
  const next = `Next: ${verdict.next.charAt(0).toLowerCase()}${verdict.next.slice(1)}`;
  return (
    <>
      {latest && dipHz !== undefined && state !== 'on target' && offHz !== undefined && targetHz !== undefined ? (
        <>
          The dip sits at <Value strong shown={showFrequency(dipHz, 4)} provenance={dipProvenance(latest)} />,{' '}
          <Value
            strong
            shown={showFrequency(Math.abs(offHz), 3)}
            provenance={{
              origin: 'measured',
              formula: 'target − the dip nearest to it',
              inputs: [['target', frequencyText(targetHz)]],
              source: 'your sweep and the draft',
            }}
          />
          {verdict.sentence.slice(verdict.sentence.indexOf(' too '))}
        </>
      ) : latest && dipHz !== undefined ? (
        <>
          The dip sits at <Value strong shown={showFrequency(dipHz, 4)} provenance={dipProvenance(latest)} />
          {state === 'on target' ? ', on target.' : '.'}
        </>
      ) : (
        <span className={state === 'fault' ? 'text-caution' : ''}>{verdict.sentence}</span>
      )}{' '}
      <Next>
        {state === 'cut' && cut && cutM !== undefined ? (
          <>
            Next: cut <Value strong shown={showLength(cutM, 2)} provenance={cutProvenance(cut)} /> off {trimName}, then
            sweep again.
          </>
        ) : state === 'too short' || state === 'stop' ? (
          verdict.next
        ) : state === 'length wanted' && !pathname.endsWith(TRIM) ? (
          <Link to={{ pathname: `/s/${stationId}${TRIM}`, search }}>{next}</Link>
        ) : (
          next
        )}
      </Next>
    </>
  );
}
