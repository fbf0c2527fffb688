import { nullTargets } from '@velvet-reed/core/bearing';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { exerciseTruth, plug, turnTable, useInstruments } from '../../../data/instruments';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble } from '../../../data/station';
import { keepCableLimit, keptCableLimit } from '../../../data/turntable';
import { type TurnRun, type TurnSettings, useTurn } from '../../../data/turning';
import { Button } from '../../../ui/button';
import { InstrumentChoice } from '../../../ui/instrument-choice';
import { Caution } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TurnRunning, TurnWords } from '../../../ui/turn-running';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { useKeepTurn } from './keep-turn';

/** A loop on a turntable, read by a meter: half a circle, then the null. */
export function TurnByTable({ data, onDone }: { readonly data: StationData; readonly onDone: () => void }) {
  const instruments = useInstruments();
  const keepTurn = useKeepTurn();
  const { run, going, fault, go, stop, setAside } = useTurn(`${data.station.id}.null`);
  const of = (...kinds: readonly string[]) => (instruments.data ?? []).filter(({ kind }) => kinds.includes(kind));
  const [tableId, setTableId] = useState<string>();
  const [meterId, setMeterId] = useState<string>();
  const table = of('turntable').find(({ id }) => id === tableId) ?? of('turntable')[0];
  // the stand-in receiver does not hear the table's loop
  const meters = of('power-meter', 'receiver').filter(({ kind, standIn }) => kind === 'power-meter' || !standIn);
  const meter = meters.find(({ id }) => id === meterId) ?? meters[0];
  const [name, setName] = useState(`Table ${data.nullLogs.length + 1}`);
  const [atMark, setAtMark] = useState(false);
  const [told, setTold] = useState('');
  const kept = keptCableLimit(table?.id ?? '');
  const typed = useTypedNumbers([
    { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '9.65 MHz' },
    { name: 'step', label: 'Step', dimension: 'angle', start: '15°' },
    { name: 'settle', label: 'Settling', dimension: 'time', bareUnit: 's', start: '1 s' },
    { name: 'low', label: 'Cable limit, back', dimension: 'angle', start: `${kept.lowDeg}°` },
    { name: 'high', label: 'Cable limit, on', dimension: 'angle', start: `${kept.highDeg}°` },
    { name: 'east', label: 'East of the middle', dimension: 'length', bareUnit: 'm', start: '0 m' },
    { name: 'north', label: 'North of the middle', dimension: 'length', bareUnit: 'm', start: '0 m' },
  ]);
  const limit = { lowDeg: typed.value('low') ?? NaN, highDeg: typed.value('high') ?? NaN };
  const { value: targets, fault: planFault } = tried(() =>
    typed.sound ? nullTargets(typed.value('step') ?? NaN, limit) : undefined,
  );
  const place = { xM: typed.value('east') ?? 0, yM: typed.value('north') ?? 0 };
  const settings: TurnSettings | undefined =
    table && meter && targets && typed.sound
      ? {
          ...{ tableId: table.id, meterId: meter.id, antennaId: null, antennaName: name.trim() || 'turn' },
          meterKind: meter.kind === 'receiver' ? 'receiver' : 'power-meter',
          ...{ freqHz: typed.value('freq') ?? NaN, settleS: Math.max(0, typed.value('settle') ?? 0), readings: 3 },
          ...{ limit, targets, place },
        }
      : undefined;
  const finish = async (done: TurnRun | undefined): Promise<void> => {
    if (!done) return;
    const readings = done.settings.targets.flatMap(({ patternDeg }, i): [number, number][] => {
      const level = done.levels[i];
      return typeof level === 'number' ? [[patternDeg, Math.round(10 * level) / 10]] : [];
    });
    const stored = await keepTurn({
      ...{
        name: done.settings.antennaName,
        ...(done.settings.place ?? place),
        freqHz: done.settings.freqHz,
        declinationDeg: 0,
        readings,
      },
      conditions: table?.standIn ? 'stand-in, made up' : '',
    });
    if (!stored) return;
    setAside();
    setTold(`${done.settings.antennaName} is kept.`);
    setName(`Table ${data.nullLogs.length + 2}`);
  };
  const home = async (): Promise<void> => {
    if (!table) return;
    keepCableLimit(table.id, limit);
    try {
      await turnTable(table.id, { toDeg: null, ...limit });
      setAtMark(true);
      setTold('The table is at its mark: let the mark be north.');
    } catch (error) {
      showTrouble(error);
    }
  };
  const begin = async (asked: TurnSettings): Promise<void> => {
    setTold('');
    try {
      if (table?.standIn) await plug(table.id, { loopAt: { eastM: place.xM, northM: place.yM } });
    } catch (error) {
      return showTrouble(error);
    }
    await finish(await go({ settings: asked, levels: [] }));
  };
  const tell = async (): Promise<void> => {
    if (!table) return;
    try {
      const { sourceEastM, sourceNorthM } = await exerciseTruth(table.id);
      setTold(`The stand-in's source is ${fixed(sourceEastM, 0)} m east, ${fixed(sourceNorthM, 0)} m north (made up).`);
    } catch (error) {
      showTrouble(error);
    }
  };
  if (!table || !meter) return <p className="mb-6 text-sm text-dim">No turntable and meter within reach.</p>;
  return (
    <div className="mb-6" data-testid="turn-by-table">
      <Caution of="turning" />
      {run ? (
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
            <label className="text-sm text-dim">
              Place
              <input
                className="mt-1 block w-36 text-ink"
                value={name}
                onChange={(event) => setName(event.target.value)}
              />
            </label>
          </TypedFields>
          {planFault && (
            <p role="alert" className="mt-1 max-w-prose text-danger">
              {planFault}
            </p>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-4">
            <Button disabled={!settings} onClick={() => void home()}>
              To its mark
            </Button>
            <label className="flex items-center gap-1.5 text-sm">
              <input type="checkbox" checked={atMark} onChange={(event) => setAtMark(event.target.checked)} />
              its mark is north, and it stands there
            </label>
            <Button look="main" disabled={!settings || !atMark} onClick={() => settings && void begin(settings)}>
              Turn the loop
            </Button>
            {table.standIn && (
              <Button look="quiet" onClick={() => void tell()}>
                Where is the stand-in&apos;s source?
              </Button>
            )}
            <Button look="quiet" onClick={onDone}>
              Close
            </Button>
          </div>
        </>
      )}
      <TurnWords fault={fault} told={told} />
    </div>
  );
}
