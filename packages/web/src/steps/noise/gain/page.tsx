import { GainSetting } from './gain-setting';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';

export default function GainRoom() {
  return (
    <StationPage>
      {() => (
        <Room
          title="Gain, Noise"
          verdict={
            <>
              Enough gain is when the noise of the antenna follows it; more only brings overload nearer.{' '}
              <Next>Next: type your readings; the curve bends where the antenna takes over.</Next>
            </>
          }
          margin={
            <Note title="How to read it">
              <p>Antenna on, a quiet frequency, no automatic gain. One row a setting: gain, and the noise it shows.</p>
            </Note>
          }
        >
          <GainSetting />
        </Room>
      )}
    </StationPage>
  );
}
