import { useState } from 'react';
import { useInstruments } from '../../../data/instruments';
import { Section } from '../../../ui/section';
import { instrumentName } from '../instrument-name';
import type { MeasureProps } from './measure-props';
import { Sweeper } from './sweeper';

/** Measures with an analyser: span, passes, calibration, live curve, and keeping it. */
export function Measure({ data, antenna, design, onLive }: MeasureProps) {
  const instruments = useInstruments();
  const analysers = (instruments.data ?? []).filter(({ kind }) => kind === 'analyser');
  const [chosen, setChosen] = useState('');
  const instrument = analysers.find(({ id }) => id === chosen) ?? analysers[0];
  return (
    <Section title="Measure with an analyser" hint="live, with calibration; nothing is stored until you keep it">
      {instruments.error ? (
        <p role="alert" className="text-danger">
          {instruments.error.message}
        </p>
      ) : !instrument ? (
        <p className="text-dim">Looking for instruments…</p>
      ) : (
        <>
          <label className="text-sm text-dim">
            Analyser
            <select
              className="ml-2 max-w-full text-ink"
              value={instrument.id}
              onChange={(event) => setChosen(event.target.value)}
            >
              {analysers.map((one) => (
                <option key={one.id} value={one.id}>
                  {instrumentName(one)}
                </option>
              ))}
            </select>
          </label>
          <Sweeper
            key={`${instrument.id} ${antenna?.id}`}
            data={data}
            antenna={antenna}
            design={design}
            onLive={onLive}
            instrument={instrument}
          />
        </>
      )}
    </Section>
  );
}
