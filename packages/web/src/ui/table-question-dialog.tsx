import type { TableAnswer, TableQuestion } from '@velvet-reed/core/formats';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { type OpenQuestion, type Preview } from '../data/table-answers';
import { Button } from './button';

/** Meanings as a person says them. */
const MEANING: Readonly<Record<string, string>> = {
  frequency: 'Frequency',
  'gamma-re': 'S11, real part',
  'gamma-im': 'S11, imaginary part',
  'gamma-magnitude': '|S11| as ratio',
  'gamma-db': 'S11 in dB',
  'gamma-degrees': 'Phase of S11, degrees',
  'gamma-radians': 'Phase of S11, radians',
  r: 'R, ohm',
  x: 'X, ohm',
  'x-unsigned': 'X without sign, ohm',
  'z-magnitude': '|Z|, ohm',
  'z-degrees': 'Phase of Z, degrees',
  'z-radians': 'Phase of Z, radians',
  swr: 'SWR',
  'return-loss-db': 'Return loss, dB',
  level: 'Level, dB',
  time: 'Time',
  date: 'Date',
  ignore: 'not used',
};
const ZONES = Array.from({ length: 27 }, (_, i) => (i - 12) * 60);
const zoneText = (minutes: number): string =>
  `UTC${minutes === 0 ? '' : `${minutes < 0 ? '−' : '+'}${String(Math.floor(Math.abs(minutes) / 60)).padStart(2, '0')}:00`}`;

const SCALES = [
  ['dBm', 'dBm'],
  ['dBuV', 'dB over 1 µV'],
  ['uV', 'µV'],
  ['s-below', 'S units, below 30 MHz'],
  ['s-above', 'S units, above 30 MHz'],
  ['dB', 'dB over another level'],
] as const;
const IMPEDANCES = [50, 60, 75, 300, 600];

const start = (question: TableQuestion): TableAnswer => {
  const { columns, unit, decimal, dateOrder, zoneMin, level, ohm, zeroDbm, clockBack } = question;
  return {
    columns,
    ...(unit === undefined ? {} : { unit }),
    ...(decimal === undefined ? {} : { decimal }),
    ...(dateOrder === undefined ? {} : { dateOrder }),
    ...(zoneMin === undefined ? {} : { zoneMin }),
    ...(level === undefined ? {} : { level }),
    ...(ohm === undefined ? {} : { ohm }),
    ...(zeroDbm === undefined ? {} : { zeroDbm }),
    ...(clockBack === undefined ? {} : { clock: 'set-back' as const }),
  };
};

/** Whether the scale that is chosen, or the one that the file names, needs a figure. */
const asksFor = (question: TableQuestion, answer: TableAnswer, scales: readonly string[]): boolean =>
  question.level === undefined || scales.includes(answer.level ?? '');

