import type { InstrumentCard, Saved } from '@velvet-reed/contract';
import { OWN_CABLE } from '@velvet-reed/core/path';
import { antennaKind } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { type SweepData, writeTouchstone } from '@velvet-reed/core/formats';
import { calibrationDoubts, correctSweep, findResonances } from '@velvet-reed/core/sweep';
import { fixed, showFrequency } from '@velvet-reed/core/units';
import { useEffect, useMemo, useState } from 'react';
import { plug, useCalibration } from '../../../data/instruments';
import { useLiveSweep } from '../../../data/live-sweep';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { Calibrate } from './calibrate';
import type { Unsaved } from '../curves';
import { instrumentName } from '../instrument-name';
import type { MeasureProps } from './measure-props';

const clock = (): number => Date.now();

/** Around the frequency an antenna is meant for, as a share of it. */
const AROUND = 0.15;

type Plugged = 'antenna' | 'open' | 'short' | 'load';

/** Corrects raw readings where a calibration reaches; else they stay raw. */
function corrected(raw: SweepData, calibration: ReturnType<typeof useCalibration>['data']): Unsaved {
  if (!calibration) return { sweep: raw, correction: 'raw' };
  try {
    const { sweep, between } = correctSweep(raw, calibration);
    return { sweep, correction: between ? 'interpolated' : 'corrected' };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { sweep: raw, correction: 'raw' };
  }
}

const CORRECTION_WORDS: Readonly<Record<Saved<'sweeps'>['correction'], string>> = {
  file: 'as in its file',
  raw: 'raw: the analyser’s own errors are still in it',
  corrected: 'corrected by the calibration',
  interpolated: 'corrected, the calibration interpolated between its points',
};

