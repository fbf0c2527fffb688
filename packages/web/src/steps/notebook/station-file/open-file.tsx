import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { RefusedError } from '../../../data/api';
import { newUuid } from '../../../data/names';
import { showTrouble, useWrite } from '../../../data/station';
import { type LookedAt, lookInto, type Standing, takeIn } from '../../../data/station-files';
import { Button } from '../../../ui/button';
import { useFew } from '../../../ui/few';
import { Section, Wide } from '../../../ui/section';
import { nameOfLabel, toldText } from './told-text';

/** Taken unless somebody says otherwise: what is new, and what went on from what is here. */
const USUAL: readonly Standing[] = ['only in the file', 'newer in the file'];
const FEW = 40;

/** A station file is looked into first; nothing is taken before it was said how. */
export function OpenFile() {
  const { reload } = useWrite();
  const [file, setFile] = useState<File>();
  const [looked, setLooked] = useState<LookedAt>();
  const [take, setTake] = useState<ReadonlySet<string>>(new Set());
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const [taken, setTaken] = useState<{
    readonly words: string;
    readonly stationId: number;
    readonly left: readonly string[];
  }>();
  const [key, setKey] = useState('');
  const { rows, more } = useFew(looked?.differences ?? [], FEW, 'differences');
  const look = async (chosen: File): Promise<void> => {
    setBusy(true);
    setFault('');
    setTaken(undefined);
    setLooked(undefined);
    try {
      const found = await lookInto(chosen);
      setFile(chosen);
      setKey(newUuid());
      setLooked(found);
      setTake(new Set(found.differences.flatMap(({ uuid, standing }) => (USUAL.includes(standing) ? [uuid] : []))));
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      setFault(`${chosen.name}: ${error.message}`);
    } finally {
      setBusy(false);
    }
  };
  const bring = async (how: Parameters<typeof takeIn>[1]): Promise<void> => {
    if (!file) return;
    setBusy(true);
    try {
      const { stationId, added, changed, left } = await takeIn(file, how, key);
      setTaken({
        stationId,
        words:
          how.as === 'new'
            ? 'It is a station of its own now.'
            : `${countText(added, 'record')} added, ${changed} changed; undo takes that back.`,
        left,
      });
      setLooked(undefined);
      void reload();
    } catch (error) {
      showTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  const toggle = (uuid: string): void =>
    setTake((old) => new Set(old.has(uuid) ? [...old].filter((one) => one !== uuid) : [...old, uuid]));
  return (
    <Section title="Open a station file" hint="looked into first; nothing is taken before you say how">
      <label className="text-sm text-dim">
        {busy ? 'Reading…' : 'Station file (.station.zip)'}
        <input
          type="file"
          accept=".zip"
          disabled={busy}
          className="ml-2 max-w-60 border-0 text-sm text-ink"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            event.target.value = '';
            if (chosen) void look(chosen);
          }}
        />
      </label>
      {fault && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {taken && (
        <div role="status" className="mt-2">
          <p>
            {taken.words} <Link to={`/s/${taken.stationId}`}>Open it</Link>
          </p>
          {taken.left.length > 0 && (
            <>
              <p className="text-caution">
                {countText(taken.left.length, 'record')} stayed outside, because each means nothing alone:
              </p>
              <ul className="list-disc pl-5">
                {taken.left.map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      {looked && (
        <div className="mt-3">
          <p>
            {looked.name}: {countText(looked.records, 'record')}.{' '}
            {looked.stationId === null
              ? 'This station is not here yet.'
              : `It is here already: ${looked.same} the same, ${looked.differences.length} different, ${looked.onlyHere} only here (they stay).`}
          </p>
          {looked.differences.length > 0 && (
            <Wide label="Differences">
              <table className="w-full max-w-3xl">
                <thead>
                  <tr>
                    <th scope="col">Take it</th>
                    <th scope="col">What</th>
                    <th scope="col">Standing</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map(({ uuid, label, name, standing, values }) => (
                    <tr key={uuid}>
                      <td>
                        <input
                          type="checkbox"
                          aria-label={`Take ${label} ${name}`}
                          checked={take.has(uuid)}
                          onChange={() => toggle(uuid)}
                        />
                      </td>
                      <th scope="row" className="text-ink">
                        {label} {name}
                        {values.length > 0 && (
                          <ul className="text-sm font-normal">
                            {values.map((one) => (
                              <li key={one.label}>
                                <span className="text-dim">{nameOfLabel(one.label)}:</span>{' '}
                                {toldText(one.label, one.here)} <span className="text-dim">here,</span>{' '}
                                {toldText(one.label, one.file)} <span className="text-dim">in the file</span>
                              </li>
                            ))}
                          </ul>
                        )}
                      </th>
                      <td className={standing === 'both changed' || standing === 'deleted here' ? 'text-caution' : ''}>
                        {standing}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {more}
            </Wide>
          )}
          <p className="mt-2 flex flex-wrap gap-3">
            {looked.differences.length > 0 && (
              <Button
                look="main"
                busy={busy}
                disabled={take.size === 0}
                onClick={() => void bring({ as: 'beside', take: [...take] })}
              >
                Take {countText(take.size, 'record')} in
              </Button>
            )}
            <Button
              look={looked.stationId === null ? 'main' : 'plain'}
              busy={busy}
              onClick={() => void bring({ as: 'new' })}
            >
              Take it in as a station of its own
            </Button>
          </p>
        </div>
      )}
    </Section>
  );
}
