import type { Saved } from '@velvet-reed/contract';
import { dwellReading, firstOfRound } from '@velvet-reed/core/trial';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { closeRoute, plug, recordSpectrum, useInstruments } from '../../../data/instruments';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

/** Bins that are read around the signal, and the span in bandwidths. */
const POINTS = 81;
const SPAN = 20;
type Dwell = ReturnType<typeof dwellReading>;

const present = (): number => Date.now();
const pause = (s: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, 1000 * s));

/** A receiver and an antenna switch log pairs by themselves: switch, settle, read level and noise, in the order A B, B A. */
function Automatic({
  trial,
  round,
  names,
  onClose,
}: {
  readonly trial: Saved<'trials'>;
  readonly round: number;
  readonly names: { readonly a: string; readonly b: string };
  readonly onClose: () => void;
}) {
  const instruments = useInstruments();
  const { save } = useWrite();
  const typed = useTypedNumbers([
    { name: 'pairs', label: 'Pairs', dimension: 'plain', start: String(trial.plannedPairs ?? 8) },
    { name: 'settle', label: 'Settling after a switch', dimension: 'time', bareUnit: 's', start: '1 s' },
    { name: 'bandwidth', label: 'Bandwidth', dimension: 'frequency', bareUnit: 'Hz', start: '300 Hz' },
  ]);
  const of = (kind: string) => (instruments.data ?? []).filter((one) => one.kind === kind);
  const [receiverId, setReceiverId] = useState<string>();
  const [switchId, setSwitchId] = useState<string>();
  const receiver = of('receiver').find(({ id }) => id === receiverId) ?? of('receiver')[0];
  const antennaSwitch = of('antenna-switch').find(({ id }) => id === switchId) ?? of('antenna-switch')[0];
  const [told, setTold] = useState('');
  const [running, setRunning] = useState(false);
  const stopped = useRef(false);
  /** Bandwidth that the receiver really used, Hz, and what it said last. */
  const usedHz = useRef(0);
  const saidOnce = useRef('');
  useEffect(
    () => () => {
      stopped.current = true;
    },
    [],
  );
  const bandwidthHz = typed.value('bandwidth') ?? 0;
  const readSide = async (side: 'A' | 'B'): Promise<Dwell> => {
    setTold(`Now ${side === 'A' ? names.a : names.b}…`);
    await closeRoute(antennaSwitch.id, side === 'A' ? 1 : 2);
    await pause(typed.value('settle') ?? 1);
    const half = (SPAN * bandwidthHz) / 2;
    const { levelDb, ...did } = await recordSpectrum(receiver.id, {
      ...{ startHz: Math.round(trial.freqHz - half), stopHz: Math.round(trial.freqHz + half) },
      ...{ points: POINTS, bandwidthHz: Math.round(bandwidthHz) },
    });
    usedHz.current = did.bandwidthHz;
    // said once: each side of each pair would say the same
    if (did.told !== '' && did.told !== saidOnce.current) toast.info(did.told);
    saidOnce.current = did.told;
    return dwellReading(levelDb);
  };
  const run = async (): Promise<void> => {
    stopped.current = false;
    setRunning(true);
    try {
      if (receiver.standIn) await plug(receiver.id, { distantHz: trial.freqHz });
      const count = Math.round(typed.value('pairs') ?? 1);
      for (let k = 0; k < count && !stopped.current; k += 1) {
        const order = firstOfRound(round + k) === 'A' ? (['A', 'B'] as const) : (['B', 'A'] as const);
        const read: Partial<Record<'A' | 'B', Dwell>> = {};
        for (const side of order) read[side] = await readSide(side);
        const { A: a, B: b } = read;
        if (!a || !b || stopped.current) break;
        const tenth = (db: number): number => Math.round(db * 10) / 10;
        await save(
          [
            {
              op: 'create',
              resource: 'readings',
              values: {
                ...{ trialId: trial.id, round: round + k, atMs: present(), bandwidthHz: usedHz.current },
                ...{ levelADbm: tenth(a.levelDb), noiseADbm: tenth(a.noiseDb) },
                ...{ levelBDbm: tenth(b.levelDb), noiseBDbm: tenth(b.noiseDb) },
                conditions: receiver.standIn ? 'stand-in receiver' : '',
              },
            },
          ],
          `Pair ${round + k + 1} logged.`,
        );
      }
      setTold(stopped.current ? 'Stopped.' : 'All pairs are logged.');
    } catch (error) {
      setTold('It stopped: what was logged before stands.');
      showTrouble(error);
    } finally {
      setRunning(false);
    }
  };
  if (!receiver || !antennaSwitch)
    return <p className="text-sm text-dim">No receiver and antenna switch within reach.</p>;
  const choice = (label: string, kind: string, value: string, onPick: (id: string) => void) => (
    <label className="text-sm text-dim">
      {label}
      <select className="mt-1 block max-w-full text-ink" value={value} onChange={(event) => onPick(event.target.value)}>
        {of(kind).map((one) => (
          <option key={one.id} value={one.id}>
            {one.standIn ? `stand-in ${one.kind.replace('-', ' ')}` : `${one.kind.replace('-', ' ')} at ${one.address}`}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <div className="mb-6" data-testid="automatic">
      <TypedFields of={typed}>
        {choice('Receiver', 'receiver', receiver.id, setReceiverId)}
        {choice('Antenna switch', 'antenna-switch', antennaSwitch.id, setSwitchId)}
      </TypedFields>
      <p className="mt-1 text-sm text-dim">
        {names.a} on the switch’s first channel, {names.b} on its second. A stand-in’s readings are made up: practise
        with them in a trial of their own.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button look="main" busy={running} disabled={!typed.sound} onClick={() => void run()}>
          {running ? 'Logging…' : 'Log by itself'}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            stopped.current = true;
            if (!running) onClose();
          }}
        >
          {running ? 'Stop' : 'Close'}
        </Button>
        <p role="status" className="text-dim">
          {told}
        </p>
      </div>
    </div>
  );
}

/** The log as it stood when it was opened: pairs that it logs itself do not begin it anew. */
export function AutomaticLog({
  logged,
  ...rest
}: Omit<Parameters<typeof Automatic>[0], 'round'> & { readonly logged: number }) {
  const [from] = useState(logged);
  return <Automatic {...rest} round={from} />;
}
