import { STATION_BLANK, stationSchema, type Station } from '@velvet-reed/contract';
import { locatorOf, parsePosition, type Position } from '@velvet-reed/core/site';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { lazy, Suspense, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useSWRConfig } from 'swr';
import { useMe } from '../data/door';
import { createStation, showTrouble, useStationById, useStations } from '../data/station';
import { deleteStation, restoreStation, useDeletedStations, useServerState } from '../data/stations-bin';
import { Button } from '../ui/button';
import { ConfirmDeletion } from '../ui/confirm-deletion';
import { PLACE_FIELDS } from '../ui/place-fields';
import { RecordForm } from '../ui/record-form';
import { Empty, Trouble, Waiting } from '../ui/states';
import { ROOMS } from './rooms';
import { nextStep, STATE_MARK, STEPS } from '@velvet-reed/station/steps';
import { useStandings } from './use-standings';

const AskHearing = lazy(() => import('../data/ask-hearing'));

/** Stations, and a form for a new one. */
export default function StationsPage() {
  const { data, error, mutate } = useStations();
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Waiting what="stations" />;
  return (
    <main id="sheet" tabIndex={-1} className="mx-auto max-w-3xl px-4 py-10">
      <h1 className="font-serif text-4xl text-plum">Velvet Reed</h1>
      <p className="mt-2 mb-8 max-w-prose font-serif text-xl">
        Which antenna for what you want to hear, here; is it on frequency; is it better; and what belongs between it and
        the receiver.
      </p>
      <h2 className="mb-2 text-lg font-semibold">Your stations</h2>
      {data.unreadable > 0 && (
        <p role="alert" className="my-2 text-caution">
          {data.unreadable === 1 ? 'One station' : `${data.unreadable} stations`} cannot be read and stay in the file.
          Start the release that wrote them, or send the file to the makers of this program.
        </p>
      )}
      {data.stations.length === 0 ? (
        <Empty>No station yet. Begin with the place you listen from, below.</Empty>
      ) : (
        <ul className="border-t border-rule">
          {data.stations.map((station, i) => (
            <li key={station.id} className="flex items-center justify-between border-b border-rule">
              <div className="min-w-0 py-2">
                <Link
                  to={`/s/${station.id}/listen`}
                  className="flex min-h-11 flex-wrap items-center gap-x-4 hover:text-plum sm:min-h-8"
                >
                  <span className="font-semibold">{station.name}</span>
                  <span className="font-mono text-sm text-dim">
                    {locatorOf(station)} · ITU Region {ituRegionOf(station)}
                  </span>
                </Link>
                {i < LOOKED_INTO && <StationStanding stationId={station.id} />}
              </div>
              <DeleteStation station={station} />
            </li>
          ))}
        </ul>
      )}
      <h2 className="mt-10 mb-1 text-lg font-semibold">New station</h2>
      <NewStation />
      <Bin />
      <Kept />
    </main>
  );
}

/** Of a long list so many are read to say how they stand. */
const LOOKED_INTO = 8;

/** How a station stands: a mark for each step, and what to go on with. */
function StationStanding({ stationId }: { readonly stationId: number }) {
  const { data } = useStationById(stationId);
  const states = useStandings(data);
  if (!states || !data) return <p className="min-h-12 text-sm text-dim">…</p>;
  const next = nextStep(states);
  return (
    <>
      <Suspense fallback={null}>
        <AskHearing data={data} />
      </Suspense>
      <ul aria-label="Steps" className="flex flex-wrap gap-x-3 text-sm text-dim">
        {STEPS.map(({ id, name }) => (
          <li key={id} className={states[id] === 'doubtful' ? 'text-caution' : ''}>
            <span aria-hidden>{STATE_MARK[states[id]]}</span> {name}
            <span className="sr-only">, {states[id]}</span>
          </li>
        ))}
      </ul>
      <p className="text-sm">
        {next ? (
          <Link to={`/s/${stationId}/${next.id}/${ROOMS[next.id][0].id}`} className="text-plum underline">
            Next: {next.name}. {next.asks}
          </Link>
        ) : (
          'Every step is done.'
        )}
      </p>
    </>
  );
}

