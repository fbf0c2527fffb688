import { Announced } from '../../../ui/announced';
import type { ExerciseTruth } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import { cableClass, swrOf } from '@velvet-reed/core/line';
import {
  type Calibration,
  correctSweep,
  distanceToFault,
  type FaultFinding,
  findFault,
  type StandardName,
} from '@velvet-reed/core/sweep';
import { fixed, frequencyText, lengthText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { exerciseTruth, plug, sweepOnce, useInstruments } from '../../../data/instruments';
import { entry } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { TraceChart, TraceMark } from '../../../ui/trace-chart';
import { STAND_IN_SLIP } from '../stand-in-slip';

/** Findings to choose from, by the fault they name, with their signs. Source: common practice, no source. */
const FINDINGS: readonly {
  readonly fault: string;
  readonly name: string;
  readonly curve: string;
  readonly line: string;
}[] = [
  { fault: 'none', name: 'nothing changed', curve: 'both curves lie on each other', line: 'as before' },
  {
    fault: 'open',
    name: 'the feed is open',
    curve: 'no dip is left, SWR high all over',
    line: 'nearly all comes back from the far end',
  },
  {
    fault: 'shorted',
    name: 'the feed is shorted',
    curve: 'no dip is left, SWR high all over',
    line: 'nearly all comes back, turned over',
  },
  {
    fault: 'broken',
    name: 'a piece of the wire is off, or a joint in it is open',
    curve: 'the dip went far up',
    line: 'the far end only',
  },
  {
    fault: 'water',
    name: 'water in the cable, or a bad plug: loss grew',
    curve: 'SWR lower and flatter all over, the dip blunt',
    line: 'the far end returns less than before',
  },
  {
    fault: 'stretched',
    name: 'the wire stretched or sags: a small shift',
    curve: 'the same dip, a little lower in frequency',
    line: 'the far end only',
  },
  {
    fault: 'longer',
    name: 'something was added to the wire, or it touches something',
    curve: 'the dip went down, often with another SWR',
    line: 'the far end only',
  },
];
const nameOf = (fault: string): string => FINDINGS.find((one) => one.fault === fault)?.name ?? fault;

const POINTS = 401;
/** Span of an exercise around its antenna's frequency. */
const LOW = 0.7;
const HIGH = 1.45;
/** A cable of the class that stand-ins have. */
const LINE = { ...cableClass('pe5'), lengthM: 25 };
const TICKS = [1, 1.5, 2, 3, 5, 10];

interface Exercise {
  readonly number: number;
  readonly aboutHz: number;
  readonly calibration: Calibration;
  readonly before: SweepData;
  readonly after?: SweepData;
  readonly judged?: { readonly chosen: string; readonly truth: ExerciseTruth; readonly found: FaultFinding };
}

/** Exercises on the stand-in: a fault is hidden, the listener measures and finds, the application judges and shows why. */
export function Practice() {
  const { trySave } = useWrite();
  const instruments = useInstruments();
  const analyser = instruments.data?.find(({ kind, standIn }) => kind === 'analyser' && standIn);
  const [exercise, setExercise] = useState<Exercise>();
  const [wanted, setWanted] = useState('');
  const [chosen, setChosen] = useState('none');
  const [busy, setBusy] = useState(false);
  if (!analyser) return null;
  const raw = async (aboutHz: number): Promise<SweepData> => {
    const span = { startHz: LOW * aboutHz, stopHz: HIGH * aboutHz };
    return (await sweepOnce(analyser.id, { ...span, points: POINTS, averages: 4 })).sweep;
  };
  const standard = async (connect: StandardName, aboutHz: number): Promise<SweepData> => {
    await plug(analyser.id, { connect });
    return raw(aboutHz);
  };
  const during = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      showTrouble(error);
    }
    setBusy(false);
  };
  const begin = (): Promise<void> =>
    during(async () => {
      const typed = Number(wanted);
      const number =
        wanted.trim() !== '' && Number.isInteger(typed) && typed >= 0
          ? typed
          : crypto.getRandomValues(new Uint16Array(1))[0];
      const aboutHz = await plug(analyser.id, { exercise: number, state: 'before', connect: 'antenna' });
      // calibrated at the plug, as one would: raw ripples pass for dips
      const open = await standard('open', aboutHz);
      const short = await standard('short', aboutHz);
      const load = await standard('load', aboutHz);
      const calibration = { freqHz: open.freqHz, readings: { open, short, load }, standards: STAND_IN_SLIP };
      await plug(analyser.id, { connect: 'antenna' });
      const before = correctSweep(await raw(aboutHz), calibration).sweep;
      setExercise({ number, aboutHz, calibration, before });
      setChosen('none');
    });
  const look = (now: Exercise): Promise<void> =>
    during(async () => {
      await plug(analyser.id, { state: 'after' });
      setExercise({ ...now, after: correctSweep(await raw(now.aboutHz), now.calibration).sweep });
    });
  const judge = (now: Exercise, after: SweepData): Promise<void> =>
    during(async () => {
      const truth = await exerciseTruth(analyser.id);
      setExercise({ ...now, judged: { chosen, truth, found: findFault([now.before], [after]) } });
    });
  return (
    <Section title="Practice" hint="a fault is hidden in the stand-in; find it, then see the truth">
      {!exercise && <Signs />}
      <div className="flex flex-wrap items-end gap-3">
        <Button look={exercise ? 'plain' : 'main'} busy={busy} onClick={() => void begin()}>
          {exercise ? 'Begin another exercise' : 'Begin an exercise'}
        </Button>
        <label className="text-sm text-dim">
          Number, to repeat one
          <input
            className="ml-2 w-24 font-mono text-ink"
            inputMode="numeric"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            placeholder="any"
          />
        </label>
      </div>
      {exercise && (
        <div className="mt-3">
          <p>
            Exercise {exercise.number}: an antenna for {frequencyText(exercise.aboutHz)}, on a cable. You measured it
            last autumn; then came a winter.
          </p>
          <Curves exercise={exercise} />
          {!exercise.after ? (
            <Button look="main" busy={busy} onClick={() => void look(exercise)}>
              Measure it today
            </Button>
          ) : (
            <>
              <Echoes sweep={exercise.after} />
              <div className="mt-2 flex flex-wrap items-end gap-3">
                <label className="text-sm text-dim">
                  Your finding
                  <select
                    className="ml-2 max-w-full text-ink"
                    value={chosen}
                    onChange={(event) => setChosen(event.target.value)}
                  >
                    {FINDINGS.map((one) => (
                      <option key={one.fault} value={one.fault}>
                        {one.name}
                      </option>
                    ))}
                  </select>
                </label>
                {!exercise.judged && (
                  <Button
                    look="main"
                    busy={busy}
                    onClick={() => exercise.after && void judge(exercise, exercise.after)}
                  >
                    Judge it
                  </Button>
                )}
              </div>
            </>
          )}
          {exercise.judged && (
            <Judgement
              judged={exercise.judged}
              onNote={(text) =>
                void trySave([entry('bench', `Exercise ${exercise.number}: ${text}`)], 'Written into the notebook.')
              }
            />
          )}
        </div>
      )}
    </Section>
  );
}

