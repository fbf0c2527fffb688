import { discardWaiting, retryWaiting, useSender, useWaiting } from '../data/outbox';
import { Button } from '../ui/button';

/** Says that the server is away, what waits in this browser until it is back, and what the server refused. */
export function OutboxLine({ stationId, away }: { readonly stationId: number; readonly away: boolean }) {
  useSender(stationId);
  const all = useWaiting(stationId);
  const waiting = all.filter(({ refused }) => refused === undefined);
  const refused = all.filter((one) => one.refused !== undefined);
  if (all.length === 0 && !away) return null;
  return (
    <div role="status" className="border-b border-rule bg-paper px-3 py-1 text-sm text-caution sm:px-5">
      {waiting.length > 0 ? (
        <p>
          {waiting.length === 1 ? 'One entry waits' : `${waiting.length} entries wait`} in this browser until the server
          is back, then they are saved by themselves: {waiting.map(({ what }) => what).join('; ')}
        </p>
      ) : (
        away && (
          <p>
            The server is away: what you see was loaded before. Lengths, dips and notes can still be written down at the
            mast.
          </p>
        )
      )}
      {refused.map((one) => (
        <p key={one.key}>
          Not saved: {one.what} {one.refused}{' '}
          <Button look="quiet" onClick={() => void retryWaiting(one)}>
            Try again
          </Button>
          <Button look="quiet" onClick={() => void discardWaiting(one.key)}>
            Discard it
          </Button>
        </p>
      ))}
    </div>
  );
}