/** Takes a station off the list; it stays in the file and can be brought back. */
function DeleteStation({ station }: { readonly station: Station }) {
  const { mutate } = useSWRConfig();
  const [asked, setAsked] = useState(false);
  const again = async (): Promise<void> => {
    await mutate('/api/stations');
    await mutate('/api/stations/deleted');
  };
  const remove = async (): Promise<void> => {
    setAsked(false);
    try {
      const batch = await deleteStation(station);
      await again();
      const back = (): void => void restoreStation(station.id, batch).then(again, showTrouble);
      toast.success(`${station.name} deleted.`, { action: { label: 'Undo', onClick: back } });
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <>
      <Button look="danger" aria-label={`Delete ${station.name}`} onClick={() => setAsked(true)}>
        Delete
      </Button>
      {asked && (
        <ConfirmDeletion
          title={`Delete ${station.name}?`}
          onDelete={() => void remove()}
          onClose={() => setAsked(false)}
        >
          <p>
            Everything in it goes along: targets, antennas, sweeps, trials, notes. It can be brought back from this
            page.
          </p>
        </ConfirmDeletion>
      )}
    </>
  );
}

/** Whether this page is at the computer itself, as far as is known yet. */
const useAtDesk = (): boolean => useMe().data?.place === 'desk';

/** Stations that were deleted. */
function Bin() {
  const { data } = useDeletedStations(useAtDesk());
  const { mutate } = useSWRConfig();
  if (!data || data.length === 0) return null;
  const back = (id: number, batch: string): void =>
    void restoreStation(id, batch)
      .then(() => Promise.all([mutate('/api/stations'), mutate('/api/stations/deleted')]))
      .catch(showTrouble);
  return (
    <>
      <h2 className="mt-10 mb-1 text-lg font-semibold">Deleted</h2>
      <ul>
        {data.map(({ id, name, batch }) => (
          <li key={batch} className="flex items-center gap-4">
            {name}
            <Button look="quiet" aria-label={`Bring ${name} back`} onClick={() => back(id, batch)}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');

/** Where it is all kept, the and copies made before upgrades. */
function Kept() {
  const { data } = useServerState(useAtDesk());
  if (!data?.file) return null;
  return (
    <section aria-label="Where it is kept" className="mt-10 text-sm text-dim">
      <p>
        Everything is kept in <span className="font-mono break-all">{data.file}</span>. Backups: any station, Notebook,
        Station file.
      </p>
      {data.copies.map(({ file, madeMs }) => (
        <p key={file}>
          Copied before the upgrade of {dayOf(madeMs)} UTC: <span className="font-mono break-all">{file}</span>. Delete
          the copy when all is well.
        </p>
      ))}
    </section>
  );
}

function NewStation() {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [position, setPosition] = useState<Position>();
  const [fault, setFault] = useState('');
  const place = (): void => {
    try {
      setPosition(parsePosition(text));
      setFault('');
    } catch (error) {
      setPosition(undefined);
      setFault(error instanceof Error ? error.message : 'Type a position.');
    }
  };
  return (
    <>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          place();
        }}
        className="my-3"
      >
        <label htmlFor="position" className="block text-sm text-dim">
          Coordinates or grid locator
        </label>
        <div className="flex flex-wrap gap-3">
          <input
            id="position"
            className="w-64 font-mono"
            value={text}
            onChange={(event) => setText(event.target.value)}
            aria-invalid={fault ? true : undefined}
            aria-describedby="position-answer"
            placeholder="50.2 N 19.3 W"
          />
          <Button type="submit">Find region</Button>
        </div>
        <p
          id="position-answer"
          role={fault ? 'alert' : 'status'}
          className={`mt-1 text-sm ${fault ? 'text-danger' : ''}`}
        >
          {fault || (position ? `Locator ${locatorOf(position)}, ITU Region ${ituRegionOf(position)}.` : '')}
        </p>
      </form>
      {position && (
        <RecordForm
          key={`${position.latDeg} ${position.lonDeg}`}
          fields={PLACE_FIELDS}
          schema={stationSchema}
          fixed={{ ...STATION_BLANK, ...position }}
          start={{
            name: `Station ${locatorOf(position)}`,
            environment: 'rural',
            noiseOffsetDb: '0 dB',
            spanM: '20 m',
            heightM: '6 m',
            groundId: 'average',
            cableId: 'pe5',
            lineLengthM: '15 m',
            ownCableDb10: '',
            ownCableDb100: '',
          }}
          submit="Create station"
          onSave={async (values) => {
            const id = await createStation(stationSchema.cast(values));
            await navigate(`/s/${id}/listen`);
          }}
        />
      )}
    </>
  );
}