export function Sweeper({
  data,
  antenna,
  design,
  onLive,
  instrument,
}: MeasureProps & { readonly instrument: InstrumentCard }) {
  const { importSweep } = useWrite();
  const centre = design?.freqHz ?? 10e6;
  const typed = useTypedNumbers([
    {
      name: 'start',
      label: 'From',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: `${Number(((centre * (1 - AROUND)) / 1e6).toPrecision(4))} MHz`,
    },
    {
      name: 'stop',
      label: 'To',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: `${Number(((centre * (1 + AROUND)) / 1e6).toPrecision(4))} MHz`,
    },
    { name: 'points', label: 'Points', dimension: 'plain', start: '401' },
    { name: 'averages', label: 'Passes to average', dimension: 'plain', start: '1' },
    { name: 'wait', label: 'Wait for it at most', dimension: 'time', bareUnit: 's', start: '60 s' },
  ]);
  const { live, start, stop, clear } = useLiveSweep();
  const [plugged, setPlugged] = useState<Plugged>('antenna');
  const [held, setHeld] = useState<SweepData>();
  const [busy, setBusy] = useState(false);
  const header = data.calibrations.filter((one) => one.instrument === instrument.id).at(-1);
  const calibration = useCalibration(header);
  const [nowMs, setNow] = useState(clock);
  const shown = useMemo(
    () => (live.sweep ? corrected(live.sweep, calibration.data) : undefined),
    [live.sweep, calibration.data],
  );
  useEffect(() => onLive(shown, held), [onLive, shown, held]);
  const dip = useMemo(() => (shown ? findResonances(shown.sweep)[0] : undefined), [shown]);
  const [startHz, stopHz, points, averages, waitS] = ['start', 'stop', 'points', 'averages', 'wait'].map((name) =>
    typed.value(name),
  );
  const request =
    startHz !== undefined && stopHz !== undefined && points !== undefined && averages !== undefined
      ? {
          instrument: instrument.id,
          startHz,
          stopHz,
          points: Math.round(points),
          averages: Math.round(averages),
          waitS: Math.min(3600, Math.max(1, waitS ?? 60)),
        }
      : undefined;
  const fault = !request
    ? undefined
    : request.startHz >= request.stopHz
      ? 'The start must lie below the stop.'
      : request.points < 2 || request.points > 20_001
        ? 'Points: 2 to 20,001.'
        : request.averages < 1 || request.averages > 99
          ? 'Passes: 1 to 99.'
          : undefined;
  const doubts =
    calibration.data && header && request && !fault
      ? calibrationDoubts(calibration.data, header.madeMs, nowMs, request)
      : [];

  /** Plugs a standard or the listener's own antenna onto a stand-in; a real one is plugged by hand. */
  const connect = async (what: Plugged): Promise<void> => {
    setPlugged(what);
    if (!instrument.standIn) return;
    const wires = what === 'antenna' && design && antennaKind(design.kind).model ? design : undefined;
    await plug(instrument.id, {
      connect: what,
      ...(wires
        ? {
            design: {
              kind: wires.kind,
              freqHz: wires.freqHz,
              diameterM: wires.diameterM,
              dimensions: { ...wires.dimensions },
              groundId: data.station.groundId,
              cableId: data.station.cableId === OWN_CABLE ? 'pe5' : data.station.cableId,
              lineLengthM: data.station.lineLengthM,
            },
          }
        : {}),
    });
  };
  const sweep = async (repeat: boolean): Promise<void> => {
    if (!request || fault) return;
    setNow(clock());
    try {
      await connect('antenna');
      await start({ ...request, repeat });
    } catch (error) {
      showTrouble(error);
    }
  };
  const keep = async (): Promise<void> => {
    if (!shown) return;
    setBusy(true);
    try {
      const stamp = new Date().toISOString().slice(0, 19).replace('T', ' ').replaceAll(':', '.');
      const text = [
        `! ${CORRECTION_WORDS[shown.correction]}; ${live.passes} passes; ${instrumentName(instrument)}`,
        writeTouchstone(shown.sweep),
      ].join('\n');
      const file = new File([text], `sweep ${stamp}.s1p`, { type: 'text/plain' });
      const used = shown.correction === 'raw' ? undefined : header?.id;
      await importSweep(file, antenna?.id, shown.correction, false, used);
      clear();
    } catch (error) {
      showTrouble(error);
    }
    setBusy(false);
  };
  return (
    <div className="mt-2">
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button
          look="main"
          disabled={!request || fault !== undefined}
          busy={live.running}
          onClick={() => void sweep(false)}
        >
          Sweep
        </Button>
        <Button disabled={!request || fault !== undefined} busy={live.running} onClick={() => void sweep(true)}>
          Repeat
        </Button>
        <Button disabled={!live.running} onClick={stop}>
          Stop
        </Button>
        <Button
          disabled={!shown && !held}
          aria-pressed={held !== undefined}
          onClick={() => {
            setHeld(held ? undefined : shown?.sweep);
          }}
        >
          {held ? 'Let go of the held curve' : 'Hold this curve'}
        </Button>
        <Button disabled={!shown || live.running} busy={busy} onClick={() => void keep()}>
          Keep this sweep
        </Button>
        <progress
          className={live.running ? 'w-40' : 'invisible w-40'}
          aria-label="Progress of the sweep"
          max={1}
          value={live.running ? live.share : 0}
        />
      </div>
      {dip && shown && (
        <p className="mt-1 text-xl">
          Dip{' '}
          <Value
            strong
            shown={showFrequency(dip.freqHz, 5)}
            provenance={{
              origin: 'measured',
              formula: 'deepest |Γ|, by a parabola through the three lowest points',
              source: `${instrumentName(instrument)}, ${CORRECTION_WORDS[shown.correction]}`,
            }}
          />
          , SWR {dip.swr === null ? 'without limit' : fixed(dip.swr, 2)} (measured)
        </p>
      )}
      <p role="status" className="mt-1 min-h-6 text-sm text-dim">
        {shown
          ? `${live.passes} ${live.passes === 1 ? 'pass' : 'passes'} of ${shown.sweep.freqHz.length} points in ${fixed(live.seconds ?? 0, 2)} s; ${CORRECTION_WORDS[shown.correction]}.${live.scatter === undefined ? '' : ` One pass scatters ±${fixed(live.scatter, 4)} in |Γ|.`}`
          : header
            ? `Calibrated ${new Date(header.madeMs).toISOString().slice(0, 16).replace('T', ' ')} UTC.`
            : 'Not calibrated here yet: readings will be raw.'}
      </p>
      {live.told && <p className="text-sm text-caution">{live.told}</p>}
      {live.fault && (
        <p role="alert" className="text-danger">
          {live.fault}
        </p>
      )}
      {doubts.map((doubt) => (
        <p key={doubt} className="text-sm text-caution">
          {doubt}
        </p>
      ))}
      <Disclosure label="Calibrate with open, short and load" look="quiet">
        {(close) => (
          <Calibrate
            instrument={instrument}
            request={request && !fault ? request : undefined}
            stored={calibration.data}
            kept={data.calibrations.filter((one) => one.instrument === instrument.id)}
            connect={(what) => connect(what)}
            onClose={() => {
              void connect('antenna').catch(showTrouble);
              close();
            }}
          />
        )}
      </Disclosure>
      {instrument.standIn && (
        <p className="mt-1 text-xs text-dim">
          The stand-in ships with the application: its antenna follows your draft and your line with errors that you do
          not know. Plugged on now: {plugged === 'antenna' ? 'the antenna' : `the ${plugged}`}.
        </p>
      )}
    </div>
  );
}
