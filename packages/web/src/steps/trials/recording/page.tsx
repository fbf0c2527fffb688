import type { Values } from '@velvet-reed/contract';
import { type Band, bandOf, recordingOf, secondsOf } from '@velvet-reed/core/recording';
import { useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import { useSearchParams } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useTheme } from '../../../data/theme';
import { Button } from '../../../ui/button';
import { Room } from '../../../ui/room';
import { Next } from '../../../ui/section';
import { Empty, Waiting } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { useJob } from '../../../workers/use-job';
import { AtOnceOfRecording } from './at-once';
import { BrushChoice, Meaning, RecordingInput } from './choices';
import { NoiseOfRecording, StandardOfRecording } from './finds';
import { ResonanceOfRecording } from './resonance';
import { Levels } from './levels';
import { NullOfTurn } from './null-of-turn';
import { ListenToBand } from './listen';
import { Margin } from './margin';
import { pairsOf } from './pairs-of';
import { saveMarks } from './save-marks';
import { recordingSentence } from './sentence';
import { RecordingSettings } from './settings';
import { SnrListOfRecording } from './snr-list';
import { type Answers, chosenOf, type ChosenFile, useOpened } from './use-opened';
import { type Brush, WaterfallPicture } from './waterfall-picture';
import type { Look } from './view';

/** Cells of the picture. */
const COLUMNS = 900;
const ROWS = 240;
/** Seconds that a long recording shows at first: it is on the screen soon. */
const FIRST_S = 60;
const LONG_S = 600;
/** Width of a band that is set by a click, as a share of what is shown. */
const CLICKED_SHARE = 0.05;

export default function RecordingRoom() {
  return <StationPage>{(data) => <Recordings data={data} />}</StationPage>;
}

