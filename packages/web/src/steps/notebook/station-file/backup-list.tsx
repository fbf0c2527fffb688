import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { showTrouble } from '../../../data/station';
import {
  type BackupRow,
  type KeptBackups,
  checkDatabase,
  makeBackup,
  restoreBackup,
} from '../../../data/station-files';
import { Button } from '../../../ui/button';
import { momentText } from '../../../ui/moment-text';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';

const KIND: Readonly<Record<BackupRow['kind'], string>> = {
  daily: 'by itself, daily',
  asked: 'as you asked',
  before: 'before another was put back',
};

/** Copies of all stations: made, put back; and the database looked over. */
export function BackupList({
  kept,
  error,
  onChanged,
}: {
  readonly kept: KeptBackups | undefined;
  readonly error: Error | undefined;
  readonly onChanged: () => void;
}) {
  const [asked, setAsked] = useState<string>();
  const [busy, setBusy] = useState<string>();
  const [told, setTold] = useState('');
  const run = async (what: string, work: () => Promise<unknown>, done: string): Promise<void> => {
    setBusy(what);
    setTold('');
    try {
      await work();
      setTold(done);
      onChanged();
    } catch (fault) {
      showTrouble(fault);
    } finally {
      setBusy(undefined);
      setAsked(undefined);
    }
  };
  const check = async (): Promise<void> => {
    setBusy('check');
    try {
      const faults = await checkDatabase();
      setTold(
        faults.length === 0
          ? 'The database is sound.'
          : `The database has faults: ${faults.join(' ')} Put a backup back.`,
      );
    } catch (fault) {
      showTrouble(fault);
    } finally {
      setBusy(undefined);
    }
  };
  return (
    <Section
      title="Backups"
      hint="of all stations; made once a day while the server runs, the last seven of each kind kept"
    >
      {error && (
        <p role="alert" className="text-danger">
          {error.message}
        </p>
      )}
      {kept && kept.fault !== '' && (
        <p role="alert" className="text-danger">
          {kept.fault} Make room or allow writing, then make one now.
        </p>
      )}
      {kept && kept.backups.length === 0 && <Empty>None yet.</Empty>}
      {kept && kept.backups.length > 0 && (
        <Wide label="Backups of all stations">
          <table className="w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Made, UTC</th>
                <th scope="col">Why</th>
                <th scope="col">Size</th>
                <th scope="col">
                  <span className="sr-only">Put back</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {kept.backups.map(({ name, kind, madeMs, bytes }) => (
                <tr key={name}>
                  <th scope="row" className="font-mono whitespace-nowrap text-ink">
                    {momentText(madeMs)}
                  </th>
                  <td>{KIND[kind]}</td>
                  <td className="font-mono whitespace-nowrap">{fixed(bytes / 1e6, 1)} MB</td>
                  <td>
                    {asked === name ? (
                      <span className="flex flex-wrap items-center gap-2">
                        <Button
                          look="danger"
                          busy={busy === name}
                          onClick={() =>
                            void run(
                              name,
                              () => restoreBackup(name),
                              'All stations are as they were then. What was here is a backup, too.',
                            )
                          }
                        >
                          Put all stations back
                        </Button>
                        <Button look="quiet" onClick={() => setAsked(undefined)}>
                          Leave it
                        </Button>
                      </span>
                    ) : (
                      <Button
                        look="quiet"
                        aria-label={`Put back the backup of ${momentText(madeMs)}`}
                        onClick={() => setAsked(name)}
                      >
                        Put back…
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <p className="mt-2 flex flex-wrap items-center gap-3">
        <Button busy={busy === 'make'} onClick={() => void run('make', makeBackup, 'A backup is made.')}>
          Make one now
        </Button>
        <Button busy={busy === 'check'} onClick={() => void check()}>
          Check the database
        </Button>
        {told && <span role="status">{told}</span>}
      </p>
      {kept && <p className="mt-1 text-sm break-all text-dim">They lie in {kept.folder}.</p>}
    </Section>
  );
}
