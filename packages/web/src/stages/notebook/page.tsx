import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { useMemo, useState } from 'react';
import { getBytes, getJson } from '../../data/api';
import { wishTargets } from '../../data/derive';
import { useMoment } from '../../data/moment';
import { useRanking } from '../../data/ranking';
import { loadSamples } from '../../data/samples';
import { showTrouble, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { momentText } from '../../ui/moment-text';
import { useFew } from '../../ui/few';
import { RecordForm } from '../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { Next, Note, Section, Stage } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { StationPage } from '../../ui/station-page';

/** So many entries and files stand in their lists until all are asked for. */
const FEW = 40;

export default function NotebookPage() {
  return <StationPage>{(data) => <Notebook data={data} />}</StationPage>;
}

function Notebook({ data }: { readonly data: StationData }) {
  const entries = [...data.entries].sort((a, b) => a.atMs - b.atMs || a.id - b.id);
  const last = entries.at(-1);
  const { rows, more } = useFew(entries, FEW, 'entries');
  return (
    <Stage
      title="Notebook"
      verdict={
        last ? (
          <>
            Last: {last.text} <Next>Next: take the report along, or write down what you saw.</Next>
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
            <p>Wishes, choices, revisions, tests passed, sweeps, cuts, trials, noise readings. Free text is yours.</p>
          </Note>
          <Note title="Raw files">
            <p>
              Every imported file is kept as it came, with its SHA-256 checksum: the figures in a report can be traced
              to bytes.
            </p>
          </Note>
        </>
      }
    >
      <Report data={data} />
      <WriteEntry count={data.entries.length} />
      <Section title="Entries" hint="latest first, UTC">
        {entries.length === 0 ? (
          <Empty>No entry yet.</Empty>
        ) : (
          <ol className="max-w-4xl border-t border-rule">
            {[...rows].reverse().map((entry) => (
              <li key={entry.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1">
                <time className="font-mono text-sm whitespace-nowrap">{momentText(entry.atMs)}</time>
                <span className="w-20 text-sm text-dim">{entry.stage}</span>
                <span className="min-w-0 grow basis-72 whitespace-pre-wrap">{entry.text}</span>
                <ChangeButton
                  resource="entries"
                  record={entry}
                  name={`Entry of ${momentText(entry.atMs)}`}
                  fields={[{ name: 'text', label: 'What you did or saw', kind: 'long' }]}
                />
                <DeleteButton resource="entries" record={entry} name={`Entry of ${momentText(entry.atMs)}`} />
              </li>
            ))}
          </ol>
        )}
        {more}
      </Section>
      <Files files={data.attachments} />
    </Stage>
  );
}

const FORMATS = [
  ['pdf', 'Save the report as PDF'],
  ['csv', 'Tables as CSV'],
  ['png', 'Charts as PNG'],
] as const;

function Report({ data }: { readonly data: StationData }) {
  const { atMs } = useMoment();
  const targets = useMemo(() => wishTargets(data, atMs), [data, atMs]);
  const { ranked, complete, answered, asked } = useRanking(data, { targets, view: 'quiet' });
  const [busy, setBusy] = useState(false);
  const make = async (as: (typeof FORMATS)[number][0]): Promise<void> => {
    setBusy(true);
    try {
      const { saveReport } = await import('./report-pdf');
      await saveReport({ data, samples: await loadSamples(data.sweeps), ranked }, as);
    } catch (error) {
      showTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  const waiting = busy || !complete;
  return (
    <Section title="Report" hint="the whole path with its charts, tables and checksums">
      <div className="flex flex-wrap gap-3">
        {FORMATS.map(([as, label]) => (
          <Button key={as} look={as === 'pdf' ? 'main' : 'plain'} busy={waiting} onClick={() => void make(as)}>
            {label}
          </Button>
        ))}
      </div>
      {/* its room stays when it is done: nothing below may move under a finger */}
      <p role="status" className="mt-1 min-h-10 text-sm text-dim sm:min-h-5">
        {!complete && `The wire model is still ranking the antennas for it: ${answered} of ${asked}.`}
      </p>
    </Section>
  );
}

function WriteEntry({ count }: { readonly count: number }) {
  const { save } = useWrite();
  return (
    <Section title="Write">
      <RecordForm
        key={count}
        fields={[{ name: 'text', label: 'What you did or saw', kind: 'long' }]}
        schema={SCHEMAS.entries}
        fixed={{ stage: 'notebook', atMs: 0 }}
        start={{ text: '' }}
        submit="Write it down"
        onSave={(values) =>
          save([{ op: 'create', resource: 'entries', values: { ...values, atMs: Date.now() } }], 'Written.')
        }
      />
    </Section>
  );
}

const hex = (bytes: ArrayBuffer): string =>
  Array.from(new Uint8Array(bytes), (byte) => byte.toString(16).padStart(2, '0')).join('');
const checksum = async (bytes: Uint8Array<ArrayBuffer>): Promise<string> =>
  hex(await crypto.subtle.digest('SHA-256', bytes));

function Files({ files }: { readonly files: readonly Saved<'attachments'>[] }) {
  const { rows, more } = useFew(files, FEW, 'files');
  return (
    <Section title="Raw files" hint="as imported; compare a copy with its record">
      {files.length === 0 ? (
        <Empty>No file imported yet. Sweeps imported on the Bench are kept here.</Empty>
      ) : (
        <ul className="max-w-4xl border-t border-rule">
          {rows.map((file) => (
            <FileRow key={file.id} file={file} />
          ))}
        </ul>
      )}
      {more}
    </Section>
  );
}

/** A stored file: download it, check its bytes on the server, or compare a copy from the disk. */
function FileRow({ file }: { readonly file: Saved<'attachments'> }) {
  const [answer, setAnswer] = useState<{ same: boolean; text: string }>();
  const judge = (found: string, what: string): void =>
    setAnswer(
      found === file.sha256
        ? { same: true, text: `${what} is unchanged.` }
        : {
            same: false,
            text: `Checksum mismatch: ${what} was altered since the import (${found.slice(0, 12)}… instead of ${file.sha256.slice(0, 12)}…).`,
          },
    );
  const checkStored = async (): Promise<void> => {
    try {
      const reply = await getJson(`/api/attachments/${file.id}/check`);
      if (typeof reply === 'object' && reply !== null && 'found' in reply)
        judge(String(reply.found), 'The stored file');
    } catch (error) {
      showTrouble(error);
    }
  };
  const download = async (): Promise<void> => {
    try {
      const { saveAs } = await import('file-saver');
      saveAs(new Blob([Uint8Array.from(await getBytes(`/api/attachments/${file.id}/bytes`))]), file.name);
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <li className="border-b border-rule py-1">
      <div className="flex flex-wrap items-center gap-x-4">
        <span className="grow font-semibold">{file.name}</span>
        <span className="font-mono text-sm">{file.size.toLocaleString('en-GB')} bytes</span>
        <Button look="quiet" onClick={() => void download()} aria-label={`Save ${file.name}`}>
          Save
        </Button>
        <Button look="quiet" onClick={() => void checkStored()} aria-label={`Check ${file.name}`}>
          Check
        </Button>
        <label className="text-sm text-dim">
          Compare a copy
          <input
            type="file"
            className="ml-2 max-w-52 border-0 text-sm"
            onChange={(event) => {
              const copy = event.target.files?.[0];
              if (copy)
                void copy.arrayBuffer().then(async (bytes) => judge(await checksum(new Uint8Array(bytes)), copy.name));
            }}
          />
        </label>
      </div>
      <p className="font-mono text-xs break-all text-dim">SHA-256 {file.sha256}</p>
      {answer && (
        <p role="status" className={answer.same ? 'text-reed' : 'text-danger'}>
          {answer.text}
        </p>
      )}
    </li>
  );
}