function Recordings({ data }: { readonly data: StationData }) {
  const [params, setParams] = useSearchParams();
  const [chosen, setChosen] = useState<ChosenFile>();
  const asked =
    data.recordings.find(({ id }) => id === Number(params.get('recording'))) ??
    (chosen ? undefined : data.recordings.at(-1));
  const [answers, setAnswers] = useState<Answers>({});
  const [fault, setFault] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const take = async (files: readonly File[]): Promise<void> => {
    try {
      setChosen(await chosenOf(files));
      setAnswers({});
      setFault('');
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'This file could not be read.');
    }
  };
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    void take([...event.dataTransfer.files]);
  };
  const opened = useOpened(data, asked, chosen, answers);
  const picker = (
    <>
      {data.recordings.length > 0 && (
        <label className="max-w-full min-w-0 text-sm text-dim">
          Recording
          <select
            className="ml-2 max-w-72 text-ink max-sm:ml-0 max-sm:max-w-full"
            value={chosen ? '' : (asked?.id ?? '')}
            onChange={(event) => {
              setChosen(undefined);
              setAnswers({});
              setParams({ recording: event.target.value });
            }}
          >
            {chosen && <option value="">{chosen.name}</option>}
            {data.recordings.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <Button look={data.recordings.length === 0 ? 'main' : 'plain'} onClick={() => input.current?.click()}>
        Open a recording
      </Button>
    </>
  );
  return (
    <div onDragOver={(event) => event.preventDefault()} onDrop={onDrop}>
      <RecordingInput input={input} onFiles={(files) => void take(files)} />
      <OpenedRoom
        key={opened.open ? `${opened.chosen?.name} ${opened.open.meaning} ${opened.record?.id ?? 0}` : 'none'}
        {...{ data, opened, picker, fault, answers }}
        onAnswer={setAnswers}
        onKept={(id) => setParams({ recording: String(id) })}
      />
    </div>
  );
}

/** Band of a kept frequency. */
const bandFrom = (
  hz: number | null | undefined,
  widthHz: number | null | undefined,
  centreHz: number,
): Band | undefined => (hz == null || widthHz == null ? undefined : { offsetHz: hz - centreHz, bandwidthHz: widthHz });

function OpenedRoom({
  data,
  opened,
  picker,
  fault,
  answers,
  onAnswer,
  onKept,
}: {
  readonly data: StationData;
  readonly opened: ReturnType<typeof useOpened>;
  readonly picker: React.ReactNode;
  readonly fault: string;
  readonly answers: Answers;
  readonly onAnswer: (answers: Answers) => void;
  readonly onKept: (id: number) => void;
}) {
  const { theme } = useTheme();
  const { open, layout, record, chosen } = opened;
  const whole = useMemo((): Look => {
    if (!open) return { fromS: 0, toS: 1, lowHz: 0, highHz: 1 };
    const { lowHz, highHz } = bandOf(
      recordingOf({ size: 0, read: () => new Uint8Array(0) }, open.layout, { meaning: open.meaning, centreHz: 0 }),
    );
    return { fromS: 0, toS: secondsOf(open.layout), lowHz, highHz };
  }, [open]);
  const [look, setLook] = useState<Look>(() => (whole.toS > LONG_S ? { ...whole, toS: FIRST_S } : whole));
  const [brush, setBrush] = useState<Brush>('signal');
  const centreHz = open?.centreHz ?? 0;
  const [bands, setBands] = useState<{ readonly signal?: Band; readonly quiet?: Band }>(() => ({
    signal: bandFrom(record?.signalHz, record?.bandwidthHz, centreHz),
    quiet: bandFrom(record?.quietHz, record?.bandwidthHz, centreHz),
  }));
  const { signal, quiet } = bands;
  const picture = useJob('recordingPicture');
  const levels = useJob('recordingLevels');
  const { start: draw } = picture;
  useEffect(() => {
    if (open) draw({ open, view: { ...look, columns: COLUMNS, rows: ROWS } });
  }, [open, look, draw]);
  const { start: measure } = levels;
  const turnS = record?.turnS ?? null;
  const [planText, setPlanText] = useState('');
  const plan = useMemo(
    () =>
      planText
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(Number),
    [planText],
  );
  const planned = plan.every((at) => Number.isFinite(at));
  useEffect(() => {
    if (open && signal && quiet) measure({ open, signal, quiet, turnS, switchedAtS: planned ? plan : [] });
  }, [open, signal, quiet, turnS, plan, planned, measure]);
  const shown = picture.answer ?? picture.step;
  const fullScaleDbm = record?.fullScaleDbm ?? undefined;
  const name = (id: number | null | undefined, otherwise: string): string =>
    data.antennas.find((antenna) => antenna.id === id)?.name ?? otherwise;
  const names = { a: name(record?.antennaAId, 'A'), b: name(record?.antennaBId, 'B') };
  const startMs = record?.startMs ?? layout?.captures[0]?.startMs ?? null;
  const found = signal && quiet ? levels.answer : undefined;
  const verdict = recordingSentence({
    opened,
    fault,
    bandsSet: Boolean(signal && quiet),
    levels: found,
    pairs: found ? pairsOf(found) : [],
    names,
  });
  const setBand = (which: 'signal' | 'quiet', offsetHz: number, widthHz: number | undefined): void => {
    const bandwidthHz = widthHz ?? signal?.bandwidthHz ?? CLICKED_SHARE * (look.highHz - look.lowHz);
    const fitted = fitBand(
      { offsetHz, bandwidthHz: which === 'quiet' ? (signal?.bandwidthHz ?? bandwidthHz) : bandwidthHz },
      whole,
    );
    setBands(
      which === 'signal'
        ? { signal: fitted, ...(quiet ? { quiet: fitBand({ ...quiet, bandwidthHz: fitted.bandwidthHz }, whole) } : {}) }
        : { ...(signal ? { signal } : {}), quiet: fitted },
    );
    if (which === 'signal' && !quiet) setBrush('quiet');
  };
  const draft: Partial<Values<'recordings'>> = {
    ...(signal
      ? {
          signalHz: Math.max(0, Math.round(centreHz + signal.offsetHz)),
          bandwidthHz: Number(signal.bandwidthHz.toPrecision(3)),
        }
      : {}),
    ...(quiet ? { quietHz: Math.max(0, Math.round(centreHz + quiet.offsetHz)) } : {}),
  };
  return (
    <Room
      title="Recording, Trials"
      verdict={
        <>
          {verdict.sentence} <Next>{verdict.next}</Next>
        </>
      }
      picker={picker}
      margin={<Margin opened={opened} />}
    >
      {layout && !open && <Meaning onAnswer={(meaning) => onAnswer({ ...answers, meaning })} />}
      {!chosen && !opened.fault && (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>
            {opened.missing
              ? 'Only the settings of this recording were kept. Open its file again: it is known by its checksum.'
              : 'Drop a recording here: a WAV file, or .sigmf-meta with .sigmf-data. It is read where it lies, and never leaves this machine.'}
          </Empty>
        </div>
      )}
      {open && (
        <div data-evidence>
          {shown ? (
            <WaterfallPicture
              {...{ look, whole, centreHz, startMs, theme, brush }}
              picture={shown}
              signal={signal}
              quiet={quiet}
              switched={found?.switched}
              fullScaleDbm={fullScaleDbm}
              onLook={setLook}
              onBand={setBand}
            />
          ) : picture.fault ? (
            <p role="alert" className="text-danger">
              {picture.fault}
            </p>
          ) : (
            <div className="min-h-80">
              <Waiting what="the picture" />
            </div>
          )}
        </div>
      )}
      {open && (
        <div className="my-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <BrushChoice brush={brush} onBrush={setBrush} />
          {open.meaning === 'two' && (
            <label className="text-sm text-dim">
              Receiver
              <select
                className="ml-2 text-ink"
                value={open.channel}
                onChange={(event) => onAnswer({ ...answers, channel: event.target.value === '1' ? 1 : 0 })}
              >
                <option value={0}>first channel</option>
                <option value={1}>second channel</option>
              </select>
            </label>
          )}
          <Button look="quiet" onClick={() => setLook(whole)}>
            Show all
          </Button>
          {chosen?.metaText !== undefined && signal && (
            <Button look="quiet" onClick={() => saveMarks(chosen, signal, quiet, centreHz, whole)}>
              Save the bands as marks (.sigmf-meta)
            </Button>
          )}
          {signal && <ListenToBand open={open} band={signal} look={look} />}
          {look.toS < whole.toS && (
            <span className="text-sm text-dim">
              {look.fromS.toFixed(0)} to {look.toS.toFixed(0)} s of {whole.toS.toFixed(0)} s
            </span>
          )}
        </div>
      )}
      {levels.fault && (
        <p role="alert" className="mb-2 max-w-prose text-danger">
          {levels.fault}
        </p>
      )}
      {open && signal && quiet && (
        <label className="mb-3 block text-sm text-dim">
          Switched at, s (a plan made by hand; empty: looked for)
          <input
            className="mt-1 block w-full max-w-96 font-mono text-ink"
            value={planText}
            aria-invalid={planned ? undefined : true}
            onChange={(event) => setPlanText(event.target.value)}
          />
          {!planned && (
            <span role="alert" className="text-danger">
              Type seconds from the start of the recording, as in 6, 12, 18.
            </span>
          )}
        </label>
      )}
      {open && found && (
        <Levels
          data={data}
          levels={found}
          names={names}
          record={record}
          startMs={startMs}
          fullScaleDbm={fullScaleDbm}
        />
      )}
      {open && found && (
        <NullOfTurn
          key={chosen?.name}
          {...{ open, record, startMs, fullScaleDbm }}
          levels={found}
          name={chosen?.name ?? 'recording'}
        />
      )}
      {open?.meaning === 'two' && signal && quiet && (
        <AtOnceOfRecording {...{ data, open, signal, quiet, names, record, startMs, fullScaleDbm }} />
      )}
      {open && (
        <>
          <RecordingSettings data={data} opened={opened} draft={draft} onKept={onKept} />
          <ResonanceOfRecording data={data} open={open} record={record} name={chosen?.name ?? 'recording'} />
          <SnrListOfRecording data={data} open={open} record={record} name={chosen?.name ?? 'recording'} />
          <NoiseOfRecording open={open} record={record} startMs={startMs} fullScaleDbm={fullScaleDbm} />
          <StandardOfRecording data={data} open={open} record={record} />
        </>
      )}
    </Room>
  );
}

/** A band moved and narrowed until the recording holds it. */
function fitBand(band: Band, whole: Look): Band {
  const bandwidthHz = Math.min(band.bandwidthHz, 0.9 * (whole.highHz - whole.lowHz));
  const half = bandwidthHz / 2;
  return { bandwidthHz, offsetHz: Math.max(whole.lowHz + half, Math.min(whole.highHz - half, band.offsetHz)) };
}
