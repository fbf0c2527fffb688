import { BLANK, SCHEMAS, type Saved } from '@velvet-reed/contract';
import { fitNull } from '@velvet-reed/core/bearing';
import { directionsIn, levelsAtMarks, typedMarks } from '@velvet-reed/core/recording';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { entry } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import type { OpenRecording, RecordedLevels } from '../../../workers/recording-jobs';

const present = (): number => Date.now();

/** A turn of the loop that was recorded: when it stood which way, from the marks of the file or typed; the null goes to Direction. */
export function NullOfTurn({
  open,
  levels: { series },
  name,
  record,
  startMs,
  fullScaleDbm,
}: {
  readonly open: OpenRecording;
  readonly levels: RecordedLevels;
  readonly name: string;
  readonly record: Saved<'recordings'> | undefined;
  readonly startMs: number | null;
  readonly fullScaleDbm: number | undefined;
}) {
  const stationId = useStationId();
  const { trySave } = useWrite();
  const marked = directionsIn(open.layout.annotations);
  const [text, setText] = useState(() => marked.map(({ startS, deg }) => `${fixed(startS, 1)} ${deg}`).join('\n'));
  const [kept, setKept] = useState(false);
  const typed = useTypedNumbers([
    { name: 'east', label: 'Stood east of the middle', dimension: 'length', bareUnit: 'm', start: '0 m' },
    { name: 'north', label: 'and north of it', dimension: 'length', bareUnit: 'm', start: '0 m' },
  ]);
  const lengthS = series.startS + series.signal.length * series.stepS;
  const { value: found, fault } = tried(() => {
    if (text.trim() === '') return undefined;
    const read = levelsAtMarks(series, typedMarks(text, lengthS));
    const shift = fullScaleDbm ?? 0;
    const readings = read.map(([deg, db]): [number, number] => [deg, Math.round(10 * (db + shift)) / 10]);
    return { readings, fit: fitNull(readings.map(([axisDeg, levelDbm]) => ({ axisDeg, levelDbm }))) };
  });
  const save = async (): Promise<void> => {
    if (!found) return;
    const values = SCHEMAS.nullLogs.cast({
      ...BLANK.nullLogs,
      ...{ name: `Turn in ${name}`, atMs: startMs ?? present(), freqHz: null, declinationDeg: 0, meaning: 'null' },
      ...{ xM: typed.value('east') ?? 0, yM: typed.value('north') ?? 0, readings: found.readings, sense: [] },
      ...{ sigmaDeg: 3, antennaId: record?.antennaAId ?? null },
      conditions: fullScaleDbm === undefined ? 'levels in dBFS' : '',
    });
    const stored = await trySave(
      [
        { op: 'create', resource: 'nullLogs', values },
        entry('noise', `${values.name}: ${found.readings.length} readings.`),
      ],
      'The turn is in Direction.',
    );
    setKept(stored !== undefined);
  };
  return (
    <Section title="A turn of the loop" hint="when it stood which way: a line each, second and direction">
      <label className="block text-sm text-dim">
        Second and direction, a line each
        <textarea
          className="mt-1 block h-28 w-56 font-mono text-ink"
          value={text}
          placeholder={'0 0\n5 15\n10 30'}
          onChange={(event) => {
            setText(event.target.value);
            setKept(false);
          }}
        />
      </label>
      {fault && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {found && (
        <>
          <p className="mt-2 max-w-prose">
            The null points to {fixed(found.fit.axisDeg, 1)}° or {fixed((found.fit.axisDeg + 180) % 360, 1)}°, within{' '}
            {fixed(found.fit.halfDeg, 1)}° (95 %), {fixed(found.fit.depthDb, 0)} dB deep, from {found.readings.length}{' '}
            directions (measured).
          </p>
          <div className="mt-2">
            <TypedFields of={typed}>
              <Button disabled={!typed.sound || kept} onClick={() => void save()}>
                Keep this turn in Direction
              </Button>
            </TypedFields>
          </div>
        </>
      )}
      {kept && (
        <p role="status" className="mt-1">
          It is kept: <Link to={`/s/${stationId}/noise/direction`}>see where it points</Link>.
        </p>
      )}
    </Section>
  );
}
