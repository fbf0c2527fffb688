import { type AutoMarker, markerAt } from '@velvet-reed/core/sweep';
import { frequencyText, parseQuantity, spanSlipOf } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Swr } from './sweep/band-table';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** Exact readings at typed frequencies, for every curve shown. */
export function MarkerTable({
  shown,
  markers,
  own,
  onOwn,
}: {
  readonly shown: readonly LoadedSweep[];
  /** Those that set themselves, then the listener's own. */
  readonly markers: readonly AutoMarker[];
  readonly own: readonly number[];
  readonly onOwn: (markers: readonly number[]) => void;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const [meant, setMeant] = useState<{ readonly typedHz: number; readonly meantHz?: number }>();
  const set = (freqHz: number): void => {
    onOwn([...own, freqHz]);
    setText('');
    setFault('');
    setMeant(undefined);
  };
  const addMarker = (): void => {
    try {
      const freqHz = parseQuantity(text, 'frequency', { bareUnit: 'MHz' });
      const spans = shown.map(({ header }) => ({ low: header.startHz, high: header.stopHz }));
      if (spans.length === 0 || spans.some(({ low, high }) => freqHz >= low && freqHz <= high)) set(freqHz);
      else {
        const meantHz = spanSlipOf(freqHz, spans);
        setFault('');
        setMeant({ typedHz: freqHz, ...(meantHz === undefined ? {} : { meantHz }) });
      }
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'Type a frequency.');
    }
  };
  return (
    <div className="mt-3">
      <table>
        <caption className="sr-only">Markers</caption>
        <thead>
          <tr>
            <th scope="col">Marker</th>
            {shown.map((one) => (
              <th scope="col" key={one.header.id}>
                {one.header.name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {markers.map(({ name, freqHz }, i) => (
            <tr key={`${i} ${freqHz}`}>
              <th scope="row" className="text-ink">
                <span className="font-mono">M{i + 1}</span> {name}{' '}
                <span className="font-mono font-normal">{frequencyText(freqHz, 5)}</span>
              </th>
              {shown.map((one) => {
                const point = markerAt(one.sweep, freqHz);
                return (
                  <td key={one.header.id}>
                    SWR <Swr point={point} />{' '}
                    {point?.impedance && one.header.phaseKnown && (
                      <span className="ml-3 font-mono text-sm whitespace-nowrap text-dim">
                        {point.impedance.re.toFixed(1)} {point.impedance.im < 0 ? '−' : '+'} j
                        {Math.abs(point.impedance.im).toFixed(1)} Ω
                      </span>
                    )}
                  </td>
                );
              })}
              <td>
                {i >= markers.length - own.length && (
                  <Button
                    look="danger"
                    aria-label={`Remove marker ${i + 1}`}
                    onClick={() => onOwn(own.filter((_, k) => k !== i - (markers.length - own.length)))}
                  >
                    Remove
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        noValidate
        className="mt-2 flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          addMarker();
        }}
      >
        <label htmlFor="marker" className="text-sm text-dim">
          Marker at
        </label>
        <input
          id="marker"
          className="w-36 font-mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? 'marker-fault' : undefined}
          placeholder="9.65 MHz"
        />
        <Button type="submit">Set marker</Button>
        {meant && (
          <p role="alert" className="text-sm text-caution">
            {frequencyText(meant.typedHz, 5)} lies outside every sweep shown.{' '}
            {meant.meantHz !== undefined && (
              <Button look="quiet" onClick={() => set(meant.meantHz ?? meant.typedHz)}>
                Set it at {frequencyText(meant.meantHz, 5)}
              </Button>
            )}{' '}
            <Button look="quiet" onClick={() => set(meant.typedHz)}>
              Set it there anyway
            </Button>
          </p>
        )}
        {fault && (
          <p id="marker-fault" role="alert" className="text-sm text-danger">
            {fault}
          </p>
        )}
      </form>
    </div>
  );
}
