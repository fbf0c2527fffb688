import { RECEIVER_KINDS } from '@velvet-reed/core/path';
import { frequencyText } from '@velvet-reed/core/units';
import { showTrouble, useWrite } from '../data/station';
import { Button } from './button';

/** A receiver whose figures nobody knows: by its kind, with usual ones that say so. */
export function ReceiverByKind({ onClose }: { readonly onClose?: () => void }) {
  const { save } = useWrite();
  return (
    <div className="my-3 max-w-2xl">
      <p className="text-sm text-dim">
        Usual figures of the kind are taken, marked assumed in the name. Change them when you have the data sheet.
      </p>
      <ul className="mt-2 border-t border-rule">
        {RECEIVER_KINDS.map(({ id, name, figures }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
            <span className="grow">{name}</span>
            <span className="font-mono text-sm">
              {frequencyText(figures.minHz, 2)} to {frequencyText(figures.maxHz, 2)}
            </span>
            <Button
              aria-label={`Take the ${name}`}
              onClick={() =>
                void save(
                  [{ op: 'create', resource: 'receivers', values: { ...figures, name: `${name} (assumed)` } }],
                  'Receiver added.',
                ).then(() => onClose?.(), showTrouble)
              }
            >
              Take this
            </Button>
          </li>
        ))}
      </ul>
      {onClose && (
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
      )}
    </div>
  );
}
