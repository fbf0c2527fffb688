import type { InstrumentCard, ReadingRequest } from '@velvet-reed/contract';
import { fixed, type ShownQuantity, significant } from '@velvet-reed/core/units';
import { useState } from 'react';
import { readInstrument, turnTable, useInstruments } from '../../../data/instruments';
import { keptCableLimit } from '../../../data/turntable';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { instrumentName } from '../instrument-name';

type What = ReadingRequest['what'];

const READS: Readonly<
  Partial<Record<InstrumentCard['kind'], readonly { readonly what: What; readonly name: string }[]>>
> = {
  turntable: [{ what: 'azimuth', name: 'Turn and read' }],
  'power-meter': [{ what: 'power', name: 'Read the power' }],
  'lcr-meter': [
    { what: 'inductance', name: 'Read the coil' },
    { what: 'capacitance', name: 'Read the capacitor' },
  ],
};

/** A reading in the unit that people use for it. */
function told(what: What, value: number): ShownQuantity {
  switch (what) {
    case 'power':
      return { digits: fixed(value, 1).replace('-', '−'), unit: 'dBm' };
    case 'azimuth':
      return { digits: fixed(value, 0), unit: '°' };
    case 'inductance':
      return { digits: significant(value * 1e3, 4), unit: 'mH' };
    case 'capacitance':
      return { digits: fixed(value * 1e12, 1), unit: 'pF' };
  }
}

/** Single readings: power, azimuth, inductance, capacitance. */
export function Readings() {
  const instruments = useInstruments();
  const typed = useTypedNumbers([
    { name: 'power-meter', label: 'Power meter at', dimension: 'frequency', bareUnit: 'MHz', start: '868 MHz' },
    { name: 'lcr-meter', label: 'LCR meter at', dimension: 'frequency', bareUnit: 'kHz', start: '10 kHz' },
    { name: 'turntable', label: 'Turn to, degrees', dimension: 'plain', start: '0' },
  ]);
  const [readings, setReadings] = useState<Readonly<Record<string, ShownQuantity>>>({});
  const [fault, setFault] = useState('');
  const read = async (card: InstrumentCard, what: What): Promise<void> => {
    const value = typed.value(card.kind) ?? null;
    try {
      const reading =
        what === 'azimuth'
          ? { value: await turnTable(card.id, { toDeg: value ?? 0, ...keptCableLimit(card.id) }), told: '' }
          : await readInstrument(card.id, { what, freqHz: value });
      setReadings((old) => ({ ...old, [`${card.id} ${what}`]: told(what, reading.value) }));
      setFault(reading.told);
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'The reading failed. Try again.');
    }
  };
  const small = (instruments.data ?? []).filter(({ kind }) => READS[kind]);
  if (small.length === 0) return null;
  return (
    <Section title="Single readings" hint="power meter, turntable, LCR meter">
      <TypedFields of={typed} />
      <ul className="mt-2 max-w-3xl">
        {small.map((card) => (
          <li key={card.id} className="flex flex-wrap items-center gap-3 border-b border-rule py-1">
            <span className="grow">{instrumentName(card)}</span>
            {READS[card.kind]?.map(({ what, name }) => {
              const reading = readings[`${card.id} ${what}`];
              return (
                <span key={what} className="flex items-center gap-2">
                  {reading && (
                    <Value
                      strong
                      shown={reading}
                      provenance={{
                        origin: 'measured',
                        formula: 'as the instrument says',
                        source: instrumentName(card),
                      }}
                    />
                  )}
                  <Button onClick={() => void read(card, what)}>{name}</Button>
                </span>
              );
            })}
          </li>
        ))}
      </ul>
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
    </Section>
  );
}
