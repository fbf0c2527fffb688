import type { RefObject } from 'react';
import { Button } from '../../../ui/button';
import type { Brush } from './waterfall-picture';

/** The hidden input of the page: it stays the same one whatever the page shows, so that a choice made in an open dialog is never lost. */
export function RecordingInput({
  input,
  onFiles,
}: {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly onFiles: (files: readonly File[]) => void;
}) {
  return (
    <input
      ref={input}
      type="file"
      multiple
      className="sr-only"
      tabIndex={-1}
      aria-label="Recording files"
      accept=".wav,.sigmf-meta,.sigmf-data"
      onChange={(event) => {
        onFiles([...(event.target.files ?? [])]);
        event.target.value = '';
      }}
    />
  );
}

const BRUSHES: readonly (readonly [Brush, string])[] = [
  ['signal', 'the signal'],
  ['quiet', 'a quiet band'],
  ['look', 'what is shown'],
];

export function BrushChoice({ brush, onBrush }: { readonly brush: Brush; readonly onBrush: (brush: Brush) => void }) {
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3 text-sm">
      <legend className="float-left mr-3 text-dim">A drag sets</legend>
      {BRUSHES.map(([value, label]) => (
        <label key={value} className="flex items-center gap-1.5">
          <input type="radio" name="brush" checked={brush === value} onChange={() => onBrush(value)} />
          {label}
        </label>
      ))}
    </fieldset>
  );
}

/** Asked, never guessed: both kinds of file look alike. */
export function Meaning({ onAnswer }: { readonly onAnswer: (meaning: 'iq' | 'two') => void }) {
  return (
    <section aria-label="What its two channels are" className="mb-4 max-w-prose">
      <p className="mb-2">This file has two channels and does not say what they are.</p>
      <div className="flex flex-wrap gap-3">
        <Button look="main" onClick={() => onAnswer('iq')}>
          I and Q of one receiver
        </Button>
        <Button onClick={() => onAnswer('two')}>Two receivers at once</Button>
      </div>
    </section>
  );
}
