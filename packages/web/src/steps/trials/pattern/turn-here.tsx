import { antennaKind } from '@velvet-reed/core/antenna';
import { type Turned, turnTargets } from '@velvet-reed/core/bearing';
import { writeCsv } from '@velvet-reed/core/formats';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { plug, stopTable, turnTable, useInstruments } from '../../../data/instruments';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useStationId, useWrite } from '../../../data/station';
import { keepCableLimit, keptCableLimit } from '../../../data/turntable';
import { type TurnRun, type TurnSettings, useTurn } from '../../../data/turning';
import { AntennaPicker } from '../../../ui/antenna-picker';
import { Button } from '../../../ui/button';
import { InstrumentChoice } from '../../../ui/instrument-choice';
import { Caution, Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { TurnRunning, TurnWords } from '../../../ui/turn-running';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

const TURNED = [
  ['antenna', 'the antenna on the table'],
  ['sender', 'the sender, about the antenna'],
] as const;

/** A turn with a turntable and a meter: home, step, read, back to the first direction; the table goes into the measured patterns. */
export function TurnHere({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { importLog } = useWrite();
  const instruments = useInstruments();
  const { run, going, fault, go, stop, setAside } = useTurn(`${stationId}.pattern`);
  const of = (...kinds: readonly string[]) => (instruments.data ?? []).filter(({ kind }) => kinds.includes(kind));
  const [tableId, setTableId] = useState<string>();
  const [meterId, setMeterId] = useState<string>();
  const table = of('turntable').find(({ id }) => id === tableId) ?? of('turntable')[0];
  // the stand-in receiver does not hear the table's sender
  const meters = of('power-meter', 'receiver').filter(({ kind, standIn }) => kind === 'power-meter' || !standIn);
  const meter = meters.find(({ id }) => id === meterId) ?? meters[0];
  const [antennaId, setAntennaId] = useState<number | undefined>(data.antennas.at(-1)?.id);
  const [turned, setTurned] = useState<Turned>('antenna');
  const [atMark, setAtMark] = useState(false);
  const [told, setTold] = useState('');
  const antenna = data.antennas.find(({ id }) => id === antennaId);
  const revision = antenna && latestRevision(data, antenna.id);
  const kept = keptCableLimit(table?.id ?? '');
  const typed = useTypedNumbers([
    {
      ...{ name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz' },
      start: revision ? frequencyText(revision.freqHz, 6) : '',
    },
    { name: 'step', label: 'Step', dimension: 'angle', start: '5°' },
    { name: 'settle', label: 'Settling', dimension: 'time', bareUnit: 's', start: '1 s' },
    { name: 'readings', label: 'Readings at each', dimension: 'plain', start: '3' },
    { name: 'low', label: 'Cable limit, back', dimension: 'angle', start: `${kept.lowDeg}°` },
    { name: 'high', label: 'Cable limit, on', dimension: 'angle', start: `${kept.highDeg}°` },
  ]);
  const settings = (): TurnSettings | undefined => {
    const value = (name: string): number => typed.value(name) ?? NaN;
    if (!table || !meter || !typed.sound) return undefined;
    return {
      ...{ tableId: table.id, meterId: meter.id },
      meterKind: meter.kind === 'receiver' ? 'receiver' : 'power-meter',
      ...{ antennaId: antenna?.id ?? null, antennaName: antenna?.name ?? 'antenna', freqHz: value('freq') },
      settleS: Math.min(600, Math.max(0, value('settle'))),
      readings: Math.min(99, Math.max(1, Math.round(value('readings')))),
      ...{ limit, targets: plan ?? [] },
    };
  };
  const limit = { lowDeg: typed.value('low') ?? NaN, highDeg: typed.value('high') ?? NaN };
  const { value: plan, fault: planFault } = tried(() =>
    typed.sound ? turnTargets(typed.value('step') ?? NaN, limit, turned) : undefined,
  );
  const asked = settings();
  const finish = async (done: TurnRun | undefined): Promise<void> => {
    if (!done) return;
    const rows = done.settings.targets.flatMap(({ patternDeg }, i) => {
      const level = done.levels[i];
      return typeof level === 'number' ? [[Math.round(100 * patternDeg) / 100, Math.round(100 * level) / 100]] : [];
    });
    const dropped = done.levels.filter((one) => one === null).length;
    const name = `${done.settings.antennaName}, ${frequencyText(done.settings.freqHz, 6)}.csv`;
    try {
      const text = writeCsv(['azimuth_deg', 'level_dB'], rows);
      await importLog(new File([text], name, { type: 'text/csv' }), 'pattern', done.settings.antennaId ?? undefined);
      setAside();
      setTold(
        `The turn is among the measured patterns${dropped > 0 ? `; ${dropped} direction${dropped > 1 ? 's were' : ' was'} dropped by the meter and left out` : ''}.`,
      );
    } catch (error) {
      showTrouble(error);
    }
  };
  const home = async (): Promise<void> => {
    if (!table || !asked) return;
    setTold('');
    keepCableLimit(table.id, asked.limit);
    try {
      const design = revision && designOf(data, revision);
      if (table.standIn && design && antennaKind(design.kind).model)
        await plug(table.id, {
          design: {
            ...{ kind: design.kind, freqHz: asked.freqHz, diameterM: design.diameterM },
            ...{ dimensions: { ...design.dimensions }, groundId: 'free', cableId: 'pe5', lineLengthM: 5 },
          },
        });
      await turnTable(table.id, { toDeg: null, ...asked.limit });
      setAtMark(true);
      setTold('The table is at its mark.');
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <Section
      title="Turn it here"
      hint="turntable and meter step through a circle; back to the first direction at its end"
    >
      <Caution of="turning" />
      {!table || !meter ? (
        <p className="text-sm text-dim">No turntable and meter within reach.</p>
      ) : run ? (
        <TurnRunning
          {...{ run, going }}
          onStop={() => void stop()}
          onGo={() => void go(run).then(finish)}
          onSetAside={setAside}
        />
      ) : (
        <>
          <TypedFields of={typed}>
            <InstrumentChoice label="Turntable" all={of('turntable')} value={table.id} onPick={setTableId} />
            <InstrumentChoice label="Meter" all={meters} value={meter.id} onPick={setMeterId} />
            <AntennaPicker
              data={data}
              value={antennaId}
              onPick={(id) => {
                setAntennaId(id);
                const picked = latestRevision(data, id);
                if (picked) typed.set('freq', frequencyText(picked.freqHz, 6));
              }}
              label="Antenna under test"
            />
            <label className="text-sm text-dim">
              What goes round
              <select
                className="mt-1 block text-ink"
                value={turned}
                onChange={(event) => setTurned(event.target.value === 'sender' ? 'sender' : 'antenna')}
              >
                {TURNED.map(([id, label]) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          </TypedFields>
          {planFault && (
            <p role="alert" className="mt-1 max-w-prose text-danger">
              {planFault}
            </p>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-4">
            <Button disabled={!asked} onClick={() => void home()}>
              To its mark
            </Button>
            <label className="flex items-center gap-1.5 text-sm">
              <input type="checkbox" checked={atMark} onChange={(event) => setAtMark(event.target.checked)} />
              it stands at its mark
            </label>
            <Button
              look="main"
              disabled={!asked || !plan || !atMark}
              onClick={() => {
                if (!asked) return;
                setTold('');
                keepCableLimit(asked.tableId, asked.limit);
                void go({ settings: asked, levels: [] }).then(finish);
              }}
            >
              Start the turn
            </Button>
            {plan && asked && (
              <span className="text-sm text-dim">
                {plan.length} directions, {fixed((plan.length * (asked.settleS + 1)) / 60, 1)} min and more; the table
                keeps between {fixed(Math.min(...plan.map(({ tableDeg }) => tableDeg)), 0)}° and{' '}
                {fixed(Math.max(...plan.map(({ tableDeg }) => tableDeg)), 0)}°
              </span>
            )}
            <Button look="quiet" onClick={() => void stopTable(table.id).catch(showTrouble)}>
              Stop the table
            </Button>
          </div>
        </>
      )}
      <TurnWords fault={fault} told={told} />
    </Section>
  );
}
