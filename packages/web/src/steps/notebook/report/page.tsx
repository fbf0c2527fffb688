import { countText } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { targetChoices } from '../../../data/derive';
import { useMoment } from '../../../data/moment';
import { useRanking } from '../../../data/ranking';
import { loadSamples } from '../../../data/samples';
import { showTrouble, type StationData } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';

export default function ReportRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Report, Notebook"
          verdict={
            <>
              The report says what every room says, from the same verdicts: {countText(data.antennas.length, 'antenna')}
              , {countText(data.sweeps.length, 'sweep')}, {countText(data.trials.length, 'trial')}.{' '}
              <Next>Next: save it as PDF, or its tables as CSV.</Next>
            </>
          }
          margin={
            <Note title="Checksums">
              <p>Every imported file stands in the report with its SHA-256: a figure can be traced to bytes.</p>
            </Note>
          }
        >
          <Contents data={data} />
          <Report data={data} />
        </Room>
      )}
    </StationPage>
  );
}

/** What will stand in it. */
function Contents({ data }: { readonly data: StationData }) {
  const rows: readonly (readonly [string, string])[] = [
    ['Listen', `${countText(data.targets.length, 'target')}, ${countText(data.transmitters.length, 'transmitter')}`],
    ['Plot and Choose', `${countText(data.plotFeatures.length, 'feature')} of the plan, the ranking`],
    [
      'Draft and Bench',
      `${countText(data.antennas.length, 'antenna')}, ${countText(data.sweeps.length, 'sweep')}, ${countText(data.trimSteps.length, 'trim step')}`,
    ],
    ['Trials', `${countText(data.trials.length, 'trial')}, ${countText(data.readings.length, 'pair')}`],
    ['Noise', countText(data.levels.length, 'level')],
    [
      'Path and Guard',
      `${countText(data.paths.length, 'path')}, ${countText(data.guardPlans.length, 'transmitter')} planned for`,
    ],
    ['Notebook', `${countText(data.entries.length, 'line')}, ${countText(data.attachments.length, 'raw file')}`],
  ];
  return (
    <Wide evidence label="What the report holds">
      <table className="w-full max-w-2xl">
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Holds</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([part, holds]) => (
            <tr key={part}>
              <th scope="row" className="text-ink">
                {part}
              </th>
              <td>{holds}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

const FORMATS = [
  ['pdf', 'Save the report as PDF'],
  ['csv', 'Tables as CSV'],
  ['png', 'Charts as PNG'],
] as const;

function Report({ data }: { readonly data: StationData }) {
  const { atMs } = useMoment();
  const targets = useMemo(() => targetChoices(data, atMs), [data, atMs]);
  const { ranked, complete, answered, asked } = useRanking(data, { targets, view: 'quiet' });
  const [busy, setBusy] = useState(false);
  const make = async (as: (typeof FORMATS)[number][0]): Promise<void> => {
    setBusy(true);
    try {
      const { saveReport } = await import('../report/report-pdf');
      await saveReport({ data, samples: await loadSamples(data.sweeps), ranked }, as);
    } catch (error) {
      showTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  const waiting = busy || !complete;
  return (
    <Section title="Report" hint="the whole path with its charts, tables and checksums">
      <div className="flex flex-wrap gap-3">
        {FORMATS.map(([as, label]) => (
          <Button key={as} look={as === 'pdf' ? 'main' : 'plain'} busy={waiting} onClick={() => void make(as)}>
            {label}
          </Button>
        ))}
      </div>
      {/* its room stays when it is done: nothing below may move under a finger */}
      <p role="status" className="mt-1 min-h-10 text-sm text-dim sm:min-h-5">
        {!complete && `The wire model is still ranking the antennas for it: ${answered} of ${asked}.`}
      </p>
    </Section>
  );
}
