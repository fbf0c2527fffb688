import type { Saved } from '@velvet-reed/contract';
import type { Spectrum } from '@velvet-reed/core/formats';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useStationId, useWrite } from '../../../data/station';
import { Announced } from '../../../ui/announced';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { runJob } from '../../../workers/pool';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { chosenOf } from './use-opened';

interface Found {
  readonly on: Spectrum;
  readonly off: Spectrum;
  readonly centreHz: number;
  readonly centreHalfHz: number;
  readonly q: number;
  readonly qHalf: number;
}

const csvOf = ({ freqHz, levelDb }: Spectrum): string =>
  ['freq_Hz,level_dBm', ...Array.from(freqHz, (hz, i) => `${hz.toFixed(2)},${levelDb[i].toFixed(2)}`)].join('\n');

/** A coil's resonance from this recording with the noise source on and another with it off; both go to the coil on the Bench. */
export function ResonanceOfRecording({
  data,
  open,
  record,
  name,
}: {
  readonly data: StationData;
  readonly open: OpenRecording;
  readonly record: Saved<'recordings'> | undefined;
  readonly name: string;
}) {
  const { importSpectrum } = useWrite();
  const stationId = useStationId();
  const typed = useTypedNumbers([
    { name: 'low', label: 'From', dimension: 'frequency', bareUnit: 'kHz', start: '' },
    { name: 'high', label: 'To', dimension: 'frequency', bareUnit: 'kHz', start: '' },
  ]);
  const [found, setFound] = useState<Found>();
  const [fault, setFault] = useState('');
  const [lowHz, highHz] = [typed.value('low'), typed.value('high')];
  const take = async (files: readonly File[]): Promise<void> => {
    if (lowHz === undefined || highHz === undefined) return;
    setFault('');
    setFound(undefined);
    try {
      const { file, metaText } = await chosenOf(files);
      const head = await runJob('openRecording', { file, key: '', ...(metaText === undefined ? {} : { metaText }) });
      const other: OpenRecording = { ...open, file, layout: head.answer.layout };
      const [on, off] = await Promise.all(
        [open, other].map((one) => runJob('recordingSpectrum', { open: one, lowHz, highHz })),
      );
      const peak = await runJob('noisePeak', { on: on.answer, off: off.answer });
      setFound({ on: on.answer, off: off.answer, ...peak.answer });
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'No resonance could be read.');
    }
  };
  const give = async (): Promise<void> => {
    if (!found) return;
    try {
      const antennaId = record?.antennaAId ?? data.antennas.at(-1)?.id;
      await importSpectrum(new File([csvOf(found.on)], `${name} on.csv`), 'on', antennaId);
      await importSpectrum(new File([csvOf(found.off)], `${name} off.csv`), 'off', antennaId);
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <Section title="Resonance by noise" hint="this recording with the noise source on, another with it off">
      <TypedFields of={typed}>
        <label className="text-sm text-dim">
          Recording with the source off
          <input
            type="file"
            multiple
            accept=".wav,.sigmf-meta,.sigmf-data"
            disabled={lowHz === undefined || highHz === undefined}
            className="mt-1 block max-w-60 border-0 text-sm text-ink"
            onChange={(event) => {
              const files = [...(event.target.files ?? [])];
              event.target.value = '';
              if (files.length > 0) void take(files);
            }}
          />
        </label>
      </TypedFields>
      {fault && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {found && (
        <Announced className="mt-2">
          <p>
            Resonance at {frequencyText(found.centreHz, 5)} ± {found.centreHalfHz.toFixed(0)} Hz, Q {fixed(found.q, 0)}{' '}
            ± {fixed(Math.max(1, found.qHalf), 0)} (measured, 95 %).
          </p>
          <Button className="mt-1" onClick={() => void give()}>
            Give both spectra to the coil
          </Button>{' '}
          <Link to={`/s/${stationId}/bench/coil`}>Coil by noise</Link>
        </Announced>
      )}
    </Section>
  );
}
