import { CoreError } from '@velvet-reed/core/errors';
import { lengthText, parseQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { bareUnit, type UnitSystem } from './units';

/** Scales the picture underneath so that the stretch just measured has its true length. */
export function ScalePicture({
  data,
  measuredM,
  system,
}: {
  readonly data: StationData;
  readonly measuredM: number;
  readonly system: UnitSystem;
}) {
  const { trySave } = useWrite();
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const picture = data.plotFeatures.find((one) => one.kind === 'picture');
  if (!picture) return null;
  const scale = (): void => {
    try {
      const trueM = parseQuantity(text, 'length', { bareUnit: bareUnit(system) });
      if (!(trueM > 0 && measuredM > 0)) return setFault('Type a length above zero.');
      setFault('');
      const values = { widthM: (picture.widthM * trueM) / measuredM };
      void trySave(
        [{ op: 'update', resource: 'plotFeatures', id: picture.id, version: picture.version, values }],
        `Picture scaled: ${lengthText(values.widthM)} wide.`,
      );
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <form
      className="my-2 flex flex-wrap items-center gap-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        scale();
      }}
    >
      <label>
        On the picture this stretch is really{' '}
        <input
          className="w-28 font-mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={fault ? true : undefined}
          aria-describedby="scale-fault"
        />
      </label>
      <Button type="submit">Scale the picture</Button>
      <span id="scale-fault" role={fault ? 'alert' : undefined} className="text-danger">
        {fault}
      </span>
    </form>
  );
}
