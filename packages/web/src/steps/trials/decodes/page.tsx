import { capital, countText } from '@velvet-reed/core/units';
import { LongLogs } from '../../../ui/long-logs';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BlockCounts } from './block-counts';
import { FollowDecodes } from './follow';
import { ModePlan } from './mode-plan';
import { DecodeStatistics } from './statistics';

const DECODES = {
  title: 'Decodes',
  hint: 'what a decoding program heard, one row each: time, frequency, SNR, who, where',
  empty: 'No decodes yet. Export them as a table from the program that decodes, and take the file here.',
  value: 'SNR, dB',
};

export default function DecodesRoom() {
  return (
    <StationPage>
      {(data) => {
        const logs = data.logs.filter(({ kind }) => kind === 'decodes');
        const rows = logs.reduce((sum, one) => sum + one.rows, 0);
        return (
          <Room
            title="Counts and decodes, Trials"
            verdict={
              logs.length === 0 ? (
                <>
                  Decodes and counts judge an antenna without listening to it.{' '}
                  <Next>Next: import a night of decodes, or count in blocks, below.</Next>
                </>
              ) : (
                <>
                  {capital(countText(logs.length, 'night'))} with {rows.toLocaleString('en')} decodes.{' '}
                  <Next>
                    {logs.some((one, i) =>
                      logs.slice(i + 1).some((other) => other.first <= one.last && one.first <= other.last),
                    )
                      ? 'Next: look at the same slots, below: there the antennas differ by what one alone heard.'
                      : 'Next: the same nights on the other antenna, so that they can be held against each other.'}
                  </Next>
                </>
              )
            }
            margin={
              <Note title="A fair count">
                <p>
                  Blocks of equal length, alternating between the antennas, the same receiver and settings. One pair of
                  blocks says nothing of scatter.
                </p>
              </Note>
            }
          >
            <LongLogs evidence data={data} kind="decodes" words={DECODES} />
            <FollowDecodes data={data} />
            <DecodeStatistics data={data} logs={logs} />
            <BlockCounts data={data} />
            <ModePlan />
          </Room>
        );
      }}
    </StationPage>
  );
}
