import type { Saved } from '@velvet-reed/contract';
import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { bytesPath } from '../../../data/data-file';
import { getBytes, getJson } from '../../../data/api';
import { showTrouble } from '../../../data/station';
import { Button } from '../../../ui/button';
import { useFew } from '../../../ui/few';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';

/** So many files stand in the list until all are asked for. */
const FEW = 40;

export default function FilesRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Files, Notebook"
          verdict={
            data.attachments.length === 0 ? (
              <>
                No file was imported yet. <Next>Next: import a sweep in Bench; its file is kept as it came.</Next>
              </>
            ) : (
              <>
                {countText(data.attachments.length, 'raw file')} kept as they came, each with its checksum.{' '}
                <Next>Next: check one, or hold a copy from your disk against it.</Next>
              </>
            )
          }
          margin={
            <Note title="Never edited">
              <p>
                Every imported file is kept as it came, with its SHA-256 checksum: the figures in a report can be traced
                to bytes.
              </p>
            </Note>
          }
        >
          <Files files={data.attachments} />
        </Room>
      )}
    </StationPage>
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
        <ul data-evidence className="evidence max-w-4xl overflow-y-auto border-t border-rule">
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
      saveAs(new Blob([Uint8Array.from(await getBytes(bytesPath(file)))]), file.name);
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
