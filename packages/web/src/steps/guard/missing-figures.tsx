import type { GuardProof, MissingFigure } from '@velvet-reed/core/guard';
import { countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { useStationId } from '../../data/station';

const DOOR: Readonly<Record<MissingFigure['what'], { readonly room: string; readonly say: string }>> = {
  coupling: { room: 'coupling', say: 'compute or type it in Coupling' },
  isolation: { room: 'routes', say: 'enter it in Routes' },
  loss: { room: 'routes', say: 'enter it in Routes' },
  gain: { room: 'routes', say: 'enter it in Routes' },
};

/** What nobody knows, each figure once, with the door to type, compute or test it. */
export function MissingFigures({ proof, planId }: { readonly proof: GuardProof; readonly planId: number }) {
  const stationId = useStationId();
  if (proof.missing.length === 0) return null;
  return (
    <ul aria-label="Missing figures" className="mb-4 max-w-4xl list-disc pl-5 text-sm">
      {proof.missing.map(({ what, node, name, because, waiting }) => (
        <li key={`${what} ${node}`} className="text-caution">
          “{name}”: {what} not known{because === undefined ? '' : ` (${because})`}; {countText(waiting, 'state')} wait
          for it.{' '}
          <Link to={`/s/${stationId}/guard/${DOOR[what].room}?plan=${planId}`}>
            {DOOR[what].say.charAt(0).toUpperCase()}
            {DOOR[what].say.slice(1)}
          </Link>{' '}
          or <Link to={`/s/${stationId}/guard/power-test?plan=${planId}`}>test it step by step</Link>.
        </li>
      ))}
    </ul>
  );
}
