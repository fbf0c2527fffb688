import type { Saved } from '@velvet-reed/contract';
import type { DecodeReport } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { useDecodeReport, useSlots } from '../../../data/logs';
import type { StationData } from '@velvet-reed/station/record';
import { momentText } from '../../../ui/moment-text';
import { Section, Wide } from '../../../ui/section';

import { Waiting } from '../../../ui/states';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { ReachMap } from './reach-map';

type Log = Saved<'logs'>;
/** Doubted decodes that are listed. */
const LISTED = 20;

const db = (value: number | null): string => (value === null ? '–' : fixed(value, 1));
const km = (value: number | null): string => (value === null ? '–' : `${Math.round(value).toLocaleString('en')} km`);
const antennaOf = (data: StationData, log: Log): string =>
  data.antennas.find(({ id }) => id === log.antennaId)?.name ?? 'no antenna said';

/** Each night of decodes: how many, how strong, how far, how regular; what may be none. */
export function DecodeStatistics({ data, logs }: { readonly data: StationData; readonly logs: readonly Log[] }) {
  if (logs.length === 0) return null;
  return (
    <>
      <Section title="Nights" hint="SNR as the decoding program tells it, in 2500 Hz (measured)">
        <Wide label="Nights of decodes">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Night</th>
                <th scope="col">Antenna</th>
                <th scope="col">Decodes</th>
                <th scope="col">Mean, dB</th>
                <th scope="col">SD</th>
                <th scope="col">Median</th>
                <th scope="col">Tenths</th>
                <th scope="col">Heard</th>
                <th scope="col">Regular</th>
                <th scope="col">Farthest</th>
              </tr>
            </thead>
            <tbody>
              {logs.map((log) => (
                <Night key={log.id} data={data} log={log} />
              ))}
            </tbody>
          </table>
        </Wide>
      </Section>
      <Reach data={data} log={logs[logs.length - 1]} />
      {logs.length > 1 && <SameSlots data={data} logs={logs} />}
    </>
  );
}

function Night({ data, log }: { readonly data: StationData; readonly log: Log }) {
  const { data: report, error } = useDecodeReport(log);
  const figures = report?.all;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {log.name}
      </th>
      <td>{antennaOf(data, log)}</td>
      {error ? (
        <td colSpan={8} className="text-danger">
          {error.message}
        </td>
      ) : (
        <>
          <td className="font-mono">{figures?.n.toLocaleString('en') ?? '…'}</td>
          <td className="font-mono">{db(figures?.meanDb ?? null)}</td>
          <td className="font-mono">{figures?.sdDb == null ? '–' : figures.sdDb.toFixed(2)}</td>
          <td className="font-mono">{db(figures?.medianDb ?? null)}</td>
          <td className="font-mono whitespace-nowrap">
            {figures ? `${fixed(figures.lowDb, 0)} to ${fixed(figures.highDb, 0)}` : '–'}
          </td>
          <td className="font-mono">{report?.senders ?? '–'}</td>
          <td className="font-mono">
            {report?.consistency == null ? '–' : `${(100 * report.consistency).toFixed(0)} %`}
          </td>
          <td className="font-mono whitespace-nowrap">{km(report?.farthestKm ?? null)}</td>
        </>
      )}
    </tr>
  );
}

/** How far round the horizon, and what is doubted. */
function Reach({ data, log }: { readonly data: StationData; readonly log: Log }) {
  const { data: report } = useDecodeReport(log);
  if (!report) return <Waiting what="the reach" />;
  const heard = report.sectors.filter(({ decodes }) => decodes > 0);
  return (
    <Section
      title="Reach and doubts"
      hint={`of ${log.name}; a doubted decode stays in the log and does not count for the reach`}
    >
      {heard.length === 0 ? (
        <p className="max-w-prose text-sm text-dim">No locators in this log: distance and direction cannot be told.</p>
      ) : (
        <ReachMap data={data} log={log} report={report} />
      )}
      {heard.length > 0 && (
        <ul className="mb-2 flex flex-wrap gap-x-6 gap-y-1" aria-label="Reach by direction">
          {heard.map(({ name, decodes, senders, farthestKm }) => (
            <li key={name}>
              <b className="font-semibold">{name}</b> {km(farthestKm)}, {decodes} decodes of {senders}
            </li>
          ))}
        </ul>
      )}
      <Doubtful report={report} />
    </Section>
  );
}

function Doubtful({ report: { doubtful } }: { readonly report: DecodeReport }) {
  if (doubtful.length === 0) return <p className="text-sm text-dim">No decode looks false.</p>;
  return (
    <>
      <p className="text-caution">
        {doubtful.length} decode{doubtful.length === 1 ? ' looks' : 's look'} false: heard once only, with another sign.
      </p>
      <ul className="list-disc pl-5 text-sm">
        {doubtful.slice(0, LISTED).map((one) => (
          <li key={`${one.sender} ${one.atMs}`}>
            {momentText(one.atMs)} UTC, {one.sender} {one.locator}, {fixed(one.snrDb, 0)} dB: {one.why}
          </li>
        ))}
      </ul>
    </>
  );
}

/** The same transmissions on two antennas: who heard more, by those that one alone heard. */
function SameSlots({ data, logs }: { readonly data: StationData; readonly logs: readonly Log[] }) {
  const overlapping = logs.filter((one) =>
    logs.some((other) => other.id !== one.id && other.first <= one.last && one.first <= other.last),
  );
  const choices = overlapping.length > 1 ? overlapping : logs;
  const [aId, setA] = useState(choices[0].id);
  const [bId, setB] = useState(choices[1].id);
  const typed = useTypedNumbers([
    { name: 'slot', label: 'Length of a slot', dimension: 'time', bareUnit: 's', start: '15 s' },
  ]);
  const [a, b] = [aId, bId].map((wanted) => logs.find(({ id }) => id === wanted));
  const { data: found, error } = useSlots(a, b, typed.value('slot') ?? 0);
  const pick = (label: string, value: number, onPick: (id: number) => void) => (
    <label className="max-w-full min-w-0 text-sm text-dim">
      {label}
      <select
        className="mt-1 block w-full max-w-72 text-ink"
        value={value}
        onChange={(event) => onPick(Number(event.target.value))}
      >
        {logs.map((log) => (
          <option key={log.id} value={log.id}>
            {log.name}, {antennaOf(data, log)}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <Section
      title="The same slots"
      hint="two antennas at once: only transmissions that one alone heard tell them apart"
    >
      <TypedFields of={typed}>
        {pick('A', aId, setA)}
        {pick('B', bId, setB)}
      </TypedFields>
      {error && (
        <p role="alert" className="mt-1 text-danger">
          {error.message}
        </p>
      )}
      {found && (
        <p className="mt-2 max-w-prose">
          Both heard {found.both}, A alone {found.onlyA}, B alone {found.onlyB}:{' '}
          {found.both + found.onlyA + found.onlyB === 0
            ? 'nothing to compare.'
            : found.pTwoSided === null
              ? 'no transmission tells them apart.'
              : found.pTwoSided < 0.05
                ? `${found.onlyA > found.onlyB ? 'A' : 'B'} hears more, proven (exact McNemar test, p ${found.pTwoSided.toPrecision(2)}).`
                : `not proven (exact McNemar test, p ${found.pTwoSided.toPrecision(2)}).`}{' '}
          {found.both > 0 && found.meanDb !== null && (
            <>
              B less A where both heard: {db(found.meanDb)} dB
              {found.censoredDb !== null && <>; with those that one missed: {db(found.censoredDb)} dB (measured)</>}.
            </>
          )}
        </p>
      )}
    </Section>
  );
}
