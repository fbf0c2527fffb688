import { BLANK, createOf, SCHEMAS, updateOf, type Saved } from '@velvet-reed/contract';
import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { pathOfFile } from '../../../data/data-file';
import { useOutbox } from '../../../data/outbox';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { useFew } from '../../../ui/few';
import { Button } from '../../../ui/button';
import { momentText } from '../../../ui/moment-text';
import { RecordForm } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { uprightPhoto } from '../../../ui/upright-photo';
import { Filters } from './filters';
import { EVERYTHING, keptEntries } from './kept-entries';
import { SearchAll } from './search';

/** So many entries stand in the list until all are asked for. */
const FEW = 40;

export default function DiaryRoom() {
  return <StationPage>{(data) => <Diary data={data} />}</StationPage>;
}

function Diary({ data }: { readonly data: StationData }) {
  const entries = [...data.entries].sort((a, b) => a.atMs - b.atMs || a.id - b.id);
  const last = entries.at(-1);
  const [filter, setFilter] = useState(EVERYTHING);
  const kept = keptEntries(data, entries, filter);
  const pinned = kept.filter((entry) => entry.pinned);
  const { rows, more } = useFew(
    kept.filter((entry) => !entry.pinned),
    FEW,
    'entries',
  );
  return (
    <Room
      title="Diary, Notebook"
      verdict={
        last ? (
          <>
            Last: {last.text.length > 110 ? `${last.text.slice(0, 110)}…` : last.text}{' '}
            <Next>Next: take the report along, or write down what you saw.</Next>
          </>
        ) : (
          <>
            Nothing is written yet; every step you save writes itself here. <Next>Next: write a first line.</Next>
          </>
        )
      }
      margin={
        <>
          <Note title="What stands here by itself">
            <p>Targets, choices, revisions, tests passed, sweeps, cuts, trials, noise readings. Free text is yours.</p>
          </Note>
          <Note title="Photos">
            <p>
              Turned upright and kept without what the camera adds: the place, the time and the device stay out of the
              file.
            </p>
          </Note>
        </>
      }
    >
      <Section
        title="Entries"
        hint={
          kept.length === entries.length
            ? 'latest first, UTC'
            : `${kept.length} of ${entries.length}, latest first, UTC`
        }
      >
        {entries.length === 0 ? (
          <Empty>No entry yet.</Empty>
        ) : kept.length === 0 ? (
          <Empty>No entry is left by these filters. Widen one.</Empty>
        ) : (
          <ol
            data-evidence
            className="evidence max-w-4xl overflow-y-auto border-t border-rule print:max-h-none print:overflow-visible"
          >
            {[...pinned.reverse(), ...[...rows].reverse()].map((entry) => (
              <EntryRow key={entry.id} entry={entry} data={data} />
            ))}
          </ol>
        )}
        <div className="flex flex-wrap items-end gap-x-4 gap-y-1 print:hidden">
          {more}
          <Filters data={data} filter={filter} onFilter={setFilter} />
          <Button look="quiet" onClick={() => window.print()}>
            Print these
          </Button>
        </div>
      </Section>
      <div className="print:hidden">
        <WriteEntry data={data} />
        <SearchAll data={data} />
      </div>
    </Room>
  );
}

