import { surveySummary } from '@velvet-reed/core/trial';
import { levelsOf } from '@velvet-reed/station/levels';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Survey } from './survey';

export default function SurveyRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Survey, Listen"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <Note title="One round, ten signals">
                <p>
                  Level on the signal, noise beside it, the same bandwidth and no automatic gain. Then the other
                  antenna.
                </p>
              </Note>
            </>
          }
        >
          <Survey data={data} />
        </Room>
      )}
    </StationPage>
  );
}

/** Which antenna heard most so far. */
function Verdict({ data }: { readonly data: StationData }) {
  const { surveys } = levelsOf(data);
  const rows = surveys.flatMap((one) => (one.antennaId === null ? [] : [{ ...one, antennaId: one.antennaId }]));
  const [best] = [...surveySummary(rows)].sort((a, b) => b.heard - a.heard || b.medianSnrDb - a.medianSnrDb);
  const name = best && data.antennas.find(({ id }) => id === best.antennaId)?.name;
  return best && name ? (
    <>
      {name} heard {best.heard} of {best.asked} signals.{' '}
      <Next>Next: the same round on another antenna, in the same hour.</Next>
    </>
  ) : (
    <>
      Nothing was surveyed yet.{' '}
      <Next>Next: tune to the first signal below, and note its level and the noise beside it.</Next>
    </>
  );
}
