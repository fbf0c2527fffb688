import { countText } from '@velvet-reed/core/units';
import { useEffect, useMemo, useRef, useState } from 'react';
import { targetChoices } from '../../../data/derive';
import { useLogSummaries } from '../../../data/logs';
import { useMoment } from '../../../data/moment';
import { loadPatterns } from '../../../data/patterns';
import { useRanking } from '../../../data/ranking';
import { useSamples } from '../../../data/samples';
import { showTrouble, type StationData } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { chosenData, periodFault, type ReportChoice, SECTIONS } from './report';
import type { ReportFormat } from './report-pdf';
import { useChoice } from './use-choice';

export default function ReportRoom() {
  return <StationPage>{(data) => <Report data={data} />}</StationPage>;
}

function Report({ data }: { readonly data: StationData }) {
  const { choice, setChoice } = useChoice(data.station.id);
  const chosen = useMemo(() => chosenData(data, choice), [data, choice]);
  const sections = SECTIONS.length - choice.without.length;
  return (
    <Room
      title="Report, Notebook"
      verdict={
        <>
          The report says what the rooms say, from the same verdicts: {sections} of {SECTIONS.length} sections,{' '}
          {chosen.antennas.length} of {data.antennas.length} antennas, {chosen.sweeps.length} sweeps,{' '}
          {chosen.readings.length} pairs. <Next>Next: save it as PDF, or its tables.</Next>
        </>
      }
      margin={
        <>
          <Note title="Same station, same report">
            <p>But for the date at its head nothing changes between two reports of one station.</p>
          </Note>
          <Note title="Checksums">
            <p>Every imported file stands in the report with its SHA-256: a figure can be traced to bytes.</p>
          </Note>
          <Note title="For screen readers">
            <p>The page of HTML has headings and tables with their heads; the PDF is for paper and is not tagged.</p>
          </Note>
        </>
      }
    >
      <Contents data={data} chosen={chosen} choice={choice} onChoice={setChoice} />
      <Save data={data} choice={choice} />
      <Bounds data={data} choice={choice} onChoice={setChoice} />
    </Room>
  );
}

const toggled = <T,>(list: readonly T[], one: T): readonly T[] =>
  list.includes(one) ? list.filter((other) => other !== one) : [...list, one];

/** How much of each section the chosen records hold. */
const holds = (data: StationData): Readonly<Record<string, string>> => ({
  listen: `${countText(data.targets.length, 'target')}, ${countText(data.transmitters.length, 'transmitter')}`,
  plot: `${countText(data.plotFeatures.length, 'feature')}, the plan drawn`,
  choose: 'the ranking as it stands',
  antennas: `${countText(data.antennas.length, 'antenna')}, ${countText(data.sweeps.length, 'sweep')}, ${countText(data.trimSteps.length, 'cut')}`,
  trials: `${countText(data.trials.length, 'trial')}, ${countText(data.readings.length, 'pair')}`,
  patterns: `${countText(data.logs.filter(({ kind }) => kind === 'pattern').length, 'pattern')}, drawn`,
  noise: `${countText(data.levels.length, 'level')}, the last evening drawn`,
  bearings: `${countText(data.nullLogs.length, 'turn')}`,
  path: `${countText(data.paths.length, 'path')}, levels drawn`,
  guard: `${countText(data.guardPlans.length, 'transmitter')} planned for`,
  seasons: 'what moved since last year',
  upkeep: `${data.upkeep.length} on watch`,
  diary: `${countText(data.entries.length, 'line')}, ${countText(data.attachments.length, 'raw file')}`,
});

interface Choosing {
  readonly choice: ReportChoice;
  readonly onChoice: (choice: ReportChoice) => void;
}

