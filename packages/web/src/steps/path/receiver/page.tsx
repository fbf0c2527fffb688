import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom, type PathState } from '../path-room';
import { usePathTools } from '../use-path-tools';
import { DialAndTone } from './dial-and-tone';
import { Compatibility, SetupCards } from './receiver-tools';
import { StrongSignals } from './strong-signals';

export default function ReceiverRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Receiver, Path"
          verdict={({ target }) => (
            <>
              How each receiver is set up for {target.name}: its mode, its ghosts, the filter it needs, its floor.{' '}
              <Next>Next: read the frequency of a standard once, and its error is known.</Next>
            </>
          )}
        >
          {(path) => <Sheet path={path} />}
        </PathRoom>
      )}
    </StationPage>
  );
}

function Sheet({ path: state }: { readonly path: PathState }) {
  const { wanted } = usePathTools(state);
  return (
    <>
      <SetupCards receivers={state.data.receivers} wanted={wanted} />
      <DialAndTone />
      <StrongSignals />
      <Compatibility station={state.data.station} />
    </>
  );
}