/** What every fault of an exercise looks like: read before the first, out of sight while one runs. */
function Signs() {
  return (
    <Wide evidence label="Faults and their signs">
      <table className="mb-3 text-sm">
        <thead>
          <tr>
            <th scope="col">Fault</th>
            <th scope="col">On the SWR curve</th>
            <th scope="col">Along the line</th>
          </tr>
        </thead>
        <tbody>
          {FINDINGS.map(({ fault, name, curve, line }) => (
            <tr key={fault}>
              <th scope="row" className="text-ink">
                {name}
              </th>
              <td>{curve}</td>
              <td>{line}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

const swrPoints = (sweep: SweepData) =>
  Array.from(sweep.freqHz, (freq, i) => ({ x: freq / 1e6, y: swrOf(Math.hypot(sweep.re[i], sweep.im[i])) }));

function Curves({ exercise }: { readonly exercise: Exercise }) {
  const { before, after, aboutHz } = exercise;
  const span: readonly [number, number] = [(LOW * aboutHz) / 1e6, (HIGH * aboutHz) / 1e6];
  const traces = [
    { id: 'before', name: 'last autumn', points: swrPoints(before), look: 1 },
    ...(after ? [{ id: 'after', name: 'today', points: swrPoints(after), look: 0 }] : []),
  ];
  return (
    <>
      <div data-evidence>
        <TraceChart
          label="SWR of last autumn and of today"
          traces={traces}
          bands={[]}
          markers={[]}
          visible={span}
          drawn={span}
          range={[1, 10]}
          ticks={TICKS}
          logarithmic
          height={200}
        />
      </div>
      <p className="text-xs text-dim">SWR over MHz, calibrated at the plug with open, short and load</p>
      <p className="flex gap-6 text-sm">
        {traces.map((trace) => (
          <span key={trace.id}>
            <TraceMark look={trace.look} /> {trace.name}
          </span>
        ))}
      </p>
    </>
  );
}

/** Where along the cable today's sweep sees something. */
function Echoes({ sweep }: { readonly sweep: SweepData }) {
  const { echoes } = distanceToFault(sweep, LINE);
  return (
    <p className="mt-2 text-sm">
      Along the line (velocity factor assumed {LINE.velocityFactor}):{' '}
      {echoes.length === 0
        ? 'nothing reflects.'
        : `${echoes
            .slice(0, 3)
            .map((echo) => `${lengthText(echo.distanceM, 3)} returns ${fixed(100 * Math.min(1, echo.reflection), 0)} %`)
            .join(', ')}.`}
    </p>
  );
}

function Judgement({
  judged,
  onNote,
}: {
  readonly judged: NonNullable<Exercise['judged']>;
  readonly onNote: (text: string) => void;
}) {
  const { chosen, truth, found } = judged;
  const right = chosen === truth.fault;
  const sentence = `${right ? 'Right' : 'Not so'}: ${nameOf(truth.fault)}${right ? '' : `, not “${nameOf(chosen)}”`}.`;
  return (
    <Announced className="mt-3 max-w-prose">
      <p className={right ? 'text-lg' : 'text-lg text-caution'}>{sentence}</p>
      <p className="mt-1">
        The truth: {nameOf(truth.fault)}
        {truth.lengthFactor === 1
          ? ''
          : `, the wires ${fixed(Math.abs(100 * (truth.lengthFactor - 1)), 1)} % ${truth.lengthFactor < 1 ? 'shorter' : 'longer'} than before`}
        {truth.lossFactor === 1 ? '' : `, the cable losing ${fixed(truth.lossFactor, 1)} times as many dB`}; the cable
        is {lengthText(truth.lineLengthM, 3)} long.
      </p>
      <p className="mt-1">What the sweeps show: {found.sentence}</p>
      <ol className="mt-1 list-decimal pl-5" aria-label="Causes as computed from the sweeps">
        {found.causes.map((cause) => (
          <li key={cause.name}>
            {cause.name}: {cause.reason}
          </li>
        ))}
      </ol>
      <Button className="mt-1" onClick={() => onNote(`${sentence} ${found.sentence}`)}>
        Write this into the notebook
      </Button>
    </Announced>
  );
}
