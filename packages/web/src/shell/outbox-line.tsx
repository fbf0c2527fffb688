import { discardWaiting, retryWaiting, useSender, useWaiting, useWaitingForOthers, yieldWaiting } from '../data/outbox';
import { conflictsOf, overTheirs, type Waiting } from '../data/outbox-queue';
import type { StationData } from '@velvet-reed/station/record';
import { Button } from '../ui/button';

/** Says that the server is away, what waits in this browser until it is back, and what the server refused. */
export function OutboxLine({ data, away }: { readonly data: StationData; readonly away: boolean }) {
  const stationId = data.station.id;
  useSender(stationId);
  const all = useWaiting().filter((one) => one.stationId === stationId);
  const waiting = all.filter(({ refused }) => refused === undefined);
  const refused = all.filter((one) => one.refused !== undefined);
  const others = useWaitingForOthers();
  if (all.length === 0 && others.length === 0 && !away) return null;
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
            The server is away: what you see was loaded before. Lengths, dips, pairs, bearings, levels and notes can
            still be written down; deleting, importing and instruments need the server.
          </p>
        )
      )}
      {others.length > 0 && (
        <p>
          {others.length === 1 ? 'One entry waits' : `${others.length} entries wait`} for another data folder, and{' '}
          {others.length === 1 ? 'is' : 'are'} saved when that one is served here again:{' '}
          {others.map((one) => (
            <span key={one.key}>
              {one.what}{' '}
              <Button look="quiet" onClick={() => void discardWaiting(one.key)}>
                Discard it
              </Button>
            </span>
          ))}
        </p>
      )}
      {refused.map((one) => (
        <Refused key={one.key} batch={one} data={data} />
      ))}
    </div>
  );
}

const shown = (value: unknown): string => {
  if (value === null || value === undefined || value === '') return 'nothing';
  return typeof value === 'string' ? value : JSON.stringify(value);
};

/** One that the server did not take: where both sides wrote, both are shown, and the person chooses. */
function Refused({ batch, data }: { readonly batch: Waiting; readonly data: StationData }) {
  const conflicts = conflictsOf(data, batch);
  const fields = conflicts.flatMap((one) => one.fields);
  return (
    <div className="border-t border-rule py-1">
      <p>
        Not saved: {batch.what} {batch.refused?.message}
      </p>
      {fields.length > 0 && (
        <table className="my-1 max-w-2xl text-ink">
          <thead>
            <tr>
              <th scope="col">Field</th>
              <th scope="col">Written here</th>
              <th scope="col">Written elsewhere</th>
            </tr>
          </thead>
          <tbody>
            {fields.map(({ label, here, there }) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                <td>{shown(here)}</td>
                <td>{shown(there)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {conflicts.length > 0 ? (
        <>
          <Button look="quiet" onClick={() => void retryWaiting(batch, overTheirs(batch.changes, conflicts))}>
            Keep what is written here
          </Button>
          <Button look="quiet" onClick={() => void yieldWaiting(batch.key, conflicts)}>
            Keep what is written elsewhere
          </Button>
        </>
      ) : (
        <>
          <Button look="quiet" onClick={() => void retryWaiting(batch)}>
            Try again
          </Button>
          <Button look="quiet" onClick={() => void discardWaiting(batch.key)}>
            Discard it
          </Button>
        </>
      )}
    </div>
  );
}
