import type { Saved } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { LOG_COLUMNS, type LogKind } from '@velvet-reed/core/formats';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { RefusedError } from '../data/api';
import { useLogPage, useLogSummary } from '../data/logs';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../data/station';
import { NotAnswered } from '../data/table-answers';
import { Button } from './button';
import { momentText } from './moment-text';
import type { FieldSpec } from './record-form';
import { ChangeButton, DeleteButton } from './record-row';
import { Section, Wide } from './section';
import { Empty } from './states';
import { Curves } from './curves';

const HOUR_MS = 3_600_000;
const PAGE = 50;
/** Of the choice of antennas: another one, which this station does not know. */
const NONE = 'none';

/** What a room calls its long logs. */
interface LogWords {
  readonly title: string;
  readonly hint: string;
  /** What to do when there is none. */
  readonly empty: string;
  /** What is drawn: "SNR, dB". */
  readonly value: string;
}

/** What of a log may be mended: its name, and whose it is. */
const logFields = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    ...{ name: 'antennaId', label: 'Antenna', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'none of this station' },
      ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
];

/** Long logs of one sort: imported from a table, drawn from their summary, and read a page at a time. */
export function LongLogs({
  data,
  kind,
  words,
  evidence = false,
}: {
  readonly data: StationData;
  readonly kind: LogKind;
  readonly words: LogWords;
  /** The drawing proves the room's verdict. */
  readonly evidence?: boolean;
}) {
  const { importLog } = useWrite();
  const logs = data.logs.filter((one) => one.kind === kind);
  const [chosen, setChosen] = useState<number>();
  // which antenna it was nobody can guess: asked before a table is taken
  const [heardOn, setHeardOn] = useState('');
  const asked = data.antennas.length > 0 && heardOn === '';
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const log = logs.find(({ id }) => id === chosen) ?? logs.at(-1);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    setFault('');
    try {
      await importLog(file, kind, Number(heardOn) || undefined);
      setChosen(undefined);
    } catch (error) {
      if (!(error instanceof CoreError || error instanceof NotAnswered || error instanceof RefusedError)) throw error;
      setFault(`${file.name}: ${error.message} Nothing was taken.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Section title={words.title} hint={words.hint}>
      {log ? (
        <LogView key={log.id} data={data} log={log} value={words.value} evidence={evidence} />
      ) : (
        <Empty>{words.empty}</Empty>
      )}
      {logs.length > 1 && (
        <label className="mt-3 block text-sm text-dim">
          Log
          <select className="ml-2 text-ink" value={log?.id} onChange={(event) => setChosen(Number(event.target.value))}>
            {logs.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        {data.antennas.length > 0 && (
          <label className="text-sm text-dim">
            {kind === 'pattern' ? 'Antenna that was turned' : 'Heard on'}
            <select className="ml-2 text-ink" value={heardOn} onChange={(event) => setHeardOn(event.target.value)}>
              <option value="">choose…</option>
              {data.antennas.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
              <option value={NONE}>none of these</option>
            </select>
          </label>
        )}
        <label className="text-sm text-dim">
          {busy
            ? 'Reading…'
            : asked
              ? 'Choose the antenna, then import a table (CSV)'
              : 'Import a table (CSV), up to a million rows'}
          <input
            type="file"
            accept=".csv,.txt,.tsv"
            disabled={busy || asked}
            className="ml-2 max-w-60 border-0 text-sm text-ink"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void take(file);
            }}
          />
        </label>
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
    </Section>
  );
}

function LogView({
  data,
  log,
  value,
  evidence,
}: {
  readonly data: StationData;
  readonly log: Saved<'logs'>;
  readonly value: string;
  readonly evidence: boolean;
}) {
  const { data: summary, error } = useLogSummary(log);
  const timed = log.kind !== 'pattern';
  const place = (at: number): string => (timed ? `${momentText(at)} UTC` : `${fixed(at, 0)}°`);
  const points =
    summary?.buckets.map(({ at, median }) => ({ x: timed ? (at - log.first) / HOUR_MS : at, y: median })) ?? [];
  const [low, high] = [10 * Math.floor((summary?.least ?? 0) / 10), 10 * Math.ceil((summary?.most ?? 10) / 10 + 0.01)];
  const span = [points[0]?.x ?? 0, Math.max((points.at(-1)?.x ?? 1) + 1e-6, (points[0]?.x ?? 0) + 1e-3)] as const;
  const step = Math.max(10, 10 * Math.ceil((high - low) / 60));
  return (
    <div>
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span className="font-semibold">{log.name}</span>
        <span className="font-mono text-sm">{log.rows.toLocaleString('en')} rows</span>
        <span className="text-sm">
          {place(log.first)} to {place(log.last)}
        </span>
        {summary && (
          <span className="text-sm">
            {value}: median {fixed(summary.median, 1)}, {fixed(summary.least, 1)} to {fixed(summary.most, 1)} (measured)
          </span>
        )}
        <ChangeButton resource="logs" record={log} name={log.name} fields={logFields(data)} />
        <DeleteButton resource="logs" record={log} name={log.name} />
      </p>
      {error && (
        <p role="alert" className="text-danger">
          {error.message}
        </p>
      )}
      {points.length > 1 && (
        <Curves
          evidence={evidence}
          name={log.kind}
          x={{ head: timed ? `hours since ${place(log.first)}` : 'angle (degrees)', decimals: 2 }}
          y={{ head: value, decimals: 1 }}
          caption={
            <>
              {value} over {timed ? `hours since ${place(log.first)}` : 'degrees'}
            </>
          }
          label={`${value}, median of each stretch, over ${timed ? 'hours' : 'degrees'}`}
          traces={[{ id: 'median', name: 'median', points, look: 0 }]}
          bands={[]}
          markers={[]}
          visible={span}
          drawn={span}
          range={[low, high]}
          ticks={Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => low + step * i)}
          logarithmic={false}
          height={180}
        />
      )}
      <Rows log={log} />
    </div>
  );
}

function Rows({ log }: { readonly log: Saved<'logs'> }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-1" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Rows</summary>
      {open && <Page log={log} />}
    </details>
  );
}

function cellText(id: string, value: number | string | null): string {
  if (value === null) return '';
  if (typeof value === 'string') return value;
  if (id === 'atMs') return momentText(value);
  return id === 'freqHz' ? frequencyText(value, 5) : fixed(value, 1);
}

function Page({ log }: { readonly log: Saved<'logs'> }) {
  const [from, setFrom] = useState(0);
  const { data: page } = useLogPage(log, from, PAGE);
  const columns = LOG_COLUMNS[log.kind];
  return (
    <>
      <Wide label={`Rows of ${log.name}`}>
        <table className="text-sm">
          <thead>
            <tr>
              {columns.map(({ id, label }) => (
                <th key={id} scope="col">
                  {label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {page?.rows.map((row, i) => (
              <tr key={page.from + i}>
                {row.map((value, k) => (
                  <td key={columns[k].id} className="font-mono whitespace-nowrap">
                    {cellText(columns[k].id, value)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="mt-1 flex items-center gap-3 text-sm">
        <Button look="quiet" disabled={from === 0} onClick={() => setFrom(Math.max(0, from - PAGE))}>
          Earlier rows
        </Button>
        <span>
          {from + 1} to {Math.min(log.rows, from + PAGE)} of {log.rows.toLocaleString('en')}
        </span>
        <Button look="quiet" disabled={from + PAGE >= log.rows} onClick={() => setFrom(from + PAGE)}>
          Later rows
        </Button>
      </p>
    </>
  );
}
