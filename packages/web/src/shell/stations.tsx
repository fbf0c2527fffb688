import { STATION_DEFAULTS, stationSchema } from '@velvet-reed/contract';
import { ituRegionOf, locatorOf, parsePosition, type Position } from '@velvet-reed/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { createStation, useStations } from '../data/station';
import { Button } from '../ui/button';
import { PLACE_FIELDS } from '../ui/place-fields';
import { RecordForm } from '../ui/record-form';
import { Empty, Trouble, Waiting } from '../ui/states';

/** Stations, and a form for a new one. */
export function StationsPage() {
  const { data, error, mutate } = useStations();
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Waiting what="stations" />;
  return (
    <main className="mx-auto max-w-3xl px-4 py-10">
      <h1 className="font-serif text-4xl text-plum">Velvet Reed</h1>
      <p className="mt-2 mb-8 max-w-prose font-serif text-xl">
        Which antenna for what you want to hear, here; is it on frequency; is it better; and what belongs between it and
        the receiver.
      </p>
      <h2 className="mb-2 text-lg font-semibold">Your stations</h2>
      {data.length === 0 ? (
        <Empty>No station yet. Begin with the place you listen from, below.</Empty>
      ) : (
        <ul className="border-t border-rule">
          {data.map((station) => (
            <li key={station.id} className="border-b border-rule">
              <Link to={`/s/${station.id}/listen`} className="flex min-h-11 items-center gap-4 hover:text-plum">
                <span className="font-semibold">{station.name}</span>
                <span className="font-mono text-sm text-dim">
                  {locatorOf(station)} · ITU Region {ituRegionOf(station)}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
      <h2 className="mt-10 mb-1 text-lg font-semibold">New station</h2>
      <NewStation />
    </main>
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
          fixed={{ ...STATION_DEFAULTS, ...position }}
          start={{
            name: '',
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
          submit="Make this station"
          onSave={async (values) => {
            const id = await createStation(stationSchema.cast(values));
            await navigate(`/s/${id}/listen`);
          }}
        />
      )}
    </>
  );
}
