import { Announced } from '../../../ui/announced';
import { fixed, significant } from '@velvet-reed/core/units';
import { useState } from 'react';
import { toast } from 'sonner';
import { plug, recordSpectrum, useInstruments } from '../../../data/instruments';
import { entry } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { DeleteButton } from '../../../ui/record-row';
import { Value } from '../../../ui/value';
import { instrumentName } from '../instrument-name';
import { Fault } from '../fault';
import type { NoiseOfCoil } from './use-noise-peak';

/** Span that a receiver records around the target, as a share of it, and its bandwidth against that span. */
const RECORDED = 0.13;
const RECORDED_POINTS = 401;

/** Recordings with the noise source on and off, kept with their files, and the resonance that they show. */
export function NoiseRecording({
  antennaId,
  targetHz,
  noise,
}: {
  readonly antennaId: number | undefined;
  readonly targetHz: number | undefined;
  readonly noise: NoiseOfCoil;
}) {
  const { trySave, importSpectrum } = useWrite();
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const { peak, fault: unfitted, of, picked, choose } = noise;
  const take = async (source: 'on' | 'off', file: File): Promise<void> => {
    try {
      await importSpectrum(file, source, antennaId);
      setFault('');
    } catch (error) {
      setFault(`${file.name}: ${error instanceof Error ? error.message : 'could not be read.'} Nothing was taken.`);
    }
  };
  const instruments = useInstruments();
  const receiver = instruments.data?.find(({ kind }) => kind === 'receiver');
  const recordBoth = async (): Promise<void> => {
    if (!receiver || !targetHz) return;
    setBusy(true);
    try {
      for (const source of ['on', 'off'] as const) {
        if (receiver.standIn) await plug(receiver.id, { noise: source === 'on' });
        else if (!window.confirm(`Switch the noise source ${source}, then go on.`)) return;
        const span = { startHz: Math.round(targetHz * (1 - RECORDED)), stopHz: Math.round(targetHz * (1 + RECORDED)) };
        const bandwidthHz = Math.max(1, Math.round((span.stopHz - span.startHz) / RECORDED_POINTS));
        const spectrum = await recordSpectrum(receiver.id, { ...span, points: RECORDED_POINTS, bandwidthHz });
        const rows = Array.from(spectrum.freqHz, (freq, i) => `${freq},${spectrum.levelDb[i]}`);
        const stamp = new Date().toISOString().slice(0, 19).replace('T', ' ').replaceAll(':', '.');
        if (spectrum.told !== '') toast.info(spectrum.told);
        await take(source, new File([['freq_Hz,level_dBm', ...rows].join('\n')], `noise ${source} ${stamp}.csv`));
      }
    } catch (error) {
      showTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mt-4">
      <h3 className="font-semibold">From noise, source on and off</h3>
      <p className="text-sm text-dim">
        Two columns, frequency and level in dB. Loud crashes: volume down before you tune. Each recording is kept with
        its file.
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-4">
        {(['on', 'off'] as const).map((which) => (
          <div key={which}>
            <label className="text-sm text-dim">
              Recording with the source {which}
              <input
                type="file"
                accept=".csv,.txt"
                className="ml-2 max-w-60 border-0 text-sm text-ink"
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  event.target.value = '';
                  if (file) void take(which, file);
                }}
              />
            </label>
            {of(which).length > 0 && (
              <select
                aria-label={`Recording used with the source ${which}`}
                className="mt-1 block max-w-full"
                value={picked(which)?.id}
                onChange={(event) => choose(which, Number(event.target.value))}
              >
                {of(which).map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            )}
          </div>
        ))}
        {(['on', 'off'] as const)
          .map((which) => picked(which))
          .filter((one) => one !== undefined)
          .map((one) => (
            <DeleteButton key={one.id} resource="spectra" record={one} name={one.name} />
          ))}
        {receiver && (
          <Button busy={busy} disabled={!targetHz} onClick={() => void recordBoth()}>
            {busy
              ? 'Recording…'
              : `Record both with the ${receiver.standIn ? 'stand-in receiver' : instrumentName(receiver)}`}
          </Button>
        )}
      </div>
      <Fault text={fault || unfitted} />
      {peak && (
        <Announced className="mt-1">
          <p>
            Peak at{' '}
            <Value
              strong
              shown={{
                digits: `${fixed(peak.centreHz / 1000, 2)} ± ${fixed(Math.max(0.01, peak.centreHalfHz / 1000), 2)}`,
                unit: 'kHz',
              }}
              provenance={{
                origin: 'measured',
                formula: 'A/(1 + (Q(f/f₀ − f₀/f))²) over the background, fitted in dB, spikes set aside; 95 % interval',
                inputs: [
                  ['scatter', `${peak.scatterDb.toFixed(2)} dB`],
                  ['set aside', `${(100 * peak.spikes).toFixed(0)} %`],
                ],
                source: 'your recordings',
              }}
            />
            , Q{' '}
            <Value
              strong
              shown={{ digits: `${fixed(peak.q, 0)} ± ${fixed(Math.max(1, peak.qHalf), 0)}`, unit: '' }}
              provenance={{ origin: 'measured', formula: 'of the fitted curve', source: 'your recordings' }}
            />
            , width{' '}
            <Value
              shown={{ digits: significant(peak.widthHz / 1000, 3), unit: 'kHz' }}
              provenance={{ origin: 'measured', formula: 'f₀ / Q', source: 'your recordings' }}
            />
            . Read by hand 3 dB down: {fixed(peak.rough.centreHz / 1000, 2)} kHz (measured, rough).
          </p>
          <Button
            className="mt-1"
            onClick={() =>
              void trySave(
                [
                  entry(
                    'bench',
                    `Resonance by noise: ${fixed(peak.centreHz / 1000, 2)} kHz, Q ${fixed(peak.q, 0)}, width ${significant(peak.widthHz / 1000, 3)} kHz.`,
                  ),
                ],
                'Written into the notebook.',
              )
            }
          >
            Write this into the notebook
          </Button>
        </Announced>
      )}
    </div>
  );
}
