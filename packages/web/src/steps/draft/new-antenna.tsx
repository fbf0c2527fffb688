import { ANTENNA_KINDS, checkDesign, type KindId, startDesign } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { freeName, frequencyText, parseQuantity } from '@velvet-reed/core/units';
import { useId, useState } from 'react';
import { useFocus } from '../../data/focus';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../data/station';
import { Button } from '../../ui/button';
import { typedFrequency } from '../../ui/typed';

/** Begins an antenna of any kind, cut for the middle of the focus band unless told otherwise. */
export function NewAntenna({
  antennas,
  onMade,
  onClose,
}: {
  /** Those that are there: no two get one name. */
  readonly antennas: readonly { readonly name: string }[];
  readonly onMade: (id: number) => void;
  readonly onClose: () => void;
}) {
  const id = useId();
  const { band } = useFocus();
  const { trySave } = useWrite();
  const [kindId, setKindId] = useState<KindId>('half-wave-dipole');
  const [text, setText] = useState(() => typedFrequency(Number(Math.sqrt(band.lowHz * band.highHz).toPrecision(4))));
  const [fault, setFault] = useState('');
  const kind = ANTENNA_KINDS.find((one) => one.id === kindId) ?? ANTENNA_KINDS[0];
  const begin = async (): Promise<void> => {
    try {
      setFault('');
      const freqHz = parseQuantity(text, 'frequency', { bareUnit: 'MHz' });
      const design = startDesign(kind.id, freqHz);
      checkDesign(design);
      const name = freeName(
        `${kind.name} for ${frequencyText(freqHz, 3)}`,
        antennas.map((one) => one.name),
      );
      const made = await trySave(
        [
          { op: 'create', resource: 'antennas', as: 'antenna', values: { name, targetId: null } },
          {
            op: 'create',
            resource: 'revisions',
            values: { ...design, antennaId: { new: 'antenna' }, number: 1 },
          },
          entry('draft', `Began ${name}.`),
        ],
        `${name} is on the Draft.`,
      );
      if (made) onMade(made[0]);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <form
      noValidate
      className="flex flex-wrap items-end gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void begin();
      }}
    >
      <label className="text-sm text-dim">
        Kind
        <select
          className="mt-0.5 block text-ink"
          value={kindId}
          onChange={(event) => {
            const next = ANTENNA_KINDS.find((one) => one.id === event.target.value);
            if (next) setKindId(next.id);
          }}
        >
          {ANTENNA_KINDS.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <div>
        <label htmlFor={id} className="block text-sm text-dim">
          Cut for
        </label>
        <input
          id={id}
          className="w-36 font-mono"
          value={text}
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? `${id}-fault` : undefined}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      <Button type="submit" look="main">
        Begin this antenna
      </Button>
      <Button look="quiet" onClick={onClose}>
        Cancel
      </Button>
      <p className="w-full text-sm text-dim">{kind.summary}.</p>
      {fault && (
        <p id={`${id}-fault`} role="alert" className="w-full text-danger">
          {fault}
        </p>
      )}
    </form>
  );
}
