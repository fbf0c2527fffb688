import { SCHEMAS, BLANK, type Saved } from '@velvet-reed/contract';
import { type Band, ituRegionOf } from '@velvet-reed/core/spectrum';
import { bandText, parseQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import { bandsOf } from '@velvet-reed/station/derive';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { RecordForm } from '../../../ui/record-form';
import { BAND_FIELDS, bandStart } from './target-fields';

/** Whether a band is looked for: by its words, with or without blanks ("31m"), or by a frequency in it: in MHz, or in kHz where that is more than MHz reach. */
function matches(band: Band, typed: string): boolean {
  const asked = typed.trim().toLowerCase();
  const words = `${band.name} ${band.service}`.toLowerCase();
  if (words.includes(asked) || words.replaceAll(' ', '').includes(asked.replaceAll(' ', ''))) return true;
  const read = tried(() => parseQuantity(asked, 'frequency', { bareUnit: 'MHz' }));
  if (read === undefined) return false;
  const hz = /[a-z]/.test(asked) || read < 3e9 ? [read] : [read, read / 1000];
  return hz.some((one) => one >= band.lowHz && one <= band.highHz);
}
function tried(read: () => number): number | undefined {
  try {
    return read();
  } catch {
    return undefined; // still being typed
  }
}

/** The region's bands; each can be wanted, edited for this station, or hidden. */
export function Catalogue({ data, onClose }: { readonly data: StationData; readonly onClose: () => void }) {
  const { save, trySave } = useWrite();
  const [filter, setFilter] = useState('');
  const [editing, setEditing] = useState<string>();
  const bands = bandsOf(data).filter((band) => matches(band, filter));
  const editOf = (bandId: string): Saved<'bandEdits'> | undefined =>
    data.bandEdits.find((edit) => edit.bandId === bandId);
  return (
    <div className="border border-rule p-3">
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-sm text-dim">
          Search the catalogue of Region {ituRegionOf(data.station)}
          <input className="block text-ink" value={filter} onChange={(event) => setFilter(event.target.value)} />
        </label>
        <Button look="quiet" onClick={onClose}>
          Close the catalogue
        </Button>
      </div>
      <ul className="mt-2 max-h-96 overflow-y-auto" tabIndex={0} aria-label="Bands and services">
        {bands.map((band) => (
          <li key={band.id} className="border-b border-rule py-0.5">
            <div className="flex flex-wrap items-center gap-x-3">
              <span className="grow">
                {band.name} {editOf(band.id) && <em className="text-sm text-plum">your edit</em>}
              </span>
              <span className="font-mono text-sm tabular-nums">{bandText(band.lowHz, band.highHz)}</span>
              <Button
                look="quiet"
                aria-label={`Want ${band.name}`}
                onClick={() =>
                  void trySave(
                    [
                      {
                        op: 'create',
                        resource: 'targets',
                        values: {
                          name: band.name,
                          lowHz: band.lowHz,
                          highHz: band.highHz,
                          bandwidthHz: band.bandwidthHz,
                          weight: 3,
                          ...BLANK.targets,
                        },
                      },
                      entry('listen', `Target added: ${band.name}.`),
                    ],
                    `${band.name} is wanted.`,
                  )
                }
              >
                Want it
              </Button>
              <Button look="quiet" aria-label={`Edit ${band.name}`} onClick={() => setEditing(band.id)}>
                Edit
              </Button>
            </div>
            {editing === band.id && (
              <RecordForm
                fields={BAND_FIELDS}
                schema={SCHEMAS.bandEdits}
                fixed={{ bandId: band.id, hidden: false }}
                start={bandStart(band)}
                submit="Keep this edit"
                onCancel={() => setEditing(undefined)}
                version={editOf(band.id)?.version}
                onSave={async (values, version) => {
                  const edit = editOf(band.id);
                  await save(
                    [
                      edit
                        ? { op: 'update', resource: 'bandEdits', id: edit.id, version, values }
                        : { op: 'create', resource: 'bandEdits', values },
                    ],
                    'Band edited.',
                  );
                  setEditing(undefined);
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
