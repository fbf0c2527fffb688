import { Averaging } from './averaging';
import { SMeter } from './s-meter';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';

export default function MetersRoom() {
  return (
    <StationPage>
      {() => (
        <Room
          title="Meters, Noise"
          verdict={
            <>
              S9 is −73 dBm below 30 MHz and −93 dBm above; one S unit is 6 dB, on meters that keep the standard.{' '}
              <Next>Next: type a reading, and see it in every unit.</Next>
            </>
          }
          margin={
            <Note title="What meters do">
              <p>
                Most keep the standard only near S9. Below S5 a unit is often 3 dB: differences read there are not 6 dB
                a unit.
              </p>
            </Note>
          }
        >
          <SMeter />
          <Averaging />
        </Room>
      )}
    </StationPage>
  );
}
