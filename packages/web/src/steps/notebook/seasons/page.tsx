import type { StationData } from '@velvet-reed/station/record';
import { useLogSummaries } from '../../../data/logs';
import { useSamples } from '../../../data/samples';
import { causeText, seasonRows, shiftWords, type SeasonRow } from '@velvet-reed/station/seasons';
import { Room } from '../../../ui/room';
import { Next, Note, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';

export default function SeasonsRoom() {
  return <StationPage>{(data) => <Seasons data={data} />}</StationPage>;
}

function Seasons({ data }: { readonly data: StationData }) {
  const samples = useSamples(data.sweeps).data;
  const summaries = useLogSummaries(data.logs).data;
  const rows = samples && summaries && seasonRows(data, samples, summaries);
  return (
    <Room
      title="Seasons, Notebook"
      verdict={<Verdict rows={rows} />}
      margin={
        <>
          <Note title="What is compared">
            <p>
              The last four weeks or so that were measured, with the same weeks of an earlier year; where there is no
              such year, with the season before. Values of one day count as one.
            </p>
          </Note>
          <Note title="When it moved">
            <p>
              When the interval of 95 % (Welch&apos;s, widened by what one measurement resolves) leaves zero out. A
              single day on each side has no scatter of its own: then the resolution of the sweep or the trial&apos;s
              own interval counts.
            </p>
          </Note>
        </>
      }
    >
      {rows && rows.length > 0 ? (
        <Table rows={rows} />
      ) : (
        <div data-evidence className="evidence">
          {rows ? (
            <Empty>
              Nothing was measured in two seasons yet. Sweep an antenna, log a floor or a trial now; next spring the
              same weeks stand side by side here.
            </Empty>
          ) : (
            <p role="status">The sweeps are being read.</p>
          )}
        </div>
      )}
    </Room>
  );
}

const intervalText = ({ shift: { low, high }, unit }: SeasonRow): string =>
  low === null || high === null
    ? 'not known from one day each'
    : `${shiftWords(low, unit)} to ${shiftWords(high, unit)}`;

function Verdict({ rows }: { readonly rows: readonly SeasonRow[] | undefined }) {
  if (!rows) return <>The seasons are laid side by side.</>;
  const moved = rows.filter(({ shift }) => shift.moved);
  const [first] = moved;
  if (rows.length === 0)
    return (
      <>
        No second season yet. <Next>Next: measure now what next year is to be compared with.</Next>
      </>
    );
  if (!first)
    return (
      <>
        Nothing moved by more than its interval since {rows[0].then}.{' '}
        <Next>Next: measure the same again next season.</Next>
      </>
    );
  return (
    <>
      The {first.what} of {first.about} moved {shiftWords(first.shift.shift, first.unit)} since {first.then}
      {first.cause ? `: ${first.cause.means}` : ''}.{' '}
      <Next>
        {first.known.length > 0
          ? 'Next: see below whether what happened since explains it.'
          : first.cause
            ? `Next: look for ${first.cause.look[0]}.`
            : 'Next: measure it once more before you believe it.'}
      </Next>
    </>
  );
}

function Table({ rows }: { readonly rows: readonly SeasonRow[] }) {
  return (
    <Wide evidence label="Seasons side by side">
      <table className="w-full text-sm">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Seasons</th>
            <th scope="col">Moved by</th>
            <th scope="col">95 % interval</th>
            <th scope="col">Days</th>
            <th scope="col">Why, or where to look</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.what} ${row.about}`}>
              <th scope="row" className="text-ink">
                {row.what}
                <span className="block text-dim">{row.about}</span>
              </th>
              <td>
                {row.now} and {row.then}
                {!row.same && <span className="block text-dim">other weeks of the year</span>}
              </td>
              <td className={`font-mono whitespace-nowrap ${row.shift.moved ? 'font-semibold' : 'text-dim'}`}>
                {shiftWords(row.shift.shift, row.unit)}
              </td>
              <td className="font-mono whitespace-nowrap">{intervalText(row)}</td>
              <td className="font-mono whitespace-nowrap">
                {row.shift.days.now} and {row.shift.days.then}
              </td>
              <td>
                {row.shift.moved
                  ? [...row.known, causeText(row)].filter((one) => one !== '').join('; ') || 'not known'
                  : 'within its interval'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