function Contents({
  chosen,
  choice,
  onChoice,
}: Choosing & { readonly data: StationData; readonly chosen: StationData }) {
  const held = holds(chosen);
  return (
    <Wide evidence label="What goes into the report">
      <table className="w-full max-w-4xl text-sm">
        <thead>
          <tr>
            <th scope="col">Section</th>
            <th scope="col">Holds</th>
            <th scope="col">Words of your own at its head</th>
          </tr>
        </thead>
        <tbody>
          {SECTIONS.map(({ id, name }) => (
            <tr key={id}>
              <th scope="row" className="text-ink">
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    checked={!choice.without.includes(id)}
                    onChange={() => onChoice({ ...choice, without: toggled(choice.without, id) })}
                  />
                  {name}
                </label>
              </th>
              <td className="text-dim">{held[id]}</td>
              <td>
                <input
                  className="w-full min-w-48"
                  aria-label={`Words at the head of ${name}`}
                  maxLength={400}
                  value={choice.captions[id] ?? ''}
                  onChange={(event) =>
                    onChoice({ ...choice, captions: { ...choice.captions, [id]: event.target.value } })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

function Bounds({ data, choice, onChoice }: Choosing & { readonly data: StationData }) {
  const fault = periodFault(choice);
  return (
    <Section title="Period and antennas" hint="what carries no date is always in">
      <div className="flex flex-wrap items-end gap-4 text-sm text-dim">
        <label>
          From
          <input
            type="date"
            className="block text-ink"
            value={choice.from}
            onChange={(event) => onChoice({ ...choice, from: event.target.value })}
          />
        </label>
        <label>
          To
          <input
            type="date"
            className="block text-ink"
            value={choice.to}
            onChange={(event) => onChoice({ ...choice, to: event.target.value })}
          />
        </label>
        {fault && (
          <p role="alert" className="basis-full text-danger">
            {fault}
          </p>
        )}
        {data.antennas.map(({ id, name }) => (
          <label key={id} className="flex min-h-9 items-center gap-2 text-ink">
            <input
              type="checkbox"
              checked={!choice.withoutAntennas.includes(id)}
              onChange={() => onChoice({ ...choice, withoutAntennas: toggled(choice.withoutAntennas, id) })}
            />
            {name}
          </label>
        ))}
      </div>
    </Section>
  );
}

const FORMATS: readonly (readonly [ReportFormat, string])[] = [
  ['pdf', 'Save the report as PDF'],
  ['html', 'One page of HTML'],
  ['csv', 'Tables as CSV'],
  ['zip', 'Each table and picture, in a ZIP'],
  ['png', 'Charts as PNG'],
];

function Save({ data, choice }: { readonly data: StationData; readonly choice: ReportChoice }) {
  const { atMs } = useMoment();
  const targets = useMemo(() => targetChoices(data, atMs), [data, atMs]);
  const { ranked, complete, answered, asked } = useRanking(data, { targets, view: 'quiet' });
  const summaries = useLogSummaries(data.logs).data;
  const samples = useSamples(data.sweeps).data;
  // fonts and the layout are read while the listener looks at the list
  useEffect(() => void import('./report-pdf').then(({ prepareLayout }) => prepareLayout()), []);
  const [share, setShare] = useState<number>();
  const under = useRef<AbortController>(undefined);
  const make = async (as: ReportFormat): Promise<void> => {
    const fault = periodFault(choice);
    if (fault !== undefined) return showTrouble(new Error(fault));
    const control = new AbortController();
    under.current = control;
    setShare(0);
    try {
      const [{ saveReport }, patterns] = await Promise.all([import('./report-pdf'), loadPatterns(data.logs)]);
      await saveReport(
        { data, samples: samples ?? new Map(), ranked, patterns, summaries: summaries ?? new Map() },
        choice,
        as,
        {
          onStep: setShare,
          signal: control.signal,
        },
      );
    } catch (error) {
      if (!control.signal.aborted) showTrouble(error);
    } finally {
      setShare(undefined);
    }
  };
  const busy = share !== undefined;
  // what a station does not have is not waited for
  const waiting = busy || !complete || (!summaries && data.logs.length > 0) || (!samples && data.sweeps.length > 0);
  return (
    <Section title="Save it" hint="the whole path with its charts, tables and checksums">
      <div className="flex flex-wrap gap-3">
        {FORMATS.map(([as, label]) => (
          <Button key={as} look={as === 'pdf' ? 'main' : 'plain'} busy={waiting} onClick={() => void make(as)}>
            {label}
          </Button>
        ))}
        {busy && (
          <Button look="quiet" onClick={() => under.current?.abort()}>
            Leave it
          </Button>
        )}
      </div>
      {/* its room stays when it is done: nothing below may move under a finger */}
      <p role="status" className="mt-1 min-h-10 text-sm text-dim sm:min-h-5">
        {busy
          ? `The pages are laid out: ${Math.round(100 * share)} %.`
          : !complete && `The wire model is still ranking the antennas for it: ${answered} of ${asked}.`}
      </p>
    </Section>
  );
}
