import { type Saved } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { firstOfRound } from '@velvet-reed/core/trial';
import { parseQuantity } from '@velvet-reed/core/units';
import { useEffect, useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

interface Reading {
  readonly level: string;
  readonly noise: string;
}
const EMPTY: Reading = { level: '', noise: '' };

/** Seconds since a moment, a few times a second. */
function useSince(atMs: number): number {
  const [now, setNow] = useState(atMs);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, now - atMs) / 1000;
}

/** Says aloud which antenna comes now, where the browser can speak. */
const say = (text: string): void => {
  if ('speechSynthesis' in window) window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
};

/** One antenna after the other, with time to settle: large enough for a phone at the switch. */
export function Recorder({
  data,
  trial,
  round,
  names,
  onClose,
}: {
  readonly data: StationData;
  readonly trial: Saved<'trials'>;
  readonly round: number;
  readonly names: { readonly a: string; readonly b: string };
  readonly onClose: () => void;
}) {
  const typed = useTypedNumbers([
    { name: 'settle', label: 'Settling after a switch', dimension: 'time', bareUnit: 's', start: '3 s' },
    { name: 'bandwidth', label: 'Bandwidth', dimension: 'frequency', bareUnit: 'Hz', start: '', optional: true },
  ]);
  const [receiverId, setReceiverId] = useState(data.receivers[0]?.id);
  const [aloud, setAloud] = useState(false);
  const [begun, setBegun] = useState(false);
  if (!begun)
    return (
      <div className="mb-6">
        <TypedFields of={typed}>
          {data.receivers.length > 0 && (
            <label className="text-sm text-dim">
              Receiver
              <select
                className="mt-1 block max-w-full text-ink"
                value={receiverId}
                onChange={(event) => setReceiverId(Number(event.target.value))}
              >
                {data.receivers.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" checked={aloud} onChange={(event) => setAloud(event.target.checked)} />
            say the antenna aloud
          </label>
        </TypedFields>
        <div className="mt-3 flex flex-wrap gap-3">
          <Button look="main" disabled={!typed.sound} onClick={() => setBegun(true)}>
            Begin with {firstOfRound(round) === 'A' ? names.a : names.b}
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </div>
    );
  return (
    <Running
      key={round}
      {...{ trial, round, names, aloud, onClose }}
      settleS={typed.value('settle') ?? 0}
      also={{ receiverId: receiverId ?? null, bandwidthHz: typed.value('bandwidth') ?? null }}
    />
  );
}

function Running({
  trial,
  round,
  names,
  settleS,
  aloud,
  also,
  onClose,
}: {
  readonly trial: Saved<'trials'>;
  readonly round: number;
  readonly names: { readonly a: string; readonly b: string };
  readonly settleS: number;
  readonly aloud: boolean;
  readonly also: { readonly receiverId: number | null; readonly bandwidthHz: number | null };
  readonly onClose: () => void;
}) {
  const { trySave } = useWrite();
  const first = firstOfRound(round);
  const [readings, setReadings] = useState<Readonly<Partial<Record<'A' | 'B', Reading>>>>({});
  const side = readings[first] ? (first === 'A' ? 'B' : 'A') : first;
  const name = side === 'A' ? names.a : names.b;
  const [switched, setSwitched] = useState(() => ({ side, atMs: Date.now() }));
  const [shown, setShown] = useState<Reading>(EMPTY);
  const [fault, setFault] = useState('');
  const seconds = useSince(switched.atMs);
  const left = Math.ceil(settleS - seconds);
  useEffect(() => {
    if (aloud) say(`Now ${name}`);
  }, [aloud, name]);
  const number = (text: string): number | null =>
    text.trim() === '' ? null : parseQuantity(text, 'level', { bareUnit: 'dBm', freqHz: trial.freqHz });
  const next = async (): Promise<void> => {
    try {
      number(shown.level);
      number(shown.noise);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(error.message);
      return;
    }
    setFault('');
    const all = { ...readings, [side]: shown };
    const [a, b] = [all.A, all.B];
    if (!a || !b) {
      setReadings(all);
      setShown(EMPTY);
      setSwitched({ side: side === 'A' ? 'B' : 'A', atMs: Date.now() });
      return;
    }
    await trySave(
      [
        {
          op: 'create',
          resource: 'readings',
          values: {
            ...{ trialId: trial.id, round, atMs: Date.now(), ...also },
            ...{ levelADbm: number(a.level), noiseADbm: number(a.noise) },
            ...{ levelBDbm: number(b.level), noiseBDbm: number(b.noise) },
          },
        },
      ],
      `Pair ${round + 1} logged.`,
    );
  };
  return (
    <div className="mb-6 border-y border-rule py-4" data-testid="recorder">
      <p role="status" className="text-3xl leading-tight font-semibold">
        Now: {name}
      </p>
      <p className="mb-3 text-lg text-dim" aria-hidden>
        {left > 0 ? `settling, ${left} s` : `read now, ${Math.floor(seconds - settleS)} s`}
      </p>
      <div className="flex flex-wrap gap-4">
        {(['level', 'noise'] as const).map((what) => (
          <label key={what} className="text-sm text-dim">
            {what === 'level' ? 'Level' : 'Noise'}, {name}
            <input
              className="mt-1 block w-36 py-2 font-mono text-lg text-ink"
              inputMode="text"
              autoComplete="off"
              value={shown[what]}
              onChange={(event) => setShown({ ...shown, [what]: event.target.value })}
            />
          </label>
        ))}
      </div>
      {fault && (
        <p role="alert" className="mt-2 text-danger">
          {fault}
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="main" className="min-h-14 min-w-44 text-lg" onClick={() => void next()}>
          {readings[first] ? 'Log the pair' : `Next: ${side === 'A' ? names.b : names.a}`}
        </Button>
        <Button look="quiet" onClick={onClose}>
          Stop
        </Button>
      </div>
      <p className="mt-2 text-sm text-dim">Pair {round + 1}. Empty if nothing is heard; −73 dBm and S7 both work.</p>
    </div>
  );
}
