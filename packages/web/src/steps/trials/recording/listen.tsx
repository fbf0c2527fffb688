import { type Band, type ListenMode, MOST_LISTENED_S } from '@velvet-reed/core/recording';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../../../ui/button';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { useJob } from '../../../workers/use-job';
import type { Look } from './view';

const MODES: readonly (readonly [ListenMode, string])[] = [
  ['usb', 'USB'],
  ['lsb', 'LSB'],
  ['am', 'AM'],
  ['cw', 'CW'],
  ['fm', 'FM'],
];
/** What a listener begins at: a third of what is allowed. */
const FIRST_VOLUME = 0.3;

/** The band of the signal as sound, from where the picture begins. */
export function ListenToBand({
  open,
  band,
  look,
}: {
  readonly open: OpenRecording;
  readonly band: Band;
  readonly look: Look;
}) {
  const [mode, setMode] = useState<ListenMode>('usb');
  const [volume, setVolume] = useState(FIRST_VOLUME);
  const [playing, setPlaying] = useState(false);
  const context = useRef<AudioContext>(undefined);
  const gain = useRef<GainNode>(undefined);
  const source = useRef<AudioBufferSourceNode>(undefined);
  const job = useJob('recordingSound', ({ rateHz, samples }) => {
    const audio = context.current;
    if (!audio) return;
    const buffer = audio.createBuffer(1, samples.length, rateHz);
    buffer.copyToChannel(samples, 0);
    const node = audio.createBufferSource();
    const level = audio.createGain();
    level.gain.value = volume;
    node.buffer = buffer;
    node.connect(level).connect(audio.destination);
    node.onended = () => setPlaying(false);
    node.start();
    source.current = node;
    gain.current = level;
    setPlaying(true);
  });
  const halt = (): void => {
    source.current?.stop();
    source.current = undefined;
    setPlaying(false);
  };
  useEffect(
    () => () => {
      source.current?.stop();
      void context.current?.close();
    },
    [],
  );
  const toS = Math.min(look.toS, look.fromS + MOST_LISTENED_S);
  const listen = (): void => {
    halt();
    // a browser lets sound begin only with a press
    context.current ??= new AudioContext();
    void context.current.resume();
    job.start({ open, band, mode, stretch: { fromS: look.fromS, toS } });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <label className="text-sm text-dim">
        Listen as
        <select
          className="ml-2 text-ink"
          value={mode}
          onChange={(event) => setMode(MODES.find(([value]) => value === event.target.value)?.[0] ?? 'usb')}
        >
          {MODES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <Button look="quiet" busy={job.busy} onClick={playing ? halt : listen}>
        {playing ? 'Stop' : job.busy ? 'Making sound…' : 'Listen'}
      </Button>
      <label className="text-sm text-dim">
        Volume
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          className="ml-2 w-24 align-middle"
          value={volume}
          onChange={(event) => {
            setVolume(event.target.valueAsNumber);
            if (gain.current) gain.current.gain.value = event.target.valueAsNumber;
          }}
        />
      </label>
      {job.fault && (
        <span role="alert" className="text-danger">
          {job.fault}
        </span>
      )}
    </div>
  );
}