/** Asks what a table does not say, with its rows, a guess and the curve that follows from it. */
export default function Asked({ open }: { readonly open: OpenQuestion }) {
  const { question, fileName } = open;
  const [answer, setAnswer] = useState(() => start(question));
  const preview = useMemo(() => open.preview(answer), [open, answer]);
  const fault = 'fault' in preview ? preview.fault : undefined;
  const column = (k: number, meaning: string): void =>
    setAnswer({
      ...answer,
      columns: question.columns.map((_, i) => (i === k ? meaning : (answer.columns?.[i] ?? 'ignore'))),
    });
  return (
    <Dialog.Root open onOpenChange={(stays) => !stays && open.done(undefined)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content className="fixed top-[5vh] left-1/2 z-50 max-h-[90vh] w-[min(56rem,94vw)] -translate-x-1/2 overflow-y-auto border border-dim bg-sheet p-5">
          <Dialog.Title className="text-lg font-semibold">What does {fileName} hold?</Dialog.Title>
          <Dialog.Description className="my-2 max-w-prose">{question.ask}</Dialog.Description>
          <div className="overflow-x-auto">
            <table className="font-mono text-sm">
              <thead>
                <tr>
                  {question.columns.map((_, k) => (
                    <th key={k} scope="col" className="align-bottom font-sans">
                      {question.headings[k] || `Column ${k + 1}`}
                      <select
                        className="mt-1 block text-ink"
                        aria-label={`Column ${k + 1} holds`}
                        value={answer.columns?.[k]}
                        onChange={(event) => column(k, event.target.value)}
                      >
                        {question.meanings.map((one) => (
                          <option key={one} value={one}>
                            {MEANING[one] ?? one}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {question.rows.map((row, i) => (
                  <tr key={i}>
                    {question.columns.map((_, k) => (
                      <td key={k}>{row[k]}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <div className="mt-3 flex flex-wrap gap-4">
            {question.unit !== undefined && (
              <Choice
                label="Frequency in"
                value={answer.unit ?? ''}
                options={['Hz', 'kHz', 'MHz', 'GHz'].map((one) => [one, one])}
                onPick={(unit) => setAnswer({ ...answer, unit })}
              />
            )}
            {question.decimal !== undefined && (
              <Choice
                label="1,234 means"
                value={answer.decimal ?? '.'}
                options={[
                  [',', 'a little over one'],
                  ['.', 'over a thousand'],
                ]}
                onPick={(decimal) => setAnswer({ ...answer, decimal: decimal === ',' ? ',' : '.' })}
              />
            )}
            {question.dateOrder !== undefined && (
              <Choice
                label="4/8/2026 means"
                value={answer.dateOrder ?? 'dmy'}
                options={[
                  ['dmy', '4 August'],
                  ['mdy', '8 April'],
                ]}
                onPick={(order) => setAnswer({ ...answer, dateOrder: order === 'mdy' ? 'mdy' : 'dmy' })}
              />
            )}
            {question.level !== undefined && (
              <Choice
                label="Levels in"
                value={answer.level ?? 'dBm'}
                options={SCALES}
                onPick={(level) => setAnswer({ ...answer, level })}
              />
            )}
            {question.ohm !== undefined && asksFor(question, answer, ['dBuV', 'uV']) && (
              <Choice
                label="Voltage across"
                value={String(answer.ohm ?? 50)}
                options={IMPEDANCES.map((one) => [String(one), `${one} Ω`])}
                onPick={(ohm) => setAnswer({ ...answer, ohm: Number(ohm) })}
              />
            )}
            {question.zeroDbm !== undefined && asksFor(question, answer, ['dB']) && (
              <label className="text-sm text-dim">
                0 dB of this scale is, in dBm
                <input
                  type="number"
                  className="ml-2 w-20 text-ink"
                  value={answer.zeroDbm ?? 0}
                  onChange={(event) => setAnswer({ ...answer, zeroDbm: Number(event.target.value) })}
                />
              </label>
            )}
            {question.zoneMin !== undefined && (
              <Choice
                label="Its clock runs on"
                value={String(answer.zoneMin ?? 0)}
                options={ZONES.map((one) => [String(one), zoneText(one)])}
                onPick={(zone) => setAnswer({ ...answer, zoneMin: Number(zone) })}
              />
            )}
            {question.clockBack !== undefined && (
              <Choice
                label={`At line ${question.clockBack.line} the clock goes from ${question.clockBack.from} to ${question.clockBack.to}`}
                value={answer.clock ?? 'set-back'}
                options={[
                  ['set-back', 'it was set back an hour: this row is later than the one above'],
                  ['disorder', 'rows stand out of order: this row is earlier, sort them'],
                ]}
                onPick={(clock) => setAnswer({ ...answer, clock: clock === 'set-back' ? 'set-back' : 'disorder' })}
              />
            )}
          </div>
          <div className="mt-3 h-40" role="img" aria-label={fault ?? 'The curve that this answer gives'}>
            {fault ? <p className="text-danger">{fault}</p> : <Curve preview={preview} />}
          </div>
          <div className="mt-3 flex gap-3">
            <Button look="main" disabled={fault !== undefined} onClick={() => open.done(answer)}>
              Read it like this
            </Button>
            <Button onClick={() => open.done(undefined)}>Do not read it</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Choice({
  label,
  value,
  options,
  onPick,
}: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, label: string])[];
  readonly onPick: (value: string) => void;
}) {
  return (
    <label className="text-sm text-dim">
      {label}
      <select className="ml-2 text-ink" value={value} onChange={(event) => onPick(event.target.value)}>
        {options.map(([one, name]) => (
          <option key={one} value={one}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

const [WIDE, TALL] = [600, 120];

function Curve({ preview }: { readonly preview: Preview }) {
  if ('fault' in preview || preview.points.length === 0) return null;
  const xs = preview.points.map(({ x }) => x);
  const ys = preview.points.map(({ y }) => y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const at = ({ x, y }: { x: number; y: number }): string =>
    `${((x - x0) / (x1 - x0 || 1)) * WIDE},${TALL - ((y - y0) / (y1 - y0 || 1)) * TALL}`;
  return (
    <figure>
      <svg viewBox={`-4 -4 ${WIDE + 8} ${TALL + 8}`} className="h-32 w-full" preserveAspectRatio="none" aria-hidden>
        <polyline
          points={preview.points.map(at).join(' ')}
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="font-mono text-sm">{preview.label}</figcaption>
    </figure>
  );
}
