import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button } from '../ui/button';
import { chooseKeys, DELIVERED, KEY_ACTIONS, keyOf, useKeys, withKey } from './keys';
import { ROOMS } from './rooms';
import { STEPS } from '@velvet-reed/station/steps';

/** Keys that are no single characters: they always answer. */
const ALWAYS: readonly (readonly [string, string])[] = [
  ['Ctrl+K', 'do anything by name'],
  ['Ctrl+Z', 'undo the last change; works after a restart'],
  ['Esc', 'leave a field, so that the characters above answer again; Tab goes on from there'],
  ['← →', 'on the Reed: move the focus band (Shift: ten times as far)'],
  ['↑ ↓', 'on the Reed: widen or narrow the focus band'],
  ['+ −', 'on the Reed: zoom; Home shows all of it, Page up and down shift it'],
  ['Space, arrows, Space', 'in Path: pick up a stage, move it, put it down'],
];

/** Single characters: what they do, which they are, and whether they answer at all. */
function Characters() {
  const keys = useKeys();
  const [fault, setFault] = useState<string>();
  return (
    <>
      <label className="flex min-h-9 items-center gap-2">
        <input
          type="checkbox"
          checked={keys.on}
          onChange={(event) => chooseKeys({ ...keys, on: event.target.checked })}
        />
        Single characters answer
      </label>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1">
        {KEY_ACTIONS.map((action) => (
          <div key={action.id} className="contents">
            <dt>
              <input
                className="w-11 text-center font-mono"
                aria-label={`Character for: ${action.does}`}
                value={keyOf(action, keys)}
                disabled={!keys.on}
                onFocus={(event) => event.target.select()}
                onChange={({ target }) => {
                  const typed = [...target.value].at(-1);
                  if (typed === undefined) return;
                  const next = withKey(keys, action.id, typed);
                  setFault(typeof next === 'string' ? next : undefined);
                  if (typeof next !== 'string') chooseKeys(next);
                }}
              />
            </dt>
            <dd className={keys.on ? '' : 'text-dim'}>{action.does}</dd>
          </div>
        ))}
      </dl>
      {fault && (
        <p role="alert" className="mt-2 text-danger">
          {fault}
        </p>
      )}
      <Button
        look="quiet"
        onClick={() => {
          setFault(undefined);
          chooseKeys(DELIVERED);
        }}
      >
        Back to the characters as delivered
      </Button>
    </>
  );
}

export default function Shortcuts({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-4 top-[8vh] z-50 mx-auto max-h-[84vh] max-w-xl overflow-y-auto border border-dim bg-sheet p-6 shadow-xl"
        >
          <Dialog.Title className="mb-3 font-serif text-2xl">Keys and marks</Dialog.Title>
          <Characters />
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
            {ALWAYS.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="font-mono whitespace-nowrap">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <h3 className="mt-5 mb-1 font-semibold">The small letter beside a number says where it comes from</h3>
          <p>
            <b>m</b> model, computed here · <b>r</b> read by you (measured) · <b>c</b> catalogue · <b>a</b> assumed.
            Open the number for its formula, inputs and source.
          </p>
          <h3 className="mt-5 mb-1 font-semibold">Rooms</h3>
          <dl>
            {STEPS.map((step) => (
              <div key={step.id}>
                <dt className="mt-1 font-semibold">{step.name}</dt>
                {ROOMS[step.id].map((room) => (
                  <dd key={room.id}>
                    {room.name}: <span className="text-dim">{room.asks}</span>
                  </dd>
                ))}
              </div>
            ))}
          </dl>
          <h3 className="mt-5 mb-1 font-semibold">Step marks</h3>
          <p>○ empty · ◐ in work · ● done · ~ doubtful</p>
          <div className="mt-5">
            <Dialog.Close asChild>
              <Button look="main">Close</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
