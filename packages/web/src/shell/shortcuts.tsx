import { Dialog } from 'radix-ui';
import { Button } from '../ui/button';
import { ROOMS } from './rooms';
import { STEPS } from './steps';

const KEYS: readonly (readonly [string, string])[] = [
  ['1 to 9, p', 'go to a step, in working order; p to the Plot'],
  ['[ and ]', 'the room before, the room after'],
  ['Esc', 'leave a field, so that the keys of this sheet answer again'],
  ['/ or Ctrl+K', 'do anything by name'],
  ['Ctrl+Z', 'undo the last change; works after a restart'],
  ['t', 'day or night theme'],
  ['f', 'jump to the focus band on the Reed'],
  ['← →', 'on the Reed: move the focus band (Shift: ten times as far)'],
  ['↑ ↓', 'on the Reed: widen or narrow the focus band'],
  ['+ −', 'on the Reed: zoom; Home shows all of it, Page up and down shift it'],
  ['Space, arrows, Space', 'in Path: pick up a stage, move it, put it down'],
  ['?', 'this sheet'],
];

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
          <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
            {KEYS.map(([key, what]) => (
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
