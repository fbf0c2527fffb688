import { countText } from '@velvet-reed/core/units';
import { useEffect, useMemo, useRef, useState } from 'react';
import { targetChoices } from '@velvet-reed/station/derive';
import { loadLogSummaries } from '../../../data/logs';
import { useMoment } from '../../../data/moment';
import { loadPatterns } from '../../../data/patterns';
import { useRanking } from '../../../data/ranking';
import { loadSamples } from '../../../data/samples';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble } from '../../../data/station';
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
          {chosen.readings.length} pairs. <Next>Next: save it as a page, which also prints, or as PDF.</Next>
        </>
      }
      margin={
        <>
          <Note title="Same station, same report">
            <p>
              But for the date at its head nothing changes between two reports of one station, once its ranking is
              computed.
            </p>
          </Note>
          <Note title="Checksums">
            <p>Every imported file stands in the report with its SHA-256: a figure can be traced to bytes.</p>
          </Note>
          <Note title="For screen readers">
            <p>
              The page (HTML) has its language, headings, tables with their heads and a text for each drawing, and
              prints on A4. The PDF has none of these tags: it is for paper alone.
            </p>
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

/** The page of HTML stands first: the layout package of the PDF (pdfmake on pdfkit) writes no tags. */
const FORMATS: readonly (readonly [ReportFormat, string])[] = [
  ['html', 'Save the report as a page'],
  ['pdf', 'Save the report as PDF'],
  ['csv', 'Tables as CSV'],
  ['zip', 'Each table and picture, in a ZIP'],
  ['png', 'Charts as PNG'],
];

function Save({ data, choice }: { readonly data: StationData; readonly choice: ReportChoice }) {
  const { atMs } = useMoment();
  const targets = useMemo(() => targetChoices(data, atMs), [data, atMs]);
  const { ranked, complete, answered, asked } = useRanking(data, { targets, view: 'quiet' });
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
      const [{ saveReport }, patterns, samples, summaries] = await Promise.all([
        import('./report-pdf'),
        loadPatterns(data.logs),
        loadSamples(data.sweeps),
        loadLogSummaries(data.logs),
      ]);
      const unfinished = complete ? {} : { unfinished: { answered, asked } };
      await saveReport({ data, samples, ranked, ...unfinished, patterns, summaries }, choice, as, {
        onStep: setShare,
        signal: control.signal,
      });
    } catch (error) {
      if (!control.signal.aborted) showTrouble(error);
    } finally {
      setShare(undefined);
    }
  };
  const busy = share !== undefined;
  return (
    <Section title="Save it" hint="the whole path with its charts, tables and checksums">
      <div className="flex flex-wrap gap-3">
        {FORMATS.map(([as, label]) => (
          <Button key={as} look={as === 'html' ? 'main' : 'plain'} busy={busy} onClick={() => void make(as)}>
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
          : !complete &&
            `The wire model is still ranking the antennas: ${answered} of ${asked}. A report saved now holds what is known by now, and says so.`}
      </p>
    </Section>
  );
}
