import { useId, useState, type DragEvent, type RefObject } from 'react';
import { toast } from 'sonner';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';

/** Opens the choice of files of the intake; it stands at the head of the room, where a keyboard comes to it first. */
export function ImportButton({ intake }: { readonly intake: RefObject<HTMLInputElement | null> }) {
  return <Button onClick={() => intake.current?.click()}>Import sweep file</Button>;
}

/** Takes sweeps by file, by drop and by paste. A refused file says which line is wrong and leaves nothing behind. */
export function SweepIntake({
  antennaId,
  chooser,
}: {
  readonly antennaId: number | undefined;
  readonly chooser: RefObject<HTMLInputElement | null>;
}) {
  const { importSweep, reload } = useWrite();
  const id = useId();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [over, setOver] = useState(false);
  const [busy, setBusy] = useState(false);

  const take = async (files: readonly File[]): Promise<boolean> => {
    setBusy(true);
    const refused: string[] = [];
    for (const file of files) {
      try {
        await importSweep(file, antennaId, 'file', true);
      } catch (error) {
        refused.push(`${file.name}: ${error instanceof Error ? error.message : 'could not be read.'}`);
      }
    }
    // one look at the station for all of them: a hundred files are a hundred short requests
    await reload();
    const done = files.length - refused.length;
    if (done > 0)
      toast.success(done === 1 && files.length === 1 ? `${files[0].name} imported.` : `${done} sweeps imported.`);
    setFaults(refused);
    setBusy(false);
    return refused.length === 0;
  };

  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void take([...event.dataTransfer.files]);
  };

  return (
    <section
      aria-label="Import a sweep"
      className={`mb-5 border border-dashed p-3 ${over ? 'border-plum bg-plum/10' : 'border-dim'}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <div className="flex flex-wrap items-center gap-3">
        <input
          ref={chooser}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label="Sweep files"
          accept=".s1p,.csv,.txt"
          multiple
          onChange={(event) => {
            void take([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
        <Disclosure label="Paste a sweep">
          {(close) => (
            <PasteForm
              onClose={close}
              onTake={(text) => take([new File([text], 'pasted-sweep.txt', { type: 'text/plain' })])}
            />
          )}
        </Disclosure>
        <p role="status" className="text-sm text-dim">
          {busy ? 'Importing… ' : ''}Or drop files here: one-port Touchstone 1.1 (.s1p), or CSV with frequency and S11,
          R and X, or SWR
        </p>
      </div>
      {faults.map((fault) => (
        <p key={fault} role="alert" id={id} className="mt-2 max-w-prose text-danger">
          {fault} Nothing was stored.
        </p>
      ))}
    </section>
  );
}

function PasteForm({
  onTake,
  onClose,
}: {
  readonly onTake: (text: string) => Promise<boolean>;
  readonly onClose: () => void;
}) {
  const [text, setText] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void onTake(text).then((done) => done && onClose());
      }}
    >
      <label className="block text-sm text-dim">
        Sweep as text
        <textarea
          className="mt-1 block w-full max-w-2xl font-mono text-ink"
          rows={6}
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder={'# MHz S RI R 50\n9.0 0.4 -0.3'}
        />
      </label>
      <div className="mt-2 flex gap-3">
        <Button type="submit" look="main">
          Import the text
        </Button>
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
