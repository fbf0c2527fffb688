import { LOG_COLUMNS } from '@velvet-reed/core/formats';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { useTail, useWatchedFiles } from '../../../data/tail';
import { AntennaPicker } from '../../../ui/antenna-picker';
import { Button } from '../../../ui/button';
import { momentText } from '../../../ui/moment-text';
import { Section, Wide } from '../../../ui/section';

const SHOWN = ['atMs', 'freqHz', 'snrDb', 'sender', 'locator'];

function cellText(id: string, value: number | string | null): string {
  if (value === null) return '';
  if (typeof value === 'string') return value;
  if (id === 'atMs') return momentText(value);
  return id === 'freqHz' ? frequencyText(value, 6) : fixed(value, 0);
}

/** The table of a decoding program, followed while it grows. */
export function FollowDecodes({ data }: { readonly data: StationData }) {
  const { data: watched } = useWatchedFiles();
  const [name, setName] = useState('');
  const [antennaId, setAntennaId] = useState<number | undefined>(data.antennas.at(-1)?.id);
  const { keepTail } = useWrite();
  const [busy, setBusy] = useState(false);
  const file = watched?.files.find((one) => `${one.folder} ${one.name}` === name);
  const { data: read, error } = useTail(file);
  const columns = LOG_COLUMNS.decodes
    .map((column, place) => ({ ...column, place }))
    .filter(({ id }) => SHOWN.includes(id));
  const keep = async (): Promise<void> => {
    if (!file) return;
    setBusy(true);
    await keepTail(file, antennaId, read?.answer);
    setBusy(false);
  };
  return (
    <Section
      title="Follow a decoding program"
      hint="its table is read while it grows; nothing is kept until you say so"
    >
      {watched?.folders.length === 0 ? (
        <p className="max-w-prose text-sm text-dim">
          No folder may be read yet. Name it when you start:{' '}
          <code className="font-mono">npm start -- --decodes ~/decodes</code>. Only tables in it are read.
        </p>
      ) : (
        <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
          <label className="block text-sm text-dim">
            Table
            <select
              className="mt-1 block max-w-80 text-ink"
              value={file ? name : ''}
              onChange={(event) => setName(event.target.value)}
            >
              <option value="">none is followed</option>
              {watched?.files.map((one) => (
                <option key={`${one.folder} ${one.name}`} value={`${one.folder} ${one.name}`}>
                  {one.name}, {momentText(one.changedMs)} UTC
                </option>
              ))}
            </select>
          </label>
          {file && antennaId !== undefined && (
            <AntennaPicker data={data} value={antennaId} onPick={setAntennaId} label="Heard on" />
          )}
          {read && file && (
            <Button busy={busy} onClick={() => void keep()}>
              Keep what is there as a night
            </Button>
          )}
        </div>
      )}
      {watched && watched.folders.length > 0 && watched.files.length === 0 && (
        <p className="mt-1 text-sm text-dim">No table lies in {watched.folders.join(', ')} yet.</p>
      )}
      {error && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {error.message}
        </p>
      )}
      {read && file && (
        <>
          <p className="mt-2" role="status">
            {read.tail.rows.toLocaleString('en')} decodes of {read.tail.report.senders}
            {read.tail.report.all && <>, median {fixed(read.tail.report.all.medianDb, 0)} dB</>}
            {read.tail.report.farthestKm !== null && (
              <>, farthest {Math.round(read.tail.report.farthestKm).toLocaleString('en')} km</>
            )}{' '}
            (measured).
          </p>
          <Wide label="The last decodes">
            <table className="text-sm">
              <thead>
                <tr>
                  {columns.map(({ id, label }) => (
                    <th key={id} scope="col">
                      {label}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {[...read.tail.last].reverse().map((row, i) => (
                  <tr key={`${read.tail.rows} ${i}`}>
                    {columns.map(({ id, place }) => (
                      <td key={id} className="font-mono whitespace-nowrap">
                        {cellText(id, row[place])}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
        </>
      )}
    </Section>
  );
}