/** A line of the diary: when, where, what; what it speaks of; its photos. */
function EntryRow({ entry, data }: { readonly entry: Saved<'entries'>; readonly data: StationData }) {
  const { trySave } = useWrite();
  const stationId = useStationId();
  const antenna = data.antennas.find(({ id }) => id === entry.antennaId);
  const photos = data.photos.filter(({ entryId }) => entryId === entry.id);
  const name = `Entry of ${momentText(entry.atMs)}`;
  return (
    <li
      className={`flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1 ${entry.pinned ? 'border-l-4 border-l-plum pl-2' : ''}`}
    >
      <time className="font-mono text-sm whitespace-nowrap">{momentText(entry.atMs)}</time>
      <span className="w-20 text-sm text-dim">{entry.step}</span>
      <span className="min-w-0 grow basis-72 whitespace-pre-wrap">
        {entry.text}
        {(antenna || entry.room !== '') && (
          <span className="block text-sm print:hidden">
            {antenna && <span className="text-dim">{antenna.name} </span>}
            {entry.room !== '' && entry.room !== 'notebook/diary' && (
              <Link
                to={`/s/${stationId}/${entry.room}${antenna ? `?antenna=${antenna.id}` : ''}`}
                className="text-plum underline"
                aria-label={`Go to where the ${name.toLowerCase()} was written`}
              >
                go there
              </Link>
            )}
          </span>
        )}
        {photos.length > 0 && (
          <span className="mt-1 flex flex-wrap gap-2">
            {photos.map((photo) => (
              <a
                key={photo.id}
                href={pathOfFile(data.attachments, photo.attachmentId)}
                target="_blank"
                rel="noreferrer"
              >
                <img
                  src={pathOfFile(data.attachments, photo.smallId)}
                  alt={photo.caption === '' ? `Photo of the ${name.toLowerCase()}` : photo.caption}
                  className="h-24 w-auto"
                  loading="lazy"
                />
              </a>
            ))}
          </span>
        )}
      </span>
      <span className="print:hidden">
        <Button
          look="quiet"
          aria-pressed={entry.pinned}
          aria-label={`${entry.pinned ? 'Unpin' : 'Pin'} ${name}`}
          onClick={() => void trySave([updateOf('entries', entry, { pinned: !entry.pinned })])}
        >
          {entry.pinned ? 'Unpin' : 'Pin'}
        </Button>
        <DeleteButton resource="entries" record={entry} name={name} />
      </span>
      <span className="contents print:hidden">
        <ChangeButton
          resource="entries"
          record={entry}
          name={name}
          fields={[
            { name: 'text', label: 'What you did or saw', kind: 'long' },
            {
              ...{ name: 'antennaId', label: 'About', kind: 'choice', numeric: true },
              options: [
                { value: '', label: 'no antenna' },
                ...data.antennas.map(({ id, name: called }) => ({ value: String(id), label: called })),
              ],
            },
          ]}
        />
      </span>
    </li>
  );
}

/** Most photos of one entry. */
const MOST_PHOTOS = 6;

function WriteEntry({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const record = useOutbox(useStationId());
  const [photos, setPhotos] = useState<readonly File[]>([]);
  const [antennaId, setAntennaId] = useState<number | null>(null);
  const [written, setWritten] = useState(0);
  return (
    <Section title="Write">
      <RecordForm
        key={written}
        fields={[{ name: 'text', label: 'What you did or saw', kind: 'long' }]}
        schema={SCHEMAS.entries}
        fixed={{ ...BLANK.entries, step: 'notebook', atMs: 0 }}
        start={{ text: '' }}
        submit="Write it down"
        onSave={async (values) => {
          const entry = { ...values, antennaId, room: 'notebook/diary', atMs: Date.now() };
          if (photos.length === 0) await save([createOf('entries', entry)], 'Written.');
          else {
            const kept = await Promise.all(photos.map(uprightPhoto));
            // the nth file is called photo, photo2, photo3, …
            const nth = (i: number): { readonly new: string } => ({ new: i === 0 ? 'photo' : `photo${i + 1}` });
            const done = await record(
              [
                createOf('entries', entry, 'entry'),
                ...kept.map((_, i) =>
                  createOf('photos', { entryId: { new: 'entry' }, attachmentId: nth(2 * i), smallId: nth(2 * i + 1) }),
                ),
              ],
              `${values.text} With ${countText(kept.length, 'photo')}.`,
              kept.flatMap(({ whole, small }) => [whole, small]),
            );
            toast.success(done === 'saved' ? 'Written.' : 'Kept in this browser until the server is back.');
          }
          setPhotos([]);
          setWritten((count) => count + 1);
        }}
      >
        <div className="mt-2 flex flex-wrap items-end gap-4">
          <label className="text-sm text-dim">
            About
            <select
              className="block w-56 max-w-full text-ink"
              value={antennaId ?? ''}
              onChange={(event) => setAntennaId(event.target.value === '' ? null : Number(event.target.value))}
            >
              <option value="">no antenna</option>
              {data.antennas.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label className="max-w-full text-sm text-dim">
            Photos, if you like (up to {MOST_PHOTOS}, JPEG or PNG)
            <input
              key={photos.length === 0 ? 'empty' : 'chosen'}
              type="file"
              multiple
              accept="image/jpeg,image/png"
              className="block min-h-11 w-64 max-w-full border-0"
              onChange={(event) => setPhotos([...(event.target.files ?? [])].slice(0, MOST_PHOTOS))}
            />
          </label>
          {photos.length > 0 && <span className="text-sm">{photos.map(({ name }) => name).join(', ')}</span>}
        </div>
      </RecordForm>
    </Section>
  );
}
