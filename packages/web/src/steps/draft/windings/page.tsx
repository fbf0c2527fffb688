import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Coupling, TuningRange, Winding } from './coils';
import { Choke, Transformer } from './transformer';

export default function WindingsRoom() {
  return (
    <StationPage>
      {() => (
        <Room
          title="Windings, Draft"
          verdict={
            <>
              Too few turns lose the low end, too many the high end.{' '}
              <Next>Next: type your core; the curve follows.</Next>
            </>
          }
          margin={
            <>
              <Note title="Which figure of a core">
                <p>
                  A_L in nH per turn², from its sheet or from one test winding: inductance over turns squared. It
                  differs by a fifth from core to core, and falls with frequency.
                </p>
              </Note>
              <Note title="Chokes">
                <p>
                  Resistance counts, not reactance: a coil alone can resonate with the line and make the current larger.
                </p>
              </Note>
            </>
          }
        >
          <Transformer />
          <Choke />
          <Winding />
          <TuningRange />
          <Coupling />
        </Room>
      )}
    </StationPage>
  );
}
